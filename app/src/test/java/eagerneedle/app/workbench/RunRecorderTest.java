package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.driver.Driver;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** What becomes of samples when the disk is slow, refuses for a while, or is full. */
class RunRecorderTest {
    private static final int SIZE = 100;
    private final List<Double> written = new ArrayList<>();

    private static Driver.Block block(int k) {
        double[] t = new double[SIZE];
        double[][] v = new double[2][SIZE];
        for (int i = 0; i < SIZE; i++) {
            t[i] = (k * SIZE + i) / 1e3;
            v[0][i] = k * SIZE + i;
            v[1][i] = -v[0][i];
        }
        return new Driver.Block(t, v);
    }

    private synchronized void write(int run, Map<String, RawSamples> samples) {
        RawSamples a = samples.get("a");
        for (int i = 0; i < a.size(); i++) {
            written.add(a.values()[i]);
            assertThat(samples.get("b").values()[i]).isEqualTo(-a.values()[i]);
        }
    }

    private static void await(BooleanSupplier condition) throws InterruptedException {
        long end = System.nanoTime() + 10_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).isLessThan(end);
            Thread.sleep(10);
        }
    }

    private static Map<String, Integer> columns() {
        Map<String, Integer> c = new LinkedHashMap<>();
        c.put("a", 0);
        c.put("b", 1);
        return c;
    }

    @Test
    void aDiskThatRefusesForAWhileCostsNothing() throws Exception {
        AtomicBoolean full = new AtomicBoolean(true);
        try (RunRecorder r = new RunRecorder(
                1,
                (run, s) -> {
                    if (full.get()) {
                        throw new IllegalStateException("No room.");
                    }
                    write(run, s);
                },
                columns(),
                0,
                1_000_000)) {
            for (int k = 0; k < 20; k++) {
                r.take(block(k));
            }
            await(() -> r.trouble().equals("No room."));
            assertThat(r.kept()).isZero();
            full.set(false);
            await(() -> r.kept() == 20 * SIZE);
            assertThat(r.trouble()).isEmpty();
            assertThat(r.lost()).isZero();
        }
        assertThat(written).hasSize(20 * SIZE).isSorted();
    }

    @Test
    void whatAFullDiskCostsIsCountedAndSaidAndWhatWasKeptIsWhole() throws Exception {
        AtomicInteger room = new AtomicInteger(5 * SIZE);
        RunRecorder r = new RunRecorder(
                1,
                (run, s) -> {
                    if (room.addAndGet(-s.get("a").size()) < 0) {
                        room.set(0);
                        throw new IllegalStateException("No room.");
                    }
                    write(run, s);
                },
                columns(),
                0,
                3L * SIZE * 10);
        for (int k = 0; k < 5; k++) {
            r.take(block(k));
        }
        await(() -> r.kept() == 5 * SIZE);
        for (int k = 5; k < 30; k++) {
            r.take(block(k));
        }
        assertThat(r.lost()).as("ten blocks may wait").isEqualTo(15 * SIZE);
        r.close();
        assertThat(r.lost()).isEqualTo(25 * SIZE);
        assertThat(r.kept() + r.lost()).as("nothing is silently gone").isEqualTo(30 * SIZE);
        assertThat(r.trouble()).isEqualTo("2500 samples of each channel could not be kept: No room.");
        assertThat(written).hasSize(5 * SIZE).isSorted();
    }

    @Test
    @Timeout(60)
    void aSlowDiskHoldsNobodyUp() {
        CountDownLatch diskIsThere = new CountDownLatch(1);
        try (RunRecorder r = new RunRecorder(
                1,
                (run, s) -> {
                    try {
                        diskIsThere.await();
                    } catch (InterruptedException e) {
                        Thread.currentThread().interrupt();
                    }
                    write(run, s);
                },
                columns(),
                2.5,
                1_000_000)) {
            for (int k = 0; k < 100; k++) {
                r.take(block(k));
            }
            // A driver that had to wait for the disk would never come here.
            assertThat(written).isEmpty();
            diskIsThere.countDown();
        }
        assertThat(written).hasSize(100 * SIZE).isSorted();
    }
}

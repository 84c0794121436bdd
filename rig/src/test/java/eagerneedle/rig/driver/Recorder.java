package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BooleanSupplier;

/** Keeps what a driver says, for tests. */
final class Recorder implements Driver.Sink {
    final List<double[]> rows = new CopyOnWriteArrayList<>();
    final List<Driver.State> states = new CopyOnWriteArrayList<>();
    final List<String> sentences = new CopyOnWriteArrayList<>();

    @Override
    public void block(Driver.Block block) {
        for (int i = 0; i < block.size(); i++) {
            double[] row = new double[block.counts().length + 1];
            row[0] = block.time()[i];
            for (int c = 0; c < block.counts().length; c++) {
                row[c + 1] = block.counts()[c][i];
            }
            rows.add(row);
        }
    }

    @Override
    public void state(Driver.State state, String sentence) {
        states.add(state);
        sentences.add(sentence);
    }

    /** Waits until more rows have come than there were. */
    void more(int n) {
        int before = rows.size();
        await(() -> rows.size() >= before + n);
    }

    void timesRise() {
        List<double[]> seen = new ArrayList<>(rows);
        for (int i = 1; i < seen.size(); i++) {
            assertThat(seen.get(i)[0]).isGreaterThan(seen.get(i - 1)[0]);
        }
    }

    static void await(BooleanSupplier condition) {
        long end = System.nanoTime() + 12_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("the condition came in time").isLessThan(end);
            try {
                Thread.sleep(10);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    /** Waits until no thread of a kind is left. */
    static void noThreadIsLeft(String... prefixes) {
        await(() -> Thread.getAllStackTraces().keySet().stream()
                .noneMatch(t ->
                        List.of(prefixes).stream().anyMatch(p -> t.getName().startsWith(p))));
    }
}

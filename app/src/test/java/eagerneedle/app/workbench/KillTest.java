package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.bench.BenchFile;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A program killed at a random moment of capture and editing loses no edit, no sample that it said was kept, and at
 * most the last half second of samples. The half second is asked of a machine that goes on: where the program, or the
 * disk under its recorder, stood still, only the first two are, and it is killed once more.
 */
class KillTest {
    private static final int TIMES = Integer.getInteger("kills", 10);
    private static final int STILL_MS = 100;
    private static final int WRITING_MS = 350;
    private static final int MOST_STILL = 3 * TIMES / 10;

    @TempDir
    private Path folder;

    private final java.util.concurrent.atomic.AtomicInteger still = new java.util.concurrent.atomic.AtomicInteger();

    /** What was heard from the program before it died: when, and how many samples or acts. */
    private record Heard(long nanos, String what, long count) {}

    @Test
    void killedAtRandomMoments() throws Exception {
        ExecutorService two = Executors.newFixedThreadPool(2);
        try {
            Random random = new Random(Integer.getInteger("kills", 10));
            List<Future<String>> all = new ArrayList<>();
            for (int i = 0; i < TIMES; i++) {
                Path file = folder.resolve("killed" + i + ".needle");
                long after = (long) (random.nextDouble() * 900);
                all.add(two.submit((Callable<String>) () -> killed(file, after)));
            }
            for (Future<String> f : all) {
                assertThat(f.get(240, TimeUnit.SECONDS)).isEmpty();
            }
            // On a busy machine it is killed some more times, until the half second was asked often enough.
            int killed = TIMES;
            for (; killed < 2 * TIMES && killed - still.get() < TIMES - MOST_STILL; killed++) {
                assertThat(killed(folder.resolve("killed" + killed + ".needle"), (long) (random.nextDouble() * 900)))
                        .isEmpty();
            }
            assertThat(killed - still.get())
                    .as("times at which the machine went on")
                    .isGreaterThanOrEqualTo(TIMES - MOST_STILL);
        } finally {
            two.shutdownNow();
        }
    }

    private String killed(Path path, long millis) throws IOException, InterruptedException {
        Process p = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        "-Xmx300m",
                        "-cp",
                        System.getProperty("surefire.real.class.path", System.getProperty("java.class.path")),
                        KilledProgram.class.getName(),
                        path.toString())
                .redirectErrorStream(true)
                .start();
        List<Heard> heard = new ArrayList<>();
        long death = Long.MAX_VALUE;
        boolean ready = false;
        StringBuilder other = new StringBuilder();
        try (BufferedReader in = new BufferedReader(new InputStreamReader(p.getInputStream()))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                long now = System.nanoTime();
                if (line.equals("ready")) {
                    ready = true;
                    death = now + millis * 1_000_000L;
                } else if (line.startsWith("act ") || line.startsWith("samples ") || line.startsWith("kept ")) {
                    heard.add(new Heard(
                            now, line.substring(0, 3), Long.parseLong(line.substring(line.indexOf(' ') + 1))));
                } else {
                    other.append(line).append('\n');
                }
                if (now >= death) {
                    p.destroyForcibly();
                    break;
                }
            }
        } finally {
            p.destroyForcibly();
        }
        long killed = System.nanoTime();
        p.waitFor();
        if (!ready) {
            return "the program did not start: " + other;
        }
        long acts = heard.stream()
                .filter(h -> h.what().equals("act"))
                .mapToLong(Heard::count)
                .max()
                .orElse(0);
        long said = heard.stream()
                .filter(h -> h.what().equals("kep"))
                .mapToLong(Heard::count)
                .max()
                .orElse(0);
        boolean stood = stoodStill(heard, killed, "", STILL_MS) || stoodStill(heard, killed, "kep", WRITING_MS);
        still.addAndGet(stood ? 1 : 0);
        long samples = stood
                ? said
                : Math.max(
                        said,
                        heard.stream()
                                .filter(h -> h.what().equals("sam") && h.nanos() < killed - 500_000_000L)
                                .mapToLong(Heard::count)
                                .max()
                                .orElse(0));
        try (BenchFile file = BenchFile.open(path)) {
            RawSamples kept = file.samples(1, "position");
            if (!file.integrity().equals("ok")) {
                return "integrity: " + file.integrity();
            }
            if (file.session().notes().size() < acts) {
                return "only " + file.session().notes().size() + " of " + acts + " edits are there";
            }
            if (kept.size() < samples) {
                return "only " + kept.size() + " of " + samples + " samples are there";
            }
            for (int i = 0; i < kept.size(); i++) {
                if (kept.values()[i] != (long) i * 7919 % 10_007) {
                    return "sample " + i + " is another";
                }
            }
            if (samples > 0 && file.unfinished(file.session()).size() != 1) {
                return "the run is not found again";
            }
        }
        Files.deleteIfExists(path);
        return "";
    }

    /** True when there was nothing to hear of a kind for longer than so many ms. */
    private static boolean stoodStill(List<Heard> heard, long killed, String kind, int most) {
        long last = heard.isEmpty() ? killed : heard.get(0).nanos();
        for (Heard h : heard) {
            if (h.what().startsWith(kind)) {
                if (h.nanos() - last > most * 1_000_000L) {
                    return true;
                }
                last = h.nanos();
            }
        }
        return killed - last > most * 1_000_000L;
    }
}

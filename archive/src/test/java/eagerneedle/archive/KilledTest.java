package eagerneedle.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A run that is killed at any moment leaves an archive that answers, and the next run makes it whole. */
class KilledTest {
    private static final int SESSIONS = 3;
    /** Ten in the long run. */
    private static final int TIMES = Integer.getInteger("archiveKills", 3);

    private static final String COUNTS = """
            select (select count(*) from sessions), (select count(*) from runs), (select count(*) from samples),
              (select count(*) from quantities), (select sum(v) from samples)
            """;

    @TempDir
    private Path room;

    private static Process started(Path folder, Path to) throws IOException {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-cp",
                        System.getProperty("surefire.test.class.path", System.getProperty("java.class.path")),
                        "eagerneedle.archive.Main",
                        "archive",
                        folder.toString(),
                        "--into",
                        to.toString())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
    }

    private static List<Object> counts(Path archive) {
        try (Asking asking = new Asking(Archive.at(archive))) {
            return asking.ask(COUNTS, 1).rows().get(0);
        }
    }

    @Test
    void killedAtAnyMomentItIsWholeInTheEnd() throws Exception {
        Path folder = Files.createDirectories(room.resolve("sessions"));
        for (int i = 0; i < SESSIONS; i++) {
            Years.session("signpost-arm", i, "A", "bench 1", folder.resolve(i + ".needle"));
        }
        Path whole = room.resolve("whole");
        long began = System.nanoTime();
        assertThat(started(folder, whole).waitFor()).isZero();
        long takes = System.nanoTime() - began;
        List<Object> wanted = counts(whole);
        assertThat(((Number) wanted.get(0)).intValue()).isEqualTo(SESSIONS);

        int killed = 0;
        for (int i = 1; i <= TIMES; i++) {
            Path to = room.resolve("killed" + i);
            Process p = started(folder, to);
            if (!p.waitFor(takes * i / (TIMES + 1), TimeUnit.NANOSECONDS)) {
                p.destroyForcibly();
                p.waitFor();
                killed++;
            }
            if (Files.isDirectory(to.resolve("batches"))) {
                // What is there answers: all of the batch, or nothing of it.
                List<Object> now = counts(to);
                assertThat(now.equals(wanted) || ((Number) now.get(1)).intValue() == 0)
                        .as("%s", now)
                        .isTrue();
            }
            assertThat(started(folder, to).waitFor()).isZero();
            assertThat(counts(to)).isEqualTo(wanted);
        }
        assertThat(killed).isGreaterThanOrEqualTo(TIMES / 2);
    }
}

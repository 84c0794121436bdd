package eagerneedle.archive;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.archive.Batch.Source;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/**
 * How an archive grows: the metadata of a million simulated runs against a hundred thousand. Size and rows are counted;
 * times are printed, in a ratio, and asserted by nobody.
 */
class GrowthTest {
    private static final int RUNS = 20;
    private static final int SESSIONS_A_BATCH = 2000;

    @TempDir
    private Path room;

    private static void fill(Archive archive, int runs) throws IOException {
        Random random = new Random(5);
        try (Writer w = new Writer(archive)) {
            for (int i = 0; i < runs / RUNS; i++) {
                String session = "s" + i;
                String method = "method-" + i % 7;
                int year = 2015 + i % 10;
                Instant at = Instant.parse(year + "-03-01T09:00:00Z").plusSeconds(i);
                w.add(
                        ArchiveTable.SESSIONS,
                        session,
                        method,
                        year,
                        "title",
                        "bench " + i % 12,
                        SessionRows.term(at),
                        SessionRows.years(at),
                        at,
                        RUNS,
                        100_000L);
                for (int r = 1; r <= RUNS; r++) {
                    w.add(ArchiveTable.RUNS, session, method, year, r, "capture", "level " + r % 5, at, 4000L, true);
                    w.add(
                            ArchiveTable.QUANTITIES,
                            session,
                            method,
                            year,
                            r,
                            "capture.q",
                            "a quantity",
                            10 + random.nextGaussian(),
                            0.1,
                            12.0,
                            "mm");
                }
                w.add(
                        ArchiveTable.QUANTITIES,
                        session,
                        method,
                        year,
                        null,
                        "R",
                        "the result",
                        10 + random.nextGaussian(),
                        0.3,
                        null,
                        "mm");
                w.source(new Source(session, "d" + i, List.of(), LocalDate.of(2040, 1, 1)));
                if ((i + 1) % SESSIONS_A_BATCH == 0) {
                    w.commit();
                }
            }
            w.commit();
        }
    }

    private static long bytes(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            return all.filter(Files::isRegularFile)
                    .mapToLong(p -> p.toFile().length())
                    .sum();
        }
    }

    /** Seconds to fill and to answer, and bytes. */
    private double[] grown(int runs) throws IOException {
        Path to = room.resolve("grown" + runs);
        Archive archive = Archive.made(to);
        long began = System.nanoTime();
        fill(archive, runs);
        long filled = System.nanoTime();
        try (Asking asking = new Asking(archive)) {
            assertThat(((Number) asking.ask("select count(*) from runs", 1)
                                    .rows()
                                    .get(0)
                                    .get(0))
                            .longValue())
                    .isEqualTo(runs);
            assertThat(asking.ask(Question.RESULTS.sql(""), Integer.MAX_VALUE).rows())
                    .isNotEmpty();
            assertThat(asking.ask(Question.BENCHES.sql(""), Integer.MAX_VALUE).columns())
                    .contains("apart");
        }
        long asked = System.nanoTime();
        return new double[] {(filled - began) / 1e9, (asked - filled) / 1e9, bytes(to)};
    }

    @Test
    void sizeGrowsWithWhatIsTaken() throws IOException {
        double[] small = grown(40_000);
        double[] large = grown(80_000);
        assertThat(large[2] / small[2]).isBetween(1.5, 2.5);
    }

    @Test
    @EnabledIfSystemProperty(named = "growth", matches = "true")
    void aMillionRuns() throws IOException {
        grown(5_000);
        double[] small = grown(100_000);
        double[] large = grown(1_000_000);
        System.out.printf(
                "100 000 runs: %.2f s, asked %.2f s, %.1f MB; 1 000 000: %.2f s, asked %.2f s, %.1f MB; ratios %.2f, %.2f, %.2f%n",
                small[0],
                small[1],
                small[2] / 1e6,
                large[0],
                large[1],
                large[2] / 1e6,
                large[0] / small[0],
                large[1] / small[1],
                large[2] / small[2]);
        assertThat(large[2] / small[2]).isBetween(8.0, 12.0);
    }
}

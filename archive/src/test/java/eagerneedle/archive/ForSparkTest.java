package eagerneedle.archive;

import static eagerneedle.archive.Years.run;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/** Writes an archive and our answers for another engine to be held against, with -Pspark. */
@EnabledIfSystemProperty(named = "forSpark", matches = ".+")
class ForSparkTest {
    private static final int SESSIONS = 12;

    @TempDir
    private Path room;

    @Test
    void anArchiveAndOurAnswers() throws IOException {
        Path to = Path.of(System.getProperty("forSpark"));
        if (Files.exists(to)) {
            try (Stream<Path> old = Files.walk(to)) {
                for (Path p : old.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(p);
                }
            }
        }
        Path folder = Files.createDirectories(room.resolve("sessions"));
        for (int i = 0; i < SESSIONS; i++) {
            boolean scale = i % 3 == 2;
            Years.session(
                    scale ? "letter-scale" : "signpost-arm",
                    i,
                    "A. Alder",
                    "bench " + (i % 4 + 1),
                    folder.resolve(i + ".needle"),
                    i % 4 == 1 && !scale ? new String[] {"b-for-c"} : new String[0]);
        }
        Path stock = room.resolve("stock.db");
        try (Stockroom s = Stockroom.at(stock)) {
            s.bringIn(Stockroom.demonstrationJson());
        }
        assertThat(run("archive", folder, "--into", to, "--stockroom", stock).status())
                .isZero();
        // A session that was replaced counts once for both.
        Files.delete(folder.resolve("0.needle"));
        Years.session("signpost-arm", 40, "A. Alder", "bench 1", folder.resolve("0.needle"));
        assertThat(run("archive", folder, "--into", to).status()).isZero();
        try (Asking asking = new Asking(Archive.at(to))) {
            for (Question q : Question.values()) {
                Answer a = asking.ask(q.sql("2026-11-30"), Integer.MAX_VALUE);
                assertThat(a.rows()).as(q.title()).isNotEmpty();
                Files.writeString(to.resolve(q.title() + ".csv"), a.csv());
            }
        }
    }
}

package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import eagerneedle.app.command.Needle.Said;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is in a file is told, made into a session, and brought into one that exists. */
class LookCommandTest {
    @TempDir
    private Path folder;

    private Path two() throws IOException {
        return Files.writeString(
                folder.resolve("two runs.csv"),
                "time (s),x (mm)\n0,1\n0.1,2\n0.2,3\n0.3,4\ntime (s),x (mm)\n0,10\n0.1,20\n0.2,30\n0.3,40\n");
    }

    @Test
    void theRunsOfAFileAreToldWithTheirNumbers() throws IOException {
        Said said = needle("look", two(), "--json");
        assertThat(said.status()).isZero();
        JsonNode runs = said.json().path("files").path(0).path("runs");
        assertThat(runs).hasSize(2);
        JsonNode second = runs.path(1);
        assertThat(second.path("clock").path("last").asDouble()).isCloseTo(0.3, within(1e-12));
        assertThat(second.path("clock").path("step").asDouble()).isCloseTo(0.1, within(1e-9));
        JsonNode x = second.path("columns").path(0);
        assertThat(x.path("unit").asText()).isEqualTo("mm");
        assertThat(x.path("mean").asDouble()).isEqualTo(25);
        assertThat(x.path("sd").asDouble()).isCloseTo(Math.sqrt(500.0 / 3), within(1e-9));
        assertThat(needle("look", two()).out()).contains("Run 2 of 2 that stand below each other");
    }

    @Test
    void aSessionIsMadeOfWhatIsThere() throws IOException {
        Path session = folder.resolve("s.needle");
        assertThat(needle("look", two(), "-o", session).status()).isZero();
        try (BenchFile file = BenchFile.open(session)) {
            assertThat(file.session().runs()).hasSize(2);
            assertThat(file.samples(2, "x").values()).containsExactly(10, 20, 30, 40);
        }
        assertThat(needle("reduce", session).out()).contains("record[2].x_mean");
        assertThat(needle("look", two(), "-o", session).err()).contains("exists already");
        Path none = Files.writeString(folder.resolve("none.csv"), "a,b\n1,2\n1,3\n");
        Path not = folder.resolve("not.needle");
        Said refused = needle("look", none, "-o", not);
        assertThat(refused.status()).isEqualTo(2);
        assertThat(refused.err()).contains("no column that tells the time");
        assertThat(not).doesNotExist();
    }

    /** A file is added to a session that exists; one that cannot be read leaves it as it was. */
    @Test
    void aFileIsAddedAndAFailedOneLeavesNothingBehind() throws IOException {
        Path session = folder.resolve("s.needle");
        needle("look", two(), "-o", session);
        Path more = Files.writeString(folder.resolve("more.csv"), "time (s),x (mm),lamp\n0,5,1\n0.1,6,1\n0.2,7,1\n");
        Said added = needle("import", more, "--into", session);
        assertThat(added.status()).isZero();
        assertThat(added.out()).contains("Nobody wants 'lamp'; it was not brought in.");
        Path volts = Files.writeString(folder.resolve("v.csv"), "time (s),x (V)\n0,5\n0.1,6\n");
        assertThat(needle("import", volts, "--into", session).status()).isEqualTo(2);
        Path broken = Files.writeString(folder.resolve("b.csv"), "time (s),x (mm)\n0,5\n0.1,six\n");
        assertThat(needle("import", broken, "--into", session).err())
                .contains("line 3, column 'x': 'six' is not a number");
        try (BenchFile file = BenchFile.open(session)) {
            assertThat(file.session().runs()).hasSize(3);
        }
    }
}

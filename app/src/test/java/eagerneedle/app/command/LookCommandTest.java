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
        assertThat(needle("reduce", session).status()).isZero();
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

    /** A sheet over files gives what a session of them gives, and leaves no session behind. */
    @Test
    void aSheetIsReducedOverFilesWithoutASession(@TempDir Path folder) throws IOException {
        Path sheet = Files.writeString(folder.resolve("dip.yaml"), """
                sheet: 2
                id: dip
                title: Dip
                subject: Motion
                channels:
                  x: {label: place, unit: mm, rate: 10, chain: [{kind: converter, label: dial, from: mm, step: 0.01, bits: 16}]}
                captures:
                  go:
                    label: Run
                    channels: [x]
                    repeats: 2
                    quantities:
                      rate: {label: rate, unit: mm/s, formula: slope(x), planned: 2.0(1) mm/s}
                results:
                  both: {label: mean rate, unit: mm/s, formula: mean(go.rate)}
                checks:
                  - {label: Upwards, formula: both > 0 mm/s}
                """);
        Path one = Files.writeString(folder.resolve("one.csv"), "time (s),x (mm)\n0,1\n1,3.1\n2,4.9\n3,7\n");
        Path two = Files.writeString(folder.resolve("two.csv"), "time (s),x (mm)\n0,1\n1,2.1\n2,2.9\n3,4\n");
        Said alone = needle("reduce", sheet, "--data", one, two, "--json");
        assertThat(alone.status()).as(alone.err()).isZero();
        Path session = folder.resolve("s.needle");
        assertThat(needle("import", one, two, "--into", session, "--method", sheet)
                        .status())
                .isZero();
        JsonNode kept = needle("reduce", session, "--json").json();
        JsonNode passing = alone.json();
        assertThat(passing.get("quantities").toString())
                .contains("\"value\":1.48,")
                .isEqualTo(kept.get("quantities").toString());
        assertThat(needle("reduce", sheet, "--data", one).out()).contains("one.csv: 4 rows, go at");
        try (var files = Files.list(folder)) {
            assertThat(files).hasSize(4);
        }
        Path falls = Files.writeString(folder.resolve("f.csv"), "time (s),x (mm)\n0,9\n1,6\n2,4\n3,1\n");
        assertThat(needle("reduce", sheet, "--data", falls, falls).status())
                .as("a check is not met")
                .isEqualTo(1);
        assertThat(needle("reduce", sheet, "--data", folder.resolve("none.csv")).status())
                .isEqualTo(2);
        Path slip = Files.writeString(
                folder.resolve("slip.yaml"), Files.readString(sheet).replace("mean(go.rate)", "mean(go.rat)"));
        assertThat(needle("reduce", slip, "--data", one).err()).contains("slip.yaml, line 15", "did you mean go.rate");
        assertThat(needle("reduce", session, "--level", "a").err()).contains("name them with --data");
        assertThat(needle("reduce", "no-method", "--data", one).status()).isEqualTo(2);
    }
}

package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.command.Needle.Said;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sessions come into a pool by command, publish themselves, change, are left out. */
class PoolCommandTest {
    private static final Path EXAMPLES = Path.of("..", "docs", "examples");

    @TempDir
    private Path folder;

    private Path benches;
    private Path pool;

    private static SheetReader.Located alloy() throws IOException {
        return SheetTrial.read(Files.readString(EXAMPLES.resolve("alloy-arrest.yaml")), "alloy-arrest.yaml");
    }

    @BeforeEach
    void begin() throws IOException {
        benches = Files.createDirectories(folder.resolve("benches"));
        pool = folder.resolve("pool.needle");
        for (int i = 1; i <= 3; i++) {
            Demonstration.simulate(alloy(), i, Set.of(), benches.resolve("bench-" + i + ".needle"));
        }
    }

    private Said begun() {
        return needle("pool", "--into", pool, "--method", EXAMPLES.resolve("alloys-together.yaml"), benches);
    }

    @Test
    void aFolderOfBenchesIsTaken() {
        Said said = begun();
        assertThat(said.status()).isZero();
        assertThat(said.out().lines())
                .containsExactly(
                        "bench-1 taken from benches/bench-1.needle.",
                        "bench-2 taken from benches/bench-2.needle.",
                        "bench-3 taken from benches/bench-3.needle.");
        Said reduced = needle("reduce", pool);
        assertThat(reduced.out())
                .contains("T_E")
                .contains("arrest of all alloys")
                .doesNotContain("nothing");
        assertThat(needle("pool", "--into", pool, benches).err().lines())
                .hasSize(3)
                .allMatch(l -> l.contains("is in the pool already"));
    }

    /** The pool holds its sheet, the sheet it takes from, and what it took: the files may go. */
    @Test
    void aPoolStandsByItself() throws IOException {
        begun();
        String before = needle("reduce", "--json", pool).out();
        for (int i = 1; i <= 3; i++) {
            Files.delete(benches.resolve("bench-" + i + ".needle"));
        }
        Path moved = Files.move(
                pool, Files.createDirectories(folder.resolve("elsewhere")).resolve("p.needle"));
        assertThat(needle("reduce", "--json", moved).out()).isEqualTo(before);
        try (BenchFile file = BenchFile.open(moved)) {
            assertThat(SheetTrial.look(file.session().sheetText(), "p").problems())
                    .isEmpty();
            assertThat(file.session().sheetText()).contains("pooled: |2").contains("id: alloy-arrest");
        }
        Said report = needle("report", moved, "-o", folder.resolve("r.html"));
        assertThat(report.status()).isZero();
        assertThat(Files.readString(folder.resolve("r.html")))
                .contains("Sessions in the pool")
                .contains("benches/bench-2.needle");
    }

    @Test
    void oneBadFileDoesNotHinderTheOthersAndLeavesNothingBehind() throws IOException {
        Files.writeString(benches.resolve("zz.needle"), "not a bench");
        Demonstration.simulate(
                SheetReader.read(SheetReader.shippedText("baggage-chute"), "c.yaml"),
                1,
                Set.of(),
                benches.resolve("other.needle"));
        Said said = begun();
        assertThat(said.status()).isEqualTo(1);
        assertThat(said.out().lines()).hasSize(3);
        assertThat(said.err().lines())
                .containsExactly(
                        "other follows the method baggage-chute; this pool takes from sessions of alloy-arrest.",
                        "zz.needle is not a bench file; bench files end in .needle and are made by this program.");
        Path wrong = folder.resolve("wrong.needle");
        Said refused = needle("pool", "--into", wrong, "--method", "baggage-chute", benches);
        assertThat(refused.status()).isEqualTo(2);
        assertThat(refused.err()).contains("has no pool");
        assertThat(wrong).doesNotExist();
    }

    @Test
    void aFileThatChangedIsSaidAndTakenAgain() throws IOException {
        begun();
        String before = needle("reduce", "--json", pool).out();
        Path again = folder.resolve("again.needle");
        Demonstration.simulate(alloy(), 9, Set.of(), again);
        Files.move(again, benches.resolve("bench-2.needle"), StandardCopyOption.REPLACE_EXISTING);
        assertThat(needle("pool", "--into", pool).out())
                .isEqualToIgnoringNewLines("bench-2 has changed since it was taken; take it again.");
        assertThat(needle("reduce", "--json", pool).out()).isEqualTo(before);
        needle("pool", "--into", pool, benches.resolve("bench-2.needle"));
        assertThat(needle("reduce", "--json", pool).out()).isNotEqualTo(before);
        try (BenchFile file = BenchFile.open(pool)) {
            assertThat(file.session().sources()).hasSize(3);
        }
    }

    @Test
    void leftOutWithAReasonAndTakenIn() {
        begun();
        String before = needle("reduce", "--json", pool).out();
        assertThat(needle("pool", "--into", pool, "--leave-out", "bench-2").err())
                .contains("Say why bench-2");
        needle("pool", "--into", pool, "--leave-out", "bench-2", "--why", "the tube broke");
        assertThat(needle("reduce", "--json", pool).out()).isNotEqualTo(before);
        needle("pool", "--into", pool, "--take-in", "bench-2");
        assertThat(needle("reduce", "--json", pool).out()).isEqualTo(before);
    }

    /** A published copy is whole, closed, and the same session. */
    @Test
    void aBenchPublishesItself() throws IOException {
        Path shared = folder.resolve("shared");
        Path bench = benches.resolve("bench-1.needle");
        assertThat(needle("publish", bench, "--into", shared, "--as", "corner").out())
                .isEqualToIgnoringNewLines("corner.needle is published.");
        assertThat(needle("publish", bench, "--into", shared).status()).isZero();
        assertThat(needle("publish", bench, "--into", shared).status()).isZero();
        assertThat(needle("publish", bench, "--into", benches).err()).contains("lies in that folder itself");
        try (var all = Files.list(shared)) {
            assertThat(all.map(p -> p.getFileName().toString()))
                    .containsExactlyInAnyOrder("corner.needle", "bench-1.needle");
        }
        assertThat(needle("reduce", shared.resolve("corner.needle")).out())
                .isEqualTo(needle("reduce", bench).out());
        // Two copies of one session are said to have begun as one.
        Said said = needle("pool", "--into", pool, "--method", EXAMPLES.resolve("alloys-together.yaml"), bench, shared);
        assertThat(said.out() + said.err()).containsAnyOf("began as the same session", "is in the pool already");
    }

    /** Batches of a method that ships: two make a diagram, a third moves it and makes it surer. */
    @Test
    void batchesOfAlloysStandInOneDiagram() throws IOException {
        Path diagram = EXAMPLES.resolve("alloys-diagram.yaml");
        for (int i = 1; i <= 3; i++) {
            Demonstration.simulate("cooling-alloys", 40 + i, Set.of(), folder.resolve("batch-" + i + ".needle"));
        }
        assertThat(needle(
                                "pool",
                                "--into",
                                pool,
                                "--method",
                                diagram,
                                folder.resolve("batch-1.needle"),
                                folder.resolve("batch-2.needle"))
                        .status())
                .isZero();
        double[] two = eutectic();
        assertThat(two[0]).isBetween(40.0, 46.0);
        assertThat(needle("pool", "--into", pool, folder.resolve("batch-3.needle"))
                        .status())
                .isZero();
        double[] three = eutectic();
        assertThat(three[0]).isNotEqualTo(two[0]);
        assertThat(three[1]).isLessThan(two[1]);
    }

    /** Value and standard uncertainty of the eutectic mass fraction, in percent. */
    private double[] eutectic() throws IOException {
        for (var entry : new com.fasterxml.jackson.databind.ObjectMapper()
                .readTree(needle("reduce", "--json", pool).out())
                .path("quantities")) {
            if (entry.path("name").asText().equals("w_E")) {
                return new double[] {
                    entry.path("value").asDouble(), entry.path("u").asDouble()
                };
            }
        }
        throw new AssertionError("no w_E");
    }
}

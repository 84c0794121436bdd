package eagerneedle.app.command;

import static eagerneedle.app.command.Needle.needle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.command.Needle.Said;
import eagerneedle.core.session.Run;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.NotebookLine;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What was read by eye, typed on the command line and brought in by column. */
class ReadCommandTest {
    private static final Path SHEET = Path.of("..", "docs", "examples", "coil-by-hand.yaml");

    @TempDir
    private Path folder;

    private Path bench;

    @BeforeEach
    void begin() throws IOException {
        bench = folder.resolve("coil.needle");
        Path first = file("first.tsv", "level\tm\ty\tt\na\t50.00(2) g\t310.5(3) mm\t4.31; 4.28; 4.35 s\n");
        Said said = needle("import", "--into", bench, "--method", SHEET, first);
        assertThat(said.err()).isEmpty();
    }

    private Path file(String name, String text) throws IOException {
        return file(name, text, StandardCharsets.UTF_8);
    }

    private Path file(String name, String text, Charset charset) throws IOException {
        return Files.write(folder.resolve(name), text.getBytes(charset));
    }

    private List<Run> runs() {
        try (BenchFile f = BenchFile.open(bench)) {
            return f.session().keptRuns();
        }
    }

    private String notebook() {
        try (BenchFile f = BenchFile.open(bench)) {
            return String.join("\n", f.acts().stream().map(NotebookLine::text).toList());
        }
    }

    private static void refused(Said said, String why) {
        assertThat(said.status()).isEqualTo(2);
        assertThat(said.out()).isEmpty();
        assertThat(said.err().strip()).contains(why).doesNotContain("\n").doesNotContain("Exception");
    }

    @Test
    void aRowIsKeptAndPutRight() {
        Said said = needle("read", bench, "y=reading(312 mm, edges: 1)", "t=4.3; 4.32; 4.29 s");
        assertThat(said.out().strip()).isEqualTo("Run 2 of Weight on the coil at 50 g.");
        assertThat(runs().get(1).entries().byEye())
                .as("the weight serves both runs at its level")
                .containsEntry("m", "50.00(2) g")
                .containsEntry("y", "reading(312 mm, edges: 1)");
        refused(needle("read", bench, "--run", "Run 2", "y=313.0(3) mm"), "Say why pointer is corrected.");
        said = needle("read", bench, "--run", "2", "y=313.0(3) mm", "--why", "misread");
        assertThat(said.status()).isZero();
        assertThat(runs().get(1).entries().byEye()).containsEntry("y", "313.0(3) mm");
        assertThat(notebook())
                .contains("Corrected pointer of Run 2 from reading(312 mm, edges: 1) to 313.0(3) mm: misread.");
    }

    @Test
    void oneWrongReadingOfTwoCorrectsNone() {
        refused(
                needle("read", bench, "--run", "1", "y=311.0(3) mm", "m=50 mm", "--why", "both"),
                "weight is in g, not in mm");
        assertThat(runs().get(0).entries().byEye()).containsEntry("y", "310.5(3) mm");
    }

    @ParameterizedTest
    @CsvSource({
        "x=3 mm, 'x=3 mm' is not NAME=READING",
        "y, 'y' is not NAME=READING",
        "y=, Enter pointer first",
        "y=about 3, is not a number with a unit",
        "y=12 V, pointer is in mm",
        "y=reading(12 mm divison: 1 mm), does not fit here",
        "y=vernier(23 mm; 25), is not a number"
    })
    void whatIsNoReadingIsToldAndNothingIsKept(String reading, String why) {
        refused(needle("read", bench, "m=50 g", "t=4.3; 4.2 s", reading), why);
        assertThat(runs()).hasSize(1);
    }

    @Test
    void placesThatAreNotThereAreTold() {
        refused(needle("read", bench, "--capture", "swing", "y=3 mm"), "no capture swing");
        refused(needle("read", bench, "--level", "z", "y=3 mm", "t=4 s"), "no level z");
        refused(needle("read", bench, "--run", "Run 9", "y=3 mm", "--why", "x"), "no kept run Run 9");
        assertThat(needle("read", bench, "--level", "250 g", "m=250 g", "y=470 mm", "t=9.1; 9.2 s")
                        .out())
                .contains("at 250 g");
    }

    /** The same two rows, written in many ways. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "level,weight (g),pointer [mm],t\\n100 g,100.02(2),351.5(3),5.91(10) s\\nb,,352.5(3),5.93(10) s",
                "level;m;y;t\\nb;100,02(2) g;351,5(3) mm;5,91(10) s\\nb;;352,5(3) mm;5,93(10) s",
                "# from the bench book\\n\\nlevel\\tm\\ty / mm\\tt (s)\\nb\\t100.02(2) g\\t351.5(3)\\t5.91(10)\\nb\\t\\t352.5(3)\\t5.93(10)\\n",
                "Level\\tWEIGHT\\tPointer\\tten swings\\nb\\t100.02(2) g\\t35.15(3) cm\\t5.91(10) s\\n100 G\\t\\t35.25(3) cm\\t5.93(10) s",
                "level|m|y|t|\\nb|100.02(2) g|351.5(3) mm|5.91(10) s|\\nb||352.5(3) mm|5.93(10) s|",
                "\uFEFFlevel,m,y,t\\nb,100.02(2) g,351.5(3) mm,5.91(10) s\\nb,,352.5(3) mm,5.93(10) s"
            })
    void rowsOfATableAreRows(String text) throws IOException {
        String clean = text.replace("\\n", "\n").replace("\\t", "\t");
        Said said = needle("import", "--into", bench, file("rows.txt", clean));
        assertThat(said.err()).isEmpty();
        assertThat(runs()).hasSize(3);
        Run second = runs().get(1);
        assertThat(second.level()).isEqualTo("b");
        assertThat(needle("reduce", bench, "--json").status()).isZero();
        Map<String, String> read = second.entries().byEye();
        assertThat(read.get("m")).isIn("100.02(2) g");
        assertThat(read.get("y")).isIn("351.5(3) mm", "35.15(3) cm");
        assertThat(read.get("t")).isEqualTo("5.91(10) s");
        assertThat(runs().get(2).entries().byEye().get("m")).isEqualTo("100.02(2) g");
    }

    @Test
    void wideTextIsReadToo() throws IOException {
        Path wide = file("rows.txt", "level;m;y;t\nb;100,02 g;351,5 mm;5,91 s\n", StandardCharsets.UTF_16);
        Said said = needle("import", "--into", bench, wide);
        assertThat(said.out()).contains("Decimal commas were read as decimal points.");
        assertThat(runs().get(1).entries().byEye())
                .as("without an uncertainty it has that which is expected")
                .containsEntry("m", "100.020(20) g")
                .containsEntry("t", "5.91(10) s");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1;2;3\\n4;5;6|below a line of headings",
                "level;m;y;t|no rows below them",
                "|holds no rows",
                "colour;shape\\nred;round|No heading of rows.txt is anything that is read here",
                "level;m;m;t\\na;1;2;3|two columns that are called 'm'",
                "level;m;y;t\\na;50 g;310 mm|line 2: 3 cells below 4 headings",
                "level;m;y;t\\nz;50 g;310 mm;4 s|line 2: there is no level 'z'",
                "level;m;y;t\\nb;100 g;310 mm;4 s\\nb;;about 5;4 s|line 3: 'about 5' is not a number",
                "level;m;y;t\\nb;100 g;310 V;4 s|line 2: pointer is in mm",
                "level;y;t\\nb;310 mm;4 s|line 2: Enter weight first",
                "level;m (g);y (V);t\\nb;100;310;4 s|pointer is in mm, not in V",
                "level;m;y;t\\nb;1,5,3 g;310 mm;4 s|line 2"
            })
    void aTableThatDoesNotFitTakesNothing(String text, String why) throws IOException {
        String clean = text == null ? "" : text.replace("\\n", "\n");
        refused(needle("import", "--into", bench, file("rows.txt", clean)), why);
        assertThat(runs()).hasSize(1);
    }

    @Test
    void moreRowsThanAreToBeTakenNeedALevel() throws IOException {
        StringBuilder b = new StringBuilder("m;y;t\n");
        for (int i = 0; i < 10; i++) {
            b.append("100 g;351 mm;5.9 s\n");
        }
        refused(needle("import", "--into", bench, file("rows.txt", b.toString())), "say a level to add more");
        assertThat(runs()).hasSize(1);
        Said said = needle("import", "--into", bench, "--level", "100 g", file("rows.txt", b.toString()));
        assertThat(said.out()).startsWith("10 rows from rows.txt.");
        assertThat(runs()).hasSize(11);
    }
}

package eagerneedle.store.foreign;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.dataformat.yaml.YAMLFactory;
import eagerneedle.store.delimited.Table;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Files as loggers, spreadsheets and people write them, with known content: read right, with every guess said; or
 * refused.
 */
class KindsOfFilesTest {
    @TempDir
    private Path folder;

    /**
     * A file, and what must be said of it.
     *
     * @param charset null for UTF-8
     * @param says part of the remark or of the refusal; null where a good one needs none
     */
    record Kind(String name, String charset, String text, String says) {
        @Override
        public String toString() {
            return name;
        }

        Charset in() {
            return charset == null ? StandardCharsets.UTF_8 : Charset.forName(charset);
        }
    }

    record Kinds(List<Kind> good, List<Kind> bad) {}

    private static Kinds kinds() throws IOException {
        try (InputStream in = KindsOfFilesTest.class.getResourceAsStream("kinds.yaml")) {
            return new ObjectMapper(new YAMLFactory()).readValue(in, Kinds.class);
        }
    }

    static List<Kind> good() throws IOException {
        return kinds().good();
    }

    static List<Kind> bad() throws IOException {
        return kinds().bad();
    }

    private Path written(String name, Charset charset, String text) throws IOException {
        return Files.write(folder.resolve(name.replaceAll("[^a-zA-Z0-9]", "-") + ".txt"), text.getBytes(charset));
    }

    @ParameterizedTest
    @MethodSource("good")
    void isReadRightAndEveryGuessIsSaid(Kind g) throws IOException {
        List<Table> runs = ForeignFile.runs(written(g.name(), g.in(), g.text()));
        assertThat(runs).hasSize(1);
        Table t = runs.get(0);
        int time = Math.max(0, t.clock());
        double first = t.columns()[time][0];
        double[] wanted = {0, 0.5, 1};
        double[] values = t.columns()[t.columns().length - 1];
        assertThat(values).hasSize(3);
        for (int i = 0; i < 3; i++) {
            assertThat(t.columns()[time][i] - first).isCloseTo(wanted[i], within(2e-5));
            assertThat(values[i]).isCloseTo(20 + wanted[i], within(1e-9));
        }
        String said = String.join(" ", t.remarks());
        if (g.says() == null) {
            assertThat(said).isEmpty();
        } else {
            assertThat(said).contains(g.says());
        }
    }

    @Test
    void thousandsInGroupsAreReadAndSaid() throws IOException {
        Table point = ForeignFile.table(
                written("point", StandardCharsets.UTF_8, "time (s);p (Pa)\n0;101,325.5\n1;101,330.25\n2;1,000,000\n"));
        assertThat(point.columns()[1]).containsExactly(101325.5, 101330.25, 1e6);
        assertThat(point.remarks()).singleElement().asString().contains("'101,325.5' was read as 101325.5");
        Table comma = ForeignFile.table(written(
                "comma", StandardCharsets.UTF_8, "Zeit (s);p (Pa)\n0,5;101.325,5\n1,5;101.330,25\n2,5;1.000.000\n"));
        assertThat(comma.columns()[1]).containsExactly(101325.5, 101330.25, 1e6);
        assertThat(comma.remarks()).singleElement().asString().contains("Thousands");
        Table quoted = ForeignFile.table(
                written("quoted", StandardCharsets.UTF_8, "time (s),p (Pa)\n0,\"101,325.5\"\n1,\"101,330.25\"\n"));
        assertThat(quoted.columns()[1]).containsExactly(101325.5, 101330.25);
        Table blank = ForeignFile.table(
                written("blank", StandardCharsets.UTF_8, "time (s);p (Pa)\n0;101 325,5\n1;101 330,2\n"));
        assertThat(blank.columns()[1]).containsExactly(101325.5, 101330.2);
    }

    @Test
    void theDateOfTheFirstMomentIsKept() throws IOException {
        Table t = ForeignFile.table(written(
                "two", StandardCharsets.UTF_8, "date;time;T\n28.11.2026;09:00:00;20\n28.11.2026;09:00:01;21\n"));
        assertThat(t.start()).isEqualTo(Instant.parse("2026-11-28T09:00:00Z"));
        assertThat(t.names().get(t.clock())).isEqualTo("time");
        Table days = ForeignFile.table(
                written("days", StandardCharsets.UTF_8, "Date,T\n46354.375,20\n46354.4166666667,20.5\n"));
        assertThat(days.start()).isEqualTo(Instant.parse("2026-11-28T09:00:00Z"));
        assertThat(days.columns()[0][1]).isCloseTo(3600, within(0.01));
    }

    @Test
    void runsSideBySideAreSeveral() throws IOException {
        List<Table> runs = ForeignFile.runs(written(
                "beside",
                StandardCharsets.UTF_8,
                "time (s),x (mm),time (s),x (mm)\n0,1,0,10\n1,2,1,20\n2,3,,\n3,4,,\n"));
        assertThat(runs).hasSize(2);
        assertThat(runs.get(0).columns()[1]).containsExactly(1, 2, 3, 4);
        assertThat(runs.get(1).columns()[1]).containsExactly(10, 20);
        assertThat(runs.get(1).units()).containsExactly("s", "mm");
        assertThat(runs.get(1).remarks()).anyMatch(r -> r.contains("Run 2 of 2 that stand side by side"));
    }

    @Test
    void runsBelowEachOtherAreSeveral() throws IOException {
        List<Table> runs = ForeignFile.runs(written(
                "below",
                StandardCharsets.UTF_8,
                "time (s),x (mm)\n0,1\n1,2\n2,3\ntime (s),x (mm)\n0,10\n1,20\ntime (s),x (mm)\n0,100\n1,200\n2,300\n"));
        assertThat(runs).hasSize(3);
        assertThat(runs.get(1).columns()[1]).containsExactly(10, 20);
        assertThat(runs.get(2).columns()[1]).containsExactly(100, 200, 300);
        assertThat(runs.get(0).remarks()).anyMatch(r -> r.contains("begins anew in row 4, row 6"));
        // A clock that stumbles once is no new run: that is told where the run is brought in.
        assertThat(ForeignFile.runs(
                        written("stumble", StandardCharsets.UTF_8, "time (s),x\n0,1\n1,2\n2,3\n1.5,4\n3,5\n4,6\n")))
                .hasSize(1);
    }

    @ParameterizedTest
    @MethodSource("bad")
    void whatCannotBeReadIsRefusedWithItsLine(Kind b) throws IOException {
        Path file = written(b.name(), b.in(), b.text());
        assertThatThrownBy(() -> ForeignFile.runs(file))
                .isInstanceOf(RuntimeException.class)
                .hasMessageContaining(b.says())
                .satisfies(e -> assertThat(e.getMessage().lines()).hasSize(1));
    }

    @Test
    void whatIsNoTextIsSaid() throws IOException {
        byte[] picture = new byte[400];
        for (int i = 0; i < picture.length; i++) {
            picture[i] = (byte) (i * 37 % 251);
        }
        Path file = Files.write(folder.resolve("picture.csv"), picture);
        assertThatThrownBy(() -> ForeignFile.runs(file)).isInstanceOf(RuntimeException.class);
    }
}

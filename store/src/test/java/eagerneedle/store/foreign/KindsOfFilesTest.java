package eagerneedle.store.foreign;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.store.delimited.Table;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
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
     * A file of one run of 0, 0.5, 1 s and 20, 20.5, 21 in its last column.
     *
     * @param remark part of what must be said; empty where nothing is guessed
     */
    record Good(String name, Charset charset, String text, String remark) {
        @Override
        public String toString() {
            return name;
        }
    }

    private static Good good(String name, String text, String remark) {
        return new Good(name, StandardCharsets.UTF_8, text, remark);
    }

    static Stream<Good> good() {
        return Stream.of(
                good("comma", "time (s),T (degC)\n0,20\n0.5,20.5\n1,21\n", ""),
                good("semicolon and decimal comma", "Zeit (s);T (degC)\n0;20\n0,5;20,5\n1,0;21\n", ""),
                good("tab", "time (s)\tT\n0\t20\n0.5\t20.5\n1\t21\n", ""),
                good("bar", "time (s)|T\n0|20\n0.5|20.5\n1|21\n", ""),
                good("blanks", "time  T\n  0    20\n  0.5  20.5\n  1    21\n", ""),
                good("no header", "0,20\n0.5,20.5\n1,21\n", ""),
                good(
                        "lines of metadata",
                        "Logger TH-DL-01\nrecorded by hand\n\ntime (s),T\n0,20\n0.5,20.5\n1,21\n",
                        ""),
                good("row of units", "time,T\ns,degC\n0,20\n0.5,20.5\n1,21\n", ""),
                good(
                        "date and time of day in two columns, decimal comma, metadata",
                        "Messung 4;;\nGerät;TH-DL-01;\n\nDatum;Uhrzeit;T (degC)\n28.11.2026;09:00:00,0;20,0\n"
                                + "28.11.2026;09:00:00,5;20,5\n28.11.2026;09:00:01,0;21,0\n",
                        "were read as one clock"),
                good(
                        "the same over midnight",
                        "date,time,T\n2026-11-27,23:59:59.5,20\n2026-11-28,00:00:00.0,20.5\n2026-11-28,00:00:00.5,21\n",
                        "were read as one clock"),
                good(
                        "date and time in one cell",
                        "when,T\n2026-11-28 09:00:00.0,20\n2026-11-28 09:00:00.5,20.5\n" + "2026-11-28 09:00:01.0,21\n",
                        ""),
                good(
                        "a zone behind it",
                        "when,T\n2026-11-28T09:00:00.0+01:00,20\n2026-11-28T09:00:00.5+01:00,20.5\n"
                                + "2026-11-28T09:00:01.0+01:00,21\n",
                        ""),
                good(
                        "month first, told by the half of the day",
                        "time,T\n11/12/2026 09:00:00.0 AM,20\n"
                                + "11/12/2026 09:00:00.5 AM,20.5\n11/12/2026 09:00:01.0 AM,21\n",
                        "the month first"),
                good(
                        "day or month first",
                        "time,T\n11.12.2026 09:00:00.0,20\n11.12.2026 09:00:00.5,20.5\n" + "11.12.2026 09:00:01.0,21\n",
                        "the day first"),
                good("times of day", "time,T\n09:00:00.0,20\n09:00:00.5,20.5\n09:00:01.0,21\n", ""),
                good(
                        "times of day with halves",
                        "time,T\n11:59:59.5 AM,20\n12:00:00.0 PM,20.5\n12:00:00.5 PM,21\n",
                        ""),
                good("minutes and seconds", "time,T\n00:59.5,20\n01:00.0,20.5\n01:00.5,21\n", "minutes and seconds"),
                new Good("UTF-16 with its mark", StandardCharsets.UTF_16, "time (s)\tT\n0\t20\n0.5\t20.5\n1\t21\n", ""),
                new Good(
                        "UTF-16 without a mark",
                        StandardCharsets.UTF_16LE,
                        "time (s)\tT\n0\t20\n0.5\t20.5\n1\t21\n",
                        ""),
                new Good("Latin-1", StandardCharsets.ISO_8859_1, "Zeit (s);T (°C)\n0;20\n0,5;20,5\n1;21\n", ""),
                good("a mark of UTF-8", "\uFEFFtime (s),T\n0,20\n0.5,20.5\n1,21\n", ""),
                good("lines of another system", "time (s),T\r\n0,20\r\n0.5,20.5\r\n1,21\r\n", ""),
                good("quoted numbers", "\"time (s)\",\"T\"\n\"0\",\"20\"\n\"0.5\",\"20.5\"\n\"1\",\"21\"\n", ""),
                good(
                        "quoted numbers with decimal comma",
                        "\"time (s)\",\"T\"\n\"0,0\",\"20,0\"\n\"0,5\",\"20,5\"\n" + "\"1,0\",\"21,0\"\n",
                        ""),
                good("values with their uncertainty", "time (s),T\n0,20.0(1)\n0.5,20.5(1)\n1,21.0(1)\n", "left off"),
                good(
                        "values with plus or minus",
                        "time (s);T\n0;20.0 ± 0.1\n0.5;20.5 ± 0.1\n1;21.0 ± 0.1\n",
                        "left off"),
                good(
                        "days of a spreadsheet",
                        "Date,T\n46354.375,20\n46354.3750057870,20.5\n46354.3750115741,21\n",
                        "as spreadsheets do"),
                good("an exponent", "time (s),T\n0,2.0e1\n5e-1,2.05E1\n1,2.1e+1\n", ""),
                good("a minus of typesetters", "time (s),e,T\n0,\u22121,20\n0.5,\u22122,20.5\n1,\u22123,21\n", ""),
                good("a separator at the end of each line", "time (s),T\n0,20,\n0.5,20.5,\n1,21,\n", ""),
                good("comments", "time (s),T\n0,20\n# lid opened\n0.5,20.5\n1,21\n", ""),
                good("blank lines", "time (s),T\n0,20\n\n0.5,20.5\n\n1,21\n", ""),
                good("a header that comes again", "time (s),T\n0,20\n0.5,20.5\ntime (s),T\n1,21\n", "comes again"),
                good("no end of the last line", "time (s),T\n0,20\n0.5,20.5\n1,21", ""));
    }

    private Path written(String name, Charset charset, String text) throws IOException {
        return Files.write(folder.resolve(name.replaceAll("[^a-zA-Z0-9]", "-") + ".txt"), text.getBytes(charset));
    }

    @ParameterizedTest
    @MethodSource("good")
    void isReadRightAndEveryGuessIsSaid(Good g) throws IOException {
        List<Table> runs = ForeignFile.runs(written(g.name(), g.charset(), g.text()));
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
        if (g.remark().isEmpty()) {
            assertThat(said).isEmpty();
        } else {
            assertThat(said).contains(g.remark());
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

    /** What cannot be read, and part of the sentence that says so. */
    static Stream<String[]> bad() {
        List<String[]> all = new ArrayList<>();
        String head = "time (s),T\n0,20\n0.5,20.5\n";
        all.add(new String[] {"words in a column", head + "1,warm\n", "line 4, column 'T': 'warm' is not a number"});
        all.add(new String[] {"two points", head + "1,2.1.0\n", "line 4"});
        all.add(new String[] {"a comma too many", head + "1,21,5\n", "line 4: 3 values where 2 are expected"});
        all.add(new String[] {"a value too few", head + "1\n2,22\n", "line 4: 1 value where 2 are expected"});
        all.add(new String[] {"too large", head + "1,1e999\n", "too large to compute with"});
        all.add(new String[] {"nothing", "", "is empty"});
        all.add(new String[] {"only a header", "time (s),T\n", "holds no rows of numbers"});
        all.add(new String[] {"only words", "this is a letter\nnot a table\n", "holds no rows of numbers"});
        all.add(new String[] {"decimal signs mixed", "t;T\n0,5;20,5\n1,0;21,0\n1.5.0;22,0\n", "line 4"});
        all.add(new String[] {"half a bracket", head + "1,21.0(1\n", "'21.0(1' is not a number"});
        all.add(new String[] {"groups that are none", "t (s);p\n0;1,000.5\n1;10,00.5\n", "'10,00.5' is not a number"});
        all.add(new String[] {"seconds beyond a minute", "time,T\n09:00:00,20\n09:00:01,21\n09:00:75,22\n", "09:00:75"
        });
        all.add(new String[] {
            "a day that is none", "when,T\n2026-11-28,20\n2026-11-29,21\n2026-11-31,22\n", "2026-11-31"
        });
        all.add(new String[] {"a date among times", "time,T\n09:00:00,20\n09:00:01,21\n2026-11-28,22\n", "2026-11-28"});
        all.add(new String[] {"a unit where a number was", head + "1,21 degC\n", "'21 degC' is not a number"});
        all.add(new String[] {"an infinity", head + "1,inf\n", "'inf' is not a number"});
        all.add(new String[] {"not a number", head + "1,NaN\n", "'NaN' is not a number"});
        all.add(new String[] {"a hexadecimal number", head + "1,0x1F\n", "'0x1F' is not a number"});
        all.add(new String[] {"two signs", head + "1,--21\n", "'--21' is not a number"});
        all.add(new String[] {"a sign alone", head + "1,-\n", "'-' is not a number"});
        all.add(new String[] {"a letter in a number", head + "1,2l.0\n", "'2l.0' is not a number"});
        all.add(new String[] {"a letter o for a nought", head + "1,2O\n", "'2O' is not a number"});
        all.add(new String[] {"an error value of a spreadsheet", head + "1,#DIV/0!\n", "'#DIV/0!' is not a number"});
        all.add(new String[] {"a missing reference", head + "1,#REF!\n", "'#REF!' is not a number"});
        all.add(new String[] {"a formula", head + "1,=B2+1\n", "'=B2+1' is not a number"});
        all.add(new String[] {"words for overload", head + "1,OL\n", "'OL' is not a number"});
        all.add(new String[] {"a percent sign", head + "1,21%\n", "'21%' is not a number"});
        all.add(new String[] {"a fraction", head + "1,21/2\n", "'21/2' is not a number"});
        all.add(new String[] {"an exponent without a number", head + "1,21e\n", "'21e' is not a number"});
        all.add(new String[] {"a comma in a file of points", "t;T\n0.5;20.5\n1.0;21.0\n1.5;21,5\n", "decimal comma"});
        all.add(new String[] {"a bracket without its number", head + "1,21.0()\n", "'21.0()' is not a number"});
        all.add(new String[] {"a wrong plus or minus", head + "1,21 ± warm\n", "is not a number"});
        all.add(new String[] {"hours beyond a day", "time,T\n09:00:00,20\n09:00:01,21\n25:00:02,22\n", "25:00:02"});
        all.add(new String[] {"minutes beyond an hour", "time,T\n09:00:00,20\n09:00:01,21\n09:61:02,22\n", "09:61:02"});
        all.add(new String[] {
            "a month that is none", "when,T\n2026-11-28,20\n2026-11-29,21\n2026-13-01,22\n", "2026-13-01"
        });
        all.add(new String[] {"half a date", "when,T\n2026-11-28,20\n2026-11-29,21\n2026-11,22\n", "2026-11"});
        all.add(new String[] {"a tab in a file of commas", head + "1\t22\n2,23\n", "line 4"});
        all.add(new String[] {"an open quote", head + "\"1,22\n2,23\n", "line 4"});
        all.add(new String[] {"only comments", "# one\n# two\n", "holds no rows of numbers"});
        all.add(new String[] {"blank lines only", "\n\n\n", "is empty"});
        return all.stream();
    }

    @ParameterizedTest
    @MethodSource("bad")
    void whatCannotBeReadIsRefusedWithItsLine(String name, String text, String why) throws IOException {
        Path file = written(name, StandardCharsets.UTF_8, text);
        assertThatThrownBy(() -> ForeignFile.runs(file))
                .isInstanceOf(RuntimeException.class)
                .hasMessageContaining(why)
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

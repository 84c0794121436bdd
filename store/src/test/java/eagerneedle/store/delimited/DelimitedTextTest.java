package eagerneedle.store.delimited;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DelimitedTextTest {
    private static DelimitedText text(String s) {
        return new DelimitedText("run.csv", s.replace("\\n", "\n").replace("\\t", "\t"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '@',
            quoteCharacter = '`',
            value = {
                "t,x\\n0,1.5\\n1,2.5\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
                "t;x\\n0;1,5\\n1;2,5\\n @ semicolon @ true @ 1 @ t @ `` @ 2.5",
                "t\\tx\\n0\\t1,5\\n1\\t2,5\\n @ tab @ true @ 1 @ t @ `` @ 2.5",
                "time [s],position [mm]\\n0,1.5\\n1,2.5\\n @ comma @ false @ 1 @ time @ s @ 2.5",
                "time (ms) | pos (m)\\n0 | 1.5\\n1 | 2.5\\n @ bar @ false @ 1 @ time @ ms @ 2.5",
                "time / s;x / mm\\n0;1.5\\n1;2.5\\n @ semicolon @ false @ 1 @ time @ s @ 2.5",
                "0 1.5\\n1 2.5\\n2 3.5\\n @ blank @ false @ 0 @ column 1 @ `` @ 2.5",
                "Logger of bench 7\\nstarted 9:00\\n\\ntime,x\\ns,mm\\n0,1.5\\n1,2.5\\n @ comma @ false @ 5 @ "
                        + "time @ s @ 2.5",
                "\uFEFFt,x\\n0,1.5\\n1,2.5\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
                "t,x\\r\\n0,1e-3\\r\\n1,2.5E0\\r\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
                "t;x\\n0;1.234,5\\n1;2.001,5\\n @ semicolon @ true @ 1 @ t @ `` @ 2001.5",
                "\"t\",\"x\"\\n\"0\",\"1.5\"\\n\"1\",\"2.5\"\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
                "t,x\\n0,−1.5\\n1,2.5\\n @ comma @ false @ 1 @ t @ `` @ 2.5"
            })
    void dialectsAreGuessed(
            String written, String separator, boolean comma, int header, String first, String unit, double second) {
        DelimitedText t = new DelimitedText(
                "run.csv",
                written.strip().replace("\\n", "\n").replace("\\t", "\t").replace("\\r", "\r") + "\n");
        Dialect d = t.guess();
        assertThat(d.separatorName()).isEqualTo(separator);
        assertThat(d.decimalComma()).isEqualTo(comma);
        assertThat(d.headerLines()).isEqualTo(header);
        assertThat(d.names().get(0)).isEqualTo(first);
        assertThat(d.units().get(0)).isEqualTo(unit);
        assertThat(t.columns(d)[1][1]).isEqualTo(second);
        assertThat(t.preview(d, 1)).hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '@',
            quoteCharacter = '`',
            value = {
                "t,x\\n0,1\\n1,abc\\n2,3\\n @ line 3, column 'x': 'abc' is not a number",
                "t,x\\n0,1\\n1\\n2,3\\n @ line 3: 1 value where 2 are expected",
                "t,x\\n0,1\\n1,2,3\\n2,3\\n @ line 3: 3 values where 2 are expected",
                "t,x\\n @ no rows of numbers under its header",
                "`` @ is empty",
                "t,x\\n0,1\\n1,\\n2,3\\n @ '' is not a number",
                "t;x\\n0;1.5\\n1;2,5\\n2;3.5\\n @ looks like a decimal comma"
            })
    void mistakesGetOneSentenceWithTheirLine(String written, String says) {
        DelimitedText t = text(written.strip());
        DelimitedException e = Assertions.assertThrows(DelimitedException.class, () -> t.columns(t.guess()));
        assertThat(e.getMessage())
                .startsWith("run.csv")
                .contains(says)
                .endsWith(".")
                .doesNotContain("\n");
    }

    @Test
    void aBinaryFileIsNoText() {
        DelimitedText t = new DelimitedText("picture.png", "\u0089PNG\0\0\1\2");
        assertThat(Assertions.assertThrows(DelimitedException.class, t::guess).getMessage())
                .contains("not a text file");
    }

    @Test
    void aUnitCanBePutRight() {
        Dialect d = text("t,x\n0,1\n1,2\n").guess().withUnit(1, "mm");
        assertThat(d.units()).containsExactly("", "mm");
    }

    /** Generated files of many dialects with known numbers: the guess is right, or the reading says that it is not. */
    @Test
    void generatedDialectsAreReadRightOrRefused() {
        Random r = new Random(21);
        int right = 0;
        int files = 400;
        for (int k = 0; k < files; k++) {
            boolean comma = r.nextBoolean();
            String separator = comma
                    ? new String[] {";", "\t", "|"}[r.nextInt(3)]
                    : new String[] {",", ";", "\t", "|", " "}[r.nextInt(5)];
            int columns = 2 + r.nextInt(3);
            StringBuilder b = new StringBuilder();
            if (r.nextBoolean()) {
                for (int c = 0; c < columns; c++) {
                    b.append(c > 0 ? separator : "").append(c == 0 ? "t" : "x" + c);
                }
                b.append('\n');
            }
            double[][] truth = new double[columns][12 + r.nextInt(30)];
            for (int i = 0; i < truth[0].length; i++) {
                for (int c = 0; c < columns; c++) {
                    String n = String.format(
                            Locale.ROOT,
                            r.nextInt(6) == 0 ? "%.3e" : "%.4f",
                            c == 0 ? 0.02 * i : 50 * r.nextGaussian());
                    truth[c][i] = Double.parseDouble(n);
                    b.append(c > 0 ? separator : "").append(comma ? n.replace('.', ',') : n);
                }
                b.append('\n');
            }
            DelimitedText t = new DelimitedText("f.csv", b.toString());
            try {
                double[][] read = t.columns(t.guess());
                boolean same = java.util.Arrays.deepEquals(read, truth);
                assertThat(same).as("a wrong number without a remark in\n" + b).isTrue();
                right++;
            } catch (DelimitedException e) {
                assertThat(e.getMessage()).endsWith(".");
            }
        }
        assertThat(right / (double) files).isGreaterThanOrEqualTo(0.98);
    }

    private static final java.time.LocalDateTime NINE = java.time.LocalDateTime.of(2026, 11, 23, 9, 0, 0);

    private static String moment(int kind, double seconds, boolean comma) {
        java.time.LocalDateTime at = NINE.plusNanos(Math.round(seconds * 1e9));
        String clock = at.format(java.time.format.DateTimeFormatter.ofPattern("HH:mm:ss.SSS"));
        clock = comma ? clock.replace('.', ',') : clock;
        return switch (kind) {
            case 1 -> at.toLocalDate() + "T" + clock;
            case 2 -> at.toLocalDate() + " " + clock;
            case 3 -> at.format(java.time.format.DateTimeFormatter.ofPattern("dd.MM.uuuu")) + " " + clock;
            case 4 -> at.format(java.time.format.DateTimeFormatter.ofPattern("MM/dd/uuuu")) + " " + clock;
            case 5 -> clock;
            default ->
                comma
                        ? String.format(Locale.ROOT, "%.3f", seconds).replace('.', ',')
                        : String.format(Locale.ROOT, "%.3f", seconds);
        };
    }

    /** Files of many loggers with known numbers: dates, gaps, repeated headers, units, quotes, titles above. */
    @Test
    void filesOfManyLoggersAreReadRightOrWithARemark() {
        String[] units = {"V", "mV", "°C", "mm", "kPa", "N"};
        Random r = new Random(33);
        int files = 600;
        int right = 0;
        for (int k = 0; k < files; k++) {
            boolean comma = r.nextBoolean();
            char separator =
                    comma ? new char[] {';', '\t', '|'}[r.nextInt(3)] : new char[] {',', ';', '\t', '|'}[r.nextInt(4)];
            int kind = r.nextInt(6);
            if (comma && separator == ',') {
                separator = ';';
            }
            int width = 2 + r.nextInt(4);
            boolean quotes = r.nextInt(4) == 0;
            String[] unit = new String[width];
            for (int c = 1; c < width; c++) {
                unit[c] = units[r.nextInt(units.length)];
            }
            unit[0] = "s";
            int style = r.nextInt(4);
            StringBuilder head = new StringBuilder();
            StringBuilder unitRow = new StringBuilder();
            for (int c = 0; c < width; c++) {
                String name = c == 0 ? "time" : "channel " + c;
                String shown = name
                        + (c == 0 && kind > 0
                                ? ""
                                : style == 0
                                        ? " [" + unit[c] + "]"
                                        : style == 1 ? " (" + unit[c] + ")" : style == 2 ? " / " + unit[c] : "");
                head.append(c > 0 ? separator : "").append(quotes ? '"' + shown + '"' : shown);
                unitRow.append(c > 0 ? separator : "").append(c == 0 && kind > 0 ? "" : unit[c]);
            }
            String eol = r.nextBoolean() ? "\n" : "\r\n";
            StringBuilder b = new StringBuilder(r.nextInt(5) == 0 ? "\uFEFF" : "");
            for (int t = r.nextInt(4); t > 0; t--) {
                b.append(new String[] {"Logger of bench 4", "started by the instructor", "serial TH-LG-03"}[t - 1])
                        .append(eol);
            }
            boolean header = r.nextInt(8) > 0;
            String headLines = head + eol + (style == 3 ? unitRow + eol : "");
            b.append(header ? headLines : "");
            int rows = 15 + r.nextInt(60);
            double[][] truth = new double[width][rows];
            boolean gaps = r.nextInt(4) == 0;
            boolean again = header && r.nextInt(5) == 0;
            for (int i = 0; i < rows; i++) {
                truth[0][i] = Math.rint(i * 250) / 1e3;
                b.append(moment(kind, truth[0][i], comma));
                for (int c = 1; c < width; c++) {
                    boolean gap = gaps && r.nextInt(12) == 0;
                    String n = String.format(Locale.ROOT, r.nextInt(8) == 0 ? "%.4e" : "%.3f", 80 * r.nextGaussian());
                    truth[c][i] = gap ? Double.NaN : Double.parseDouble(n);
                    b.append(separator).append(gap ? "" : comma ? n.replace('.', ',') : n);
                }
                b.append(eol);
                if (again && i == rows / 2) {
                    b.append(headLines);
                }
            }
            DelimitedText t = new DelimitedText("logger.csv", b.toString());
            try {
                Dialect d = t.guess();
                Table table = t.read(d);
                boolean dialect =
                        d.separator() == separator && d.names().size() == width && (kind > 0) == (table.clock() == 0);
                for (int c = 1; c < width && header; c++) {
                    dialect &= d.units().get(c).equals(unit[c]);
                }
                boolean same = table.columns().length == width;
                for (int c = 0; same && c < width; c++) {
                    same = java.util.Arrays.equals(table.columns()[c], truth[c]);
                }
                if (!same) {
                    assertThat(table.remarks())
                            .as("a wrong number without a remark in\n" + b)
                            .isNotEmpty();
                } else if (dialect) {
                    right++;
                }
            } catch (DelimitedException e) {
                assertThat(e.getMessage()).endsWith(".");
            }
        }
        assertThat(right / (double) files)
                .as("dialect, units and numbers right")
                .isGreaterThanOrEqualTo(0.98);
    }

    @Test
    void aClockThatPassesMidnightGoesOnAndADateGivesTheStart() {
        DelimitedText t = text("clock,x\n23:59:59.5,1\n00:00:00.0,2\n00:00:00.5,3\n");
        assertThat(t.read(t.guess()).columns()[0]).containsExactly(0, 0.5, 1);
        DelimitedText dated = text("when;x\n2026-11-23 09:00:00;1,5\n2026-11-23 09:00:02;2,5\n");
        Table table = dated.read(dated.guess());
        assertThat(table.start()).isEqualTo(java.time.Instant.parse("2026-11-23T09:00:00Z"));
        assertThat(table.columns()[0]).containsExactly(0, 2);
        DelimitedText unsure = text("when;x\n03/04/2026 09:00:00;1\n03/04/2026 09:00:01;2\n");
        assertThat(unsure.read(unsure.guess()).remarks()).anyMatch(m -> m.contains("with the day first"));
        DelimitedText cut = text("t,x,y\n0,1,2\n1,2,3\n2,3");
        assertThat(cut.read(cut.guess()).remarks()).anyMatch(m -> m.contains("cut short"));
    }
}

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
    @CsvSource(delimiter = '@', quoteCharacter = '`', value = {
        "t,x\\n0,1.5\\n1,2.5\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
        "t;x\\n0;1,5\\n1;2,5\\n @ semicolon @ true @ 1 @ t @ `` @ 2.5",
        "t\\tx\\n0\\t1,5\\n1\\t2,5\\n @ tab @ true @ 1 @ t @ `` @ 2.5",
        "time [s],position [mm]\\n0,1.5\\n1,2.5\\n @ comma @ false @ 1 @ time @ s @ 2.5",
        "time (ms) | pos (m)\\n0 | 1.5\\n1 | 2.5\\n @ bar @ false @ 1 @ time @ ms @ 2.5",
        "time / s;x / mm\\n0;1.5\\n1;2.5\\n @ semicolon @ false @ 1 @ time @ s @ 2.5",
        "0 1.5\\n1 2.5\\n2 3.5\\n @ blank @ false @ 0 @ column 1 @ `` @ 2.5",
        "Logger of bench 7\\nstarted 9:00\\n\\ntime,x\\ns,mm\\n0,1.5\\n1,2.5\\n @ comma @ false @ 5 @ time @ s @ 2.5",
        "\uFEFFt,x\\n0,1.5\\n1,2.5\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
        "t,x\\r\\n0,1e-3\\r\\n1,2.5E0\\r\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
        "t;x\\n0;1.234,5\\n1;2.001,5\\n @ semicolon @ true @ 1 @ t @ `` @ 2001.5",
        "\"t\",\"x\"\\n\"0\",\"1.5\"\\n\"1\",\"2.5\"\\n @ comma @ false @ 1 @ t @ `` @ 2.5",
        "t,x\\n0,−1.5\\n1,2.5\\n @ comma @ false @ 1 @ t @ `` @ 2.5"})
    void dialectsAreGuessed(String written, String separator, boolean comma, int header, String first, String unit, double second) {
        DelimitedText t = new DelimitedText("run.csv", written.strip().replace("\\n", "\n").replace("\\t", "\t").replace("\\r", "\r") + "\n");
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
    @CsvSource(delimiter = '@', quoteCharacter = '`', value = {
        "t,x\\n0,1\\n1,abc\\n2,3\\n @ line 3, column 'x': 'abc' is not a number",
        "t,x\\n0,1\\n1\\n2,3\\n @ line 3: 1 value where 2 are expected",
        "t,x\\n0,1\\n1,2,3\\n2,3\\n @ line 3: 3 values where 2 are expected",
        "t,x\\n @ no rows of numbers under its header",
        "`` @ is empty",
        "t,x\\n0,1\\n1,\\n2,3\\n @ '' is not a number",
        "t;x\\n0;1.5\\n1;2,5\\n2;3.5\\n @ looks like a decimal comma"})
    void mistakesGetOneSentenceWithTheirLine(String written, String says) {
        DelimitedText t = text(written.strip());
        DelimitedException e = Assertions.assertThrows(DelimitedException.class, () -> t.columns(t.guess()));
        assertThat(e.getMessage()).startsWith("run.csv").contains(says).endsWith(".").doesNotContain("\n");
    }

    @Test
    void aBinaryFileIsNoText() {
        DelimitedText t = new DelimitedText("picture.png", "\u0089PNG\0\0\1\2");
        assertThat(Assertions.assertThrows(DelimitedException.class, t::guess).getMessage()).contains("not a text file");
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
            String separator = comma ? new String[] {";", "\t", "|"}[r.nextInt(3)] : new String[] {",", ";", "\t", "|", " "}[r.nextInt(5)];
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
                    String n = String.format(Locale.ROOT, r.nextInt(6) == 0 ? "%.3e" : "%.4f", c == 0 ? 0.02 * i : 50 * r.nextGaussian());
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
}

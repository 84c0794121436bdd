package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Names in formulas are written differently, and nothing else is. */
class PiecesTest {
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "m * 2 m          | M * 2 m",
                "2.0(1) m + m     | 2.0(1) m + M",
                "m.a * m          | m.a * M",
                "mean(x, window: m) | mean(x, window: M)",
                "m(m, m: m)       | m(M, m: M)",
                "'m' + \"m\"      | 'm' + \"m\"",
                "if(m > 1, none, m) | if(M > 1, none, M)",
                "m and not m      | M and not M",
            })
    void namesAndNothingElse(String formula, String expected) {
        assertThat(Pieces.renamed(formula, n -> n.equals("m") ? "M" : null).text())
                .isEqualTo(expected);
    }

    /** Every character of what was written out stands for one of what was written. */
    @Test
    void placesAreKept() {
        Pieces.Rewritten r = Pieces.renamed("a + bb * a", n -> n.equals("a") ? "long.name" : n);
        assertThat(r.text()).isEqualTo("long.name + bb * long.name");
        assertThat(r.origin()).hasSize(r.text().length() + 1);
        assertThat(r.origin()[r.text().indexOf("bb")]).isEqualTo(4);
        assertThat(r.origin()[r.text().indexOf("bb") + 1]).isEqualTo(5);
        assertThat(r.origin()[r.text().lastIndexOf("name")]).isEqualTo(9);
        assertThat(r.origin()[r.text().length()]).isEqualTo(10);
    }

    @Test
    void whatIsNoFormulaHasPiecesAllTheSame() {
        assertThat(Pieces.renamed("Fingers out! m", n -> "x").text()).isEqualTo("x x! x");
    }
}

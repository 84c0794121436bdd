package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.TimeZone;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class NotationTest {
    @ParameterizedTest
    @CsvSource({
        "4.1273841, 0.038, 4.127(38)",
        "4.1273841, 0.0384, 4.127(38)",
        "9.81234, 0.0996, 9.81(10)",
        "-0.07263, 0.0018, −0.0726(18)",
        "1234.4, 12, 1234(12)",
        "123456, 1234, 1.235(12) × 10⁵",
        "0, 0.001, 0.0000(10)",
        "5, 0, 5",
        "0.000012345, 0.0000000234, 1.2345(23) × 10⁻⁵",
        "100.04, 1.2, 100.0(12)",
        "1e9, 2e7, 1.000(20) × 10⁹",
        "0.5, 3, 0.5(30)",
        "-0.0001, 0.5, 0.00(50)"
    })
    void bracketsGiveTwoDigits(double value, double u, String expected) {
        assertThat(Notation.bracketed(value, u)).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"4.1273841, 0.038, 4.127 ± 0.038", "12.4, 0.3, 12.40 ± 0.30", "123456, 1234, (1.235 ± 0.012) × 10⁵"})
    void plusMinusKeepsTheSamePlace(double value, double u, String expected) {
        assertThat(Notation.plusMinus(value, u)).isEqualTo(expected);
    }

    /** An instant is another day in another place; what people read is the day of theirs. */
    @Test
    void aDayIsThatOfThePlace() {
        Instant late = Instant.parse("2026-11-26T20:00:00Z");
        TimeZone was = TimeZone.getDefault();
        try {
            TimeZone.setDefault(TimeZone.getTimeZone("Pacific/Auckland"));
            assertThat(Notation.day(late)).isEqualTo("2026-11-27");
            TimeZone.setDefault(TimeZone.getTimeZone("America/Lima"));
            assertThat(Notation.day(late)).isEqualTo("2026-11-26");
        } finally {
            TimeZone.setDefault(was);
        }
    }

    @Test
    void plainNumbersLoseTheirTrailingZerosAndFiguresKeepThem() {
        assertThat(Notation.plain(0.25000, 4)).isEqualTo("0.25");
        assertThat(Notation.plain(-3.14159, 3)).isEqualTo("−3.14");
        assertThat(Notation.plain(1.5e-9, 3)).isEqualTo("1.5\u2009×\u200910⁻⁹");
        assertThat(Notation.plain(Double.NaN, 3)).isEqualTo("no value");
        assertThat(Notation.figures(0.002, 2)).isEqualTo("0.0020");
        assertThat(Notation.figures(0.09996, 2)).isEqualTo("0.10");
        assertThat(Notation.figures(12.34, 2)).isEqualTo("12");
    }

    @ParameterizedTest
    @CsvSource({
        "9.8123(4) m/s^2, 9.8123, 0.0004",
        "12.4 ± 0.3 mm, 12.4, 0.3",
        "(1.60 ± 0.02)e-3 kg, 0.0016, 0.00002",
        "12.4 +/- 0.3 mm, 12.4, 0.3",
        "60.02(3) mm, 60.02, 0.03",
        "12.3(1.2) V, 12.3, 1.2",
        "1.602(2)e-19 C, 1.602e-19, 2e-22",
        "-5(1) K, -5, 1",
        "5 V, 5, 0",
        ".5(1) m, 0.5, 0.1",
        "100(12), 100, 12",
        "3 %, 3, 0",
        "1.2e3 ± 40 N, 1200, 40"
    })
    void readingsAreUnderstood(String text, double value, double u) {
        Reading r = Reading.parse(text);
        assertThat(r.value()).isCloseTo(value, within(1e-12 * Math.abs(value)));
        assertThat(r.u()).isCloseTo(u, within(1e-12 * u));
        assertThat(r.distribution()).isEqualTo(Distribution.NORMAL);
    }

    @Test
    void aLimitIsRectangular() {
        Reading r = Reading.parse("20.02 limit 0.05 mm");
        assertThat(r.u()).isCloseTo(0.05 / Math.sqrt(3), within(1e-15));
        assertThat(r.distribution()).isEqualTo(Distribution.RECTANGULAR);
        assertThat(r.toQuantity("x", "x", "x").limit()).isCloseTo(0.05, within(1e-15));
    }

    @ParameterizedTest
    @ValueSource(strings = {"9.8123(40) m/s^2", "12.40(30) mm", "20.020 limit 0.050 mm", "0.5", "7(10) degC"})
    void readingsAreWrittenBackReadable(String text) {
        Reading r = Reading.parse(text);
        Reading again = Reading.parse(r.text().replace('−', '-'));
        assertThat(again.value()).isCloseTo(r.value(), within(1e-12));
        assertThat(again.u()).isCloseTo(r.u(), within(1e-12));
        assertThat(again.unit()).isEqualTo(r.unit());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"", "abc", "1,5 mm", "5 ± mm", "3.2(1) ± 0.1 m", "(1.6 ± 0.2 kg", "1.2.3 m", "5 wombats", "--3 m"
            })
    void nonsenseGetsOneSentence(String text) {
        assertThatThrownBy(() -> Reading.parse(text))
                .isInstanceOf(IllegalArgumentException.class)
                .satisfies(e -> assertThat(e.getMessage()).endsWith(".").doesNotContain("\n"));
    }

    /** Student's t at 95 %, JCGM 100 table G.2. */
    @ParameterizedTest
    @CsvSource({"1, 12.71", "2, 4.30", "3, 3.18", "4, 2.78", "5, 2.57", "10, 2.23", "20, 2.09", "50, 2.01", "1e9, 1.960"
    })
    void coverageFactorsAreThoseOfTheGuide(double dof, double k) {
        assertThat(new Coverage(0.95).factor(dof)).isCloseTo(k, within(0.006));
    }

    @Test
    void tailsAndFactorsBelongTogether() {
        assertThat(Coverage.tails(Coverage.DEFAULT.factor(7), 7)).isCloseTo(0.05, within(1e-9));
        assertThat(Coverage.tails(0, 7)).isCloseTo(1, within(1e-12));
        assertThatThrownBy(() -> new Coverage(1)).isInstanceOf(IllegalArgumentException.class);
        Quantity q = Quantity.of(1, 0.5, LabUnit.ONE, Leaf.typeA("a", "a", "", 10));
        assertThat(Coverage.DEFAULT.expanded(q)).isCloseTo(0.5 * 2.228, within(1e-3));
        assertThat(Coverage.DEFAULT.expanded(Quantity.number(1))).isZero();
    }
}

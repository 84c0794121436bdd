package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Locale;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** How numbers are written for people and for programs. */
class DecimalSignTest {
    private final Quantity force =
            Quantity.of(-4.127, 0.038, LabUnit.parse("N"), Leaf.typeB("f", "force", "test", Distribution.NORMAL));

    @AfterEach
    void asUsual() {
        DecimalSign.use(DecimalSign.POINT);
    }

    @Test
    void whatPeopleReadHasTheSignInUseAndWhatProgramsReadAPoint() {
        DecimalSign.use(DecimalSign.COMMA);
        assertThat(Notation.bracket(force)).isEqualTo("−4,127(38) N");
        assertThat(Notation.plusMinus(force)).isEqualTo("−4,127 ± 0,038 N");
        assertThat(Notation.interval(-0.5, 1.25)).isEqualTo("−0,5 to 1,3");
        assertThat(Notation.plain(-1.25e-9, 3)).isEqualTo("−1,25\u2009×\u200910⁻⁹");
        assertThat(Printed.of(Quantity.exact(0.69, LabUnit.parse("mm"))).text()).isEqualTo("0,69\u2009mm");
        assertThat(Printed.of(force).beforePoint()).isEqualTo(2);
        assertThat(Digits.bracket(force)).isEqualTo("-4.127(38) N");
        assertThat(Reading.parse(Digits.bracket(force)).value()).isEqualTo(-4.127);
        assertThat(Reading.parse("20.02 limit 0.05 mm").text()).isEqualTo("20.020 limit 0.050 mm");
        DecimalSign.inFiles(() -> assertThat(Notation.bracket(force)).isEqualTo("−4.127(38) N"));
        assertThat(Notation.bracket(force)).isEqualTo("−4,127(38) N");
    }

    @Test
    void aSentenceIsTheSameOnEveryMachine() {
        Locale before = Locale.getDefault();
        try {
            Locale.setDefault(Locale.GERMANY);
            assertThat(Notation.sentence("%s of %d: %.2f, %+.1f, %,d draws, 5 %%", "1.5 kg", 3, 2.345, -1.0, 120000))
                    .isEqualTo("1.5 kg of 3: 2.35, −1.0, 120\u2009000 draws, 5 %");
            DecimalSign.use(DecimalSign.COMMA);
            assertThat(Notation.sentence("%.2f", 2.345)).isEqualTo("2,35");
            assertThat(Notation.fixed(-0.001, 2)).isEqualTo("0,00");
            assertThat(Notation.fixed(-12.345, 1)).isEqualTo("−12,3");
            assertThat(Notation.fixed(Double.NaN, 1)).isEqualTo("no value");
        } finally {
            Locale.setDefault(before);
        }
    }

    @Test
    void whatIsTypedIsUnderstoodEitherWay() {
        DecimalSign.use(DecimalSign.COMMA);
        DecimalSign sign = DecimalSign.inUse();
        assertThat(sign.typed("20,02 limit 0,05 mm")).isEqualTo("20.02 limit 0.05 mm");
        assertThat(sign.typed("20.02(5) mm")).isEqualTo("20.02(5) mm");
        assertThat(sign.typed("12,1; 12,3; 12,2 mm")).isEqualTo("12.1; 12.3; 12.2 mm");
        assertThat(sign.typed("12,1, 12,3 mm")).isEqualTo("12.1, 12.3 mm");
        assertThat(sign.shown("stopwatch(1.23 s)")).isEqualTo("stopwatch(1,23 s)");
        assertThat(DecimalSign.POINT.typed("1,5")).as("not guessed at").isEqualTo("1,5");
    }

    @Test
    void aReadingOfASheetIsSetForPeopleWithItsOwnDigits() {
        assertThat(Notation.asWritten("0.930(5) g/cm^3")).isEqualTo("0.930(5) g/cm³");
        assertThat(Notation.asWritten("20.02 limit 0.05 mm")).isEqualTo("20.02 limit 0.05 mm");
        DecimalSign.use(DecimalSign.COMMA);
        assertThat(Notation.asWritten("60.00(15) degC")).isEqualTo("60,00(15) °C");
        assertThat(Notation.asWritten("0.170(20)")).isEqualTo("0,170(20)");
        assertThat(Notation.asWritten("9.8126(3) m/s^2")).isEqualTo("9,8126(3) m/s²");
        assertThat(Notation.asWritten("ice bath, 0.6 L")).isEqualTo("ice bath, 0.6 L");
        assertThat(Notation.asWritten("max(1.5, 2)")).isEqualTo("max(1.5, 2)");
    }
}

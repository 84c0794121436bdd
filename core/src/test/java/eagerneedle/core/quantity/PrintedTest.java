package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PrintedTest {
    private static Quantity of(String reading) {
        return Reading.parse(reading).toQuantity("x", "x", "by hand");
    }

    @ParameterizedTest
    @CsvSource({
        "9.796(47) m/s^2, 9.796(47) m/s²",
        "3.41220(11)e8 us^2, 341.220(11) ms²",
        "0.00069(2) m, 0.690(20) mm",
        "0.00012(1) kg, 0.120(10) g",
        "52000(180) J/mol, 52.00(18) kJ/mol",
        "4.2(3)e-7 L/mol/cm, 0.420(30) µL/mol/cm",
        "-0.00034(20) V, −0.34(20) mV",
        "0.00000(22), 0.00000(22)",
        "3.2(1)e9, 3.20(10) × 10⁹",
        "2.0(3)e-7, 2.00(30) × 10⁻⁷",
        "0.0004(2) degC, 0.00040(20) °C",
        "1.5(2)e7 1/s, 1.50(20) × 10⁷ 1/s",
        "12.5(1) min, 12.50(10) min"
    })
    void prefixesKeepPowersAway(String reading, String printed) {
        assertThat(Printed.of(of(reading)).text().replace(Printed.THIN, " ")).isEqualTo(printed);
    }

    @Test
    void whatIsExactHasNoBrackets() {
        Printed w = Printed.of(Quantity.exact(0.00025, LabUnit.parse("m")));
        assertThat(w.number()).isEqualTo("0.25");
        assertThat(w.uncertainty()).isEmpty();
        assertThat(w.unit().pretty()).isEqualTo("mm");
    }

    @Test
    void digitsBeforeThePointAreCountedWithTheSign() {
        assertThat(Printed.of(of("-12.5(1) m")).beforePoint()).isEqualTo(3);
        assertThat(Printed.of(of("266(2) N/m")).beforePoint()).isEqualTo(3);
    }

    /** However it is written, it is the same quantity. */
    @Property(tries = 300)
    void whatIsPrintedIsWhatIsMeant(
            @ForAll @DoubleRange(min = 1, max = 9.9) double mantissa,
            @ForAll @IntRange(min = -11, max = 11) int ten,
            @ForAll @DoubleRange(min = 0.01, max = 0.2) double relative) {
        double v = mantissa * Math.pow(10, ten);
        Quantity q = of(v + " +/- " + relative * v + " s^2");
        Printed w = Printed.of(q);
        double back = Double.parseDouble(w.number().replace('−', '-')) * Math.pow(10, w.power());
        assertThat(w.unit().convert(back, q.unit())).isCloseTo(v, org.assertj.core.data.Offset.offset(0.06 * q.u()));
    }
}

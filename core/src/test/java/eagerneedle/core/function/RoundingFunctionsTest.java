package eagerneedle.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Quantity;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Whole numbers, remainders, lengths, logarithms to base 2, and the constants of the language. */
class RoundingFunctionsTest {
    private static Quantity q(String text) {
        return ((Value.Scalar) Formula.parse(text).evaluate(Scope.empty("t"))).quantity();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "floor(-0.2) | -1 | 1",
                "floor(0.3 m, step: 10 cm) | 0.3 | m",
                "ceil(-0.2) | 0 | 1",
                "ceil(3.0) | 3 | 1",
                "ceil(0.3 m, step: 0.1 m) | 0.3 | m",
                "round(-2.5) | -3 | 1",
                "round(2.4999) | 2 | 1",
                "round(1234 mV, step: 0.05 V) | 1250 | mV",
                "floor(250 %) | 200 | %",
                "mod(-1, 3) | 2 | 1",
                "mod(0.3, 0.1) | 0 | 1",
                "mod(1 m, 30 cm) | 0.1 | m",
                "mod(7, 7) | 0 | 1",
                "mod(10000000000001, 3) | 2 | 1",
                "mod(-0.3, 0.1) | 0 | 1",
                "floor(1000000000000.75) | 1000000000000 | 1",
                "floor(0.9999999999) | 0 | 1",
                "hypot(5 m, 1200 cm) | 13 | m",
                "hypot(0 V, 0 V) | 0 | V",
                "hypot(3e200, 4e200) | 5e200 | 1",
                "log2(8) | 3 | 1",
                "log2(536870912) | 29 | 1",
                "log2(0.125) | -3 | 1",
                "log2(10) | 3.321928094887362 | 1"
            })
    void byHand(String formula, double value, String unit) {
        Quantity found = q(formula);
        assertThat(found.unit()).isEqualTo(LabUnit.parse(unit));
        assertThat(found.value()).isCloseTo(value, within(1e-12 * Math.max(1, Math.abs(value))));
        assertThat(found.u()).isZero();
    }

    @Test
    void roundingMakesNothingBetterKnown() {
        assertThat(q("round(12.34(5) mm, step: 0.1 mm)").u()).isCloseTo(0.05, within(1e-12));
        assertThat(q("floor(7.9(4))").value()).isEqualTo(7);
        assertThat(q("floor(7.9(4))").u()).isCloseTo(0.4, within(1e-12));
        MonteCarlo drawn = MonteCarlo.of(q("floor(7.9(4))"), Coverage.DEFAULT, MonteCarlo.Settings.QUICK);
        // Of N(7.9, 0.4) 1.2 % lie below 7, 58.7 % in 7 to 8, 39.8 % in 8 to 9: the mean of the floors is 7.39.
        assertThat(drawn.mean()).isCloseTo(7.39, within(0.02));
    }

    @Test
    void aRemainderKnowsWhatItCameFrom() {
        Quantity left = q("mod(100.0(3) deg, 30.0(1) deg)");
        assertThat(left.in(LabUnit.parse("deg"))).isCloseTo(10, within(1e-9));
        assertThat(left.u()).isCloseTo(Math.hypot(0.3, 3 * 0.1), within(1e-9));
        assertThat(q("mod(10.0(3) s, 4 s) - 10.0(3) s").u())
                .as("two readings, written twice")
                .isGreaterThan(0.4);
        assertThat(q("hypot(3.0(1) m, 4.0(1) m)").u()).isCloseTo(0.1, within(1e-12));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "floor(3 m) | floor(3 m, step: 1 m)",
                "round(3 m, step: 1 s) | in a unit that fits",
                "round(3, step: 0) | must be above zero",
                "round(3.4 mm, step: 1.0(1) mm) | must be exact",
                "round(20.4 degC) | write it in K",
                "mod(3 m, 2 s) | of one kind",
                "mod(3, 0) | must be above zero",
                "mod(3, -1) | must be above zero",
                "mod(20 degC, 7 K) | write it in K",
                "hypot(3 m, 2) | of one kind",
                "hypot(0.0(1) m, 0 m) | both are zero",
                "log2(0) | no value",
                "log2(3 V) | a pure number",
                "boltzman * 3 K | did you mean boltzmann"
            })
    void whatDoesNotGoIsSaid(String formula, String says) {
        assertThatThrownBy(() -> q(formula))
                .isInstanceOf(FormulaException.class)
                .hasMessageContaining(says);
    }

    @Test
    void constantsHaveTheirExactValuesAndGiveWayToNamesOfTheSheet() {
        assertThat(q("avogadro * boltzmann - gas_constant").value()).isCloseTo(0, within(1e-14));
        assertThat(q("to(boltzmann * 294.65 K / electron, 'mV')").value()).isCloseTo(25.390972, within(1e-5));
        assertThat(q("to(planck * speed_of_light / electron, 'V*nm')").value()).isCloseTo(1239.841984, within(1e-6));
        assertThat(Constants.number("boltzmann")).as("it has a unit").isEmpty();
        Value own = Formula.parse("electron * 2").evaluate(Scope.over("t", Map.of("electron", (Value)
                new Value.Scalar(Quantity.number(7)))));
        assertThat(((Value.Scalar) own).quantity().value()).isEqualTo(14);
    }

    @Test
    void textStandsInEitherQuotesAndARateIsAUnit() {
        assertThat(q("to(90 km/h, 'm/s')").value()).isCloseTo(25, within(1e-12));
        assertThat(Formula.parse("nearest(1.0(1), 'this and \"that\"', 1)")
                        .evaluate(Scope.empty("t"))
                        .described())
                .isNotNull();
        assertThat(eagerneedle.core.formula.Spelling.of(
                        Formula.parse("f('a \"b\"')").expression()))
                .isEqualTo("f('a \"b\"')");
        Quantity decay = q("0.50(8) 1/s * 2 s");
        assertThat(decay.value()).isEqualTo(1);
        assertThat(decay.u()).isCloseTo(0.16, within(1e-12));
        assertThat(q("51/3").value()).as("no unit 1/3").isEqualTo(17);
        assertThat(q("(0.5 ± 0.1) 1/s").unit().fits(LabUnit.parse("Hz"))).isTrue();
        assertThatThrownBy(() -> q("2 1/x"))
                .isInstanceOf(FormulaException.class)
                .hasMessageContaining("x");
    }
}

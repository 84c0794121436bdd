package eagerneedle.core.reference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Vapour pressure and density of water against tables. */
class WaterTest {
    private static Quantity of(String formula) {
        return ((Value.Scalar) Formula.parse(formula).evaluate(Scope.empty("water"))).quantity();
    }

    /** IAPWS-95 along the saturation line. */
    @ParameterizedTest
    @CsvSource({"0.01, 611.657", "20, 2339.2", "60, 19947", "100, 101418", "150, 476160"})
    void theVapourPressureIsThatOfTheTables(double celsius, double pascal) {
        assertThat(of("vapour_pressure(" + celsius + " degC)").in(LabUnit.parse("Pa")))
                .isCloseTo(pascal, within(3e-5 * pascal));
    }

    /** IAPWS-95 at 101.325 kPa. */
    @ParameterizedTest
    @CsvSource({"0, 999.843", "4, 999.975", "10, 999.703", "20, 998.207", "25, 997.047", "40, 992.215"})
    void theDensityIsThatOfTheTables(double celsius, double density) {
        Quantity q = of("water_density(" + celsius + " degC)");
        assertThat(q.in(LabUnit.parse("kg/m^3"))).isCloseTo(density, within(0.01));
        assertThat(q.u()).as("the formula's own").isCloseTo(0.02 / Math.sqrt(3), within(1e-12));
    }

    @Test
    void whatBoilsHasThePressureOverIt() {
        assertThat(of("vapour_pressure(boiling_point(98.70 kPa))").in(LabUnit.parse("kPa")))
                .isCloseTo(98.70, within(1e-6));
        double slope = (of("vapour_pressure(25.01 degC)").value()
                        - of("vapour_pressure(24.99 degC)").value())
                / 0.02;
        assertThat(of("vapour_pressure(25.0(1) degC)").u()).isCloseTo(0.1 * slope, within(1e-4));
        assertThat(of("water_density(4 degC)").value())
                .isGreaterThan(of("water_density(3 degC)").value());
        assertThat(of("water_density(4 degC)").value())
                .isGreaterThan(of("water_density(5 degC)").value());
        assertThatThrownBy(() -> of("water_density(101 degC)")).hasMessageContaining("0 degC to 100 degC");
        assertThatThrownBy(() -> of("vapour_pressure(-1 degC)")).hasMessageContaining("0.01 degC to 150 degC");
    }
}

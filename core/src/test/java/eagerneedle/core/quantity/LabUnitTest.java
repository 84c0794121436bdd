package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class LabUnitTest {
    @ParameterizedTest
    @CsvSource({"mm, m, 0.001", "km, m, 1000", "min, s, 60", "h, s, 3600", "g, kg, 0.001", "mg, kg, 1e-6", "L, m^3, 0.001", "mL, m^3, 1e-6", "bar, Pa, 1e5",
        "mbar, Pa, 100", "hPa, Pa, 100", "mN, N, 0.001", "N, kg*m/s^2, 1", "J, N*m, 1", "W, J/s, 1", "V, W/A, 1", "ohm, V/A, 1", "C, A*s, 1", "F, C/V, 1", "T, Wb/m^2, 1",
        "microstrain, , 1e-6", "%, , 0.01", "ppm, , 1e-6", "deg, rad, 0.017453292519943295", "arcsec, rad, 4.84813681109536e-06", "arcmin, deg, 0.016666666666666666",
        "rpm, Hz, 0.016666666666666666", "km/h, m/s, 0.2777777777777778", "mol/L, mol/m^3, 1000", "mmol/L, mol/L, 0.001", "eV, J, 1.602176634e-19", "kHz, 1/s, 1000",
        "cm^2, m^2, 1e-4", "mm^3, m^3, 1e-9", "g/cm^3, kg/m^3, 1000", "kOhm, ohm, 1000", "µV, V, 1e-6", "uV, V, 1e-6", "m/s², m/s^2, 1", "m·s⁻¹, m/s, 1", "d, h, 24"})
    void convertsExactly(String from, String to, double factor) {
        String known = from.equals("kOhm") ? "kohm" : from;
        LabUnit target = LabUnit.parse(to == null ? "" : to);
        assertThat(LabUnit.parse(known).convert(1, target)).isCloseTo(factor, within(1e-14 * factor));
        assertThat(LabUnit.parse(known).scaleTo(target)).isCloseTo(factor, within(1e-14 * factor));
        assertThat(target.convert(factor, LabUnit.parse(known))).isCloseTo(1, within(1e-14));
    }

    @Test
    void celsiusHasItsOwnZero() {
        LabUnit c = LabUnit.parse("degC");
        assertThat(c.convert(25, LabUnit.KELVIN)).isCloseTo(298.15, within(1e-12));
        assertThat(LabUnit.KELVIN.convert(0, c)).isCloseTo(-273.15, within(1e-12));
        assertThat(c.scaleTo(LabUnit.KELVIN)).isEqualTo(1);
        assertThat(c.isAffine()).isTrue();
        assertThat(LabUnit.parse("°C")).isEqualTo(c);
    }

    @ParameterizedTest
    @ValueSource(strings = {"furlong", "m//s", "m/", "/s", "m s", "m^", "3m", "m+s", "xyz^2"})
    void refusesWhatIsNoUnit(String text) {
        assertThatThrownBy(() -> LabUnit.parse(text)).isInstanceOf(UnitException.class).hasMessageEndingWith(".");
    }

    @Test
    void suggestsTheRightCase() {
        assertThatThrownBy(() -> LabUnit.parse("HZ")).hasMessageContaining("perhaps Hz");
    }

    @Test
    void refusesToMixKinds() {
        assertThatThrownBy(() -> LabUnit.parse("m").convert(1, LabUnit.parse("kg"))).isInstanceOf(UnitException.class)
                .hasMessageContaining("m").hasMessageContaining("kg");
    }

    @ParameterizedTest
    @CsvSource({"kg*m/s^2, N", "kg/m/s^2, Pa", "m/s, m/s", "kg*m^2/s^3, W", "1/s, 1/s", "A*s, C"})
    void namesCoherentUnits(String product, String name) {
        assertThat(LabUnit.parse(product).times(LabUnit.ONE).symbol()).isEqualTo(name);
    }

    @Test
    void keepsBrokenPowersOfBaseUnits() {
        LabUnit root = LabUnit.parse("m").power(0.5);
        assertThat(root.power(2).symbol()).isEqualTo("m");
        assertThat(root.times(LabUnit.parse("m").power(2.5)).symbol()).isEqualTo("m^3");
        assertThatThrownBy(() -> LabUnit.parse("m").power(1 / 7.0)).isInstanceOf(UnitException.class);
    }

    @ParameterizedTest
    @CsvSource({"m/s^2, m/s²", "degC, °C", "ohm, Ω", "kg*m^2, kg·m²", "s^-1, s⁻¹", "deg, °"})
    void isSetPrettily(String plain, String pretty) {
        assertThat(LabUnit.parse(plain).pretty()).isEqualTo(pretty);
    }

    @ParameterizedTest
    @ValueSource(strings = {"m/s^2", "kg*m^2/s^2", "mol/L", "degC", "µV", "%", "1/s", "mm", "ohm", "microstrain", "km/h"})
    void symbolsReadBack(String text) {
        LabUnit u = LabUnit.parse(text);
        assertThat(LabUnit.parse(u.symbol())).isEqualTo(u);
        assertThat(LabUnit.parse(u.pretty()).convert(2, u)).isCloseTo(2, within(1e-15));
    }
}

package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class LabUnitTest {
    @ParameterizedTest
    @CsvSource({
        "mm, m, 0.001",
        "km, m, 1000",
        "min, s, 60",
        "h, s, 3600",
        "g, kg, 0.001",
        "mg, kg, 1e-6",
        "L, m^3, 0.001",
        "mL, m^3, 1e-6",
        "bar, Pa, 1e5",
        "mbar, Pa, 100",
        "hPa, Pa, 100",
        "mN, N, 0.001",
        "N, kg*m/s^2, 1",
        "J, N*m, 1",
        "W, J/s, 1",
        "V, W/A, 1",
        "ohm, V/A, 1",
        "C, A*s, 1",
        "F, C/V, 1",
        "T, Wb/m^2, 1",
        "microstrain, , 1e-6",
        "%, , 0.01",
        "ppm, , 1e-6",
        "deg, rad, 0.017453292519943295",
        "arcsec, rad, 4.84813681109536e-06",
        "arcmin, deg, 0.016666666666666666",
        "rpm, rad/s, 0.10471975511965977",
        "km/h, m/s, 0.2777777777777778",
        "mol/L, mol/m^3, 1000",
        "mmol/L, mol/L, 0.001",
        "eV, J, 1.602176634e-19",
        "kHz, 1/s, 1000",
        "cm^2, m^2, 1e-4",
        "mm^3, m^3, 1e-9",
        "g/cm^3, kg/m^3, 1000",
        "kOhm, ohm, 1000",
        "µV, V, 1e-6",
        "uV, V, 1e-6",
        "m/s², m/s^2, 1",
        "m·s⁻¹, m/s, 1",
        "d, h, 24"
    })
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

    /**
     * What turns is in rad/s, what counts whole cycles in Hz; 1/s goes with either; nothing else goes from one to the
     * other.
     */
    @ParameterizedTest
    @CsvSource({
        "rev/s, rad/s, 6.283185307179586",
        "rpm, rev/min, 1",
        "rpm, rad/s, 0.10471975511965977",
        "deg/s, rad/s, 0.017453292519943295",
        "rev, rad, 6.283185307179586",
        "rev, deg, 360",
        "deg, '', 0.017453292519943295",
        "rad/s, 1/s, 1",
        "rev/s, 1/s, 6.283185307179586",
        "rpm, 1/s, 0.10471975511965977",
        "Hz, 1/s, 1",
        "kHz, 1/s, 1000",
        "rev/s^2, rad/s^2, 6.283185307179586"
    })
    void whatTurnsFollowsOneRule(String from, String to, double factor) {
        LabUnit a = LabUnit.parse(from);
        LabUnit b = LabUnit.parse(to);
        assertThat(a.fits(b)).isTrue();
        assertThat(b.fits(a)).isTrue();
        assertThat(a.convert(1, b)).isCloseTo(factor, within(1e-15 * factor));
        assertThat(b.scaleTo(a)).isCloseTo(1 / factor, within(1e-15 / factor));
        assertThat(Quantity.exact(1, a).minus(Quantity.exact(factor, b)).value())
                .isCloseTo(0, within(1e-15 * factor));
    }

    @ParameterizedTest
    @CsvSource({"rev/s, Hz", "rpm, Hz", "rad/s, Hz", "deg/s, kHz", "rev/min, mHz", "rev/s^2, Hz/s"})
    void whatTurnsIsNoFrequency(String turning, String counting) {
        LabUnit a = LabUnit.parse(turning);
        LabUnit b = LabUnit.parse(counting);
        assertThat(a.fits(b) || b.fits(a)).isFalse();
        for (Runnable r : List.<Runnable>of(
                () -> a.convert(1, b),
                () -> b.convert(1, a),
                () -> a.scaleTo(b),
                () -> Quantity.exact(1, a).plus(Quantity.exact(1, b)),
                () -> Quantity.exact(1, b).minus(Quantity.exact(1, a)),
                () -> Quantity.exact(1, LabUnit.parse("rev"))
                        .dividedBy(Quantity.exact(1, LabUnit.SECOND))
                        .to(LabUnit.parse("Hz")))) {
            assertThatThrownBy(r::run).isInstanceOf(UnitException.class).hasMessageContaining("2 pi");
        }
    }

    @Test
    void anglesVanishFromProductsThatAreNoTurning() {
        assertThat(Quantity.exact(10, LabUnit.parse("N*m"))
                        .times(Quantity.exact(1000, LabUnit.parse("rpm")))
                        .in(LabUnit.parse("W")))
                .isCloseTo(1047.1975511965977, within(1e-9));
        assertThat(Quantity.exact(2, LabUnit.parse("m"))
                        .times(Quantity.exact(90, LabUnit.parse("deg")))
                        .in(LabUnit.parse("m")))
                .isCloseTo(Math.PI, within(1e-14));
        assertThat(Quantity.exact(2, LabUnit.parse("mm/rev"))
                        .times(Quantity.exact(3, LabUnit.parse("rev")))
                        .in(LabUnit.parse("mm")))
                .isCloseTo(6, within(1e-14));
        assertThat(Quantity.exact(6, LabUnit.parse("rev"))
                        .dividedBy(Quantity.exact(2, LabUnit.SECOND))
                        .unit()
                        .symbol())
                .isEqualTo("rad/s");
        assertThat(Quantity.exact(6, LabUnit.parse("m/s"))
                        .dividedBy(Quantity.exact(2, LabUnit.parse("m")))
                        .to(LabUnit.parse("rpm"))
                        .value())
                .isCloseTo(180 / 2 / Math.PI, within(1e-12));
    }

    @ParameterizedTest
    @CsvSource({
        "in, mm, 25.4",
        "ft, m, 0.3048",
        "psi, Pa, 6894.757293168361",
        "torr, Pa, 133.32236842105263",
        "mmHg, Pa, 133.322387415",
        "lx, lx, 1",
        "%RH, %, 1",
        "sec, s, 1",
        "Minutes, s, 60",
        "hr, s, 3600",
        "inches, mm, 25.4",
        "Volts, V, 1",
        "lbf, N, 4.4482216152605",
        "microstrain, ppm, 1",
        "Inches, ft, 0.08333333333333333"
    })
    void unitsAndSpellingsOfInstruments(String from, String to, double factor) {
        assertThat(LabUnit.parse(from).convert(1, LabUnit.parse(to))).isCloseTo(factor, within(1e-12 * factor));
    }

    @Test
    void fahrenheitHasItsOwnZeroAndItsOwnStep() {
        LabUnit f = LabUnit.parse("°F");
        assertThat(f.convert(212, LabUnit.parse("degC"))).isCloseTo(100, within(1e-10));
        assertThat(f.convert(-40, LabUnit.parse("degC"))).isCloseTo(-40, within(1e-10));
        Quantity rise = Quantity.exact(212, f).minus(Quantity.exact(0, LabUnit.parse("degC")));
        assertThat(rise.in(LabUnit.KELVIN)).isCloseTo(100, within(1e-10));
        assertThat(f.pretty()).isEqualTo("°F");
        assertThat(LabUnit.parse(rise.unit().symbol()).fits(LabUnit.KELVIN)).isTrue();
    }

    @ParameterizedTest
    @ValueSource(strings = {"furlong", "m//s", "m/", "/s", "m s", "m^", "3m", "m+s", "xyz^2"})
    void refusesWhatIsNoUnit(String text) {
        assertThatThrownBy(() -> LabUnit.parse(text))
                .isInstanceOf(UnitException.class)
                .hasMessageEndingWith(".");
    }

    @Test
    void suggestsTheRightCase() {
        assertThatThrownBy(() -> LabUnit.parse("HZ")).hasMessageContaining("perhaps Hz");
    }

    @Test
    void refusesToMixKinds() {
        assertThatThrownBy(() -> LabUnit.parse("m").convert(1, LabUnit.parse("kg")))
                .isInstanceOf(UnitException.class)
                .hasMessageContaining("m")
                .hasMessageContaining("kg");
    }

    @ParameterizedTest
    @CsvSource({"kg*m/s^2, N", "kg/m/s^2, Pa", "m/s, m/s", "kg*m^2/s^3, W", "1/s, 1/s", "A*s, C"})
    void namesCoherentUnits(String product, String name) {
        LabUnit twice = LabUnit.parse("s").times(LabUnit.parse(product));
        assertThat(twice.per(LabUnit.parse("s")).symbol()).isEqualTo(name);
    }

    /** What is multiplied by a number stays as it was written. */
    @ParameterizedTest
    @CsvSource({"J", "N*m", "V^2", "kg*m^2/s^2"})
    void aFactorLeavesTheUnitAsItIs(String unit) {
        assertThat(LabUnit.parse(unit).times(LabUnit.ONE).symbol()).isEqualTo(unit);
        assertThat(LabUnit.ONE.times(LabUnit.parse(unit)).symbol()).isEqualTo(unit);
        assertThat(LabUnit.parse(unit).per(LabUnit.ONE).symbol()).isEqualTo(unit);
    }

    @Test
    void squaresOfNamedUnitsAreWrittenAsSuch() {
        LabUnit volt = LabUnit.parse("V");
        assertThat(volt.times(volt).symbol()).isEqualTo("V^2");
        assertThat(LabUnit.parse(volt.times(volt).symbol()).fits(volt.times(volt)))
                .isTrue();
        assertThat(LabUnit.parse("m").power(2).symbol()).isEqualTo("m^2");
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
    @ValueSource(
            strings = {"m/s^2", "kg*m^2/s^2", "mol/L", "degC", "µV", "%", "1/s", "mm", "ohm", "microstrain", "km/h"})
    void symbolsReadBack(String text) {
        LabUnit u = LabUnit.parse(text);
        assertThat(LabUnit.parse(u.symbol())).isEqualTo(u);
        assertThat(LabUnit.parse(u.pretty()).convert(2, u)).isCloseTo(2, within(1e-15));
    }
}

package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.quantities;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Elementary;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reference.BoilingWater;
import eagerneedle.core.reference.MoistAir;
import eagerneedle.core.reference.PlatinumThermometer;
import eagerneedle.core.reference.Thermistor;
import eagerneedle.core.reference.Thermocouple;
import eagerneedle.core.reference.WaterDensity;

/** Published reference functions of sensors and of air. */
final class ReferenceFunctions {
    private ReferenceFunctions() {}

    static void define() {
        Functions.define(
                Function.of(
                                "tc_voltage",
                                words("type"),
                                quantities("temperature").in("degC"),
                                quantity("reference").in("degC").usually("0 degC"))
                        .described(
                                "thermocouple type B, E, J, K, N, R, S or T; temperature of the measuring and of "
                                        + "the reference junction",
                                "voltage in mV (ITS-90)",
                                "tc_voltage(\"K\", 100 degC)",
                                "4.096230219 mV"),
                a -> a.each(1, t -> Thermocouple.ofType(a.words(0)).voltage(t, a.quantity("reference"))));
        Functions.define(
                Function.of(
                                "tc_temperature",
                                words("type"),
                                quantities("voltage").in("V"),
                                quantity("reference").in("degC").usually("0 degC"))
                        .described(
                                "thermocouple type, voltage, temperature of the reference junction",
                                "temperature in degC (ITS-90)",
                                "tc_temperature(\"K\", 4.096(8) mV)",
                                "99.99(19) °C"),
                a -> a.each(1, v -> Thermocouple.ofType(a.words(0)).temperature(v, a.quantity("reference"))));
        Functions.define(
                Function.of(
                                "tc_sensitivity",
                                words("type"),
                                quantity("temperature").in("degC"))
                        .described(
                                "thermocouple type and temperature",
                                "Seebeck coefficient in uV/K as exact",
                                "tc_sensitivity(\"K\", 0 degC)",
                                "39.45012803 µV/K"),
                a -> {
                    Thermocouple t = Thermocouple.ofType(a.words(0));
                    double celsius = a.quantity(1).in(LabUnit.parse("degC"));
                    if (Double.isNaN(t.voltage(celsius))) {
                        throw new FormulaException(
                                a.column(), "The reference function does not reach " + a.quantity(1) + ".");
                    }
                    return scalar(Quantity.exact(1000 * t.slope(celsius), LabUnit.parse("µV/K")));
                });
        Functions.define(
                Function.of(
                                "rtd_resistance",
                                quantities("temperature").in("degC"),
                                quantities("at_zero").in("ohm").usually("100 ohm"))
                        .described(
                                "temperature, -200 degC to 850 degC; resistance at 0 degC",
                                "resistance of a platinum thermometer (IEC 60751), unit of at_zero",
                                "rtd_resistance(100 degC)",
                                "138.5055 Ω"),
                a -> a.each(0, t -> PlatinumThermometer.resistance(t, a.quantity("at_zero"))));
        Functions.define(
                Function.of(
                                "rtd_temperature",
                                quantities("resistance").in("ohm"),
                                quantities("at_zero").in("ohm").usually("100 ohm"))
                        .described(
                                "resistance of a platinum thermometer; resistance at 0 degC",
                                "temperature in degC (IEC 60751)",
                                "rtd_temperature(138.5055(40) ohm)",
                                "100.000(11) °C"),
                a -> a.each(0, r -> PlatinumThermometer.temperature(r, a.quantity("at_zero"))));
        Functions.define(
                Function.of(
                                "thermistor_temperature",
                                quantities("resistance"),
                                quantity("a"),
                                quantity("b"),
                                quantity("c"))
                        .described(
                                "resistance and the three coefficients of Steinhart and Hart in 1/K",
                                "temperature in K",
                                "thermistor_temperature(10 kohm, 1.1292e-3, 2.3411e-4, 8.7755e-8)",
                                "298.151708 K"),
                a -> a.each(0, r -> Thermistor.temperature(r, a.quantity(1), a.quantity(2), a.quantity(3))));
        Functions.define(
                Function.of(
                                "air_density",
                                quantity("pressure").in("Pa"),
                                quantity("temperature").in("degC"),
                                quantity("humidity").in("%"))
                        .described(
                                "600 hPa to 1100 hPa, 15 degC to 27 degC, relative humidity 0 % to 100 %",
                                "density of moist air in kg/m^3 (CIPM-2007)",
                                "air_density(101325 Pa, 20 degC, 50 %)",
                                "1.199314(26) kg/m³"),
                a -> scalar(MoistAir.density(a.quantity(0), a.quantity(1), a.quantity(2))));
        Functions.define(
                Function.of("boiling_point", quantities("pressure").in("Pa"))
                        .described(
                                "pressure over the water, 50 kPa to 110 kPa",
                                "boiling temperature of pure water in degC (IAPWS saturation line)",
                                "boiling_point(101.325(20) kPa)",
                                "99.9743(55) °C"),
                a -> a.each(0, BoilingWater::temperature));
        Functions.define(
                Function.of("vapour_pressure", quantities("temperature").in("degC"))
                        .described(
                                "temperature, 0.01 degC to 150 degC",
                                "pressure of saturated vapour over pure water in Pa (IAPWS saturation line)",
                                "vapour_pressure(25.00(5) degC)",
                                "3169.8(94) Pa"),
                a -> a.each(0, BoilingWater::pressure));
        Functions.define(
                Function.of("water_density", quantities("temperature").in("degC"))
                        .described(
                                "temperature, 0 degC to 100 degC",
                                "density of pure water at 101.325 kPa in kg/m^3 (Kell 1975)",
                                "water_density(20.0(2) degC)",
                                "998.204(43) kg/m³"),
                a -> a.each(0, WaterDensity::at));
        Functions.define(
                Function.of(
                                "transmittance",
                                quantities("signal"),
                                quantity("blank"),
                                quantity("dark").usually("0"))
                        .described(
                                "signals through the sample, through the blank and in the dark, one unit",
                                "(signal - dark) / (blank - dark), a pure number",
                                "transmittance(2.5 V, 10 V)",
                                "0.25"),
                a -> a.each(0, s -> transmittance(a, s)));
        Functions.define(
                Function.of(
                                "absorbance",
                                quantities("signal"),
                                quantity("blank").orNone(),
                                quantity("dark").usually("0"))
                        .described(
                                "signals through the sample, through the blank and in the dark, one unit; or a "
                                        + "transmittance alone",
                                "-log10 of the transmittance, a pure number",
                                "absorbance(1.0 V, 10 V)",
                                "1"),
                a -> a.each(
                        0,
                        s -> Elementary.LOG10
                                .of(a.has("blank") ? transmittance(a, s) : s)
                                .negate()));
    }

    private static Quantity transmittance(Arguments a, Quantity signal) {
        Quantity dark = a.quantityLike("dark", signal);
        Quantity range = a.quantity(1).minus(dark);
        if (!(range.value() > 0)) {
            throw new FormulaException(
                    a.column(), "The blank, " + a.quantity(1) + ", is not brighter than the dark, " + dark + ".");
        }
        return signal.minus(dark).dividedBy(range);
    }
}

package eagerneedle.core.reference;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import org.hipparchus.analysis.differentiation.Gradient;

/**
 * Density of moist air by the CIPM-2007 formula (Picard, Davis, Gläser and Fujii 2008, Metrologia 45, 149), for 15 °C
 * to 27 °C and 600 hPa to 1100 hPa; the formula itself contributes 22e-6 of the density.
 */
public final class MoistAir {
    private static final LabUnit DENSITY = LabUnit.parse("kg/m^3");
    private static final double GAS_CONSTANT = 8.314472;
    private static final double FORMULA = 22e-6;

    private MoistAir() {}

    /**
     * The density.
     *
     * @param pressure 60 kPa to 110 kPa
     * @param temperature 15 degC to 27 degC
     * @param humidity relative humidity, 0 to 1
     * @return in kg/m^3, with the formula's own uncertainty as a leaf
     * @throws ArithmeticException outside the formula's range
     */
    public static Quantity density(Quantity pressure, Quantity temperature, Quantity humidity) {
        Quantity p = pressure.to(LabUnit.parse("Pa"));
        Quantity t = temperature.to(LabUnit.parse("degC"));
        Quantity h = humidity.to(LabUnit.ONE);
        if (!(p.value() >= 60_000
                && p.value() <= 110_000
                && t.value() >= 15
                && t.value() <= 27
                && h.value() >= 0
                && h.value() <= 1)) {
            throw new ArithmeticException(
                    "The formula for moist air holds from 600 hPa to 1100 hPa, 15 °C to 27 °C and 0 % to 100 %, not at "
                            + pressure + ", " + t + " and " + humidity.to(LabUnit.parse("%")) + ".");
        }
        Gradient g = density(
                Gradient.variable(3, 0, p.value()),
                Gradient.variable(3, 1, t.value()),
                Gradient.variable(3, 2, h.value()));
        Quantity rho = Quantity.through(
                List.of(p, t, h),
                v -> density(Gradient.constant(0, v[0]), Gradient.constant(0, v[1]), Gradient.constant(0, v[2]))
                        .getValue(),
                DENSITY,
                g.getGradient());
        return rho.with(
                Leaf.typeB("formula:moist-air", "formula for moist air", "CIPM-2007", Distribution.NORMAL),
                FORMULA * rho.value());
    }

    /**
     * Density in kg/m^3 of p in Pa, t in degC and h from 0 to 1, with the mole fraction of carbon dioxide at 0.0004.
     */
    private static Gradient density(Gradient p, Gradient t, Gradient h) {
        Gradient kelvin = t.add(273.15);
        Gradient saturation = kelvin.multiply(kelvin)
                .multiply(1.2378847e-5)
                .add(kelvin.multiply(-1.9121316e-2))
                .add(33.93711047)
                .add(kelvin.reciprocal().multiply(-6.3431645e3))
                .exp();
        Gradient enhancement =
                p.multiply(3.14e-8).add(1.00062).add(t.multiply(t).multiply(5.6e-7));
        Gradient x = h.multiply(enhancement).multiply(saturation).divide(p);
        Gradient first =
                t.multiply(t).multiply(1.1043e-10).add(t.multiply(-2.9331e-8)).add(1.58123e-6);
        Gradient second = x.multiply(t.multiply(-2.051e-8).add(5.707e-6));
        Gradient third = x.multiply(x).multiply(t.multiply(-2.376e-6).add(1.9898e-4));
        Gradient over = p.divide(kelvin);
        Gradient z = over.negate()
                .multiply(first.add(second).add(third))
                .add(1)
                .add(over.multiply(over)
                        .multiply(x.multiply(x).multiply(-0.765e-8).add(1.83e-11)));
        double dry = 28.96546e-3;
        return over.multiply(dry / GAS_CONSTANT)
                .divide(z)
                .multiply(x.multiply(-0.3780).add(1));
    }
}

package eagerneedle.core.reference;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;

/**
 * Industrial platinum resistance thermometers by the Callendar-Van Dusen equation with the coefficients of IEC
 * 60751:2008, from -200 °C to 850 °C.
 */
public final class PlatinumThermometer {
    private static final double A = 3.9083e-3;
    private static final double B = -5.775e-7;
    private static final double C = -4.183e-12;
    private static final LabUnit CELSIUS = LabUnit.parse("degC");

    private PlatinumThermometer() {}

    /** Resistance over the resistance at 0 °C, at a temperature in degC; NaN outside -200 to 850. */
    public static double ratio(double t) {
        if (!(t >= -200 && t <= 850)) {
            return Double.NaN;
        }
        return 1 + t * (A + t * (B + (t < 0 ? C * (t - 100) * t : 0)));
    }

    private static double slope(double t) {
        return A + 2 * B * t + (t < 0 ? C * (4 * t - 300) * t * t : 0);
    }

    /** Temperature in degC at a resistance ratio; NaN outside the range of the equation. */
    public static double temperature(double ratio) {
        if (!(ratio >= ratio(-200) && ratio <= ratio(850))) {
            return Double.NaN;
        }
        double t = Math.max(-200, Math.min(850, (-A + Math.sqrt(Math.max(0, A * A - 4 * B * (1 - ratio)))) / (2 * B)));
        for (int step = 0; step < 30; step++) {
            double next = Math.max(-200, Math.min(850, t - (ratio(t) - ratio) / slope(t)));
            if (Math.abs(next - t) < 1e-12) {
                return next;
            }
            t = next;
        }
        return t;
    }

    /**
     * Resistance at a temperature.
     *
     * @param atZero resistance at 0 °C, 100 ohm for the common kind
     * @return in the unit of {@code atZero}
     */
    public static Quantity resistance(Quantity temperature, Quantity atZero) {
        Quantity t = temperature.to(CELSIUS);
        if (Double.isNaN(ratio(t.value()))) {
            throw new ArithmeticException("The platinum equation runs from -200 °C to 850 °C; " + t + " lies outside.");
        }
        return t.through(PlatinumThermometer::ratio, LabUnit.ONE, slope(t.value()))
                .times(atZero)
                .to(atZero.unit());
    }

    /**
     * Temperature at a resistance.
     *
     * @param atZero resistance at 0 °C
     * @return in degC
     */
    public static Quantity temperature(Quantity resistance, Quantity atZero) {
        Quantity ratio = resistance.dividedBy(atZero).to(LabUnit.ONE);
        double t = temperature(ratio.value());
        if (Double.isNaN(t)) {
            throw new ArithmeticException("No temperature from -200 °C to 850 °C gives " + resistance + " with "
                    + atZero + " at 0 °C; check which thermometer it is.");
        }
        return ratio.through(PlatinumThermometer::temperature, CELSIUS, 1 / slope(t));
    }
}

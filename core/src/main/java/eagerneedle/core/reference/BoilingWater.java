package eagerneedle.core.reference;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import org.hipparchus.analysis.solvers.BracketingNthOrderBrentSolver;

/**
 * The boiling point of pure water at a pressure: the saturation line of IAPWS (Wagner and Pruss 1993, equation 2.5,
 * ITS-90), solved for the temperature.
 */
public final class BoilingWater {
    private static final double CRITICAL_K = 647.096;
    private static final double CRITICAL_PA = 22.064e6;
    private static final double[] A = {-7.85951783, 1.84408259, -11.7866497, 22.6807411, -15.9618719, 1.80122502};
    private static final double[] POWER = {1, 1.5, 3, 3.5, 4, 7.5};

    private BoilingWater() {}

    /** Saturation pressure in Pa at a temperature in K, from 273.16 to 647.096. */
    public static double pressure(double kelvin) {
        double v = 1 - kelvin / CRITICAL_K;
        double sum = 0;
        for (int i = 0; i < A.length; i++) {
            sum += A[i] * Math.pow(v, POWER[i]);
        }
        return CRITICAL_PA * Math.exp(CRITICAL_K / kelvin * sum);
    }

    private static double kelvin(double pascal) {
        return new BracketingNthOrderBrentSolver(1e-13, 1e-10, 5)
                .solve(200, t -> Math.log(pressure(t) / pascal), 300, 420);
    }

    /**
     * Boiling temperature at a pressure.
     *
     * @return in degC
     * @throws ArithmeticException outside 50 kPa to 110 kPa
     */
    public static Quantity temperature(Quantity pressure) {
        Quantity p = pressure.to(LabUnit.parse("Pa"));
        if (!(p.value() >= 50e3 && p.value() <= 110e3)) {
            throw new ArithmeticException(
                    "A boiling point is computed from 50 kPa to 110 kPa; " + pressure + " lies outside.");
        }
        double t = kelvin(p.value());
        double slope = (pressure(t + 0.01) - pressure(t - 0.01)) / 0.02;
        return p.through(x -> kelvin(x) - 273.15, LabUnit.parse("degC"), 1 / slope);
    }

    /**
     * Pressure of saturated vapour over pure water.
     *
     * @return in Pa
     * @throws ArithmeticException outside 0.01 degC to 150 degC
     */
    public static Quantity pressure(Quantity temperature) {
        Quantity t = temperature.to(LabUnit.parse("degC"));
        if (!(t.value() >= 0.01 && t.value() <= 150)) {
            throw new ArithmeticException("The vapour pressure of water is computed from 0.01 degC to 150 degC; "
                    + temperature + " lies outside.");
        }
        double kelvin = t.value() + 273.15;
        double slope = (pressure(kelvin + 0.01) - pressure(kelvin - 0.01)) / 0.02;
        return t.through(x -> pressure(x + 273.15), LabUnit.parse("Pa"), slope);
    }
}

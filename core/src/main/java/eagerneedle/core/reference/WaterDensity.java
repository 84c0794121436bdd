package eagerneedle.core.reference;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;

/**
 * Density of pure water free of air at 101.325 kPa, from 0 degC to 100 degC: Kell (1975, J. Chem. Eng. Data 20, 97,
 * equation 16). Against IAPWS-95 it is right within 0.02 kg/m^3; that is stated as a limit of error.
 */
public final class WaterDensity {
    private static final double[] UP = {999.83952, 16.945176, -7.9870401e-3, -46.170461e-6, 105.56302e-9, -280.54253e-12
    };
    private static final double DOWN = 16.879850e-3;
    private static final double LIMIT = 0.02;
    private static final LabUnit UNIT = LabUnit.parse("kg/m^3");
    private static final Leaf FORMULA = Leaf.typeB(
            "reference:water-density", "formula for the density of water", "reference", Distribution.RECTANGULAR);

    private WaterDensity() {}

    /** In kg/m^3, at a temperature in degC. */
    public static double at(double celsius) {
        double up = 0;
        for (int k = UP.length - 1; k >= 0; k--) {
            up = up * celsius + UP[k];
        }
        return up / (1 + DOWN * celsius);
    }

    /**
     * With the uncertainty of the temperature and of the formula.
     *
     * @return in kg/m^3
     * @throws ArithmeticException outside 0 degC to 100 degC
     */
    public static Quantity at(Quantity temperature) {
        Quantity t = temperature.to(LabUnit.parse("degC"));
        if (!(t.value() >= 0 && t.value() <= 100)) {
            throw new ArithmeticException(
                    "The density of water is computed from 0 degC to 100 degC; " + temperature + " lies outside.");
        }
        double slope = (at(t.value() + 0.01) - at(t.value() - 0.01)) / 0.02;
        return t.through(WaterDensity::at, UNIT, slope).plus(Quantity.of(0, LIMIT / Math.sqrt(3), UNIT, FORMULA));
    }
}

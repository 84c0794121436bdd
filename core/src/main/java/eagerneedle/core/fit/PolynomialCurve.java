package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;

/**
 * The polynomial whose coefficient of x^0 is in {@code yUnit} and whose others are in coherent units, as polynomial
 * fits give them.
 *
 * @param xFactor coherent units in one unit of the abscissa
 * @param yFactor coherent units in one unit of the ordinate
 */
record PolynomialCurve(double xFactor, double yFactor) implements Curve {
    PolynomialCurve(LabUnit x, LabUnit y) {
        this(x.factor(), y.factor());
    }

    @Override
    public double at(double x, double[] parameters, double[] gradient) {
        int p = parameters.length;
        double value = parameters[0];
        double slope = 0;
        double power = 1 / yFactor;
        gradient[0] = 1;
        for (int k = 1; k < p; k++) {
            slope += k * parameters[k] * power * xFactor;
            power *= x * xFactor;
            gradient[k] = power;
            value += parameters[k] * power;
        }
        gradient[p] = slope;
        return value;
    }
}

package eagerneedle.core.fit;

/** A curve: its value and derivatives in plain numbers. */
@FunctionalInterface
public interface Curve {
    /**
     * Evaluates the curve.
     *
     * @param x abscissa, in the fit's {@code xUnit}
     * @param parameters p values, each in its parameter's unit
     * @param gradient p + 1 places to be filled: derivatives by the parameters and, last, by x
     * @return the ordinate, in the fit's {@code yUnit}
     */
    double at(double x, double[] parameters, double[] gradient);
}

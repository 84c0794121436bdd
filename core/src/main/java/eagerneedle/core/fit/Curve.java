package eagerneedle.core.fit;

import org.jspecify.annotations.Nullable;

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

    /**
     * Evaluates the curve at many abscissae; curves that can do it faster than one by one say how.
     *
     * @param x n abscissae
     * @param parameters p values
     * @param value n places to be filled
     * @param byParameter p columns of n derivatives to be filled; null when they are not wanted
     * @param byX n derivatives by the abscissa to be filled; null when they are not wanted
     */
    default void all(
            double[] x,
            double[] parameters,
            double[] value,
            double @Nullable [][] byParameter,
            double @Nullable [] byX) {
        NumberedCurve one = (i, at, p, g) -> at(at, p, g);
        one.all(x, parameters, value, byParameter, byX);
    }
}

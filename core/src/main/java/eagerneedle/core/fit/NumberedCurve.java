package eagerneedle.core.fit;

import org.jspecify.annotations.Nullable;

/** A curve over numbered points, in plain numbers, for models with several columns of data. */
@FunctionalInterface
public interface NumberedCurve {
    /**
     * Evaluates the model at one point.
     *
     * @param point index of the data point
     * @param x its abscissa
     * @param parameters p parameters
     * @param gradient p + 1 places to be filled with the derivatives by the parameters and, last, by x
     * @return the model's value
     */
    double at(int point, double x, double[] parameters, double[] gradient);

    /**
     * Evaluates the model at all points; curves that can do it faster than one by one say how.
     *
     * @param x n abscissae
     * @param parameters p parameters
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
        int p = parameters.length;
        double[] g = new double[p + 1];
        for (int i = 0; i < x.length; i++) {
            value[i] = at(i, x[i], parameters, g);
            for (int k = 0; k < p && byParameter != null; k++) {
                byParameter[k][i] = g[k];
            }
            if (byX != null) {
                byX[i] = g[p];
            }
        }
    }

    /** The same curve over some of the points, by their indices, for looking at it here and there. */
    default NumberedCurve over(int[] points) {
        return (i, x, parameters, gradient) -> at(points[i], x, parameters, gradient);
    }

    /** A curve that is the same at every point. */
    static NumberedCurve of(Curve law) {
        return new NumberedCurve() {
            @Override
            public double at(int point, double x, double[] parameters, double[] gradient) {
                return law.at(x, parameters, gradient);
            }

            @Override
            public void all(
                    double[] x,
                    double[] parameters,
                    double[] value,
                    double @Nullable [][] byParameter,
                    double @Nullable [] byX) {
                law.all(x, parameters, value, byParameter, byX);
            }

            @Override
            public NumberedCurve over(int[] points) {
                return this;
            }
        };
    }
}

package eagerneedle.core.fit;

import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.MultivariateJacobianFunction;
import org.hipparchus.util.Pair;
import org.jspecify.annotations.Nullable;

/**
 * Levenberg-Marquardt with the trust region of MINPACK (Hipparchus), which goes where few points hardly fix the
 * parameters; {@link ColumnDescent} is for many.
 */
final class CarefulDescent {
    private CarefulDescent() {}

    /** The end from a start of p values; null when there is none, or the curve has no value on the way. */
    static double @Nullable [] of(WeightedResiduals points, int n, double[] start, int steps) {
        int p = start.length;
        MultivariateJacobianFunction function = point -> {
            double[] value = new double[n];
            double[][] columns = new double[p][n];
            points.rows(point.toArray(), value, columns, null);
            double[][] jacobian = new double[n][p];
            for (int i = 0; i < n; i++) {
                value[i] = -value[i];
                for (int k = 0; k < p; k++) {
                    jacobian[i][k] = columns[k][i];
                }
            }
            return new Pair<>(new ArrayRealVector(value, false), MatrixUtils.createRealMatrix(jacobian));
        };
        try {
            return new LevenbergMarquardtOptimizer()
                    .withCostRelativeTolerance(1e-12)
                    .withParameterRelativeTolerance(1e-11)
                    .withOrthoTolerance(1e-12)
                    .withRankingThreshold(1e-300)
                    .optimize(new LeastSquaresBuilder()
                            .start(start)
                            .target(new double[n])
                            .model(function)
                            .maxEvaluations(steps)
                            .maxIterations(steps)
                            .build())
                    .getPoint()
                    .toArray();
        } catch (MathRuntimeException | ArithmeticException noEndOrNoValue) {
            return null;
        }
    }
}

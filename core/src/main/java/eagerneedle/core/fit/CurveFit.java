package eagerneedle.core.fit;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import org.hipparchus.exception.MathIllegalStateException;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.optim.nonlinear.vector.leastsquares.MultivariateJacobianFunction;
import org.hipparchus.util.Pair;

/**
 * Non-linear least squares by Levenberg-Marquardt (Hipparchus), with the model's own derivatives.
 *
 * <p>Pure numbers in and out: the curve knows no units. A fit that does not converge, or whose parameters the data do not fix,
 * is refused with a sentence; it never gives a number.
 */
public final class CurveFit {
    private static final int MOST_STEPS = 4000;

    private CurveFit() {
    }

    /** A model with its derivatives. */
    public interface Curve {
        /**
         * Evaluates the model at one point.
         *
         * @param point      index of the data point
         * @param parameters p parameters
         * @param gradient   p places to be filled with the derivatives by the parameters
         * @return the model's value
         */
        double at(int point, double[] parameters, double[] gradient);
    }

    /**
     * Fits a curve.
     *
     * @param model  the formula, for messages
     * @param names  p parameter names
     * @param start  p starting values
     * @param curve  the model
     * @param x      n abscissae, kept for pictures only
     * @param y      n ordinates
     * @param uY     n standard uncertainties of the ordinates, or null: then the residuals give the scatter
     * @param origin identity of this fit, root of its leaves' ids
     * @throws FitException when there are too few points, it does not converge, or parameters cannot be told apart
     */
    public static Fit of(String model, List<String> names, double[] start, Curve curve, double[] x, double[] y, double[] uY, String origin) {
        int n = y.length;
        int p = start.length;
        if (n < p + (uY == null ? 1 : 0)) {
            throw new FitException("The model " + model + " has " + p + " parameters; " + n + " points are too few.");
        }
        MultivariateJacobianFunction function = point -> {
            double[] values = new double[n];
            double[][] jacobian = new double[n][p];
            for (int i = 0; i < n; i++) {
                double w = uY == null ? 1 : 1 / uY[i];
                values[i] = w * curve.at(i, point.toArray(), jacobian[i]);
                for (int k = 0; k < p; k++) {
                    jacobian[i][k] *= w;
                }
            }
            return new Pair<>(new ArrayRealVector(values, false), MatrixUtils.createRealMatrix(jacobian));
        };
        double[] target = new double[n];
        for (int i = 0; i < n; i++) {
            target[i] = uY == null ? y[i] : y[i] / uY[i];
        }
        LeastSquaresOptimizer.Optimum optimum;
        try {
            optimum = new LevenbergMarquardtOptimizer().withCostRelativeTolerance(1e-14).withParameterRelativeTolerance(1e-13)
                    .withOrthoTolerance(1e-15).withRankingThreshold(1e-300)
                    .optimize(new LeastSquaresBuilder().start(start).target(target).model(function)
                            .maxEvaluations(MOST_STEPS).maxIterations(MOST_STEPS).build());
        } catch (MathIllegalStateException e) {
            if (!atLimitOfPrecision(e)) {
                throw new FitException("The fit of " + model + " did not converge from the starting values given; try others.");
            }
            throw new FitException("The fit of " + model + " stopped before it converged; try other starting values.");
        } catch (MathRuntimeException | ArithmeticException e) {
            throw new FitException("The fit of " + model + " did not converge: the model has no value somewhere on the way; try other starting values.");
        }
        return assemble(model, names, optimum, curve, x, y, uY, origin);
    }

    private static boolean atLimitOfPrecision(MathIllegalStateException e) {
        return e.getMessage() != null && e.getMessage().contains("too small");
    }

    private static Fit assemble(String model, List<String> names, LeastSquaresOptimizer.Optimum optimum, Curve curve, double[] x, double[] y,
                                double[] uY, String origin) {
        int n = y.length;
        int p = names.size();
        double[] best = optimum.getPoint().toArray();
        RealMatrix jacobian = optimum.getJacobian();
        double[] norms = new double[p];
        for (int k = 0; k < p; k++) {
            norms[k] = jacobian.getColumnVector(k).getNorm();
            if (!Double.isFinite(best[k]) || !(norms[k] > 0) || !Double.isFinite(norms[k])) {
                throw new FitException("The fit of " + model + " did not converge: the data say nothing about " + names.get(k) + " near the starting values.");
            }
        }
        RealMatrix scaled = jacobian.copy();
        for (int k = 0; k < p; k++) {
            scaled.setColumnVector(k, jacobian.getColumnVector(k).mapDivide(norms[k]));
        }
        RealMatrix r = new QRDecomposition(scaled).getR().getSubMatrix(0, p - 1, 0, p - 1);
        for (int k = 0; k < p; k++) {
            if (Math.abs(r.getEntry(k, k)) < 1e-12) {
                throw new FitException("The data do not fix all parameters of " + model + ": " + names.get(k) + " cannot be told from the others.");
            }
        }
        RealMatrix inverse = MatrixUtils.inverse(r);
        double[] fitted = new double[n];
        double ss = 0;
        for (int i = 0; i < n; i++) {
            fitted[i] = curve.at(i, best, new double[p]);
            ss += (y[i] - fitted[i]) * (y[i] - fitted[i]);
        }
        double sd = n > p ? Math.sqrt(ss / (n - p)) : Double.NaN;
        double chi = uY == null ? Double.NaN : optimum.getCost() * optimum.getCost();
        double scale = uY == null ? sd : 1;
        List<Quantity> parameters = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            Quantity q = Quantity.number(best[k]);
            for (int j = 0; j < p; j++) {
                double dof = uY == null ? n - p : Double.POSITIVE_INFINITY;
                q = q.with(Leaf.typeA(origin + "#scatter" + j, "scatter of the points", origin, dof).inPool(origin + "#scatter"),
                        scale * inverse.getEntry(k, j) / norms[k]);
            }
            parameters.add(q);
        }
        return new Fit(model, names, parameters, x, y, fitted, LabUnit.ONE, LabUnit.ONE, sd, chi, n - p, List.of());
    }
}

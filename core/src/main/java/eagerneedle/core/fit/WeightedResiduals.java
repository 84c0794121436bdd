package eagerneedle.core.fit;

import java.util.Objects;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.CholeskyDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.jspecify.annotations.Nullable;

/**
 * The residuals of a curve at its points, each in units of what is known of the points; pure numbers.
 *
 * <p>Points uncertain in both coordinates are moved to the nearest place on the curve, in the measure of their own
 * covariance, while the parameters are sought (York and others 2004, here for any curve): for the parameters p and the
 * adjusted abscissae ξ(p), the residual is (y - f(ξ) - f'(ξ)(x - ξ)) / σ with σ² = u²(y) + f'² u²(x) - 2 f' u(x, y).
 */
final class WeightedResiduals {
    private final NumberedCurve curve;
    private final double[] x;
    private final double[] y;
    private final Regression.Weights weights;
    private final int n;
    private final int p;
    private @Nullable RealMatrix whitener;

    WeightedResiduals(NumberedCurve curve, double[] x, double[] y, Regression.Weights weights, int p) {
        this.curve = curve;
        this.x = x;
        this.y = y;
        this.weights = weights;
        this.n = y.length;
        this.p = p;
    }

    /**
     * n by n: the inverse of the Cholesky factor of the whole covariance, or null while points are weighted one by one.
     */
    @Nullable
    RealMatrix whitener() {
        return whitener;
    }

    /** Weighted sum of squares of the ordinates: what rounding of the residuals is measured against. */
    double squaresOfOrdinates(double[] theta) {
        double[] w = new double[n];
        double[] uX = weights.uX();
        double[] uY = weights.uY();
        if (uX == null) {
            for (int i = 0; i < n; i++) {
                w[i] = uY == null ? 1 : 1 / uY[i];
            }
        } else {
            adjusted(theta, new double[n], uX, new double[p][n], new double[][] {new double[n], w});
        }
        double size = 0;
        for (int i = 0; i < n; i++) {
            size += Double.isFinite(w[i]) ? y[i] * y[i] * w[i] * w[i] : 0;
        }
        return size;
    }

    double squares(double[] theta) {
        double[] e = new double[n];
        rows(theta, e, weights.uX() == null && whitener == null ? null : new double[p][n], null);
        double sum = 0;
        for (double v : e) {
            sum += v * v;
        }
        return Double.isNaN(sum) ? Double.POSITIVE_INFINITY : sum;
    }

    /**
     * Fills weighted residuals (y - f), the design (derivatives of f, weighted alike) and, if asked, slopes and
     * weights. The design may be null where abscissae are exact and points are weighted one by one.
     */
    void rows(double[] theta, double[] e, double @Nullable [][] jacobian, double @Nullable [][] slopesAndWeights) {
        double[] uX = weights.uX();
        if (uX == null) {
            alike(theta, e, jacobian, slopesAndWeights);
        } else {
            adjusted(theta, e, uX, Objects.requireNonNull(jacobian), slopesAndWeights);
        }
        if (whitener != null) {
            double[] white = whitener.operate(e);
            System.arraycopy(white, 0, e, 0, n);
            for (double[] column : Objects.requireNonNull(jacobian)) {
                System.arraycopy(whitener.operate(column), 0, column, 0, n);
            }
        }
    }

    /** Abscissae without uncertainty: all points at once. */
    private void alike(
            double[] theta, double[] e, double @Nullable [][] jacobian, double @Nullable [][] slopesAndWeights) {
        curve.all(x, theta, e, jacobian, slopesAndWeights == null ? null : slopesAndWeights[0]);
        double[] u = weights.uY();
        for (int i = 0; i < n; i++) {
            e[i] = u == null ? y[i] - e[i] : (y[i] - e[i]) / u[i];
        }
        for (int k = 0; k < p && u != null && jacobian != null; k++) {
            for (int i = 0; i < n; i++) {
                jacobian[k][i] /= u[i];
            }
        }
        for (int i = 0; i < n && slopesAndWeights != null; i++) {
            slopesAndWeights[1][i] = u == null ? 1 : 1 / u[i];
        }
    }

    private void adjusted(
            double[] theta, double[] e, double[] uX, double[][] jacobian, double @Nullable [][] slopesAndWeights) {
        double[] g = new double[p + 1];
        double[] uY = weights.uY();
        double[] covariance = weights.covariance();
        for (int i = 0; i < n; i++) {
            double f = curve.at(i, x[i], theta, g);
            double r = y[i] - f;
            double ux2 = uX[i] * uX[i];
            double cov = covariance == null ? 0 : covariance[i];
            double uy2 = uY == null ? 0 : uY[i] * uY[i];
            double xi = x[i];
            for (int pass = 0; pass < 12; pass++) {
                double variance = uy2 + g[p] * g[p] * ux2 - 2 * g[p] * cov;
                double next = variance > 0 ? x[i] - (cov - g[p] * ux2) * r / variance : x[i];
                if (!Double.isFinite(next)) {
                    break;
                }
                boolean settled = Math.abs(next - xi) <= 1e-14 * Math.abs(xi);
                xi = next;
                f = curve.at(i, xi, theta, g);
                r = y[i] - f - g[p] * (x[i] - xi);
                if (settled) {
                    break;
                }
            }
            double sigma = Math.sqrt(uy2 + g[p] * g[p] * ux2 - 2 * g[p] * cov);
            e[i] = r / sigma;
            for (int k = 0; k < p; k++) {
                jacobian[k][i] = g[k] / sigma;
            }
            if (slopesAndWeights != null) {
                slopesAndWeights[0][i] = g[p];
                slopesAndWeights[1][i] = 1 / sigma;
            }
        }
    }

    /** Takes the covariance of all points at these parameters as the measure of the residuals from now on. */
    void whiten(double[] theta) {
        double[] slopes = new double[n];
        curve.all(x, theta, new double[n], null, slopes);
        try {
            RealMatrix lower = new CholeskyDecomposition(
                            MatrixUtils.createRealMatrix(
                                    Objects.requireNonNull(weights.whole()).apply(slopes)),
                            1e-8,
                            1e-300)
                    .getL();
            whitener = MatrixUtils.inverse(lower);
        } catch (MathRuntimeException singular) {
            throw new FitException(
                    "The points' uncertainties are functions of each other (singular covariance); a generalised "
                            + "fit needs each point to carry something of its own.",
                    singular);
        }
    }
}

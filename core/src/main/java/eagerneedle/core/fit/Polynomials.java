package eagerneedle.core.fit;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.RealMatrix;

/**
 * The linear algebra of weighted polynomial least squares, in plain numbers.
 *
 * <p>The abscissa is centred and scaled to [-1, 1] and the basis is Chebyshev's, which keeps the decomposition well
 * conditioned to high degree; coefficients are turned back to powers of x at the end.
 */
final class Polynomials {
    private final int degree;
    private final double centre;
    private final double half;
    private final double[] rootWeights;
    /** p by p: turns Chebyshev coefficients into coefficients of powers of x. */
    final RealMatrix toPowers;
    /** p by p: inverse of R of the QR of the weighted design, in the Chebyshev basis. */
    final RealMatrix inverseR;
    /** n by p: orthonormal directions of the weighted design. */
    final double[][] q;

    final double[] chebyshev;
    /** p by n: derivative of each power coefficient by each ordinate. */
    final double[][] byOrdinate;

    Polynomials(double[] x, double[] y, double[] weights, int degree) {
        this.degree = degree;
        int n = x.length;
        int p = degree + 1;
        double min = Double.POSITIVE_INFINITY;
        double max = Double.NEGATIVE_INFINITY;
        for (double v : x) {
            min = Math.min(min, v);
            max = Math.max(max, v);
        }
        centre = (min + max) / 2;
        half = max > min ? (max - min) / 2 : 1;
        rootWeights = new double[n];
        double[][] design = new double[p][n];
        double[] target = new double[n];
        for (int i = 0; i < n; i++) {
            rootWeights[i] = Math.sqrt(weights[i]);
            double[] row = basis(x[i]);
            for (int k = 0; k < p; k++) {
                design[k][i] = rootWeights[i] * row[k];
            }
            target[i] = rootWeights[i] * y[i];
        }
        Decomposition qr = Decomposition.of(design, target);
        if (qr.dependent >= 0) {
            throw new FitException(
                    "The points do not fix a polynomial of degree " + degree + ": too few different abscissae.");
        }
        inverseR = new Array2DRowRealMatrix(qr.inverseR, false);
        q = qr.q();
        chebyshev = qr.solution;
        toPowers = powersFromChebyshev();
        byOrdinate = toPowers.multiply(inverseR)
                .multiply(new Array2DRowRealMatrix(qr.q(), false))
                .getData();
        for (double[] row : byOrdinate) {
            for (int i = 0; i < n; i++) {
                row[i] *= rootWeights[i];
            }
        }
    }

    double[] basis(double x) {
        double z = (x - centre) / half;
        double[] t = new double[degree + 1];
        t[0] = 1;
        if (degree > 0) {
            t[1] = z;
        }
        for (int k = 2; k <= degree; k++) {
            t[k] = 2 * z * t[k - 1] - t[k - 2];
        }
        return t;
    }

    /** Derivatives of the basis by x. */
    double[] basisSlope(double x) {
        double z = (x - centre) / half;
        double[] u = new double[degree + 1];
        double[] d = new double[degree + 1];
        for (int k = 1; k <= degree; k++) {
            u[k - 1] = k == 1 ? 1 : k == 2 ? 2 * z : 2 * z * u[k - 2] - u[k - 3];
            d[k] = k * u[k - 1] / half;
        }
        return d;
    }

    double value(double x) {
        return dot(basis(x), chebyshev);
    }

    double slope(double x) {
        return dot(basisSlope(x), chebyshev);
    }

    double[] powers() {
        return toPowers.operate(chebyshev);
    }

    /** p derivatives of the power coefficients by the abscissa of point i, its residual given. */
    double[] byAbscissa(double x, double residual, double weight) {
        double[] b = basis(x);
        double[] d = basisSlope(x);
        double slope = dot(d, chebyshev);
        double[] g = new double[b.length];
        for (int k = 0; k < g.length; k++) {
            g[k] = weight * (d[k] * residual - b[k] * slope);
        }
        return toPowers.operate(inverseR.operate(inverseR.transpose().operate(g)));
    }

    private RealMatrix powersFromChebyshev() {
        int p = degree + 1;
        double[][] inZ = new double[p][p];
        inZ[0][0] = 1;
        if (p > 1) {
            inZ[1][1] = 1;
        }
        for (int k = 2; k < p; k++) {
            for (int j = 0; j < p; j++) {
                inZ[j][k] = (j > 0 ? 2 * inZ[j - 1][k - 1] : 0) - inZ[j][k - 2];
            }
        }
        double[][] shift = new double[p][p];
        for (int j = 0; j < p; j++) {
            double binomial = 1;
            for (int i = j; i >= 0; i--) {
                shift[i][j] = binomial * Math.pow(-centre, j - i) / Math.pow(half, j);
                binomial = binomial * i / (j - i + 1);
            }
        }
        return new Array2DRowRealMatrix(shift, false).multiply(new Array2DRowRealMatrix(inZ, false));
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int k = 0; k < a.length; k++) {
            sum += a[k] * b[k];
        }
        return sum;
    }
}

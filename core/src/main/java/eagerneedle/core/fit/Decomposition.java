package eagerneedle.core.fit;

import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * The QR decomposition of a design matrix, and the least-squares solution with it.
 *
 * <p>Small problems are decomposed with twice the digits of a double (modified Gram-Schmidt, Björck 1967, in
 * {@link TwoDoubles}), so that even nearly dependent columns, such as the powers of a tenth-degree polynomial, lose
 * nothing that matters; large ones with Householder reflections in double precision after scaling the columns.
 */
final class Decomposition {
    private static final long SMALL = 1_000_000;
    private static final double DEPENDENT = 1e-13;

    /** p least-squares coefficients for the target given. */
    final double[] solution;
    /** p by p: inverse of R, so that the covariance is s² times this times its transpose. */
    final double[][] inverseR;
    /** n by p: orthonormal columns. */
    final double[][] q;
    /** Index of a column that depends on those before it, or -1. */
    final int dependent;

    private Decomposition(double[] solution, double[][] inverseR, double[][] q, int dependent) {
        this.solution = solution;
        this.inverseR = inverseR;
        this.q = q;
        this.dependent = dependent;
    }

    /** Decomposes n rows of p columns; {@code dependent} tells of a column without information of its own. */
    static Decomposition of(double[][] design, double[] target) {
        int n = design.length;
        int p = design[0].length;
        return (long) n * p * p <= SMALL ? exact(design, target) : large(design, target);
    }

    private static Decomposition exact(double[][] design, double[] target) {
        int n = design.length;
        int p = design[0].length;
        TwoDoubles[] q = new TwoDoubles[p];
        double[][][] r = new double[p][p][];
        for (int k = 0; k < p; k++) {
            q[k] = new TwoDoubles(n);
            for (int i = 0; i < n; i++) {
                q[k].high[i] = design[i][k];
            }
        }
        for (int k = 0; k < p; k++) {
            double before = Math.sqrt(q[k].dot(q[k])[0]);
            for (int j = 0; j < k; j++) {
                r[j][k] = q[j].dot(q[k]);
                q[k].subtract(r[j][k], q[j]);
            }
            r[k][k] = TwoDoubles.sqrt(q[k].dot(q[k]));
            if (!(r[k][k][0] > DEPENDENT * before) || !Double.isFinite(r[k][k][0])) {
                return new Decomposition(null, null, null, k);
            }
            q[k].divide(r[k][k]);
        }
        TwoDoubles rest = new TwoDoubles(n);
        System.arraycopy(target, 0, rest.high, 0, n);
        double[][] z = new double[p][];
        for (int k = 0; k < p; k++) {
            z[k] = q[k].dot(rest);
            rest.subtract(z[k], q[k]);
        }
        double[] solution = new double[p];
        double[][] inverseR = new double[p][p];
        double[][][] inverse = new double[p][p][];
        for (int c = 0; c < p; c++) {
            for (int k = c; k >= 0; k--) {
                double[] sum = {k == c ? 1 : 0, 0};
                for (int j = k + 1; j <= c; j++) {
                    sum = TwoDoubles.minus(sum, TwoDoubles.times(r[k][j], inverse[j][c]));
                }
                inverse[k][c] = TwoDoubles.over(sum, r[k][k]);
                inverseR[k][c] = inverse[k][c][0];
            }
        }
        double[][] columns = new double[n][p];
        for (int k = 0; k < p; k++) {
            double[] sum = {0, 0};
            for (int c = k; c < p; c++) {
                sum = TwoDoubles.minus(sum, TwoDoubles.times(inverse[k][c], new double[] {-z[c][0], -z[c][1]}));
            }
            solution[k] = sum[0];
            for (int i = 0; i < n; i++) {
                columns[i][k] = q[k].high[i];
            }
        }
        return new Decomposition(solution, inverseR, columns, -1);
    }

    private static Decomposition large(double[][] design, double[] target) {
        int n = design.length;
        int p = design[0].length;
        double[] norms = new double[p];
        double[][] scaled = new double[n][p];
        for (int k = 0; k < p; k++) {
            double sum = 0;
            for (double[] row : design) {
                sum += row[k] * row[k];
            }
            norms[k] = Math.sqrt(sum);
            if (!(norms[k] > 0) || !Double.isFinite(norms[k])) {
                return new Decomposition(null, null, null, k);
            }
            for (int i = 0; i < n; i++) {
                scaled[i][k] = design[i][k] / norms[k];
            }
        }
        RealMatrix a = new Array2DRowRealMatrix(scaled, false);
        RealMatrix r = new QRDecomposition(a).getR().getSubMatrix(0, p - 1, 0, p - 1);
        for (int k = 0; k < p; k++) {
            if (Math.abs(r.getEntry(k, k)) < DEPENDENT) {
                return new Decomposition(null, null, null, k);
            }
        }
        RealMatrix inverse = MatrixUtils.inverse(r);
        RealMatrix q = a.multiply(inverse);
        double[] c = inverse.operate(q.transpose().operate(target));
        double[] fitted = a.operate(c);
        double[] rest = new double[n];
        for (int i = 0; i < n; i++) {
            rest[i] = target[i] - fitted[i];
        }
        double[] correction = inverse.operate(q.transpose().operate(rest));
        double[][] inverseR = inverse.getData();
        for (int k = 0; k < p; k++) {
            c[k] = (c[k] + correction[k]) / norms[k];
            for (int j = 0; j < p; j++) {
                inverseR[k][j] /= norms[k];
            }
        }
        return new Decomposition(c, inverseR, q.getData(), -1);
    }
}

package eagerneedle.core.fit;

import org.hipparchus.dfp.Dfp;
import org.hipparchus.dfp.DfpField;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;

/**
 * The QR decomposition of a design matrix, and the least-squares solution with it.
 *
 * <p>Small problems are decomposed with {@value #DIGITS} decimal digits (modified Gram-Schmidt, Björck 1967), so that even
 * nearly dependent columns, such as the powers of a tenth-degree polynomial, lose nothing that matters; large ones with
 * Householder reflections in double precision after scaling the columns.
 */
final class Decomposition {
    private static final int DIGITS = 60;
    private static final long SMALL = 60_000;
    private static final double DEPENDENT = 1e-13;
    private static final DfpField FIELD = new DfpField(DIGITS);

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
        Dfp[][] q = new Dfp[p][n];
        Dfp[][] r = new Dfp[p][p];
        for (int k = 0; k < p; k++) {
            for (int i = 0; i < n; i++) {
                q[k][i] = FIELD.newDfp(design[i][k]);
            }
        }
        Dfp zero = FIELD.getZero();
        for (int k = 0; k < p; k++) {
            double before = norm(q[k]).toDouble();
            for (int j = 0; j < k; j++) {
                r[j][k] = dot(q[j], q[k]);
                subtract(q[k], r[j][k], q[j]);
            }
            r[k][k] = norm(q[k]);
            double left = r[k][k].toDouble();
            if (!(left > DEPENDENT * before) || !Double.isFinite(left)) {
                return new Decomposition(null, null, null, k);
            }
            Dfp inverse = FIELD.getOne().divide(r[k][k]);
            for (int i = 0; i < n; i++) {
                q[k][i] = q[k][i].multiply(inverse);
            }
        }
        Dfp[] rest = new Dfp[n];
        for (int i = 0; i < n; i++) {
            rest[i] = FIELD.newDfp(target[i]);
        }
        Dfp[] z = new Dfp[p];
        for (int k = 0; k < p; k++) {
            z[k] = dot(q[k], rest);
            subtract(rest, z[k], q[k]);
        }
        Dfp[][] inverse = new Dfp[p][p];
        for (int c = 0; c < p; c++) {
            for (int k = p - 1; k >= 0; k--) {
                Dfp sum = k == c ? FIELD.getOne() : zero;
                for (int j = k + 1; j <= c; j++) {
                    sum = sum.subtract(r[k][j].multiply(inverse[j][c]));
                }
                inverse[k][c] = k > c ? zero : sum.divide(r[k][k]);
            }
        }
        double[] solution = new double[p];
        double[][] inverseR = new double[p][p];
        double[][] columns = new double[n][p];
        for (int k = 0; k < p; k++) {
            Dfp sum = zero;
            for (int c = 0; c < p; c++) {
                sum = sum.add(inverse[k][c].multiply(z[c]));
                inverseR[k][c] = inverse[k][c].toDouble();
            }
            solution[k] = sum.toDouble();
            for (int i = 0; i < n; i++) {
                columns[i][k] = q[k][i].toDouble();
            }
        }
        return new Decomposition(solution, inverseR, columns, -1);
    }

    private static Dfp dot(Dfp[] a, Dfp[] b) {
        Dfp sum = FIELD.getZero();
        for (int i = 0; i < a.length; i++) {
            sum = sum.add(a[i].multiply(b[i]));
        }
        return sum;
    }

    private static Dfp norm(Dfp[] a) {
        return dot(a, a).sqrt();
    }

    private static void subtract(Dfp[] from, Dfp factor, Dfp[] what) {
        for (int i = 0; i < from.length; i++) {
            from[i] = from[i].subtract(factor.multiply(what[i]));
        }
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

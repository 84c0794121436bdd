package eagerneedle.core.fit;

import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * The QR decomposition of a design matrix, and the least-squares solution with it.
 *
 * <p>Small problems are decomposed with twice the digits of a double (modified Gram-Schmidt, Björck 1967, in
 * {@link TwoDoubles}), so that even nearly dependent columns, such as the powers of a tenth-degree polynomial, lose
 * nothing that matters; large ones with Householder reflections in double precision.
 */
final class Decomposition {
    private static final long SMALL = 100_000;
    private static final double DEPENDENT = 1e-13;

    /** p least-squares coefficients for the target given. */
    final double[] solution;
    /** p by p: inverse of R, so that the covariance is s² times this times its transpose. */
    final double[][] inverseR;
    /** The squares of the target that lie in the plane of the design. */
    final double inPlane;
    /** Index of a column that depends on those before it, or -1. */
    final int dependent;

    private final Supplier<double[][]> columns;
    private double @Nullable [][] q;

    private Decomposition(double[] solution, double[][] inverseR, Supplier<double[][]> columns, double inPlane) {
        this.solution = solution;
        this.inverseR = inverseR;
        this.columns = columns;
        this.inPlane = inPlane;
        this.dependent = -1;
    }

    private Decomposition(int dependent) {
        this.solution = new double[0];
        this.inverseR = new double[0][];
        this.columns = () -> new double[0][];
        this.inPlane = Double.NaN;
        this.dependent = dependent;
    }

    /** p by n: orthonormal columns of the design; made when they are first wanted. */
    double[][] q() {
        double[][] made = q == null ? columns.get() : q;
        q = made;
        return made;
    }

    /** Decomposes p columns of n rows; {@code dependent} tells of a column without information of its own. */
    static Decomposition of(double[][] design, double[] target) {
        int p = design.length;
        int n = design[0].length;
        return (long) n * p * p <= SMALL ? exact(design, target) : large(design, target);
    }

    private static Decomposition exact(double[][] design, double[] target) {
        int p = design.length;
        int n = design[0].length;
        TwoDoubles[] q = new TwoDoubles[p];
        double[][][] r = new double[p][p][];
        for (int k = 0; k < p; k++) {
            q[k] = new TwoDoubles(n);
            System.arraycopy(design[k], 0, q[k].high, 0, n);
        }
        for (int k = 0; k < p; k++) {
            double before = Math.sqrt(q[k].dot(q[k])[0]);
            for (int j = 0; j < k; j++) {
                r[j][k] = q[j].dot(q[k]);
                q[k].subtract(r[j][k], q[j]);
            }
            r[k][k] = TwoDoubles.sqrt(q[k].dot(q[k]));
            if (!(r[k][k][0] > DEPENDENT * before) || !Double.isFinite(r[k][k][0])) {
                return new Decomposition(k);
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
        double[][] columns = new double[p][];
        for (int k = 0; k < p; k++) {
            double[] sum = {0, 0};
            for (int c = k; c < p; c++) {
                sum = TwoDoubles.minus(sum, TwoDoubles.times(inverse[k][c], new double[] {-z[c][0], -z[c][1]}));
            }
            solution[k] = sum[0];
            columns[k] = q[k].high;
        }
        double inPlane = 0;
        for (double[] along : z) {
            inPlane += along[0] * along[0];
        }
        return new Decomposition(solution, inverseR, () -> columns, inPlane);
    }

    private static Decomposition large(double[][] design, double[] target) {
        int p = design.length;
        double[][] columns = new double[p][];
        for (int k = 0; k < p; k++) {
            columns[k] = design[k].clone();
        }
        double[] along = target.clone();
        Reflections qr = Reflections.of(columns, along);
        double[][] r = qr.r();
        for (int k = 0; k < p; k++) {
            double length = Reflections.length(r, k);
            if (!(Math.abs(r[k][k]) >= DEPENDENT * length) || !(length > 0) || !Double.isFinite(length)) {
                return new Decomposition(k);
            }
        }
        double[] z = java.util.Arrays.copyOf(along, p);
        double[] c = Reflections.solve(r, z);
        double[] rest = target.clone();
        for (int k = 0; k < p; k++) {
            Reflections.subtract(rest, c[k], design[k]);
        }
        double[] correction = Reflections.solve(r, qr.transposed(rest));
        double[][] inverseR = Reflections.inverse(r);
        for (int k = 0; k < p; k++) {
            c[k] += correction[k];
        }
        return new Decomposition(c, inverseR, qr::q, Reflections.dot(z, z));
    }
}

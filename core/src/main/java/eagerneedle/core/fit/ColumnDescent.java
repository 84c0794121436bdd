package eagerneedle.core.fit;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Levenberg-Marquardt for very many points, on columns.
 *
 * <p>The damping follows Nielsen (1999, Damping parameter in Marquardt's method): it is scaled to the columns, falls by
 * as much as the last step kept what it promised, and rises ever faster while steps fail. Every step solves the damped
 * problem from the triangle of one Householder reduction, so a refused step costs one evaluation and no reduction.
 */
final class ColumnDescent {
    private static final double FIRST_DAMPING = 1e-4;
    private static final double SMALL_STEP = 1e-7;
    private static final double SMALL_GAIN = 1e-13;

    private ColumnDescent() {}

    /**
     * Goes down from a start.
     *
     * @param n number of points
     * @param start p parameters
     * @param steps at most so many evaluations
     * @return p parameters near the end, or null where there is no value at the start or no end within the steps
     */
    static double @Nullable [] of(WeightedResiduals points, int n, double[] start, int steps) {
        int p = start.length;
        double[] theta = start.clone();
        double[] e = new double[n];
        double[][] columns = new double[p][n];
        points.rows(theta, e, columns, null);
        double squares = Reflections.dot(e, e);
        double[] scale = new double[p];
        double damping = FIRST_DAMPING;
        double faster = 2;
        double[] nextE = new double[n];
        double[][] next = new double[p][n];
        for (int used = 1; used < steps && Double.isFinite(squares); ) {
            // Both are overwritten: what comes next is worked out at another place.
            double[][] r = Reflections.of(columns, e).r();
            double[] z = Arrays.copyOf(e, p);
            for (int k = 0; k < p; k++) {
                scale[k] = Math.max(scale[k], Reflections.length(r, k));
                if (!(scale[k] > 0) || !Double.isFinite(scale[k])) {
                    return null;
                }
            }
            boolean moved = false;
            while (!moved && used < steps) {
                double[] step = damped(r, z, scale, damping);
                double[] to = sum(theta, step);
                double relative = relative(to, step);
                points.rows(to, nextE, next, null);
                used++;
                double after = Reflections.dot(nextE, nextE);
                double promised = promised(r, z, step);
                if (after <= squares) {
                    double kept = promised > 0 ? (squares - after) / promised : 1;
                    boolean end = relative < SMALL_STEP || squares - after <= SMALL_GAIN * squares && kept > 0.25;
                    double[] swapped = e;
                    e = nextE;
                    nextE = swapped;
                    double[][] swappedColumns = columns;
                    columns = next;
                    next = swappedColumns;
                    theta = to;
                    squares = after;
                    if (end) {
                        return theta;
                    }
                    damping *= Math.max(1.0 / 9, 1 - Math.pow(2 * kept - 1, 3));
                    faster = 2;
                    moved = true;
                } else if (relative < SMALL_GAIN) {
                    return theta;
                } else {
                    damping *= faster;
                    faster *= 2;
                    if (!Double.isFinite(damping)) {
                        return null;
                    }
                }
            }
        }
        return null;
    }

    /** Least squares of R s = z and of the damped scales, by reflections of the 2p by p system. */
    private static double[] damped(double[][] r, double[] z, double[] scale, double damping) {
        int p = z.length;
        double[][] both = new double[p][2 * p];
        double root = Math.sqrt(damping);
        for (int k = 0; k < p; k++) {
            for (int i = 0; i <= k; i++) {
                both[k][i] = r[i][k];
            }
            both[k][p + k] = root * scale[k];
        }
        Reflections qr = Reflections.of(both);
        return Reflections.solve(qr.r(), qr.transposed(Arrays.copyOf(z, 2 * p)));
    }

    /** By how much the squares would fall if the curve were its tangent. */
    private static double promised(double[][] r, double[] z, double[] step) {
        double before = 0;
        double after = 0;
        for (int i = 0; i < z.length; i++) {
            double left = z[i];
            for (int k = i; k < z.length; k++) {
                left -= r[i][k] * step[k];
            }
            before += z[i] * z[i];
            after += left * left;
        }
        return before - after;
    }

    private static double[] sum(double[] a, double[] b) {
        double[] out = a.clone();
        for (int k = 0; k < out.length; k++) {
            out[k] += b[k];
        }
        return out;
    }

    private static double relative(double[] at, double[] step) {
        double worst = 0;
        for (int k = 0; k < at.length; k++) {
            worst = Math.max(worst, Math.abs(step[k]) / Math.max(Math.abs(at[k]), 1e-300));
        }
        return worst;
    }
}

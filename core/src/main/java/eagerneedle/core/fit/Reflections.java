package eagerneedle.core.fit;

import org.jspecify.annotations.Nullable;

/**
 * Householder reflections of p columns of n numbers (Golub and Van Loan, Matrix Computations, 5.2), column by column,
 * so that every loop runs along memory.
 */
final class Reflections {
    /** p by n: the columns on entry; below the diagonal the reflections afterwards. */
    private final double[][] a;

    private final double[] diagonal;
    private final double[] tau;

    private Reflections(double[][] a) {
        this.a = a;
        this.diagonal = new double[a.length];
        this.tau = new double[a.length];
    }

    /**
     * Reflects columns into an upper triangle.
     *
     * @param columns p by n, n at least p; overwritten
     */
    static Reflections of(double[][] columns) {
        return of(columns, null);
    }

    /**
     * Reflects columns into an upper triangle, and another column along with them.
     *
     * @param columns p by n, n at least p; overwritten
     * @param beside n; becomes Qᵀ times what it was; null for none
     */
    static Reflections of(double[][] columns, double @Nullable [] beside) {
        Reflections r = new Reflections(columns);
        for (int k = 0; k < columns.length; k++) {
            r.reflect(k, beside);
        }
        return r;
    }

    private void reflect(int k, double @Nullable [] beside) {
        double[] v = a[k];
        double norm = Math.sqrt(dot(v, v, k));
        diagonal[k] = v[k] > 0 ? -norm : norm;
        if (norm == 0 || !Double.isFinite(norm)) {
            tau[k] = 0;
            return;
        }
        // v = x - diagonal e_k; its square is 2 norm (norm + |x_k|).
        tau[k] = 1 / (norm * (norm + Math.abs(v[k])));
        v[k] -= diagonal[k];
        int j = k + 1;
        for (; j + 1 < a.length; j += 2) {
            apply(k, a[j], a[j + 1]);
        }
        if (j < a.length && beside != null) {
            apply(k, a[j], beside);
        } else if (j < a.length) {
            apply(k, a[j]);
        } else if (beside != null) {
            apply(k, beside);
        }
    }

    /** Two columns at once: the reflection is read once for both, and neither sum waits for the other. */
    private void apply(int k, double[] to, double[] and) {
        if (tau[k] == 0) {
            return;
        }
        double[] v = a[k];
        int n = Math.min(v.length, Math.min(to.length, and.length));
        double s0 = 0;
        double s1 = 0;
        double t0 = 0;
        double t1 = 0;
        double u0 = 0;
        double u1 = 0;
        double w0 = 0;
        double w1 = 0;
        int i = k;
        for (; i < n - 3; i += 4) {
            s0 += v[i] * to[i];
            t0 += v[i] * and[i];
            s1 += v[i + 1] * to[i + 1];
            t1 += v[i + 1] * and[i + 1];
            u0 += v[i + 2] * to[i + 2];
            w0 += v[i + 2] * and[i + 2];
            u1 += v[i + 3] * to[i + 3];
            w1 += v[i + 3] * and[i + 3];
        }
        for (; i < n; i++) {
            s0 += v[i] * to[i];
            t0 += v[i] * and[i];
        }
        double byTo = tau[k] * (s0 + s1 + (u0 + u1));
        double byAnd = tau[k] * (t0 + t1 + (w0 + w1));
        for (i = k; i < n; i++) {
            to[i] -= byTo * v[i];
        }
        for (i = k; i < n; i++) {
            and[i] -= byAnd * v[i];
        }
    }

    private void apply(int k, double[] to) {
        if (tau[k] == 0) {
            return;
        }
        double[] v = a[k];
        double by = tau[k] * dot(v, to, k);
        for (int i = k; i < v.length; i++) {
            to[i] -= by * v[i];
        }
    }

    /** p by p, upper triangle. */
    double[][] r() {
        int p = a.length;
        double[][] r = new double[p][p];
        for (int k = 0; k < p; k++) {
            r[k][k] = diagonal[k];
            for (int i = 0; i < k; i++) {
                r[i][k] = a[k][i];
            }
        }
        return r;
    }

    /** The first p entries of Qᵀ times a column of n; the column is overwritten. */
    double[] transposed(double[] column) {
        for (int k = 0; k < a.length; k++) {
            apply(k, column);
        }
        return java.util.Arrays.copyOf(column, a.length);
    }

    /** p by n: the orthonormal columns. */
    double[][] q() {
        int p = a.length;
        double[][] q = new double[p][a[0].length];
        for (int k = 0; k < p; k++) {
            q[k][k] = 1;
            for (int j = k; j >= 0; j--) {
                apply(j, q[k]);
            }
        }
        return q;
    }

    static double dot(double[] x, double[] y) {
        return dot(x, y, 0);
    }

    private static double dot(double[] x, double[] y, int from) {
        double a = 0;
        double b = 0;
        double c = 0;
        double d = 0;
        int n = Math.min(x.length, y.length);
        int i = from;
        for (; i < n - 3; i += 4) {
            a += x[i] * y[i];
            b += x[i + 1] * y[i + 1];
            c += x[i + 2] * y[i + 2];
            d += x[i + 3] * y[i + 3];
        }
        for (; i < n; i++) {
            a += x[i] * y[i];
        }
        return a + b + (c + d);
    }

    /** Takes a multiple of y out of x. */
    static void subtract(double[] x, double factor, double[] y) {
        for (int i = 0; i < x.length; i++) {
            x[i] -= factor * y[i];
        }
    }

    /** Length of a column before it was reflected, from the triangle: reflections change no length. */
    static double length(double[][] r, int k) {
        double sum = 0;
        for (int i = 0; i <= k; i++) {
            sum += r[i][k] * r[i][k];
        }
        return Math.sqrt(sum);
    }

    /** Solves the p by p upper triangle R c = z. */
    static double[] solve(double[][] r, double[] z) {
        int p = z.length;
        double[] c = new double[p];
        for (int k = p - 1; k >= 0; k--) {
            double sum = z[k];
            for (int j = k + 1; j < p; j++) {
                sum -= r[k][j] * c[j];
            }
            c[k] = sum / r[k][k];
        }
        return c;
    }

    /** The inverse of the p by p upper triangle R. */
    static double[][] inverse(double[][] r) {
        int p = r.length;
        double[][] inverse = new double[p][p];
        for (int c = 0; c < p; c++) {
            double[] unit = new double[p];
            unit[c] = 1;
            double[] column = solve(r, unit);
            for (int k = 0; k < p; k++) {
                inverse[k][c] = column[k];
            }
        }
        return inverse;
    }
}

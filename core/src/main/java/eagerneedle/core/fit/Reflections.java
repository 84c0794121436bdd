package eagerneedle.core.fit;

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
        Reflections r = new Reflections(columns);
        for (int k = 0; k < columns.length; k++) {
            r.reflect(k);
        }
        return r;
    }

    private void reflect(int k) {
        double[] v = a[k];
        double square = 0;
        for (int i = k; i < v.length; i++) {
            square += v[i] * v[i];
        }
        double norm = Math.sqrt(square);
        diagonal[k] = v[k] > 0 ? -norm : norm;
        if (norm == 0 || !Double.isFinite(norm)) {
            tau[k] = 0;
            return;
        }
        // v = x - diagonal e_k; its square is 2 norm (norm + |x_k|).
        tau[k] = 1 / (norm * (norm + Math.abs(v[k])));
        v[k] -= diagonal[k];
        for (int j = k + 1; j < a.length; j++) {
            apply(k, a[j]);
        }
    }

    private void apply(int k, double[] to) {
        if (tau[k] == 0) {
            return;
        }
        double[] v = a[k];
        double sum = 0;
        for (int i = k; i < v.length; i++) {
            sum += v[i] * to[i];
        }
        double by = tau[k] * sum;
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
            for (int j = p - 1; j >= 0; j--) {
                apply(j, q[k]);
            }
        }
        return q;
    }

    static double dot(double[] x, double[] y) {
        double a = 0;
        double b = 0;
        double c = 0;
        double d = 0;
        int i = 0;
        for (; i + 3 < x.length; i += 4) {
            a += x[i] * y[i];
            b += x[i + 1] * y[i + 1];
            c += x[i + 2] * y[i + 2];
            d += x[i + 3] * y[i + 3];
        }
        for (; i < x.length; i++) {
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

package eagerneedle.core.fit;

import org.jspecify.annotations.Nullable;

/** Quick linear least squares for starting values, where a few digits will do. */
final class NormalEquations {
    private NormalEquations() {}

    /** Solves n by p least squares through the normal equations; null where they are singular. */
    static double @Nullable [] solve(double[][] design, double[] y) {
        int p = design.length == 0 ? 0 : design[0].length;
        double[][] a = new double[p][p + 1];
        for (int i = 0; i < design.length; i++) {
            for (int j = 0; j < p; j++) {
                for (int k = 0; k < p; k++) {
                    a[j][k] += design[i][j] * design[i][k];
                }
                a[j][p] += design[i][j] * y[i];
            }
        }
        return eliminated(a);
    }

    /**
     * Solves p equations.
     *
     * @param a p rows of p coefficients and the right side; overwritten
     * @return p values; null where they are singular
     */
    static double @Nullable [] eliminated(double[][] a) {
        int p = a.length;
        for (int k = 0; k < p; k++) {
            int pivot = k;
            for (int j = k + 1; j < p; j++) {
                pivot = Math.abs(a[j][k]) > Math.abs(a[pivot][k]) ? j : pivot;
            }
            double[] row = a[pivot];
            a[pivot] = a[k];
            a[k] = row;
            if (!(Math.abs(row[k]) > 1e-280)) {
                return null;
            }
            for (int j = 0; j < p; j++) {
                if (j != k) {
                    double f = a[j][k] / row[k];
                    for (int c = k; c <= p; c++) {
                        a[j][c] -= f * row[c];
                    }
                }
            }
        }
        double[] out = new double[p];
        for (int k = 0; k < p; k++) {
            out[k] = a[k][p] / a[k][k];
            if (!Double.isFinite(out[k])) {
                return null;
            }
        }
        return out;
    }
}

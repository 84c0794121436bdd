package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.List;

/**
 * Least squares by columns that are added one after the other, for few parameters and many samples: each column is made
 * orthogonal to those before it (modified Gram and Schmidt; Björck 1967, BIT 7, 1), so that one more costs only itself.
 */
final class Columns {
    private static final double NOTHING_OF_ITS_OWN = 1e-12;

    private final double[] rest;
    private final List<double[]> directions = new ArrayList<>();
    /** Of each column what lies along those before it and, last, what is left of it. */
    private final List<double[]> along = new ArrayList<>();

    private final List<Double> told = new ArrayList<>();

    /** @param target n values to be described */
    Columns(double[] target) {
        rest = target.clone();
    }

    /** @param column n values; one that those before it describe gets the coefficient 0 */
    void add(double[] column) {
        double[] q = column.clone();
        double before = Math.sqrt(dot(q, q));
        double[] r = new double[directions.size() + 1];
        for (int k = 0; k < directions.size(); k++) {
            r[k] = dot(directions.get(k), q);
            subtract(q, r[k], directions.get(k));
        }
        double length = Math.sqrt(dot(q, q));
        boolean own = length > NOTHING_OF_ITS_OWN * before;
        r[r.length - 1] = own ? length : 1;
        for (int i = 0; i < q.length; i++) {
            q[i] = own ? q[i] / length : 0;
        }
        double z = dot(q, rest);
        subtract(rest, z, q);
        directions.add(q);
        along.add(r);
        told.add(z);
    }

    /** The coefficients of the columns so far, in their order. */
    double[] coefficients() {
        int p = told.size();
        double[] c = new double[p];
        for (int k = p - 1; k >= 0; k--) {
            double v = told.get(k);
            for (int j = k + 1; j < p; j++) {
                v -= along.get(j)[k] * c[j];
            }
            c[k] = v / along.get(k)[k];
        }
        return c;
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }

    private static void subtract(double[] from, double factor, double[] what) {
        for (int i = 0; i < from.length; i++) {
            from[i] -= factor * what[i];
        }
    }
}

package eagerneedle.core.trace;

import eagerneedle.core.quantity.Notation;
import java.util.Arrays;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The noise of samples that are alike from one to the next, told from the residuals of a fit.
 *
 * <p>Residuals are described by an autoregression whose order, up to {@value #HIGHEST}, is chosen by AICc (Burg 1975;
 * Hurvich and Tsai 1989). A fit takes part of a slow noise with it, so that what is left looks less alike than it was:
 * the sum of the coefficients is put right by (n φ + p) / (n - p - 2), after Kendall 1954 for the mean and its like for
 * p parameters. What the noise then does to parameters, sums over the samples along orthonormal directions q, is the
 * covariance qᵀ Ω q, which is a sum of products of the directions passed through the autoregression. Its degrees of
 * freedom follow from how well φ is known, (1 - φ²) / n, and say how many independent pieces the record holds.
 *
 * <p>A ripple (the beat of a motor, the hum of the mains) is no noise: where the residuals hold one line of the
 * spectrum over two cycles or more, it is taken out before, and only the part of a cycle that is left over in the
 * window counts.
 *
 * @param coefficients of the autoregression, one a lag
 * @param innovation variance of what is new in each sample, in the square of the trace's unit
 * @param dof degrees of freedom of its size along a slow direction
 * @param ripple n values of the ripple that was found, or null
 * @param n number of samples
 */
public record SerialNoise(double[] coefficients, double innovation, double dof, double @Nullable [] ripple, int n) {
    private static final int HIGHEST = 12;
    private static final double NEARLY_A_WALK = 0.999;
    private static final double FEW_PIECES = 4;

    /**
     * Tells the noise from residuals.
     *
     * @param time n moments in s
     * @param residuals n residuals of a fit
     * @param p how many parameters the fit has
     * @param floor least standard deviation, what the converter's step leaves open
     */
    public static SerialNoise of(double[] time, double[] residuals, int p, double floor) {
        int n = residuals.length;
        double[] e = residuals;
        int highest = Math.min(HIGHEST, n / 10);
        double[] a = coefficients(e, highest);
        double[] ripple = a.length > 1 ? Ripple.in(time, e).orElse(null) : null;
        int used = p;
        if (ripple != null) {
            e = new double[n];
            for (int i = 0; i < n; i++) {
                e[i] = residuals[i] - ripple[i];
            }
            a = coefficients(e, highest);
            used = p + Ripple.PARAMETERS;
        }
        if (a.length == 0) {
            double s2 = Math.max(squares(e) / Math.max(1, n - used), floor * floor);
            return new SerialNoise(a, s2, Math.max(1, n - used), ripple, n);
        }
        a = lessBiased(a, n, p);
        double sum = Arrays.stream(a).sum();
        double[] fresh = innovations(e, a);
        double v = squares(fresh) / Math.max(1, n - a.length - used - (a.length > 1 ? a.length : 1));
        double s = Math.min(Math.abs(sum), 0.9999);
        double relative = 2.0 / n + 4 / ((1 - sum) * (1 - sum)) * (1 - s * s) / n * a.length;
        double s2 = v;
        double total = squares(e) / Math.max(1, n - used);
        if (total < floor * floor) {
            s2 = total > 0 ? v * floor * floor / total : floor * floor;
        }
        return new SerialNoise(a, s2, Math.max(1, 2 / relative), ripple, n);
    }

    private static double squares(double[] x) {
        double sum = 0;
        for (double v : x) {
            sum += v * v;
        }
        return sum;
    }

    /** Burg's coefficients of the order with the least AICc; empty for white noise. */
    private static double[] coefficients(double[] e, int highest) {
        int n = e.length;
        double[] forward = e.clone();
        double[] backward = e.clone();
        double[] a = new double[0];
        double[] best = a;
        double v = squares(e) / n;
        double least = criterion(v, n, 0);
        for (int k = 1; k <= highest && v > 0; k++) {
            double cross = 0;
            double both = 0;
            for (int i = k; i < n; i++) {
                cross += forward[i] * backward[i - 1];
                both += forward[i] * forward[i] + backward[i - 1] * backward[i - 1];
            }
            double r = both > 0 ? 2 * cross / both : 0;
            double[] next = new double[k];
            for (int i = 0; i < k - 1; i++) {
                next[i] = a[i] - r * a[k - 2 - i];
            }
            next[k - 1] = r;
            a = next;
            for (int i = n - 1; i >= k; i--) {
                double f = forward[i];
                forward[i] = f - r * backward[i - 1];
                backward[i] = backward[i - 1] - r * f;
            }
            v *= 1 - r * r;
            double c = criterion(v, n, k);
            if (c < least) {
                least = c;
                best = a;
            }
        }
        return best;
    }

    private static double criterion(double variance, int n, int order) {
        return n * Math.log(Math.max(variance, 1e-300)) + 2.0 * (order + 1) * n / (n - order - 2);
    }

    private static double[] lessBiased(double[] a, int n, int p) {
        double sum = Arrays.stream(a).sum();
        if (sum <= 0 || n <= p + 3) {
            return a;
        }
        double right = Math.min(NEARLY_A_WALK, (n * sum + p) / (n - p - 2));
        double[] out = a.clone();
        for (int k = 0; k < out.length; k++) {
            out[k] += (right - sum) / out.length;
        }
        return out.length == 1 || isStationary(out) ? out : a;
    }

    /** True when all reflection coefficients lie within one (Schur and Cohn). */
    private static boolean isStationary(double[] coefficients) {
        double[] a = coefficients.clone();
        for (int k = a.length; k > 0; k--) {
            double r = a[k - 1];
            if (!(Math.abs(r) < 0.9999)) {
                return false;
            }
            double[] shorter = new double[k - 1];
            for (int i = 0; i < k - 1; i++) {
                shorter[i] = (a[i] + r * a[k - 2 - i]) / (1 - r * r);
            }
            a = shorter;
        }
        return true;
    }

    private static double[] innovations(double[] e, double[] a) {
        double[] out = new double[Math.max(0, e.length - a.length)];
        for (int i = 0; i < out.length; i++) {
            double v = e[i + a.length];
            for (int k = 0; k < a.length; k++) {
                v -= a[k] * e[i + a.length - 1 - k];
            }
            out[i] = v;
        }
        return out;
    }

    /** By how much more a slow direction is uncertain than with white noise of the same size; 1 for white noise. */
    public double inflation() {
        double[] slow = new double[n];
        Arrays.fill(slow, 1 / Math.sqrt(n));
        double[] e0 = new double[n];
        e0[n / 2] = 1;
        return covariance(slow, slow) / covariance(e0, e0);
    }

    private double covariance(double[] q, double[] r) {
        double[] a = passed(q);
        double[] b = q == r ? a : passed(r);
        double sum = 0;
        for (int i = 0; i < Math.min(a.length, b.length); i++) {
            sum += a[i] * b[i];
        }
        return innovation * sum;
    }

    /** A direction passed through the autoregression, run on until it has died away. */
    private double[] passed(double[] q) {
        if (coefficients.length == 0) {
            return q;
        }
        double[] out = Arrays.copyOf(q, q.length + 64);
        int quiet = 0;
        double size = 0;
        int i = 0;
        for (; i < q.length || quiet < coefficients.length; i++) {
            if (i == out.length) {
                out = Arrays.copyOf(out, out.length * 2);
            }
            double v = i < q.length ? q[i] : 0;
            for (int k = 0; k < coefficients.length && k < i; k++) {
                v += coefficients[k] * out[i - 1 - k];
            }
            out[i] = v;
            size = Math.max(size, Math.abs(v));
            quiet = i >= q.length && Math.abs(v) < 1e-6 * size ? quiet + 1 : 0;
            if (i > q.length + 50_000) {
                break;
            }
        }
        return Arrays.copyOf(out, i);
    }

    /**
     * The root of the covariance that the noise gives to sums along directions.
     *
     * @param q p by n orthonormal directions
     * @return p by p, lower left: its product with its own transpose is the covariance, in the square of the trace's
     *     unit
     */
    public double[][] factor(double[][] q) {
        int p = q.length;
        double[][] passed = new double[p][];
        double[] cycle = new double[p];
        for (int k = 0; k < p; k++) {
            for (int i = 0; i < n; i++) {
                cycle[k] += ripple == null ? 0 : q[k][i] * ripple[i];
            }
            passed[k] = passed(q[k]);
        }
        double[][] m = new double[p][p];
        for (int j = 0; j < p; j++) {
            for (int k = 0; k <= j; k++) {
                double sum = 0;
                for (int i = 0; i < Math.min(passed[j].length, passed[k].length); i++) {
                    sum += passed[j][i] * passed[k][i];
                }
                m[j][k] = innovation * sum + cycle[j] * cycle[k];
            }
        }
        double[][] l = new double[p][p];
        for (int j = 0; j < p; j++) {
            for (int k = 0; k <= j; k++) {
                double sum = m[j][k];
                for (int i = 0; i < k; i++) {
                    sum -= l[j][i] * l[k][i];
                }
                l[j][k] = j == k ? Math.sqrt(Math.max(0, sum)) : l[k][k] > 0 ? sum / l[k][k] : 0;
            }
        }
        return l;
    }

    /** One sentence where the record is too short to tell how alike its samples are. */
    public Optional<String> remark() {
        return coefficients.length == 0 || dof >= FEW_PIECES
                ? Optional.empty()
                : Optional.of(("The samples are so alike from one to the next that the record holds only about %s; its "
                                + "uncertainty is hardly known itself. Record for longer.")
                        .formatted(
                                dof < 1.5
                                        ? "one independent piece"
                                        : Notation.sentence("%.0f independent pieces", dof)));
    }
}

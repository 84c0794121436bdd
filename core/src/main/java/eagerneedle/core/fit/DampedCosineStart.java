package eagerneedle.core.fit;

import java.util.Arrays;
import org.hipparchus.complex.Complex;
import org.hipparchus.transform.DftNormalization;
import org.hipparchus.transform.FastFourierTransformer;
import org.hipparchus.transform.TransformType;
import org.jspecify.annotations.Nullable;

/**
 * Where a damped cosine might start: the period at which a cosine and a sine together explain most (a periodogram for
 * any spacing of the abscissae, Lomb 1976), refined, then the decay that explains most at that period.
 */
final class DampedCosineStart {
    private static final int FINER_THAN_SPAN = 8;
    private static final int MANY = 200;
    private static final double NEAR = 2;
    private static final double EVEN = 1e-6;

    private DampedCosineStart() {}

    /** Level, amplitude, decay length, period and phase. */
    static double[] of(double[] x, double[] y) {
        double low = Arrays.stream(x).min().orElseThrow();
        double span = Arrays.stream(x).max().orElseThrow() - low;
        if (!(span > 0)) {
            throw new FitException("A damped cosine needs points at different abscissae.");
        }
        int n = x.length;
        double best = Double.POSITIVE_INFINITY;
        double[] bestAt = null;
        int steps = Math.min(20_000, n / 2 * FINER_THAN_SPAN);
        double[] taus = {0.1 * span, 0.3 * span, span, 5 * span};
        int stride = Math.max(1, n / 4000);
        double peak = peak(x, y);
        int first = Double.isNaN(peak)
                ? FINER_THAN_SPAN / 4
                : (int) Math.max(FINER_THAN_SPAN / 4, Math.floor((peak * span - NEAR) * FINER_THAN_SPAN));
        int last =
                Double.isNaN(peak) ? steps : (int) Math.min(steps, Math.ceil((peak * span + NEAR) * FINER_THAN_SPAN));
        for (int k = first; k <= last; k++) {
            double frequency = k / (double) FINER_THAN_SPAN / span;
            for (double tau : n > 2000 ? new double[] {0.5 * span} : taus) {
                double[] s = solve(x, y, low, tau, frequency, stride);
                if (s != null && s[3] < best) {
                    best = s[3];
                    bestAt = new double[] {tau, frequency};
                }
            }
        }
        if (bestAt == null) {
            throw new FitException("No oscillation could be found in these data.");
        }
        double step = 1.0 / FINER_THAN_SPAN / span;
        for (int pass = 0; pass < 6; pass++) {
            double centre = bestAt[1];
            double tauCentre = bestAt[0];
            for (int i = -4; i <= 4; i++) {
                for (double stretch : new double[] {0.5, 0.7, 0.85, 1, 1.2, 1.4, 2, 4}) {
                    double[] s = solve(x, y, low, tauCentre * stretch, centre + i * step / 4, stride);
                    if (s != null && s[3] < best) {
                        best = s[3];
                        bestAt = new double[] {tauCentre * stretch, centre + i * step / 4};
                    }
                }
            }
            step /= 3;
        }
        double[] s = solve(x, y, low, bestAt[0], bestAt[1], 1);
        if (s == null) {
            throw new FitException("No oscillation could be found in these data.");
        }
        double amplitude = Math.hypot(s[1], s[2]) * Math.exp(low / bestAt[0]);
        double phase = Math.atan2(-s[2], s[1]) - 2 * Math.PI * low * bestAt[1];
        return new double[] {s[0], amplitude, bestAt[0], 1 / bestAt[1], Math.IEEEremainder(phase, 2 * Math.PI)};
    }

    /**
     * Frequency of the tallest line of many evenly spaced points, so that only its neighbourhood need be searched; NaN
     * for others.
     */
    private static double peak(double[] x, double[] y) {
        int n = x.length;
        double interval = (x[n - 1] - x[0]) / (n - 1);
        for (int i = 0; i < n; i++) {
            if (n < MANY || !(Math.abs(x[i] - x[0] - i * interval) < 0.01 * interval)) {
                return Double.NaN;
            }
        }
        int padded = Integer.highestOneBit(2 * n - 1) * 2;
        double mean = Arrays.stream(y).average().orElseThrow();
        double[] in = new double[padded];
        for (int i = 0; i < n; i++) {
            in[i] = y[i] - mean;
        }
        Complex[] lines = new FastFourierTransformer(DftNormalization.STANDARD).transform(in, TransformType.FORWARD);
        int tallest = 1;
        for (int k = 1; k < padded / 2; k++) {
            tallest = lines[k].norm() > lines[tallest].norm() ? k : tallest;
        }
        return tallest / (padded * interval);
    }

    /**
     * Level, cosine and sine parts counted from {@code low}, and the sum of squares left.
     *
     * <p>Evenly spaced points are gone along by turning and shrinking, one complex product a point; cosine, sine and
     * exponential of every point were nine tenths of the time of a fit.
     */
    private static double @Nullable [] solve(
            double[] x, double[] y, double low, double tau, double frequency, int stride) {
        int m = (x.length + stride - 1) / stride;
        double between = m > 1 ? (x[(m - 1) * stride] - x[0]) / (m - 1) : 0;
        double shrink = Math.exp(-between / tau);
        double turnCos = shrink * Math.cos(2 * Math.PI * frequency * between);
        double turnSin = shrink * Math.sin(2 * Math.PI * frequency * between);
        boolean even = isEven(x, stride, m, between);
        double y0 = y[0];
        double c = 0;
        double s = 0;
        double[][] a = new double[3][4];
        double squares = 0;
        for (int i = 0; i < m; i++) {
            if (i == 0 || !even) {
                double t = x[i * stride] - low;
                double e = Math.exp(-t / tau);
                c = e * Math.cos(2 * Math.PI * frequency * t);
                s = e * Math.sin(2 * Math.PI * frequency * t);
            }
            double v = y[i * stride] - y0;
            a[0][1] += c;
            a[0][2] += s;
            a[0][3] += v;
            a[1][1] += c * c;
            a[1][2] += c * s;
            a[1][3] += c * v;
            a[2][2] += s * s;
            a[2][3] += s * v;
            squares += v * v;
            double turned = c * turnCos - s * turnSin;
            s = c * turnSin + s * turnCos;
            c = turned;
        }
        a[0][0] = m;
        a[1][0] = a[0][1];
        a[2][0] = a[0][2];
        a[2][1] = a[1][2];
        double[] right = {a[0][3], a[1][3], a[2][3]};
        double[] found = NormalEquations.eliminated(a);
        if (found == null) {
            return null;
        }
        for (int k = 0; k < found.length; k++) {
            squares -= found[k] * right[k];
        }
        return new double[] {found[0] + y0, found[1], found[2], squares};
    }

    private static boolean isEven(double[] x, int stride, int m, double between) {
        for (int i = 0; i < m; i++) {
            if (!(Math.abs(x[i * stride] - x[0] - i * between) <= EVEN * Math.abs(between))) {
                return false;
            }
        }
        return true;
    }
}

package eagerneedle.core.fit;

import java.util.Arrays;
import org.hipparchus.complex.Complex;
import org.hipparchus.transform.DftNormalization;
import org.hipparchus.transform.FastFourierTransformer;
import org.hipparchus.transform.TransformType;

/**
 * Where a damped cosine might start: the period at which a cosine and a sine together explain most (a periodogram for
 * any spacing of the abscissae, Lomb 1976), refined, then the decay that explains most at that period.
 */
final class DampedCosineStart {
    private static final int FINER_THAN_SPAN = 8;
    private static final int MANY = 200;
    private static final double NEAR = 2;

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

    /** Level, cosine and sine parts counted from {@code low}, and the sum of squares left. */
    private static double[] solve(double[] x, double[] y, double low, double tau, double frequency, int stride) {
        int m = (x.length + stride - 1) / stride;
        double[][] design = new double[m][];
        double[] target = new double[m];
        for (int i = 0; i < m; i++) {
            double t = x[i * stride] - low;
            double e = Math.exp(-t / tau);
            double w = 2 * Math.PI * frequency * t;
            design[i] = new double[] {1, e * Math.cos(w), e * Math.sin(w)};
            target[i] = y[i * stride];
        }
        double[] c = NormalEquations.solve(design, target);
        if (c == null) {
            return null;
        }
        double squares = 0;
        for (int i = 0; i < m; i++) {
            double r = target[i] - c[0] - c[1] * design[i][1] - c[2] * design[i][2];
            squares += r * r;
        }
        return new double[] {c[0], c[1], c[2], squares};
    }
}

package eagerneedle.core.trace;

import java.util.Arrays;
import java.util.Optional;
import org.hipparchus.transform.DftNormalization;
import org.hipparchus.transform.FastFourierTransformer;
import org.hipparchus.transform.TransformType;

/**
 * Finds a ripple in residuals: a steady oscillation and its harmonics that make up most of them, over two cycles or
 * more.
 *
 * <p>The tallest line of the spectrum gives the frequency, Gauss-Newton steps and secants refine it, and the amplitudes
 * of it and of its first harmonics are least squares. The remaining level is fitted along and left where it was.
 */
final class Ripple {
    private static final int HARMONICS = 3;
    /** Parameters that a ripple takes out of the residuals: a frequency and two amplitudes each. */
    static final int PARAMETERS = 1 + 2 * HARMONICS;

    private static final double MOST = 0.6;
    /** Of three harmonics that make up {@link #MOST} one has a third; a spectrum may show it a fifth too low. */
    private static final double LEAST = 0.75 * MOST / HARMONICS;

    private static final int FEWEST = 24;

    private Ripple() {}

    /**
     * n values of the ripple; empty where the residuals hold none. Samples are taken as evenly spaced for the search
     * alone.
     */
    static Optional<double[]> in(double[] time, double[] e) {
        int n = e.length;
        double span = n < 2 ? 0 : time[n - 1] - time[0];
        if (n < FEWEST || !(span > 0)) {
            return Optional.empty();
        }
        double omega = start(time, e, span);
        if (!(omega * span > 2 * 2 * Math.PI * 0.95)) {
            return Optional.empty();
        }
        double before = Double.POSITIVE_INFINITY;
        double moved = 0;
        for (int pass = 0; pass < 20; pass++) {
            double[] c = fit(time, e, omega, 1, true);
            double most = 1 / span;
            double step = within(c[3] / Math.max(1e-300, Math.hypot(c[1], c[2])), most);
            // Steps that shrink do so by the same factor each time: the secant through two of them goes to their end.
            boolean shrinks = Math.abs(step) < 0.5 * Math.abs(before) && moved != 0;
            moved = shrinks ? within(step * moved / (before - step), most) : step;
            omega += moved;
            if (Math.abs(step) < 1e-12 * omega || Math.abs(step) > 2 * Math.abs(before)) {
                break;
            }
            before = step;
        }
        int harmonics = Math.min(HARMONICS, (int) Math.floor(Math.PI / omega / (span / (n - 1))));
        if (harmonics < 1) {
            return Optional.empty();
        }
        double[] c = fit(time, e, omega, harmonics, false);
        double[] ripple = new double[n];
        double left = 0;
        double all = 0;
        double mean = Arrays.stream(e).average().orElse(0);
        for (int i = 0; i < n; i++) {
            for (int h = 1; h <= harmonics; h++) {
                double phase = h * omega * (time[i] - time[0]);
                ripple[i] += c[2 * h - 1] * Math.cos(phase) + c[2 * h] * Math.sin(phase);
            }
            double r = e[i] - c[0] - ripple[i];
            left += r * r;
            all += (e[i] - mean) * (e[i] - mean);
        }
        return left < (1 - MOST) * all ? Optional.of(ripple) : Optional.empty();
    }

    private static double within(double step, double most) {
        return Math.max(-most, Math.min(most, step));
    }

    /** The frequency with which to begin, in 1/s; not a number where no line is tall enough to be a ripple's. */
    private static double start(double[] time, double[] e, double span) {
        int n = e.length;
        int size = Integer.highestOneBit(Math.max(4, 2 * n - 1)) * 2;
        double mean = Arrays.stream(e).average().orElse(0);
        double[] padded = new double[size];
        for (int i = 0; i < n; i++) {
            padded[i] = e[i] - mean;
        }
        var spectrum = new FastFourierTransformer(DftNormalization.STANDARD).transform(padded, TransformType.FORWARD);
        int best = 1;
        double tallest = 0;
        for (int k = 1; k < size / 2; k++) {
            double power = spectrum[k].getReal() * spectrum[k].getReal()
                    + spectrum[k].getImaginary() * spectrum[k].getImaginary();
            if (power > tallest) {
                tallest = power;
                best = k;
            }
        }
        double all = 0;
        for (int i = 0; i < n; i++) {
            all += padded[i] * padded[i];
        }
        // What a cosine of that frequency takes out of the squares; a frame between two lines costs a fifth of it.
        boolean any = 2 * tallest / n > LEAST * all;
        return any ? 2 * Math.PI * best / (size * span / (n - 1)) : Double.NaN;
    }

    /**
     * Level and amplitudes of the harmonics; with {@code slope}, for one harmonic, also how the frequency should
     * change, times its amplitude.
     */
    private static double[] fit(double[] time, double[] e, double omega, int harmonics, boolean slope) {
        int n = e.length;
        Columns columns = new Columns(e);
        double[] level = new double[n];
        Arrays.fill(level, 1);
        columns.add(level);
        double[] cos = new double[n];
        double[] sin = new double[n];
        for (int h = 1; h <= harmonics; h++) {
            for (int i = 0; i < n; i++) {
                double phase = h * omega * (time[i] - time[0]);
                cos[i] = Math.cos(phase);
                sin[i] = Math.sin(phase);
            }
            columns.add(cos);
            columns.add(sin);
        }
        if (slope) {
            // The direction of a change of frequency, made orthogonal to the others by fitting it along.
            double[] c = columns.coefficients();
            double amplitude = Math.max(1e-300, Math.hypot(c[1], c[2]));
            double[] turning = new double[n];
            for (int i = 0; i < n; i++) {
                turning[i] = (time[i] - time[0]) * (c[2] * cos[i] - c[1] * sin[i]) / amplitude;
            }
            columns.add(turning);
        }
        return columns.coefficients();
    }
}

package eagerneedle.core.trace;

import java.util.Arrays;

/**
 * Statistics of a window, with a standard uncertainty of the mean that knows about autocorrelation.
 *
 * <p>Neighbouring samples of a real display are alike, so s/√n is too small. The effective number of independent samples is
 * n / (1 + 2 Σ ρ_k), the sum running over the initial positive sequence of the autocorrelation (Geyer 1992, Statistical
 * Science 7, 473). Where the signal sits within one converter step, scatter tells nothing, and the uncertainty is floored by
 * step/√12 (JCGM 100, F.2.2.1).
 *
 * @param n         number of samples
 * @param mean      in the trace's unit
 * @param median    in the trace's unit
 * @param sd        standard deviation of the samples with n - 1, in the trace's unit
 * @param min       in the trace's unit
 * @param max       in the trace's unit
 * @param effectiveN effective number of independent samples, 1 to n
 * @param uMean     standard uncertainty of the mean, in the trace's unit
 * @param slope     rate of change by a straight line, in the trace's unit per second
 * @param uSlope    its standard uncertainty, widened for autocorrelation
 */
public record WindowStatistics(int n, double mean, double median, double sd, double min, double max, double effectiveN,
                               double uMean, double slope, double uSlope) {
    private static final int LAGS = 2000;

    /** @throws IllegalArgumentException for fewer than two samples */
    public static WindowStatistics of(Trace trace) {
        int n = trace.size();
        if (n < 2) {
            throw new IllegalArgumentException("Statistics of " + trace.name() + " need at least 2 samples; the window holds " + n + ".");
        }
        double[] v = trace.value();
        double mean = mean(v);
        double squares = 0;
        double min = v[0];
        double max = v[0];
        for (double x : v) {
            squares += (x - mean) * (x - mean);
            min = Math.min(min, x);
            max = Math.max(max, x);
        }
        double sd = Math.sqrt(squares / (n - 1));
        double[] sorted = v.clone();
        Arrays.sort(sorted);
        double median = n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
        double effective = effectiveN(v, mean, squares);
        double uMean = Math.max(sd / Math.sqrt(effective), max - min <= trace.step() ? trace.step() / Math.sqrt(12) : 0);

        double tMean = mean(trace.time());
        double stt = 0;
        double stv = 0;
        for (int i = 0; i < n; i++) {
            double dt = trace.time()[i] - tMean;
            stt += dt * dt;
            stv += dt * (v[i] - mean);
        }
        double slope = stt == 0 ? 0 : stv / stt;
        double residual = Math.max(0, squares - slope * stv);
        double floor = trace.step() * trace.step() / 12;
        double s2 = Math.max(n > 2 ? residual / (n - 2) : 0, floor);
        double uSlope = stt == 0 ? Double.POSITIVE_INFINITY : Math.sqrt(s2 / stt * n / detrendedEffectiveN(trace, mean, tMean, slope));
        return new WindowStatistics(n, mean, median, sd, min, max, effective, uMean, slope, uSlope);
    }

    /** True when the slope over the window is within {@code k} of its own standard uncertainties. */
    public boolean steady(double k) {
        return Math.abs(slope) <= k * uSlope;
    }

    /** Effective number of independent samples of a series, from 1 to its length. */
    public static double effectiveN(double[] series) {
        double mean = mean(series);
        double squares = 0;
        for (double x : series) {
            squares += (x - mean) * (x - mean);
        }
        return effectiveN(series, mean, squares);
    }

    private static double detrendedEffectiveN(Trace trace, double mean, double tMean, double slope) {
        double[] rest = new double[trace.size()];
        for (int i = 0; i < rest.length; i++) {
            rest[i] = trace.value()[i] - mean - slope * (trace.time()[i] - tMean);
        }
        return effectiveN(rest);
    }

    private static double effectiveN(double[] v, double mean, double squares) {
        int n = v.length;
        if (squares == 0) {
            return n;
        }
        double sum = 0;
        for (int lag = 1; lag + 1 < Math.min(n, LAGS); lag += 2) {
            double pair = correlation(v, mean, squares, lag) + correlation(v, mean, squares, lag + 1);
            if (pair <= 0) {
                break;
            }
            sum += pair;
        }
        return Math.max(1, Math.min(n, n / (1 + 2 * sum)));
    }

    private static double correlation(double[] v, double mean, double squares, int lag) {
        double sum = 0;
        for (int i = lag; i < v.length; i++) {
            sum += (v[i] - mean) * (v[i - lag] - mean);
        }
        return sum / squares;
    }

    private static double mean(double[] v) {
        double sum = 0;
        for (double x : v) {
            sum += x;
        }
        double first = sum / v.length;
        double correction = 0;
        for (double x : v) {
            correction += x - first;
        }
        return first + correction / v.length;
    }
}

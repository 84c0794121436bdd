package eagerneedle.core.trace;

import java.util.Arrays;

/**
 * Statistics of a window, with a standard uncertainty of the mean that knows about autocorrelation.
 *
 * <p>Neighbouring samples of a real display are alike, so s/√n is too small. The effective number of independent
 * samples is n / (1 + 2 Σ ρ_k), the sum running over the initial positive sequence of the autocorrelation (Geyer 1992,
 * Statistical Science 7, 473). Where the signal sits within one converter step, scatter tells nothing, and the
 * uncertainty is floored by step/√12 (JCGM 100, F.2.2.1).
 *
 * @param n number of samples
 * @param mean in the trace's unit
 * @param median in the trace's unit
 * @param sd standard deviation of the samples with n - 1, in the trace's unit
 * @param min in the trace's unit
 * @param max in the trace's unit
 * @param effectiveN effective number of independent samples, 1 to n
 * @param uMean standard uncertainty of the mean, in the trace's unit
 * @param slope rate of change by a straight line, in the trace's unit per second
 * @param uSlope its standard uncertainty, widened for autocorrelation
 */
public record WindowStatistics(
        int n,
        double mean,
        double median,
        double sd,
        double min,
        double max,
        double effectiveN,
        double uMean,
        double slope,
        double uSlope) {
    /** A trend that explains less of the variance than this does not change the autocorrelation. */
    private static final double NEGLIGIBLE_TREND = 1e-3;

    /** @throws IllegalArgumentException for fewer than two samples */
    public static WindowStatistics of(Trace trace) {
        int n = trace.size();
        if (n < 2) {
            throw new IllegalArgumentException(
                    "Statistics of " + trace.name() + " need at least 2 samples; the window holds " + n + ".");
        }
        double[] v = trace.value();
        Pass pass = Pass.over(trace.time(), v);
        Sums s = pass.sums;
        double mean = s.mean();
        double squares = s.squaresAboutMean();
        double stt = s.timeSquaresAboutMean();
        double stv = s.productsAboutMeans();
        double tMean = trace.time()[0] + s.times() / n;
        double sd = Math.sqrt(squares / (n - 1));
        double median = pass.median;
        double effective = EffectiveSize.of(v, s);
        double min = s.min();
        double max = s.max();
        double uMean =
                Math.max(sd / Math.sqrt(effective), max - min <= trace.step() ? trace.step() / Math.sqrt(12) : 0);

        double slope = stt == 0 ? 0 : stv / stt;
        double residual = Math.max(0, squares - slope * stv);
        double floor = trace.step() * trace.step() / 12;
        double s2 = Math.max(n > 2 ? residual / (n - 2) : 0, floor);
        boolean trend = slope * stv > NEGLIGIBLE_TREND * squares;
        double effectiveOfRest = trend ? detrendedEffectiveN(trace, mean, tMean, slope) : effective;
        double uSlope = stt == 0 ? Double.POSITIVE_INFINITY : Math.sqrt(s2 / stt * n / effectiveOfRest);
        return new WindowStatistics(n, mean, median, sd, min, max, effective, uMean, slope, uSlope);
    }

    /**
     * How far the straight line through the samples goes over a span in seconds, without its sign; in the trace's unit.
     */
    public double drift(double span) {
        return Math.abs(slope) * span;
    }

    /** True when the slope over the window is within {@code k} of its own standard uncertainties. */
    public boolean steady(double k) {
        return Math.abs(slope) <= k * uSlope;
    }

    /** Effective number of independent samples of a series, from 1 to its length. */
    public static double effectiveN(double[] series) {
        return EffectiveSize.of(series);
    }

    /**
     * What needs every sample, looked at once: each block is in the processor's cache while all of it is worked out.
     */
    private record Pass(Sums sums, double median) {
        private record Block(Sums sums, Median.Within middle) {}

        static Pass over(double[] t, double[] v) {
            if (!Median.isOfMany(v)) {
                return new Pass(Sums.of(t, v), Median.of(v));
            }
            double near = Sums.near(v);
            Median.Bounds bounds = Median.Bounds.of(v);
            Block[] blocks = Tiles.map(
                    v.length,
                    (from, to) -> new Block(Sums.block(t, v, near, from, to), Median.within(v, bounds, from, to)),
                    Block[]::new);
            return new Pass(
                    Sums.of(Arrays.stream(blocks).map(Block::sums).toArray(Sums[]::new)),
                    Median.of(v, Arrays.stream(blocks).map(Block::middle).toArray(Median.Within[]::new)));
        }
    }

    private static double detrendedEffectiveN(Trace trace, double mean, double tMean, double slope) {
        double[] rest = new double[trace.size()];
        for (int i = 0; i < rest.length; i++) {
            rest[i] = trace.value()[i] - mean - slope * (trace.time()[i] - tMean);
        }
        return EffectiveSize.of(rest);
    }
}

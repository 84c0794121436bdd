package eagerneedle.core.trace;

import java.util.Arrays;

/**
 * How many independent samples a series is worth: n / (1 + 2 Σ ρ_k), the sum running over the initial positive sequence
 * of the autocorrelation (Geyer 1992, Practical Markov chain Monte Carlo).
 *
 * <p>Pairs of the autocorrelation are summed until one is not positive. A long correlation would take many passes over
 * the samples; so, where the first lags do not end it, samples are averaged in fours and the same sum is taken of the
 * averages: the variance of the mean, which is what the sum stands for, is the same either way.
 */
final class EffectiveSize {
    private static final int LAGS = 10;
    private static final int PIECE = 2048;
    private static final int FEWEST_TO_SHORTEN = 400;
    /** So many samples tell a pair of correlations to a tenth even where they are 0.95 from one to the next. */
    private static final int LOOKED_AT = 16_384;

    private static final int MANY = 8;
    private static final double BEYOND_DOUBT = 0.5;

    private EffectiveSize() {}

    /** Of a series, from 1 to its length. */
    static double of(double[] series) {
        Sums s = Sums.of(new double[series.length], series);
        return of(series, s);
    }

    /** The same where the sums are known. */
    static double of(double[] v, Sums sums) {
        double squares = sums.squaresAboutMean();
        if (squares == 0) {
            return v.length;
        }
        double first = v.length > 2 ? sums.pair(v, 1) : 0;
        double second = v.length > 5 ? sums.pair(v, 3) : 0;
        // White noise ends at the first or second pair.
        return first <= 0 || second <= 0
                ? worth(v.length, squares, v.length, squares, Math.max(0, first))
                : summed(v, sums.mean(), squares, first, second);
    }

    private static double worth(int n, double squares, int m, double ss, double correlations) {
        double varianceOfMean = ss / m / m * (1 + 2 * correlations);
        return Math.max(1, Math.min(n, squares / n / varianceOfMean));
    }

    private static double summed(double[] v, double mean, double squares, double... pairs) {
        double[] series = v;
        double ss = squares;
        while (true) {
            int m = series.length;
            boolean shorten = m > FEWEST_TO_SHORTEN;
            if (!shorten || !goesOn(series, mean)) {
                double correlations = correlations(series, mean, ss, shorten, series == v ? pairs : new double[0]);
                if (!Double.isNaN(correlations)) {
                    return worth(v.length, squares, m, ss, correlations);
                }
            }
            double[] shorter = new double[m / 4];
            ss = 0;
            for (int i = 0; i < shorter.length; i++) {
                shorter[i] = (series[4 * i] + series[4 * i + 1] + series[4 * i + 2] + series[4 * i + 3]) / 4;
                ss += (shorter[i] - mean) * (shorter[i] - mean);
            }
            series = shorter;
            if (ss == 0) {
                return v.length;
            }
        }
    }

    /**
     * The sum of the autocorrelation's positive pairs; NaN where it is to be shortened first, since the first lags do
     * not end it.
     *
     * @param known the first of them, where they are known
     */
    private static double correlations(double[] series, double mean, double ss, boolean shorten, double[] known) {
        int m = series.length;
        double sum = 0;
        double[] many = null;
        int most = shorten ? LAGS : Math.max(m - 3, 1);
        for (int lag = 1; lag <= most && lag + 1 < m; lag += 2) {
            double pair;
            if (lag / 2 < known.length) {
                pair = known[lag / 2];
            } else if (!shorten) {
                pair = pair(series, mean, lag) / ss;
            } else {
                // What goes on after two pairs goes on for long.
                many = many == null ? products(series, mean, lag, LAGS) : many;
                pair = (many[lag - 1] + many[lag]) / ss;
            }
            if (pair <= 0) {
                return sum;
            }
            sum += pair;
        }
        return shorten ? Double.NaN : sum;
    }

    /**
     * True where some of a long series leave no doubt that its first lags do not end the sum: they need not be worked
     * out for all of it.
     */
    private static boolean goesOn(double[] v, double mean) {
        if (v.length < MANY * LOOKED_AT) {
            return false;
        }
        int from = (v.length - LOOKED_AT) / 2;
        double squares = 0;
        for (int i = from; i < from + LOOKED_AT; i++) {
            squares += (v[i] - mean) * (v[i] - mean);
        }
        double[] some = products(v, mean, 1, LAGS, from, from + LOOKED_AT);
        boolean all = squares > 0;
        for (int lag = 1; lag < LAGS; lag += 2) {
            all &= some[lag - 1] + some[lag] > BEYOND_DOUBT * squares;
        }
        return all;
    }

    /** Sums of products of deviations at lags from an odd one to an even one, in one pass; by lag less one. */
    private static double[] products(double[] v, double mean, int first, int last) {
        double[][] parts = Tiles.map(v.length, (from, to) -> products(v, mean, first, last, from, to), double[][]::new);
        double[] all = parts[0];
        for (int i = 1; i < parts.length; i++) {
            for (int k = first - 1; k < last; k++) {
                all[k] += parts[i][k];
            }
        }
        return all;
    }

    private static double[] products(double[] v, double mean, int first, int last, int from, int to) {
        double[] out = new double[LAGS];
        double[] d = new double[LAGS + PIECE];
        for (int start = from; start < to; start += PIECE) {
            int end = LAGS + Math.min(PIECE, to - start);
            Arrays.fill(d, 0, LAGS, 0);
            for (int i = Math.max(0, start - LAGS); i < start - LAGS + end; i++) {
                d[i - start + LAGS] = v[i] - mean;
            }
            for (int lag = first; lag < last; lag += 2) {
                addPair(d, end, lag, out);
            }
        }
        return out;
    }

    /** Two lags at once, two elements at a time: what is read serves several products, and no sum waits for another. */
    private static void addPair(double[] d, int end, int lag, double[] out) {
        double one = 0;
        double two = 0;
        double oneMore = 0;
        double twoMore = 0;
        int i = LAGS;
        for (; i < end - 1; i += 2) {
            double here = d[i];
            double next = d[i + 1];
            double back = d[i - lag];
            one += here * back;
            twoMore += next * back;
            two += here * d[i - lag - 1];
            oneMore += next * d[i - lag + 1];
        }
        if (i < end) {
            one += d[i] * d[i - lag];
            two += d[i] * d[i - lag - 1];
        }
        out[lag - 1] += one + oneMore;
        out[lag] += two + twoMore;
    }

    /** The sum of products of deviations at a lag and at the next one. */
    private static double pair(double[] v, double mean, int lag) {
        double sum = lag < v.length ? (v[lag] - mean) * (v[0] - mean) : 0;
        for (int i = lag + 1; i < v.length; i++) {
            sum += (v[i] - mean) * (v[i - lag] - mean + (v[i - lag - 1] - mean));
        }
        return sum;
    }
}

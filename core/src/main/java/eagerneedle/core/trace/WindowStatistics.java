package eagerneedle.core.trace;

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
    private static final int LAGS = 12;
    private static final int FEWEST_TO_SHORTEN = 400;
    private static final int MANY = 5_000;
    private static final int BINS = 2_048;
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
        double[] t = trace.time();
        double near = 0;
        for (double x : v) {
            near += x;
        }
        near /= n;
        // Sums about a first estimate of the mean and about the first moment: little is lost when they are brought to
        // the true means.
        double sum = 0;
        double squares = 0;
        double st = 0;
        double stt = 0;
        double stv = 0;
        double min = v[0];
        double max = v[0];
        for (int i = 0; i < n; i++) {
            double d = v[i] - near;
            double dt = t[i] - t[0];
            sum += d;
            squares += d * d;
            st += dt;
            stt += dt * dt;
            stv += dt * d;
            min = v[i] < min ? v[i] : min;
            max = v[i] > max ? v[i] : max;
        }
        double mean = near + sum / n;
        squares = Math.max(0, squares - sum * sum / n);
        stt = Math.max(0, stt - st * st / n);
        stv -= st * sum / n;
        double tMean = t[0] + st / n;
        double sd = Math.sqrt(squares / (n - 1));
        double median = n > MANY ? medianOfMany(v, min, max) : median(v);
        double effective = effectiveN(v, mean, squares);
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

    /**
     * Sums pairs of the autocorrelation until one is not positive. A long correlation would take many passes over the
     * samples; so, where the first lags do not end it, samples are averaged in fours and the same sum is taken of the
     * averages: the variance of the mean, which is what the sum stands for, is the same either way.
     */
    private static double effectiveN(double[] v, double mean, double squares) {
        int n = v.length;
        if (squares == 0) {
            return n;
        }
        double[] series = v;
        double ss = squares;
        while (true) {
            int m = series.length;
            boolean shorten = m > FEWEST_TO_SHORTEN;
            int lags = shorten ? LAGS : m - 1;
            double sum = 0;
            boolean ended = false;
            for (int lag = 1; lag + 1 < Math.max(lags, 3) && lag + 1 < m; lag += 2) {
                double pair = correlations(series, mean, ss, lag);
                if (pair <= 0) {
                    ended = true;
                    break;
                }
                sum += pair;
            }
            if (ended || !shorten) {
                double varianceOfMean = ss / m / m * (1 + 2 * sum);
                return Math.max(1, Math.min(n, squares / n / varianceOfMean));
            }
            double[] shorter = new double[m / 4];
            ss = 0;
            for (int i = 0; i < shorter.length; i++) {
                shorter[i] = (series[4 * i] + series[4 * i + 1] + series[4 * i + 2] + series[4 * i + 3]) / 4;
                ss += (shorter[i] - mean) * (shorter[i] - mean);
            }
            series = shorter;
            if (ss == 0) {
                return n;
            }
        }
    }

    /** The sum of the correlations at a lag and at the next one, in one pass. */
    private static double correlations(double[] v, double mean, double squares, int lag) {
        double first = lag < v.length ? (v[lag] - mean) * (v[0] - mean) : 0;
        double second = 0;
        for (int i = lag + 1; i < v.length; i++) {
            double d = v[i] - mean;
            first += d * (v[i - lag] - mean);
            second += d * (v[i - lag - 1] - mean);
        }
        return (first + second) / squares;
    }

    /** The median by selection: a few passes instead of a sort. */
    static double median(double[] values) {
        double[] v = values.clone();
        int n = v.length;
        double upper = select(v, n / 2);
        if (n % 2 == 1) {
            return upper;
        }
        double lower = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < n / 2; i++) {
            lower = Math.max(lower, v[i]);
        }
        return (lower + upper) / 2;
    }

    /**
     * The median of many values: counted into bins first, so that only the values of the middle bins are copied and
     * selected from. Where most values share a bin (a heavy tail, a coarse converter) the plain selection does it.
     */
    private static double medianOfMany(double[] v, double min, double max) {
        double scale = BINS / (max - min);
        if (!(max > min) || Double.isInfinite(scale)) {
            return max > min ? median(v) : min;
        }
        int[] counts = new int[BINS + 1];
        for (double x : v) {
            counts[(int) ((x - min) * scale)]++;
        }
        int lowRank = (v.length - 1) / 2;
        int highRank = v.length / 2;
        int before = 0;
        int first = 0;
        while (before + counts[first] <= lowRank) {
            before += counts[first++];
        }
        int last = first;
        int upTo = before + counts[first];
        while (upTo <= highRank) {
            upTo += counts[++last];
        }
        if (upTo - before > v.length / 4) {
            return median(v);
        }
        double[] middle = new double[upTo - before];
        int m = 0;
        for (double x : v) {
            int bin = (int) ((x - min) * scale);
            if (bin >= first && bin <= last) {
                middle[m++] = x;
            }
        }
        double low = select(middle, lowRank - before);
        return lowRank == highRank ? low : (low + select(middle, highRank - before)) / 2;
    }

    /** The k-th smallest, 0-based; afterwards nothing before k is larger (Hoare 1961, median of three). */
    private static double select(double[] v, int k) {
        int low = 0;
        int high = v.length - 1;
        while (low < high) {
            double a = v[low];
            double b = v[(low + high) >>> 1];
            double c = v[high];
            double pivot = Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
            int i = low;
            int j = high;
            while (i <= j) {
                while (v[i] < pivot) {
                    i++;
                }
                while (v[j] > pivot) {
                    j--;
                }
                if (i <= j) {
                    double t = v[i];
                    v[i++] = v[j];
                    v[j--] = t;
                }
            }
            if (k <= j) {
                high = j;
            } else if (k >= i) {
                low = i;
            } else {
                return v[k];
            }
        }
        return v[k];
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

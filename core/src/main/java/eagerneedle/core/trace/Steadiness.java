package eagerneedle.core.trace;

import java.util.Optional;
import java.util.function.Predicate;

/**
 * When a signal has become steady: a wait is over when the samples say so, not when a clock does.
 *
 * @param since first moment from which the rest of the trace shows no drift, in seconds from the start of the run
 * @param rest statistics of the trace from that moment on
 */
public record Steadiness(double since, WindowStatistics rest) {
    private static final int STARTS = 60;
    private static final int FEWEST = 10;
    /** One start in twenty fails by chance; a drift fails them all. */
    private static final int IN_A_ROW = 4;
    /** A drift over so many standard deviations of single samples is no more than their usual range. */
    private static final double LITTLE = 3;

    private static final double SLOWLY = 25;
    private static final double MEDIAN_OF_CHI_SQUARE = 0.4549;

    /**
     * The earliest steady start.
     *
     * @param trace at least {@value #FEWEST} samples
     * @param k how many of its own standard uncertainties the slope may have, 2 by custom
     * @return empty when not even the last fifth of the trace is steady
     */
    public static Optional<Steadiness> of(Trace trace, double k) {
        return earliest(
                trace, tail -> !beginsApart(tail) && WindowStatistics.of(tail).steady(k) && levelsAgree(tail, k));
    }

    /**
     * The earliest start from which a drift, though it can be seen, stays within the scatter of single samples or one
     * step of the converter: what a settling that has all but ended leaves.
     *
     * @param trace at least {@value #FEWEST} samples
     * @return empty when the signal still moves by more at the end
     */
    public static Optional<Steadiness> withinScatter(Trace trace) {
        return earliest(trace, tail -> {
            WindowStatistics w = WindowStatistics.of(tail);
            double drift = w.drift(tail.time()[tail.size() - 1] - tail.time()[0]);
            double scatter = Math.sqrt(Math.max(0, w.sd() * w.sd() - drift * drift / 12));
            return drift <= Math.max(LITTLE * scatter, tail.step());
        });
    }

    /**
     * True for a signal that swings slowly to and fro: its mean square about the straight line is {@value #SLOWLY}
     * times what neighbouring samples differ by (after von Neumann 1941), and it is more than two steps of the
     * converter. White noise has a ratio of 1, noise with a correlation of 0.9 from sample to sample 10.
     */
    public static boolean swings(Trace trace) {
        int n = trace.size();
        if (n < FEWEST) {
            return false;
        }
        WindowStatistics w = WindowStatistics.of(trace);
        double drift = w.drift(trace.time()[n - 1] - trace.time()[0]);
        double about = w.sd() * w.sd() - drift * drift / 12;
        double[] squares = new double[n - 1];
        for (int i = 1; i < n; i++) {
            double d = trace.value()[i] - trace.value()[i - 1];
            squares[i - 1] = d * d / 2;
        }
        // By their median, so that one jump does not hide a swing.
        double neighbours = Median.of(squares) / MEDIAN_OF_CHI_SQUARE;
        return about > SLOWLY * neighbours && about > 4 * trace.step() * trace.step();
    }

    private static Optional<Steadiness> earliest(Trace trace, Predicate<Trace> steady) {
        int n = trace.size();
        if (n < FEWEST) {
            return Optional.empty();
        }
        Optional<Steadiness> best = Optional.empty();
        int failures = 0;
        for (int s = STARTS; s >= 0; s--) {
            int from = (int) ((long) s * (n - FEWEST) / STARTS);
            Trace tail = trace.slice(from, n);
            if (!steady.test(tail)) {
                failures++;
                if (failures >= IN_A_ROW && from < 0.8 * n) {
                    break;
                }
                continue;
            }
            failures = 0;
            best = Optional.of(new Steadiness(trace.time()[from], WindowStatistics.of(tail)));
        }
        return best.filter(b -> b.since() <= trace.time()[(int) (0.8 * (n - 1))]);
    }

    /**
     * The first tenth stands apart from what the last half scatters about: a settling at the start, however uncertain
     * its own curve makes the slope and the means.
     */
    private static boolean beginsApart(Trace tail) {
        int n = tail.size();
        if (n < 4 * FEWEST) {
            return false;
        }
        WindowStatistics last = WindowStatistics.of(tail.slice(n / 2, n));
        double first = 0;
        int few = Math.max(3, n / 10);
        for (int i = 0; i < few; i++) {
            first += tail.value()[i] / few;
        }
        return Math.abs(first - last.mean()) > LITTLE * Math.max(last.sd(), tail.step());
    }

    /**
     * The first quarter and the last half have the same mean within k combined standard uncertainties: no settling at
     * the start.
     */
    private static boolean levelsAgree(Trace tail, double k) {
        int n = tail.size();
        if (n < 4 * FEWEST) {
            return true;
        }
        WindowStatistics first = WindowStatistics.of(tail.slice(0, n / 4));
        WindowStatistics last = WindowStatistics.of(tail.slice(n / 2, n));
        return Math.abs(first.mean() - last.mean()) <= k * Math.hypot(first.uMean(), last.uMean());
    }
}

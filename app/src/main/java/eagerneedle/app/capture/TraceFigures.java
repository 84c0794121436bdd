package eagerneedle.app.capture;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * What is said above a trace: its mean with the uncertainty of the mean, large, and what else is known of it.
 *
 * @param mean in brackets notation with its unit; empty when there are too few samples
 * @param rest the scatter and how many samples there are
 */
record TraceFigures(String mean, String rest) {
    /** Nothing to say. */
    static final TraceFigures NONE = new TraceFigures("", "");

    private static final int FEWEST = 4;

    /** Of the newest samples of a channel. */
    static TraceFigures newest(Channel c, Trace t) {
        return t.size() < FEWEST ? NONE : of(c, WindowStatistics.of(t), "");
    }

    /**
     * Of what is seen of a stored trace.
     *
     * @param seen first and last moment on the picture, s; null when it shows nothing
     */
    static TraceFigures seen(Channel c, @Nullable Trace t, double @Nullable [] seen) {
        if (t == null || seen == null) {
            return NONE;
        }
        int a = 0;
        int b = t.size();
        while (a < b && t.time()[a] < seen[0]) {
            a++;
        }
        while (b > a && t.time()[b - 1] > seen[1]) {
            b--;
        }
        if (b - a < FEWEST) {
            return NONE;
        }
        double[] v = Arrays.copyOfRange(t.value(), a, b);
        TraceFigures all = of(c, WindowStatistics.of(t.slice(a, b)), "mean of what is seen, ");
        return new TraceFigures(
                all.mean,
                all.rest + ", from " + Notation.plain(Arrays.stream(v).min().orElse(0), 4) + " to "
                        + Notation.plain(Arrays.stream(v).max().orElse(0), 4));
    }

    private static TraceFigures of(Channel c, WindowStatistics w, String what) {
        String unit = c.labUnit().pretty();
        return new TraceFigures(
                Notation.bracketed(w.mean(), w.uMean()) + (unit.isEmpty() ? "" : " " + unit),
                what + "SD " + Notation.plain(w.sd(), 2) + ", n " + w.n());
    }
}

package eagerneedle.app.workbench;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.SampleWatch;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Live samples as readings by the nominal chain. */
public final class LiveReadings {
    private static final int SLOTS = 4096;
    /** Spreads the bits of a number over all of a long (Knuth's multiplicative hashing); the upper twelve are kept. */
    private static final long SCATTER = 0x9E3779B97F4A7C15L;

    private static final int BITS = 52;

    private static final int FEWEST = 4;

    private LiveReadings() {}

    /** Samples within reach, as a trace in the channel's unit. */
    public static Trace trace(Channel channel, RawSamples raw) {
        Chain chain = channel.toChain();
        SampleWatch watch = new SampleWatch(channel.label(), chain, 0);
        // Counts come again and again; a map of boxed numbers took half of the time of a frame.
        double[] seen = new double[SLOTS];
        double[] known = new double[SLOTS];
        Arrays.fill(seen, Double.NaN);
        double[] t = new double[raw.size()];
        double[] v = new double[raw.size()];
        int n = 0;
        for (int i = 0; i < raw.size(); i++) {
            if (!watch.beyondReach(raw.values()[i])) {
                t[n] = raw.time()[i];
                double value = raw.values()[i];
                int slot = (int) (Double.doubleToRawLongBits(value) * SCATTER >>> BITS);
                if (seen[slot] != value) {
                    seen[slot] = value;
                    known[slot] = chain.indication(value);
                }
                v[n++] = known[slot];
            }
        }
        v = Arrays.copyOf(v, n);
        return new Trace(
                channel.label(),
                Arrays.copyOf(t, n),
                v,
                channel.labUnit(),
                n == 0 ? 0 : chain.stepAt(v[n / 2]),
                List.of());
    }

    /**
     * True when samples hold something that scatter does not explain: a step or a knock within the window. A slope
     * alone does not see it, since a single far sample makes the slope's own uncertainty large.
     */
    public static boolean disturbed(Trace t) {
        double[] v = t.value().clone();
        Arrays.sort(v);
        double median = v[v.length / 2];
        double[] away = Arrays.stream(v).map(x -> Math.abs(x - median)).sorted().toArray();
        double ordinary = Math.max(1.4826 * away[away.length / 2], t.step());
        return away[away.length - 1] > 7 * ordinary;
    }

    /** Statistics of live samples; empty when there are too few good ones. */
    public static Optional<WindowStatistics> of(Channel channel, RawSamples raw) {
        Trace t = trace(channel, raw);
        return t.size() < FEWEST ? Optional.empty() : Optional.of(WindowStatistics.of(t));
    }

    /** The samples from a moment on. */
    public static RawSamples since(RawSamples raw, double moment) {
        int from = 0;
        while (from < raw.size() && raw.time()[from] < moment) {
            from++;
        }
        return new RawSamples(
                Arrays.copyOfRange(raw.time(), from, raw.size()), Arrays.copyOfRange(raw.values(), from, raw.size()));
    }
}

package eagerneedle.app.station;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import eagerneedle.core.watch.SampleWatch;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Live samples as readings by the nominal chain. */
final class Readings {
    private static final int FEWEST = 4;

    private Readings() {
    }

    /** Samples within reach, as a trace in the channel's unit. */
    static Trace trace(Sheet.Channel channel, RawSamples raw) {
        Chain chain = channel.toChain();
        SampleWatch watch = new SampleWatch(channel.label(), chain, 0);
        Map<Double, Double> known = new HashMap<>();
        double[] t = new double[raw.size()];
        double[] v = new double[raw.size()];
        int n = 0;
        for (int i = 0; i < raw.size(); i++) {
            if (!watch.beyondReach(raw.values()[i])) {
                t[n] = raw.time()[i];
                v[n++] = known.computeIfAbsent(raw.values()[i], chain::indication);
            }
        }
        v = java.util.Arrays.copyOf(v, n);
        return new Trace(channel.label(), java.util.Arrays.copyOf(t, n), v, channel.labUnit(), n == 0 ? 0 : chain.stepAt(v[n / 2]), List.of());
    }

    /** Statistics of live samples; empty when there are too few good ones. */
    static Optional<WindowStatistics> of(Sheet.Channel channel, RawSamples raw) {
        Trace t = trace(channel, raw);
        return t.size() < FEWEST ? Optional.empty() : Optional.of(WindowStatistics.of(t));
    }

    /** The samples from a moment on. */
    static RawSamples since(RawSamples raw, double moment) {
        int from = 0;
        while (from < raw.size() && raw.time()[from] < moment) {
            from++;
        }
        return new RawSamples(java.util.Arrays.copyOfRange(raw.time(), from, raw.size()), java.util.Arrays.copyOfRange(raw.values(), from, raw.size()));
    }
}

package eagerneedle.store.export;

import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * What a run holds, ready to be written: each channel with its raw samples as they came and the measurand that follows
 * from them, NaN where none does.
 */
record Channels(Run run, List<One> channels) {
    /** One channel: n moments, n raw values, n values of the measurand. */
    record One(String name, String label, String rawUnit, String unit, double[] time, double[] raw, double[] value) {}

    static Channels of(Reduction reduction, Run run) {
        List<One> out = new ArrayList<>();
        for (String c : reduction.sheet().capture(run.capture()).channels()) {
            RawSamples raw = reduction.samples(run, c);
            double[] value = new double[raw.size()];
            Arrays.fill(value, Double.NaN);
            Optional<Trace> trace = reduction.measurand(run, c);
            if (trace.isPresent()) {
                int at = 0;
                for (int i = 0; i < value.length && at < trace.get().size(); i++) {
                    if (trace.get().time()[at] == raw.time()[i]) {
                        value[i] = trace.get().value()[at++];
                    }
                }
            }
            out.add(new One(
                    c,
                    reduction.sheet().channel(c).label(),
                    run.rawUnit(c),
                    reduction.sheet().channel(c).unit(),
                    raw.time(),
                    raw.values(),
                    value));
        }
        return new Channels(run, out);
    }

    /** A name that every file system and spreadsheet takes. */
    static String plain(String name) {
        String s = name.replaceAll("[^A-Za-z0-9._-]+", "_");
        return s.length() > 28 ? s.substring(0, 28) : s;
    }
}

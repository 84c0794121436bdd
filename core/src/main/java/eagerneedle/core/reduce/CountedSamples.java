package eagerneedle.core.reduce;

import eagerneedle.core.capture.Prompts;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Which raw samples of a run count: all but the voided ones; of a prompted run, one for each reading. */
final class CountedSamples {
    private CountedSamples() {}

    /**
     * The samples that count.
     *
     * @param seconds of samples before a prompted moment that are averaged into its reading; it belongs to the mean of
     *     their times
     * @throws IllegalArgumentException with one sentence when none do
     */
    static RawSamples of(Run run, String channelName, RawSamples raw, String rawUnit, Channel channel, double seconds) {
        RawSamples good = withoutVoided(raw, run.entries().voided());
        if (good.size() == 0) {
            throw new IllegalArgumentException("every sample of " + channel.label() + " was left out.");
        }
        if (run.entries().marks().isEmpty()) {
            return good;
        }
        List<double[]> rows = new ArrayList<>();
        for (Prompts.Mark m : run.entries().marks()) {
            if (m.taken() != null) {
                RawSamples read = good.between(m.taken() - seconds, m.taken());
                if (m.value() != null) {
                    rows.add(new double[] {m.taken(), entered(m.value(), rawUnit, channel)});
                } else if (read.size() > 0) {
                    rows.add(new double[] {mean(read.time()), mean(read.values())});
                }
            }
        }
        if (rows.isEmpty()) {
            throw new IllegalArgumentException("no reading of " + channel.label() + " was taken.");
        }
        rows.sort(Comparator.comparingDouble(r -> r[0]));
        return new RawSamples(
                rows.stream().mapToDouble(r -> r[0]).toArray(),
                rows.stream().mapToDouble(r -> r[1]).toArray());
    }

    private static RawSamples withoutVoided(RawSamples raw, List<Entries.Voided> voided) {
        if (voided.isEmpty()) {
            return raw;
        }
        int n = 0;
        double[] t = new double[raw.size()];
        double[] v = new double[raw.size()];
        for (int i = 0; i < raw.size(); i++) {
            double at = raw.time()[i];
            if (voided.stream().noneMatch(x -> x.holds(at))) {
                t[n] = at;
                v[n++] = raw.values()[i];
            }
        }
        return new RawSamples(java.util.Arrays.copyOf(t, n), java.util.Arrays.copyOf(v, n));
    }

    private static double mean(double[] x) {
        return java.util.Arrays.stream(x).average().orElseThrow();
    }

    /** A reading of the measurand entered by hand, as the raw value that the chain would have given. */
    private static double entered(String text, String rawUnit, Channel channel) {
        Reading r = Reading.parse(text);
        double v = r.unit().isDimensionless() ? r.value() : r.unit().convert(r.value(), channel.labUnit());
        if (rawUnit.equals(Run.COUNTS)) {
            return channel.toChain().exactCounts(v);
        }
        LabUnit unit = LabUnit.parse(rawUnit);
        return unit.fits(channel.labUnit())
                ? channel.labUnit().convert(v, unit)
                : channel.toChain()
                        .converter()
                        .input()
                        .convert(channel.toChain().signal(v), unit);
    }
}

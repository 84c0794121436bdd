package eagerneedle.core.watch;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Ranks;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntPredicate;

/** Looks at raw counts of one channel, live or stored: at the rails or beyond reach, dead, dropped samples. */
public final class SampleWatch {
    private static final int DEAD_AFTER = 50;
    private static final int TOLERATED = 2;
    /** A converter of so many bits flickers on any real signal. */
    private static final int FINE = 14;

    private final String channel;
    private final Chain chain;
    private final double rate;
    private final boolean gate;
    private final double lowest;
    private final double highest;

    /**
     * A watch over one channel.
     *
     * @param channel what the channel is called in sentences
     * @param chain its chain
     * @param rate samples a second that it should deliver; 0 if not known
     */
    public SampleWatch(String channel, Chain chain, double rate) {
        this.channel = channel;
        this.chain = chain;
        this.rate = rate;
        double[] reach = chain.reach();
        double a = chain.exactCounts(reach[0]);
        double b = chain.exactCounts(reach[1]);
        // A gate has two states and nothing else: its rails are its readings.
        this.gate = chain.converter().bits() == 1;
        this.lowest =
                gate ? -0.5 : Math.max(Math.min(a, b) - 0.5, chain.converter().lowestCount() + 0.5);
        this.highest =
                gate ? 1.5 : Math.min(Math.max(a, b) + 0.5, chain.converter().highestCount() - 0.5);
    }

    /** Findings over a span of samples: {@code time} in seconds, {@code counts} raw. */
    public List<Finding> look(int run, double[] time, double[] counts) {
        List<Finding> found = new ArrayList<>();
        if (gate) {
            return found;
        }
        outOfRange(run, time, counts).ifPresent(found::add);
        dead(run, time, counts).ifPresent(found::add);
        dropped(run, time).ifPresent(found::add);
        jitter(run, time).ifPresent(found::add);
        return found;
    }

    /** True when one raw count is at a rail of the converter or outside what the chain can reach. */
    public boolean beyondReach(double count) {
        return !(count >= lowest && count <= highest);
    }

    private Optional<Finding> outOfRange(int run, double[] time, double[] counts) {
        int[] span = span(counts.length, i -> beyondReach(counts[i]));
        if (span[2] <= TOLERATED) {
            return Optional.empty();
        }
        return Optional.of(beyond(run, time, counts, span));
    }

    /**
     * At the rail of a converter the chain is saturated; beyond what its laws allow, a lead is open or shorted, or
     * nothing answered.
     */
    private Finding beyond(int run, double[] time, double[] counts, int[] span) {
        double[] reach = chain.reach();
        String unit = chain.unit().pretty();
        String many = " in %d of %d samples.".formatted(span[2], counts.length);
        boolean top = counts[span[1]] > highest;
        double rail = top ? chain.converter().highestCount() : chain.converter().lowestCount();
        boolean ohms = chain.stages().stream().anyMatch(s -> s.output().symbol().equals("ohm"));
        boolean bounded = chain.stages().stream()
                                .anyMatch(s -> Double.isFinite(s.lowest()) && Double.isFinite(s.highest()))
                        && Double.isNaN(chain.indication(rail))
                || chain.stages().stream()
                        .anyMatch(s -> s.law().linear() && Double.isFinite(s.lowest()) && Double.isFinite(s.highest()))
                || ohms && endsBeforeTheConverter(reach, top);
        if (!bounded) {
            return Rule.SATURATED
                    .of(run, channel, time[span[0]], time[span[1]], capital(channel) + " is saturated" + many)
                    .because("The signal is " + (top ? "above" : "below") + " the range of "
                            + chain.converter().label() + ": gain, range or offset do not suit it.");
        }
        if (ohms) {
            return (top == rises(reach) ? Rule.OPEN : Rule.SHORTED)
                    .of(
                            run,
                            channel,
                            time[span[0]],
                            time[span[1]],
                            capital(channel) + " shows what its sensor cannot" + many);
        }
        boolean answers = chain.stages().stream().anyMatch(s -> s.output().fits(LabUnit.SECOND));
        if (!answers) {
            return Rule.OUT_OF_RANGE.of(
                    run, channel, time[span[0]], time[span[1]], capital(channel) + " is out of range" + many);
        }
        return Rule.OUT_OF_RANGE
                .of(run, channel, time[span[0]], time[span[1]], capital(channel) + " is out of range" + many)
                .because("Nothing answered within %s %s to %s %s: the target is too near, too far, or turned away."
                        .formatted(Notation.plain(reach[0], 3), unit, Notation.plain(reach[1], 3), unit))
                .remedied("Check that the sensor looks at its target and that nothing stands between.");
    }

    private boolean endsBeforeTheConverter(double[] reach, boolean top) {
        double one = chain.exactCounts(reach[0]);
        double other = chain.exactCounts(reach[1]);
        return top
                ? Math.max(one, other) < chain.converter().highestCount() - 1
                : Math.min(one, other) > chain.converter().lowestCount() + 1;
    }

    /** True when more ohms give more counts: not so where a divider is tapped at its other resistor. */
    private boolean rises(double[] reach) {
        int last = chain.stages().size() - 1;
        while (!chain.stages().get(last).output().symbol().equals("ohm")) {
            last--;
        }
        double ohms = chain.signal(reach[1], last + 1) - chain.signal(reach[0], last + 1);
        return ohms * (chain.exactCounts(reach[1]) - chain.exactCounts(reach[0])) > 0;
    }

    private Optional<Finding> dead(int run, double[] time, double[] counts) {
        int same = 1;
        for (int i = 1; i < counts.length; i++) {
            same = counts[i] == counts[i - 1] && !beyondReach(counts[i]) ? same + 1 : 1;
            if (same >= DEAD_AFTER && isCoarse(counts[i])) {
                return Optional.of(Rule.CONVERTER_LIMITED.of(
                        run,
                        channel,
                        time[i - same + 1],
                        time[i],
                        capital(channel) + " stays within one step of its converter, "
                                + Notation.plain(chain.stepAt(chain.indication(counts[i])), 2) + " " + difference()
                                + "."));
            }
            if (same >= DEAD_AFTER) {
                return Optional.of(Rule.DEAD.of(
                        run,
                        channel,
                        time[i - same + 1],
                        time[i],
                        capital(channel) + " has not changed by a single step for " + same + " samples."));
            }
        }
        return Optional.empty();
    }

    /**
     * True where a still signal stays on one count: the stated noise is small beside the step, or none is stated and
     * the converter is coarse.
     */
    private boolean isCoarse(double count) {
        double v = chain.indication(count);
        double noise = chain.noiseAt(v);
        return noise > 0 ? noise < 0.3 * chain.stepAt(v) : chain.converter().bits() < FINE;
    }

    private String difference() {
        return chain.unit().difference().pretty();
    }

    private Optional<Finding> dropped(int run, double[] time) {
        if (rate <= 0) {
            return Optional.empty();
        }
        double usual = Math.min(1 / rate, interval(time));
        int missing = 0;
        int first = -1;
        int last = -1;
        for (int i = 1; i < time.length; i++) {
            double gap = (time[i] - time[i - 1]) / usual;
            if (gap > 1.8) {
                missing += (int) Math.round(gap) - 1;
                first = first < 0 ? i - 1 : first;
                last = i;
            }
        }
        return missing == 0
                ? Optional.empty()
                : Optional.of(Rule.DROPPED_SAMPLES.of(
                        run,
                        channel,
                        time[first],
                        time[last],
                        missing + (missing == 1 ? " sample" : " samples") + " of " + channel + " did not arrive."));
    }

    /** Intervals that scatter by more than a fifth, none of them a gap. */
    private Optional<Finding> jitter(int run, double[] time) {
        if (rate <= 0 || time.length < DEAD_AFTER) {
            return Optional.empty();
        }
        // An instrument samples all its channels at the rate of the fastest, so the usual interval is taken from the
        // samples.
        double usual = interval(time);
        double squares = 0;
        int n = 0;
        for (int i = 1; i < time.length; i++) {
            double gap = (time[i] - time[i - 1]) / usual;
            if (gap < 1.8) {
                squares += (gap - 1) * (gap - 1);
                n++;
            }
        }
        double share = Math.sqrt(squares / Math.max(1, n));
        return share < 0.2 || n < DEAD_AFTER
                ? Optional.empty()
                : Optional.of(Rule.CLOCK_JITTER.of(
                        run,
                        channel,
                        time[0],
                        time[time.length - 1],
                        "Samples of " + channel + " come unevenly: intervals scatter by "
                                + Notation.plain(100 * share, 2) + " %."));
    }

    /** The median interval between samples, s. */
    private static double interval(double[] time) {
        if (time.length < 3) {
            return Double.POSITIVE_INFINITY;
        }
        double[] gaps = new double[time.length - 1];
        for (int i = 0; i < gaps.length; i++) {
            gaps[i] = time[i + 1] - time[i];
        }
        return Ranks.select(gaps, 0, gaps.length, gaps.length / 2);
    }

    private static int[] span(int n, IntPredicate bad) {
        int first = -1;
        int last = -1;
        int count = 0;
        for (int i = 0; i < n; i++) {
            if (bad.test(i)) {
                first = first < 0 ? i : first;
                last = i;
                count++;
            }
        }
        return new int[] {first, last, count};
    }

    private static String capital(String s) {
        return Character.toUpperCase(s.charAt(0)) + s.substring(1);
    }
}

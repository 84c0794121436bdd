package eagerneedle.core.reduce;

import eagerneedle.core.chain.Converter;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import eagerneedle.core.watch.SampleWatch;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A channel that stood at its rail in every sample of every run is more likely not connected, or the wrong way round,
 * than out of range: a range that does not suit a signal lets some of it through at its smallest. What some rows alone
 * show says nothing of leads.
 */
final class AtItsRail {
    private AtItsRail() {}

    /** Tells the likelier cause in the findings of such channels. */
    static void explain(Reduction reduction, List<Finding> found) {
        Map<String, Optional<Boolean>> throughout = new HashMap<>();
        found.replaceAll(f -> f.rule() == Rule.SATURATED
                ? throughout
                        .computeIfAbsent(f.channel(), c -> atItsZero(reduction, c))
                        .map(zero -> explained(f, zero))
                        .orElse(f)
                : f);
    }

    private static Finding explained(Finding f, boolean zero) {
        return zero
                ? f.because(
                                "Every sample of every run lies below a range that begins at zero: its two leads are reversed.")
                        .remedied("Exchange the two leads of this channel with each other.")
                : f.because("It stood at its rail in every sample of every run: a lead is open, or its range is far "
                                + "from the signal.")
                        .remedied("Check the lead and its terminals first; if they are sound, choose another range.");
    }

    /** Whether the rail is the zero of a range of one sign; empty where any sample of any run is within reach. */
    private static Optional<Boolean> atItsZero(Reduction reduction, String name) {
        boolean[] zero = {true};
        boolean all = reduction.runs().stream()
                .filter(r -> r.discard() == null && reduction.source().count(r.id(), name) > 0)
                .allMatch(r -> {
                    Channel channel = r.channel(reduction.sheet(), name);
                    RawSamples raw = reduction.samples(r, name);
                    Converter converter = channel.toChain().converter();
                    SampleWatch watch = new SampleWatch(channel.label(), channel.toChain(), channel.rate());
                    zero[0] &= converter.lowestCount() == 0
                            && Arrays.stream(raw.values()).allMatch(c -> c <= 1);
                    return Arrays.stream(raw.values()).allMatch(watch::beyondReach);
                });
        return all ? Optional.of(zero[0]) : Optional.empty();
    }
}

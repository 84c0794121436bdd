package eagerneedle.core.sheet;

import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A window on a trace: proposed by what the trace does, or from one moment to another.
 *
 * @param on the channel it lies on
 * @param propose how it is proposed; whole when neither that nor moments are given
 * @param from when it begins, a formula in s over quantities of the run; null when it is proposed
 * @param to when it ends
 */
public record WindowPlan(
        @Nullable String on,
        String propose,
        @Nullable String from,
        @Nullable String to) {
    public WindowPlan {
        propose = propose == null ? "whole" : propose;
    }

    /** Formulas of two moments, in s. */
    public record Ends(String from, String to) {}

    /** Where it begins and ends by moments; empty where it is proposed. */
    public Optional<Ends> ends() {
        return from == null || to == null ? Optional.empty() : Optional.of(new Ends(from, to));
    }

    /** True when its ends are moments that formulas give. */
    public boolean isByMoments() {
        return from != null && to != null;
    }

    /** As a mistake has it: proposed otherwise under its own name, or with other ends. */
    WindowPlan changed(String name, Map<String, String> change) {
        String proposed = change.get(name);
        return proposed != null
                ? new WindowPlan(on, proposed, null, null)
                : new WindowPlan(
                        on, propose, change.getOrDefault(name + ".from", from), change.getOrDefault(name + ".to", to));
    }
}

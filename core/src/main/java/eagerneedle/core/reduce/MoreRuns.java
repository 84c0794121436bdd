package eagerneedle.core.reduce;

import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.Session;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What more runs of a capture do for a result. Where that takes rehearsals, one look at twice as many tells for every
 * influence which part of its variance goes with the reciprocal of their number, and so what any number does.
 */
final class MoreRuns {
    private final Foresight foresight;
    private final Session now;
    private final Quantity before;
    private final String result;
    private final String capture;
    private final int runs;
    private @Nullable Quantity twice;

    /** @param before the result with as many runs as there are now */
    MoreRuns(Foresight foresight, Session now, Quantity before, String result, String capture, int runs) {
        this.foresight = foresight;
        this.now = now;
        this.before = before;
        this.result = result;
        this.capture = capture;
        this.runs = runs;
    }

    private Session with(int n) {
        return new PlanningCommand.SetRepeats(capture, n).apply(now);
    }

    /** The result with n runs. */
    Optional<Quantity> at(int n) {
        if (!foresight.takesLong(now, result)) {
            return foresight.of(with(n), result);
        }
        if (twice == null) {
            twice = foresight.roughly(now, with(2 * runs), result).orElse(null);
        }
        return twice == null ? Optional.empty() : Optional.of(between(before, twice, n));
    }

    private Quantity between(Quantity once, Quantity doubled, int n) {
        Map<Leaf, Double> variances = new LinkedHashMap<>();
        double way = 2 * (1 - runs / (double) n);
        once.contributions().forEach((leaf, c) -> {
            double other = doubled.contributions().getOrDefault(leaf, 0.0);
            variances.put(leaf, Math.max(0, c * c + (other * other - c * c) * way));
        });
        // Scatter that a single run does not tell goes down with the number of runs.
        doubled.contributions().forEach((leaf, c) -> variances.putIfAbsent(leaf, c * c * 2 * runs / n));
        Quantity out = Quantity.exact(once.value(), once.unit());
        for (Map.Entry<Leaf, Double> v : variances.entrySet()) {
            out = v.getValue() > 0 ? out.with(v.getKey(), Math.sqrt(v.getValue())) : out;
        }
        return out;
    }
}

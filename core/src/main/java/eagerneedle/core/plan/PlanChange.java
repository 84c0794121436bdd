package eagerneedle.core.plan;

import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * One change to a plan and what it does to the result.
 *
 * @param says what to do, for instance "read rise, block A with caliper TH-CP-01"
 * @param minutes what it costs at the bench, in minutes more than now
 * @param result the predicted result with it
 */
public record PlanChange(String says, double minutes, Quantity result) {
    /**
     * The cheapest change that reaches a target standard uncertainty alone, in the unit of the result; empty when none
     * does.
     */
    public static Optional<PlanChange> cheapest(List<PlanChange> changes, double target) {
        return changes.stream()
                .filter(c -> c.result().u() <= target)
                .min(Comparator.comparingDouble(PlanChange::minutes)
                        .thenComparingDouble(c -> c.result().u()));
    }

    /** The change that brings most, whatever it costs. */
    public static Optional<PlanChange> best(List<PlanChange> changes) {
        return changes.stream().min(Comparator.comparingDouble(c -> c.result().u()));
    }

    /** One sentence about a target: met, the cheapest way there, or how far the best single change goes. */
    public static String sentence(Quantity now, List<PlanChange> changes, double target) {
        String unit = now.unit().pretty().isEmpty() ? "" : " " + now.unit().pretty();
        if (now.u() <= target) {
            return "The target is met already: u = " + Notation.figures(now.u(), 2) + unit + ".";
        }
        Optional<PlanChange> cheap = cheapest(changes, target);
        if (cheap.isPresent()) {
            return "Cheapest: " + cheap.get().says() + ". It brings u to "
                    + Notation.figures(cheap.get().result().u(), 2) + unit + cost(cheap.get()) + ".";
        }
        return best(changes)
                .filter(c -> c.result().u() < now.u() * 0.995)
                .map(c -> "No single change reaches it. The best is to " + c.says() + ": u = "
                        + Notation.figures(c.result().u(), 2) + unit + ".")
                .orElse("Nothing in the stockroom and no further run brings it nearer.");
    }

    private static String cost(PlanChange c) {
        return c.minutes() < 0.5
                ? " at no extra time"
                : " for about " + Notation.plain(Math.ceil(c.minutes()), 3) + " min more";
    }
}

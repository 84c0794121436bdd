package eagerneedle.core.judge;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What it takes to bring a result to a target uncertainty.
 *
 * <p>Cheapest means: touch as few influences as can do it, and those as little as possible. One influence alone, if one
 * can do it: the one that has to shrink by the smallest factor, which is always the largest. Otherwise the largest ones
 * together are brought down to one common level, the highest that meets the target; all smaller ones stay as they are.
 *
 * @param of the result
 * @param target standard uncertainty to reach, in its unit
 * @param changes what to change, largest first; empty when the target is met already
 */
public record Target(Quantity of, double target, List<Change> changes) {
    /**
     * One change.
     *
     * @param label the influence, as the budget names it
     * @param from its contribution now, in the result's unit
     * @param to what it may contribute at most, in the result's unit
     * @param factor by which it has to shrink, above 1
     */
    public record Change(String label, double from, double to, double factor) {}

    /** @throws IllegalArgumentException for a target that is not above zero */
    public static Target of(Quantity result, double target) {
        if (!(target > 0)) {
            throw new IllegalArgumentException("A target uncertainty is above zero, not " + target + ".");
        }
        if (result.u() <= target) {
            return new Target(result, target, List.of());
        }
        List<Budget.Line> lines = Budget.of(result).lines();
        double rest = result.u() * result.u();
        for (int m = 1; m <= lines.size(); m++) {
            rest -= lines.get(m - 1).contribution() * lines.get(m - 1).contribution();
            double room = target * target - Math.max(0, rest);
            double next = m < lines.size() ? lines.get(m).contribution() : 0;
            double level = room > 0 ? Math.sqrt(room / m) : 0;
            if (level > 0 && (level >= next || m == 1 || m == lines.size())) {
                List<Change> changes = new ArrayList<>();
                for (Budget.Line line : lines.subList(0, m)) {
                    changes.add(new Change(line.label(), line.contribution(), level, line.contribution() / level));
                }
                return new Target(result, target, List.copyOf(changes));
            }
        }
        return new Target(result, target, List.of());
    }

    /** The one change that does it alone, if there is one. */
    public Optional<Change> single() {
        return changes.size() == 1 ? Optional.of(changes.get(0)) : Optional.empty();
    }

    /** One sentence. */
    public String sentence() {
        String unit = of.unit().pretty().isEmpty() ? "" : " " + of.unit().pretty();
        String goal = "u = " + Notation.figures(target, 2) + unit;
        if (of.u() <= target) {
            return "The target " + goal + " is met: the standard uncertainty is " + Notation.figures(of.u(), 2) + unit
                    + ".";
        }
        List<String> parts = changes.stream()
                .map(c -> "%s %s times smaller".formatted(c.label(), Notation.plain(c.factor(), 2)))
                .toList();
        return "To reach " + goal + ", make " + String.join(" and ", parts) + ".";
    }
}

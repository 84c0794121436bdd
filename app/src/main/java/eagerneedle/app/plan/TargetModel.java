package eagerneedle.app.plan;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.plan.PlanChange;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.sheet.Sheet;
import java.util.List;
import java.util.function.Supplier;

/** What it would take to reach a target uncertainty: every change is tried on a copy of the plan. */
final class TargetModel {
    /** What was found: in words, and the changes, one after another; none when nothing helps or nothing is needed. */
    record Way(String says, List<Improvements.Possible> changes) {}

    private final Desk desk;

    TargetModel(Desk desk) {
        this.desk = desk;
    }

    /**
     * The work that finds the way, to be done on any thread; it takes seconds, and throws an IllegalArgumentException
     * with one sentence where nothing can be told of the result or the target cannot be read.
     *
     * @param target a share, 0.2 %, or a value with its unit
     * @throws IllegalArgumentException with one sentence when there is nothing to aim at
     */
    Supplier<Way> search(String target) {
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        if (main == null) {
            throw new IllegalArgumentException("The sheet compares nothing, so there is no result to aim at.");
        }
        Improvements improvements =
                desk.bench().patientImprovements(desk.stockroom().all(), main.result());
        String untold = desk.bench().plan().outcome(main.result()).problem();
        return () -> {
            Quantity now = improvements.now().orElseThrow(() -> new IllegalArgumentException(untold));
            double goal = goal(target, now);
            List<Improvements.Possible> way = improvements.way(goal);
            return new Way(says(now, goal, way), way);
        };
    }

    private static double goal(String target, Quantity now) {
        try {
            return Improvements.target(target, now);
        } catch (RuntimeException e) {
            throw new IllegalArgumentException(
                    Typing.as("Write the target as a share, 0.2 %, or as a value with a unit that fits ")
                            + now.unit().pretty() + ".",
                    e);
        }
    }

    private static String says(Quantity now, double goal, List<Improvements.Possible> way) {
        if (way.size() <= 1) {
            return PlanChange.sentence(
                    now, way.stream().map(Improvements.Possible::change).toList(), goal);
        }
        boolean reached = way.get(way.size() - 1).change().result().u() <= goal;
        StringBuilder b = new StringBuilder(
                reached ? "No single change is enough. One after another:" : "Even all of this does not reach it:");
        for (int i = 0; i < way.size(); i++) {
            PlanChange c = way.get(i).change();
            b.append("\n")
                    .append(i + 1)
                    .append(". ")
                    .append(c.says())
                    .append(": u = ")
                    .append(Notation.figures(c.result().u(), 2));
        }
        double minutes = way.stream().mapToDouble(p -> p.change().minutes()).sum();
        return b + (minutes < 0.5 ? "" : "\nabout " + Notation.plain(Math.ceil(minutes), 3) + " min more at the bench");
    }

    /** Takes changes into the plan; each can be undone. */
    void plan(Way way) {
        way.changes().forEach(p -> desk.bench().apply(p.act()));
    }
}

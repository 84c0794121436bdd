package eagerneedle.app.command;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;

/** Captures, levels and runs of a session by what somebody types for them. */
final class NamedPlaces {
    private NamedPlaces() {}

    /**
     * The key of a capture.
     *
     * @param wanted its key or its label; null for the first that is not complete
     */
    static String capture(Workbench bench, String wanted) {
        var captures = bench.sheet().captures();
        if (captures.isEmpty()) {
            throw new IllegalArgumentException(
                    "This sheet captures nothing, so there is nothing to bring a file into.");
        }
        if (wanted == null) {
            return bench.schedule()
                    .next()
                    .map(n -> n[0])
                    .orElseGet(() -> captures.keySet().iterator().next());
        }
        return captures.entrySet().stream()
                .filter(c -> c.getKey().equals(wanted) || c.getValue().label().equalsIgnoreCase(wanted))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("The sheet has no capture " + wanted + "; it has: "
                        + String.join(", ", captures.keySet()) + "."))
                .getKey();
    }

    /** The key of a level, by its key or its label. */
    static String level(Workbench bench, String capture, String wanted) {
        Capture plan = bench.sheet().capture(capture);
        return plan.levels().keySet().stream()
                .filter(l -> l.equals(wanted) || Notebook.level(plan, l).equalsIgnoreCase(wanted))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("The capture " + capture + " has no level " + wanted
                        + "; it has: " + String.join(", ", plan.levels().keySet()) + "."));
    }

    /** A run that is kept, by its name or its number. */
    static Run run(Workbench bench, String wanted) {
        return bench.session().keptRuns().stream()
                .filter(r -> r.name().equalsIgnoreCase(wanted)
                        || Integer.toString(r.id()).equals(wanted))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("There is no kept run " + wanted + "; there are: "
                        + String.join(
                                ", ",
                                bench.session().keptRuns().stream()
                                        .map(Run::name)
                                        .toList())
                        + "."));
    }
}

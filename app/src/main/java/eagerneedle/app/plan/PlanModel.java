package eagerneedle.app.plan;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.SheetVerdict;
import eagerneedle.core.edit.Additions;
import eagerneedle.core.edit.SheetText;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.plan.Spread;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Printed;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.PlainWords;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.rig.simulated.RehearsalTrial;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** What is planned: the runs to take, what to have ready, what to beware of, and how uncertain it will be. */
final class PlanModel {
    /**
     * What the main result will be.
     *
     * @param value with its standard uncertainty; a dash when it cannot be said
     * @param words its expanded uncertainty and largest contributor, or why it cannot be said
     */
    record Prediction(String value, String words, Optional<Budget> budget) {}

    private final Desk desk;

    PlanModel(Desk desk) {
        this.desk = desk;
    }

    private Sheet sheet() {
        return desk.bench().sheet();
    }

    /** The work on a line of time; absent where the sheet has none. */
    Optional<TimeLine> timeLine() {
        return sheet().timeline().isEmpty()
                ? Optional.empty()
                : Optional.of(TimeLine.of(
                        sheet().timeline().stream().map(Sheet.Task::toTask).toList()));
    }

    /**
     * What carrying the sheet out says of it: a headline, then what is wrong, each with its place; empty for a sheet
     * that ships.
     */
    List<String> verdict() {
        SheetVerdict v = desk.bench().planRehearsal().verdict();
        if (!v.isWanted()) {
            return List.of();
        }
        List<String> said = new ArrayList<>();
        String times = RehearsalTrial.SESSIONS + " times on its rig";
        said.add(
                !v.isDone()
                        ? "It is being carried out " + times + " ..."
                        : v.problems().isEmpty() ? "Good: carried out " + times + "." : "Carried out " + times + ":");
        v.problems().forEach(p -> said.add(p.getMessage()));
        v.notes().forEach(n -> said.add(n.getMessage()));
        return said;
    }

    Prediction prediction() {
        Sheet.Comparison main = sheet().mainComparison();
        if (main == null) {
            return new Prediction("—", "The sheet compares nothing.", Optional.empty());
        }
        Optional<Quantity> result = desk.bench().plan().quantity(main.result());
        if (result.isEmpty()) {
            String rehearsed = desk.bench().planRehearsal().isDue()
                    ? "The plan is being carried out on the rig, to see what it will give."
                    : desk.bench().planRehearsal().trouble();
            return new Prediction(
                    "—",
                    rehearsed.isEmpty()
                            ? String.valueOf(
                                    desk.bench().plan().outcome(main.result()).problem())
                            : rehearsed,
                    Optional.empty());
        }
        Quantity q = result.get();
        Budget budget = Budget.of(q).said(PlainWords.of(sheet())::say);
        Derived derived = sheet().results().get(main.result());
        String label = derived == null ? main.result() : derived.label();
        Coverage coverage = desk.bench().session().coverage();
        return new Prediction(
                Printed.of(q).text(),
                label + ", ± " + Notation.figures(coverage.expanded(q), 2) + " "
                        + q.unit().pretty() + " at " + coverage.percent() + ". "
                        + (budget.lines().isEmpty()
                                ? "Nothing is uncertain."
                                : "Largest contributor: "
                                        + budget.lines().get(0).label()),
                Optional.of(budget));
    }

    /** Runs to take, and levels spread evenly in what will be plotted, a line each. */
    String runs() {
        List<String> lines = new ArrayList<>();
        sheet().captures().forEach((name, c) -> {
            int n = desk.bench().session().repeats(sheet(), name);
            boolean levels = c.levels().size() > 1;
            lines.add(c.label() + ": " + (levels ? c.levels().size() + " levels, " : "") + n
                    + (n == 1 ? " run" : " runs") + (levels ? " each" : ""));
            if (c.spread() != null) {
                lines.add(spread(c.spread()));
            }
        });
        return String.join("\n", lines);
    }

    /** The sessions that a pool expects, a line each, in the words of the method that they follow. */
    String sessions() {
        Optional<Sheet> source = PooledSheet.of(sheet());
        String method = source.map(Sheet::title).orElse(sheet().pool().from());
        Map<String, Map<String, String>> expected = sheet().pool().sessions();
        if (expected.isEmpty()) {
            return "As many as there are of: " + method + ".";
        }
        List<String> lines = new ArrayList<>();
        lines.add(expected.size() + " of: " + method + ".");
        expected.forEach((name, readings) -> {
            List<String> read = new ArrayList<>();
            readings.forEach((input, reading) ->
                    read.add(source.map(s -> s.inputs().get(input))
                                    .map(Sheet.Input::label)
                                    .orElse(input)
                            + " " + reading));
            lines.add(read.isEmpty() ? name : name + ": " + String.join(", ", read));
        });
        return String.join("\n", lines);
    }

    private @Nullable String spread(Capture.SpreadPlan p) {
        Reading from = Reading.parse(p.from());
        Reading to = Reading.parse(p.to());
        try {
            double[] levels = Spread.levels(
                    x -> desk.bench()
                            .plan()
                            .evaluate(Formula.parse(p.plotted()), Map.of(p.set(), Quantity.exact(x, from.unit())))
                            .value(),
                    from.value(),
                    to.unit().convert(to.value(), from.unit()),
                    p.count());
            return "evenly spread in " + p.plotted() + ": " + p.set() + " = "
                    + Arrays.stream(levels).mapToObj(v -> Notation.plain(v, 4)).collect(Collectors.joining(", "))
                    + " " + from.unit().pretty();
        } catch (IllegalArgumentException e) {
            return e.getMessage();
        }
    }

    /** What to have ready and how much of it, a line each. */
    String materials() {
        return sheet().materials().stream()
                .map(m -> m.label() + ": " + amount(m))
                .collect(Collectors.joining("\n"));
    }

    private @Nullable String amount(Sheet.Material m) {
        try {
            Quantity q = desk.bench().plan().evaluate(m.amount(), m.label(), m.label());
            Quantity shown = m.unit() == null ? q : q.to(LabUnit.parse(m.unit()));
            return shown.isExact()
                    ? Notation.plain(shown.value(), 4) + " " + shown.unit().pretty()
                    : shown.toString();
        } catch (IllegalArgumentException e) {
            return e.getMessage();
        }
    }

    /** What is to be found, from now on; nothing happens where it is that already. */
    void ask(String question) {
        String asked = question.strip();
        if (!asked.isEmpty() && !asked.equals(desk.bench().sheet().question())) {
            desk.bench()
                    .apply(new SheetCommand.Write(
                            SheetText.of(desk.bench().session().sheetText())
                                    .with("/question", asked)
                                    .text(),
                            "Asks: " + asked));
        }
    }

    /**
     * Adds a result by formula to the session's sheet.
     *
     * @throws IllegalArgumentException with one sentence where it cannot be worked out from what there is
     */
    void addResult(String name, String formula, String unit) {
        Additions.Added a = Additions.quantity(desk.bench().session().sheetText(), "", name, "", unit, formula);
        desk.bench().apply(new SheetCommand.Write(a.text(), "Added the result " + name + " = " + formula + "."));
    }

    /**
     * Adds something that is read once to the session's sheet.
     *
     * @throws IllegalArgumentException with one sentence where the name is taken or the value makes no sense
     */
    void addInput(String name, String label, String value) {
        Additions.Added a = Additions.input(desk.bench().session().sheetText(), name, label, value);
        desk.bench()
                .apply(new SheetCommand.Write(
                        a.text(), "Added the input " + (label.isBlank() ? name : label) + ": " + value + "."));
    }
}

package eagerneedle.app.writing;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.picture.Plot;
import eagerneedle.picture.SessionPlots;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.RehearsalTrial;
import eagerneedle.rig.simulated.Rigs;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** What a sheet means, in words and pictures; knows nothing of the window. */
final class Meaning {
    private static final long SEED = 7;
    private static final int MOST = 40;
    private static final String NO_FAULT = "as it should be";

    private Meaning() {}

    /** One thing with what there is to say of it. */
    record Line(String head, String more) {}

    /** An equation and what it gives. */
    record Equation(String label, String equation) {}

    /** What carrying a sheet out once gave. */
    record Rehearsed(String says, Optional<Plot> trace, List<Line> lines) {}

    /** Its principle, then what its quantities are found by. */
    static List<Equation> equations(Sheet sheet) {
        List<Equation> out = new ArrayList<>();
        sheet.principle().forEach(p -> out.add(new Equation(p.text() == null ? "" : p.text(), p.formula())));
        sheet.captures()
                .values()
                .forEach(c -> c.quantities().forEach((n, d) -> equation(n, d).ifPresent(out::add)));
        sheet.results().forEach((n, d) -> equation(n, d).ifPresent(out::add));
        return out.subList(0, Math.min(MOST, out.size()));
    }

    private static Optional<Equation> equation(String name, Derived d) {
        if (d.label() == null
                || d.formula() == null
                || d.formula().equals("choice")
                || d.formula().contains("\"")) {
            return Optional.empty();
        }
        return Optional.of(new Equation(d.label(), name + " = " + d.formula()));
    }

    /** The predicted value of every result with what its uncertainty comes from. */
    static List<Line> budget(SheetReader.Located located) {
        Reduction plan = new Reducer(located, (run, channel) -> RawSamples.NONE)
                .plan(Session.start(located.text(), located.sheet().title(), Instant.EPOCH));
        List<Line> out = new ArrayList<>();
        located.sheet().results().forEach((n, d) -> {
            if (d.label() != null) {
                Optional<Quantity> q = plan.quantity(new Key.Global(n));
                out.add(new Line(
                        d.label() + ": " + q.map(Notation::bracket).orElse("told by a rehearsal"),
                        q.map(Meaning::shares).orElse("")));
            }
        });
        return out;
    }

    private static String shares(Quantity q) {
        return Budget.of(q).lines().stream()
                .limit(4)
                .map(l -> l.label() + " " + Notation.plain(100 * l.share(), 2) + " %")
                .collect(Collectors.joining(", "));
    }

    static boolean canRehearse(Sheet sheet) {
        return Rigs.canRehearse(sheet);
    }

    /** The mistakes at the bench that can be rehearsed, none of them first. */
    static List<String> faults(Sheet sheet) {
        List<String> out = new ArrayList<>(List.of(NO_FAULT));
        out.addAll(Rigs.faults(sheet));
        return out;
    }

    static Rehearsed rehearsed(SheetReader.Located located, @Nullable String fault) {
        Set<String> faults = fault == null || fault.equals(NO_FAULT) ? Set.of() : Set.of(fault);
        Rehearsal r = Rehearsal.of(located, Rigs.of(located.sheet(), SEED, faults), Instant.EPOCH);
        Reduction reduction = new Reducer(
                        located,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
        List<Line> lines = new ArrayList<>();
        reduction.comparisons().forEach(c -> lines.add(new Line(c.label(), c.verdict(reduction.speaks(c.id())))));
        reduction.checks().stream()
                .filter(c -> c.met().isPresent() && !c.met().get())
                .forEach(c -> lines.add(new Line(
                        "Not met: " + c.check().label(),
                        String.valueOf(c.check().remedy()))));
        located.sheet().results().forEach((n, d) -> {
            if (d.label() != null) {
                Optional<Quantity> q = reduction.quantity(new Key.Global(n));
                Quantity hidden = r.truth().get(n);
                lines.add(new Line(
                        d.label() + ": "
                                + q.map(Notation::bracket)
                                        .orElse(reduction.outcome(n).problem()),
                        hidden == null
                                ? ""
                                : "hidden: "
                                        + Notation.plain(
                                                q.map(x -> hidden.to(x.unit()).value())
                                                        .orElse(hidden.value()),
                                                6)));
            }
        });
        Optional<Plot> trace =
                r.session().keptRuns().stream().reduce((a, b) -> b).flatMap(run -> plot(reduction, run));
        return new Rehearsed(
                r.session().keptRuns().size() + " runs were taken"
                        + (faults.isEmpty() ? "." : ", with a mistake made."),
                trace,
                lines);
    }

    private static Optional<Plot> plot(Reduction r, Run run) {
        return Objects.requireNonNull(r.sheet().captures().get(run.capture()))
                .top()
                .flatMap(c -> SessionPlots.run(r, run, c));
    }

    /** What twenty rehearsals say. */
    static String checked(SheetReader.Located located, BooleanSupplier stopped) {
        RehearsalTrial.Verdict v = RehearsalTrial.look(located, RehearsalTrial.SESSIONS, stopped);
        List<String> all = new ArrayList<>();
        v.problems().forEach(p -> all.add(p.getMessage()));
        v.notes().forEach(p -> all.add(p.getMessage()));
        return v.problems().isEmpty()
                ? "Good: carried out twenty times, and results hold what was hidden. " + String.join("\n", all)
                : String.join("\n", all);
    }
}

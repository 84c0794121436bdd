package eagerneedle.rig.simulated;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.physics.PhysicsTrial;
import eagerneedle.core.physics.RigException;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.KindsTrial;
import eagerneedle.core.reduce.Outcome;
import eagerneedle.core.reduce.PictureSource;
import eagerneedle.core.reduce.PictureTrial;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.BooleanSupplier;
import java.util.stream.IntStream;

/**
 * Tries a sheet by carrying it out on its own rig: every formula of every run, result, check and statement is worked
 * out on samples, every mistake is made, and hidden truths are looked for where the results say they are.
 *
 * <p>What a look at the sheet alone cannot know shows here: units of what rests on samples, windows that are never
 * found, mistakes that change nothing, faults that nothing notices, intervals that miss.
 */
public final class RehearsalTrial {
    /** Rehearsals that say whether an interval holds what it should. */
    public static final int SESSIONS = 20;

    /** Fewer of 20 at a true 95 % happens once in thirty thousand sheets. */
    private static final double FEWEST = 0.65;

    private static final int LOOKED_AT = 3;
    private static final double WORTH_SAYING = 0.1;
    private static final Answers<List<Object>, Verdict> SAID = new Answers<>(32);

    private final SheetReader.Located located;
    private final Sheet sheet;
    private final Set<SheetException> found = new LinkedHashSet<>();
    private final Set<String> told = new LinkedHashSet<>();
    private final List<SheetException> notes = new ArrayList<>();

    private record Held(Rehearsal rehearsal, Reducer reducer, Reduction reduction) {}

    private final BooleanSupplier stopped;

    private RehearsalTrial(SheetReader.Located located, BooleanSupplier stopped) {
        this.located = located;
        this.stopped = stopped;
        this.sheet = located.sheet();
    }

    /**
     * Everything that goes wrong when a sheet is carried out; nothing for a sheet that cannot be rehearsed.
     *
     * @param sessions how many rehearsals, {@link #SESSIONS} for a verdict on coverage
     */
    public static List<SheetException> of(SheetReader.Located located, int sessions) {
        return of(located, sessions, () -> false);
    }

    /**
     * The same, given up when nobody waits for it any longer.
     *
     * @throws CancellationException when it was given up
     */
    public static List<SheetException> of(SheetReader.Located located, int sessions, BooleanSupplier stopped) {
        return look(located, sessions, stopped).problems();
    }

    /**
     * What carrying a sheet out says of it.
     *
     * @param problems what is wrong
     * @param notes what its author should know, though nothing is wrong
     */
    public record Verdict(List<SheetException> problems, List<SheetException> notes) {}

    /** Everything that goes wrong, and for a sheet that is good what the method itself adds to its results. */
    public static Verdict look(SheetReader.Located located, int sessions, BooleanSupplier stopped) {
        if (!Rigs.canRehearse(located.sheet())) {
            return new Verdict(List.of(), List.of());
        }
        List<Object> asked = List.of(located.file(), located.text(), located.sheet(), sessions);
        Optional<Verdict> known = SAID.to(asked);
        if (known.isPresent()) {
            return known.get();
        }
        RehearsalTrial trial = new RehearsalTrial(located, stopped);
        trial.all(sessions);
        return SAID.remember(
                asked,
                new Verdict(
                        SheetReader.Looked.sorted(List.copyOf(trial.found)), SheetReader.Looked.sorted(trial.notes)));
    }

    private void all(int sessions) {
        List<Held> held;
        try {
            // What is wrong in one rehearsal is wrong in all, and is told before the rest is waited for.
            Held one = hold(0, Set.of());
            notTaken(one);
            placed(one);
            found.addAll(KindsTrial.of(located, one.reduction()));
            if (!found.isEmpty()) {
                return;
            }
            held = IntStream.range(0, sessions)
                    .parallel()
                    .mapToObj(seed -> hold(seed, Set.of()))
                    .toList();
        } catch (RigException e) {
            found.add(PhysicsTrial.placed(located, e));
            return;
        } catch (IllegalArgumentException | FormulaException e) {
            problem("/rig", 1, "it cannot be carried out: " + e.getMessage());
            return;
        }
        List<Held> first = held.subList(0, Math.min(LOOKED_AT, sessions));
        first.forEach(this::notTaken);
        if (!found.isEmpty()) {
            return;
        }
        first.forEach(this::placed);
        if (found.isEmpty()) {
            never(first);
        }
        if (found.isEmpty()) {
            coverage(held);
            mistakes(held.get(0));
            faults();
        }
        if (found.isEmpty() && sessions >= SESSIONS) {
            biases(held);
            unstated(held);
        }
    }

    /** What the method itself adds, where that is more than a tenth of what it states. */
    private void biases(List<Held> held) {
        for (IdealSession.Bias b : IdealSession.biases(located)) {
            double squares = held.stream()
                    .flatMap(h -> h.reduction().quantity(b.result()).stream())
                    .mapToDouble(q -> Math.pow(q.to(b.error().unit()).u(), 2))
                    .average()
                    .orElse(0);
            double share = b.error().value() / Math.sqrt(squares);
            if (b.isThere() && squares > 0 && Math.abs(share) > WORTH_SAYING) {
                notes.add(located.problem(
                        "/results/" + b.result() + "/formula",
                        1,
                        "note: with perfect instruments " + b.result() + " still comes out "
                                + b.error() + " beside its truth, "
                                + Notation.figures(Math.abs(share), 2)
                                + " of the standard uncertainty that it states: the method's own bias, from what it "
                                + "leaves out."));
            }
        }
    }

    private Held hold(long seed, Set<String> faults) {
        if (stopped.getAsBoolean()) {
            throw new CancellationException();
        }
        Rehearsal r = Rehearsal.of(located, Rigs.of(sheet, seed, faults), Instant.EPOCH);
        Reducer reducer = new Reducer(
                located,
                (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));
        return new Held(r, reducer, reducer.reduce(r.session()));
    }

    private void problem(String pointer, int column, String message) {
        if (told.add(message)) {
            found.add(located.problem(pointer, column, message));
        }
    }

    /** Formulas that fail: their problems say where they stand. */
    private void placed(Held h) {
        for (Run run : h.reduction().runs()) {
            sheet.capture(run.capture())
                    .quantities()
                    .keySet()
                    .forEach(q -> placed(h.reduction().ofRun(run, q)));
        }
        sheet.results().keySet().forEach(r -> placed(h.reduction().outcome(r)));
        List<Reduction.CheckOutcome> checks = h.reduction().checks();
        for (int i = 0; i < checks.size(); i++) {
            String problem = checks.get(i).problem();
            if (problem != null) {
                said("/checks/" + i + "/formula", problem);
            }
        }
    }

    /** What a pool takes and its sessions do not have. */
    private void notTaken(Held h) {
        for (PoolSource s : h.rehearsal().session().sources()) {
            for (String name : sheet.pool().take().keySet()) {
                s.remarks().stream()
                        .filter(r -> r.startsWith(name + " "))
                        .forEach(r -> problem(
                                "/pool/take/" + name, 1, "in " + sheet.pool().from() + ": " + r));
            }
        }
    }

    private void placed(Outcome o) {
        if (o.problem() != null && o.problem().contains(located.file() + ", line")) {
            said("", o.problem());
        }
    }

    private void said(String pointer, String problem) {
        int at = problem.indexOf(located.file() + ", line");
        if (at >= 0 && told.add(problem.substring(at))) {
            found.add(SheetException.placed(problem.substring(at)));
        } else if (at < 0) {
            problem(pointer, 1, problem);
        }
    }

    /** What has no value in any rehearsal. */
    private void never(List<Held> first) {
        sheet.captures()
                .forEach((name, capture) -> capture.quantities().keySet().forEach(q -> {
                    List<Outcome> all = first.stream()
                            .flatMap(h -> h.reduction().runs().stream()
                                    .filter(r -> r.capture().equals(name))
                                    .map(r -> h.reduction().ofRun(r, q)))
                            .toList();
                    if (!all.isEmpty() && all.stream().allMatch(o -> o.problem() != null)) {
                        problem(
                                "/captures/" + name + "/quantities/" + q + "/formula",
                                1,
                                "has no value in any rehearsal: " + all.get(0).problem());
                    }
                }));
        sheet.results().keySet().forEach(r -> {
            if (first.stream().allMatch(h -> h.reduction().outcome(r).problem() != null)) {
                problem(
                        "/results/" + r + "/formula",
                        1,
                        "has no value in any rehearsal: "
                                + first.get(0).reduction().outcome(r).problem());
            }
        });
        for (int i = 0; i < sheet.statements().size(); i++) {
            String problem = first.get(0).reduction().statements().get(i).problem();
            if (problem != null) {
                said("/statements/" + i + "/formula", problem);
            }
        }
        pictures(first.get(0).reduction());
    }

    /** Pictures over the runs, and of the first run of each capture. */
    private void pictures(Reduction r) {
        for (int i = 0; i < sheet.pictures().size(); i++) {
            picture(
                    "/pictures/" + i,
                    PictureTrial.of(PictureSource.overRuns(r), sheet.pictures().get(i)));
        }
        sheet.captures()
                .forEach((name, capture) -> r.runs().stream()
                        .filter(run -> run.capture().equals(name) && run.leftOut() == null)
                        .findFirst()
                        .ifPresent(run -> {
                            for (int i = 0; i < capture.views().size(); i++) {
                                picture(
                                        "/captures/" + name + "/views/" + i,
                                        PictureTrial.of(
                                                PictureSource.of(r, run),
                                                capture.views().get(i)));
                            }
                        }));
    }

    private void picture(String pointer, Map<String, String> problems) {
        problems.forEach((at, problem) -> said(pointer + at, problem));
    }

    private void coverage(List<Held> held) {
        if (held.size() < SESSIONS) {
            return;
        }
        missed(held, held.stream().map(h -> h.rehearsal().truth()).toList())
                .forEach((name, inside) -> problem(
                        "/results/" + name + "/formula",
                        1,
                        "holds its hidden truth in " + inside + " of " + held.size()
                                + " rehearsals, where 95 % are promised: something is left out, or counted twice, or the "
                                + "rig's truth is that of another thing."));
    }

    /** Results whose truth the rig does not state, held against what perfect instruments would find. */
    private void unstated(List<Held> held) {
        List<Map<String, Quantity>> ideal = IntStream.range(0, held.size())
                .parallel()
                .mapToObj(seed -> IdealSession.beyond(
                        located, seed, held.get(seed).rehearsal().truth().keySet()))
                .toList();
        missed(held, ideal)
                .forEach((name, inside) -> notes.add(located.problem(
                        "/results/" + name + "/formula",
                        1,
                        "note: what perfect instruments would find lies within what is stated of " + name + " in "
                                + inside + " of " + held.size()
                                + " rehearsals only: something is left out, or " + name
                                + " is a property of the instruments, whose truth is to be written under rig.truth.")));
    }

    /** In how many rehearsals results hold the truth, where that is out of question. */
    private Map<String, Integer> missed(List<Held> held, List<Map<String, Quantity>> truths) {
        Map<String, Integer> out = new LinkedHashMap<>();
        for (String name : sheet.results().keySet()) {
            int there = 0;
            int inside = 0;
            for (int i = 0; i < held.size(); i++) {
                Quantity truth = truths.get(i).get(name);
                Optional<Quantity> q = held.get(i).reduction().quantity(name);
                if (truth != null && q.isPresent() && !q.get().isExact()) {
                    there++;
                    double error = q.get().value() - truth.in(q.get().unit());
                    inside += Math.abs(error) <= Coverage.DEFAULT.expanded(q.get()) ? 1 : 0;
                }
            }
            if (there == held.size() && inside < FEWEST * there) {
                out.put(name, inside);
            }
        }
        return out;
    }

    private void mistakes(Held h) {
        for (int i = 0; i < sheet.mistakes().size(); i++) {
            Sheet.Mistake m = sheet.mistakes().get(i);
            if (m.isAtBench()) {
                continue;
            }
            boolean changes = MistakeShows.changes(
                    sheet, h.reduction(), h.reducer().mistaken(h.rehearsal().session(), m));
            if (!changes) {
                problem("/mistakes/" + i + "/change", 1, "the mistake " + m.id() + " changes nothing.");
            }
        }
    }

    private void faults() {
        for (int i = 0; i < sheet.mistakes().size(); i++) {
            Sheet.Mistake m = sheet.mistakes().get(i);
            if (!m.isAtBench()) {
                continue;
            }
            boolean noticed = false;
            try {
                for (int seed = 0; seed < LOOKED_AT && !noticed; seed++) {
                    noticed = MistakeShows.isNoticed(
                            sheet, hold(seed, Set.of(m.id())).reduction());
                }
            } catch (IllegalArgumentException | FormulaException e) {
                problem("/mistakes/" + i + "/change", 1, "it cannot be carried out: " + e.getMessage());
                continue;
            }
            if (!noticed) {
                problem(
                        "/mistakes/" + i + "/id",
                        1,
                        "no watch, check or comparison notices " + m.id() + "; write a check that does.");
            }
        }
    }
}

package eagerneedle.core.reduce;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.judge.Circularity;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Everything that follows from a session at one moment: every outcome of the graph, the ledger, comparisons and checks.
 * Immutable.
 */
public final class Reduction {
    private final Sheet sheet;
    private final Session session;
    private final SampleSource source;
    private final Map<Key, Outcome> outcomes;
    private final List<Run> runs;
    private final boolean planned;
    private volatile @Nullable List<Comparison> comparisons;

    Reduction(
            Sheet sheet,
            Session session,
            SampleSource source,
            Map<Key, Outcome> outcomes,
            List<Run> runs,
            boolean planned) {
        this.sheet = sheet;
        this.session = session;
        this.source = source;
        this.outcomes = outcomes;
        this.runs = List.copyOf(runs);
        this.planned = planned;
    }

    public Sheet sheet() {
        return sheet;
    }

    public Session session() {
        return session;
    }

    public SampleSource source() {
        return source;
    }

    /** The runs reduced: those of the session, or those that a plan schedules. */
    public List<Run> runs() {
        return runs;
    }

    /** The outcome of a node; a problem if there is no such node. */
    public Outcome outcome(Key key) {
        Outcome o = outcomes.get(key);
        return o == null ? Outcome.problem("There is no " + key + ".") : o;
    }

    /** The outcome of what a name means in a formula that belongs to no run. */
    public Outcome outcome(String name) {
        return outcome(Key.named(name, sheet));
    }

    public Optional<Quantity> quantity(Key key) {
        return outcome(key).quantity();
    }

    public Optional<Quantity> quantity(String name) {
        return outcome(name).quantity();
    }

    public Outcome ofRun(Run run, String name) {
        return outcome(Key.of(run, name));
    }

    /** The rules of the sheet that do not hold of a run. */
    public List<Capture.RowRule> broken(Run run) {
        return RowRules.broken(sheet, run, outcomes);
    }

    public Optional<Trace> trace(Run run, String channel) {
        return ofRun(run, channel).value() instanceof Value.Signal s ? Optional.of(s.trace()) : Optional.empty();
    }

    /** What the calibrations of all channels give to formulas, by name. */
    public List<String> calibrated() {
        List<String> names = new ArrayList<>();
        sheet().channels().forEach((name, channel) -> names.addAll(channel.givenByCalibration(name)));
        return names;
    }

    /** Raw samples at times of the run, whatever clock stamped them. */
    public RawSamples samples(Run run, String channel) {
        RawSamples stamped = source.samples(run.id(), channel);
        return run.clock(sheet, channel).map(c -> c.aligned(stamped)).orElse(stamped);
    }

    /**
     * The measurand at every raw sample of a channel that has one, on the clock of the samples, whether it counts in
     * the results or not.
     */
    public Optional<Trace> measurand(Run run, String channel) {
        RawSamples raw = samples(run, channel);
        try {
            return raw.size() == 0
                    ? Optional.empty()
                    : Optional.of(Measurand.everywhere(
                            session,
                            run,
                            channel,
                            run.channel(sheet, channel),
                            raw,
                            n -> quantity(new Key.Global(n)).orElseThrow(IllegalArgumentException::new)));
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }

    public Optional<Window> window(Run run, String name) {
        return outcome(Key.window(run, name)).value() instanceof Value.Span s
                ? Optional.of(s.window())
                : Optional.empty();
    }

    public Optional<Fit> fit(String name) {
        return fit(Key.named(name, sheet));
    }

    private Optional<Fit> fit(Key key) {
        return outcome(key).value() instanceof Value.Fitted f ? Optional.of(f.fit()) : Optional.empty();
    }

    /** The first fit among the quantities of a run: the one drawn over its trace. */
    public Optional<Fit> fitOfRun(Run run) {
        return fitsOfRun(run).stream().findFirst();
    }

    /** All fits among the quantities of a run, in the order of the sheet. */
    public List<Fit> fitsOfRun(Run run) {
        return sheet().capture(run.capture()).quantities().keySet().stream()
                .map(n -> fit(Key.of(run, n)))
                .flatMap(Optional::stream)
                .toList();
    }

    /** The fit that a run's quantity is; empty when it is none. */
    public Optional<Fit> fitOfRun(Run run, String name) {
        return fit(Key.of(run, name));
    }

    /** Rows of a run's quantity that is a column; empty when it is none or has a problem. */
    public List<Quantity> columnOfRun(Run run, String name) {
        return column(Key.of(run, name));
    }

    /** Rows of a column, or empty if it has a problem. */
    public List<Quantity> column(String name) {
        Key key = Key.named(name, sheet);
        return has(key) || !name.contains("(") ? column(key) : Comparisons.columnOf(this, name);
    }

    private List<Quantity> column(Key key) {
        return outcome(key).value() instanceof Value.Column c ? c.rows() : List.of();
    }

    /** What is said in place of a reference that is hidden. */
    public static final String HIDDEN = "Hidden until the result is locked.";

    /** True for a quantity that a comparison refers to, while references are hidden. */
    public boolean isHidden(String name) {
        return session.hidesReferences()
                && sheet.comparisons().stream().anyMatch(c -> c.reference().equals(name));
    }

    public boolean isHidden(Key key) {
        return key instanceof Key.Global g && isHidden(g.name());
    }

    /** Every quantity: inputs, then results, then what belongs to runs. */
    public Ledger ledger() {
        return Ledger.of(this, planned);
    }

    /** The ledger entries of one run. */
    public List<Ledger.Entry> ofRun(Run run) {
        return Ledger.ofRun(this, run);
    }

    /** The comparisons that can be made so far, in the order of the sheet; none while references are hidden. */
    public List<Comparison> comparisons() {
        if (comparisons == null) {
            comparisons = List.copyOf(Comparisons.of(this));
        }
        return comparisons;
    }

    /** The results that comparisons are about as they are now, by comparison: what is locked in blind work. */
    public Map<String, String> results() {
        Map<String, String> out = new LinkedHashMap<>();
        sheet.comparisons().forEach(c -> quantity(c.result()).ifPresent(q -> out.put(c.id(), Notation.pointed(q))));
        return out;
    }

    /** What the sheet says to look for when a comparison does not agree; empty when it says nothing. */
    public String remedy(String comparison) {
        return sheet.comparisons().stream()
                .filter(c -> c.id().equals(comparison) && c.remedy() != null)
                .map(Sheet.Comparison::remedy)
                .findFirst()
                .orElse("");
    }

    /** Why a comparison proves less than it seems to, if it does: one sentence. */
    public Optional<String> circularity(Comparison c) {
        return Circularity.remark("The result", c.result(), "the reference", c.reference());
    }

    /** The school that speaks for a comparison: the session's choice, or else the sheet's. */
    public School speaks(String comparison) {
        return session.school() != null
                ? session.school()
                : sheet().comparisons().stream()
                        .filter(c -> c.id().equals(comparison))
                        .findFirst()
                        .map(Sheet.Comparison::school)
                        .orElse(School.STANDARD);
    }

    /** A check of the sheet: met, not met, or (empty) not yet to be judged. */
    public record CheckOutcome(
            Sheet.Check check,
            Optional<Boolean> met,
            @Nullable String problem) {}

    public List<CheckOutcome> checks() {
        return SheetWords.checks(this);
    }

    /** How the uncertainty of a result follows, in symbols and numbers, from what its formulas rest on. */
    public List<LawOfResult> laws(String result, School school) {
        return LawOfResult.of(this, result, school);
    }

    /** A quantity with what it is called. */
    public record Labelled(String label, Quantity quantity) {}

    public List<Stated> statements() {
        return SheetWords.statements(this);
    }

    /**
     * A reference value as a sheet writes it: a reading, or a formula over the quantities of this reduction.
     *
     * @param id identity of what is read for it, root of its leaves
     * @throws IllegalArgumentException with one sentence when it has no value yet
     */
    public Quantity evaluate(String text, String id, String label) {
        try {
            return Reading.parse(text).toQuantity(id, label, label);
        } catch (IllegalArgumentException notAReading) {
            try {
                Scope all = scope();
                Scope own = Scope.labelled(id, label, all.names(), all::lookup);
                if (Formula.parse(text).evaluate(own) instanceof Value.Scalar s) {
                    return s.quantity();
                }
            } catch (NodeScope.Missing | FormulaException e) {
                throw new IllegalArgumentException(e.getMessage(), e);
            }
            throw new IllegalArgumentException("'" + text + "' does not give one quantity.", notAReading);
        }
    }

    /**
     * A formula over the quantities of this reduction and a few more.
     *
     * @throws IllegalArgumentException with one sentence when it has no value
     */
    public Quantity evaluate(Formula formula, Map<String, Quantity> more) {
        Scope scope = scope();
        try {
            Value v = formula.evaluate(Scope.over(
                    "plan",
                    names(),
                    n -> more.containsKey(n) ? Optional.of(new Value.Scalar(more.get(n))) : scope.lookup(n)));
            if (v instanceof Value.Scalar s) {
                return s.quantity();
            }
        } catch (NodeScope.Missing | FormulaException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        throw new IllegalArgumentException("'" + formula.text() + "' does not give one quantity.");
    }

    /** When the latest run that counts was captured; empty before the first. */
    public Optional<Instant> lastUse() {
        return planned ? Optional.empty() : Doubts.lastUse(session);
    }

    /**
     * When the latest run was captured whose counts of a channel a calibration turns into values; empty where there is
     * none.
     */
    public Optional<Instant> lastUse(String channel) {
        return planned ? Optional.empty() : Doubts.lastUse(session, sheet, channel);
    }

    /**
     * Why a quantity is to be doubted: an overdue or failed calibration it rests on, one sentence each. What was
     * captured is judged by the day it was captured on, what is only planned by {@code now}.
     */
    public List<String> doubts(Quantity q, Instant now) {
        return Doubts.of(this, q, now);
    }

    /** What a quantity comes from and what it feeds. */
    public Lineage lineage(Key key) {
        return Lineage.of(this, key);
    }

    /** The formula of a node as the sheet writes it, if it has one. */
    public Optional<String> formula(Key key) {
        return Optional.ofNullable(Lineage.formulas(this).get(key));
    }

    boolean has(Key key) {
        return outcomes.containsKey(key);
    }

    /** With quantities for results that have none of their own, such as what rehearsals of a plan found. */
    public Reduction rehearsed(Map<String, Quantity> quantities) {
        Map<Key, Outcome> all = Comparisons.rehearsed(outcomes, quantities);
        return new Reduction(sheet, session, source, all, runs, planned);
    }

    /** Names that a formula that belongs to no run can mention. */
    Set<String> names() {
        Set<String> out = new LinkedHashSet<>();
        outcomes.keySet().stream()
                .filter(k -> k instanceof Key.Global || k instanceof Key.Column)
                .forEach(k -> out.add(k.toString()));
        return out;
    }

    /** What a formula that belongs to no run can see; a name without a value is {@link NodeScope.Missing}. */
    Scope scope() {
        return scope(name -> Key.named(name, sheet));
    }

    /** What a formula about one run can see: names of the run first. */
    Scope scope(Run run) {
        return scope(name -> has(Key.of(run, name)) ? Key.of(run, name) : Key.named(name, sheet));
    }

    private Scope scope(Function<String, Key> named) {
        return new NodeScope(new Key.Global("check"), Map.of(), named, this::outcome, false);
    }

    /** What stands for a run in lists: the sheet's first quantity that rests on its samples. */
    public Optional<Ledger.Entry> headline(Run run) {
        Capture capture = sheet().captures().get(run.capture());
        String name = capture == null ? null : capture.headline();
        return ofRun(run).stream().filter(e -> e.name().endsWith("]." + name)).findFirst();
    }
}

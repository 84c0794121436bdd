package eagerneedle.core.physics;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Pool;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What nature knows of one session and does not tell: the truths of inputs, what is hidden in the rig, and what follows
 * from both by the sheet's own formulas. Inside a rig a name is the truth. Not thread-safe.
 */
public final class World {
    private final Sheet sheet;
    private final RigPlan plan;
    private final Draws draws;
    private final Once once;
    private final Draws common;
    private final Map<String, Quantity> known = new LinkedHashMap<>();
    private final Map<String, Value> columns = new LinkedHashMap<>();
    private final Map<String, Double> states = new LinkedHashMap<>();
    private final Set<String> open = new HashSet<>();
    private final InputTruth inputs;
    private final boolean ideal;
    private double clock;
    private int runs;
    private int settings;

    /** Of a sheet, drawn from a seed. */
    public World(Sheet sheet, RigPlan plan, long seed) {
        this(sheet, plan, seed, Once.of(seed), false);
    }

    /**
     * The same.
     *
     * @param once what is the same in several sessions
     * @param ideal true where every instrument shows the truth: what is drawn of nature is as in the world that is not
     */
    public World(Sheet sheet, RigPlan plan, long seed, Once once, boolean ideal) {
        this.sheet = sheet;
        this.plan = plan;
        this.draws = new Draws(seed);
        this.once = once;
        this.common = new Draws(once.seed());
        this.ideal = ideal;
        this.inputs = new InputTruth(this::drawsOf, ideal);
    }

    /** True where every instrument shows the truth. */
    public boolean isIdeal() {
        return ideal;
    }

    public Sheet sheet() {
        return sheet;
    }

    public RigPlan plan() {
        return plan;
    }

    public Draws draws() {
        return draws;
    }

    /** The draws of an input, a channel or a reference, which several sessions may share. */
    public Draws drawsOf(String name) {
        return once.holds(name, sheet.inputs().get(name)) ? common : draws;
    }

    /** The draws of what is the same in several sessions. */
    public Draws common() {
        return common;
    }

    /** Says what something is in truth, such as the slope of a calibration. */
    public void is(String name, Quantity value) {
        known.put(name, value);
    }

    /** Says what a column is in truth, such as the errors of a circle. */
    public void are(String name, List<Quantity> values) {
        columns.put(name, new Value.Column(values));
    }

    /**
     * The truth of an input, of something hidden, or of a result that follows from these alone.
     *
     * @return empty for a name that is not of this kind, and for what changes in time
     */
    public Optional<Quantity> quantity(String name) {
        if (known.containsKey(name)) {
            return Optional.of(known.get(name));
        }
        if (!open.add(name)) {
            return Optional.empty();
        }
        try {
            Optional<Quantity> q = found(name);
            q.ifPresent(v -> known.put(name, v));
            return q;
        } finally {
            open.remove(name);
        }
    }

    private Optional<Quantity> found(String name) {
        Sheet.Input input = sheet.inputs().get(name);
        if (plan.nature().containsKey(name)) {
            return evaluated(drawn(plan.nature().get(name), "nature/" + name, common), Map.of());
        }
        if (plan.hidden().containsKey(name)) {
            // An input's own name in how its truth is drawn means its truth as the sheet alone would draw it.
            Map<String, Quantity> own = input == null ? Map.of() : Map.of(name, inputs.truth(name, input));
            return evaluated(drawn(plan.hidden().get(name), "hidden/" + name, drawsOf(name)), own);
        }
        if (input != null) {
            return Optional.of(inputs.truth(name, input));
        }
        if (name.endsWith(RigChange.UNCHANGED)) {
            String n = name.substring(0, name.length() - RigChange.UNCHANGED.length());
            return Optional.ofNullable(sheet.inputs().get(n)).map(i -> inputs.truth(n, i));
        }
        Derived d = sheet.results().get(name);
        if (d == null) {
            return Optional.empty();
        }
        return evaluated(Formula.parse(d.formula()).expression(), Map.of())
                .map(q -> d.unit() == null ? q : q.to(LabUnit.parse(d.unit())));
    }

    /** A formula with its draws made. */
    Expr drawn(String text, String path) {
        return drawn(text, path, draws);
    }

    private static Expr drawn(String text, String path, Draws from) {
        return DrawnFormula.of(Formula.parse(text).expression(), from, path.replace(RigChange.UNCHANGED, ""));
    }

    /** A formula over truths alone, in the language; empty where it needs more. */
    Optional<Quantity> evaluated(Expr e, Map<String, Quantity> own) {
        try {
            Value v = value(e, own);
            return v instanceof Value.Scalar s
                    ? Optional.of(
                            Quantity.exact(s.quantity().value(), s.quantity().unit()))
                    : Optional.empty();
        } catch (FormulaException needsMore) {
            return Optional.empty();
        }
    }

    private Value value(Expr e, Map<String, Quantity> own) {
        return Formula.of(e)
                .evaluate(Scope.over(
                        "rig",
                        Set.of(),
                        n -> Optional.ofNullable(own.get(n))
                                .or(() -> quantity(n))
                                .<Value>map(Value.Scalar::new)
                                .or(() -> Optional.ofNullable(columns.get(n)))));
    }

    /**
     * A formula over truths alone.
     *
     * @throws FormulaException where it has no value, or needs what is not known for a whole session
     */
    Quantity needed(Expr e, String what) {
        Set<String> unknown = new LinkedHashSet<>(Formula.of(e).names());
        unknown.removeIf(
                n -> Constants.has(n) || columns.containsKey(n) || quantity(n).isPresent());
        if (unknown.isEmpty()) {
            Value v = value(e, Map.of());
            if (v instanceof Value.Scalar s) {
                return Quantity.exact(s.quantity().value(), s.quantity().unit());
            }
            throw new FormulaException(e.column(), what + " must be one quantity, not " + v.described() + ".");
        }
        throw new FormulaException(
                e.column(),
                what + " needs " + String.join(", ", unknown)
                        + ", which the rig does not know for a whole session: only inputs, what is hidden in rig "
                        + "itself, and results that follow from these.");
    }

    /** The truths of inputs and of results, by the names of the ledger. */
    public Map<String, Quantity> truths() {
        Map<String, Quantity> out = new LinkedHashMap<>();
        sheet.inputs().forEach((n, input) -> out.put(n, inputs.likeRead(input, known(n))));
        sheet.results().keySet().forEach(n -> quantity(n).ifPresent(q -> out.put(n, q)));
        known.forEach((n, q) -> {
            if (n.contains(".")) {
                out.put(n, q);
            }
        });
        plan.truth().forEach((n, f) -> {
            Derived d = sheet.results().get(n);
            Quantity q = needed(drawn(f, "truth/" + n), "The truth of " + n);
            out.put(n, d == null || d.unit() == null ? q : q.to(LabUnit.parse(d.unit())));
        });
        return out;
    }

    private Quantity known(String input) {
        return quantity(input)
                .orElseThrow(() -> new FormulaException(
                        1,
                        "What " + input + " truly is needs something that the rig does not know for a whole session."));
    }

    /** What a careful person reads of each input, as written. */
    public Map<String, String> readings() {
        Map<String, String> out = new LinkedHashMap<>();
        sheet.inputs().forEach((name, input) -> {
            RigPlan.Eye eye = plan.readings().get(name);
            Quantity seen = eye == null
                    ? known(name)
                    : needed(drawn(eye.formula(), "readings/" + name), "What is read of " + name);
            out.put(name, seen(input, eye, seen, "read/" + name, drawsOf(name)));
        });
        return out;
    }

    /** What an eye reads of a truth. */
    String seen(Sheet.Input input, RigPlan.@Nullable Eye eye, Quantity truth, String path, Draws from) {
        return seen(input, eye == null || eye.value() == null ? input.value() : eye.value(), truth, path, from);
    }

    /** @param as how it is written, with its uncertainty */
    String seen(Sheet.Input input, String as, Quantity truth, String path, Draws from) {
        return input.times() == 1
                ? inputs.reading(input, as, truth, from.stream(path))
                : inputs.readings(input, as, truth, from.stream(path));
    }

    /** The true value of a reference, in its own unit: as written, moved by a draw of its own uncertainty. */
    public Quantity reference(String text, String path) {
        return reference(text, path, draws);
    }

    /** The same of the reference of a channel, which several sessions may share. */
    public Quantity referenceOf(String channel, String text) {
        return reference(text, "reference/" + channel + "/" + text, drawsOf(channel + Pool.REFERENCE));
    }

    private Quantity reference(String text, String path, Draws from) {
        try {
            Reading r = Reading.parse(text);
            return Quantity.exact(r.value() + (ideal ? 0 : DrawnFormula.of(r, from.stream(path))), r.unit());
        } catch (IllegalArgumentException formula) {
            return needed(drawn(text, path, from), "The reference " + text);
        }
    }

    /** The next run of a capture at a level, nothing turned by hand. */
    public Course run(String capture, String level) {
        return run(capture, level, Map.of(), Map.of());
    }

    /**
     * The next run of a capture at a level.
     *
     * @param turned what outputs stand at when it begins, by name; they may be turned meanwhile
     * @param fixed what stands at the bench from the beginning of the run to its end, such as an output of its level
     */
    public Course run(String capture, String level, Map<String, Quantity> turned, Map<String, Quantity> fixed) {
        return new Course(this, capture, level, ++runs, Map.copyOf(turned), Map.copyOf(fixed));
    }

    /** A reference that is set at the bench. */
    public Course points() {
        return new Course(this, RigPlan.POINTS, "", ++settings, Map.of(), Map.of());
    }

    Collection<String> names() {
        Set<String> out = new LinkedHashSet<>(plan.nature().keySet());
        out.addAll(plan.hidden().keySet());
        out.addAll(sheet.inputs().keySet());
        out.addAll(sheet.results().keySet());
        return out;
    }

    /** States that go on from run to run, by name, in coherent units. */
    Map<String, Double> states() {
        return states;
    }

    double clock() {
        return clock;
    }

    void leave(double now, Map<String, Double> kept) {
        clock = now;
        states.putAll(kept);
    }

    /** Checks that a text reads as a value. */
    static boolean isReading(String text) {
        try {
            Reading.parse(text);
            return true;
        } catch (IllegalArgumentException e) {
            Written.check(text);
            return false;
        }
    }
}

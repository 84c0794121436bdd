package eagerneedle.core.formula;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.Occasions;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The arguments of one call, laid beside what the function declares: by position or by name, checked for kind and unit.
 *
 * <p>An argument that was given and that nothing asked for is an error, never ignored: {@link #ignored()} tells it
 * after the call.
 */
public final class Arguments {
    private final Evaluator evaluator;
    private final Expr.Call call;
    private final Function function;
    /** By index of the parameter; null for one that was not given. */
    private final @Nullable Expr[] given;

    private final boolean[] asked;
    /** Of repeated parameters there can be several, in the order they were given. */
    private final List<Expr> repeated = new ArrayList<>();

    private final Map<Expr, Value> values = new IdentityHashMap<>();
    private @Nullable Value first;
    private boolean takesEnds;

    /** @throws FormulaException for an argument that is unknown, too much, given twice, or missing */
    Arguments(Evaluator evaluator, Expr.Call call, Function function) {
        this.evaluator = evaluator;
        this.call = call;
        this.function = function;
        this.given = new Expr[function.parameters().size()];
        this.asked = new boolean[given.length];
        function.check(call);
        int without = 0;
        for (Expr.Argument a : call.arguments()) {
            int at = a.name() == null ? function.position(without++) : function.index(a.name());
            if (at >= function.from() && at < function.from() + function.repeated()) {
                repeated.add(a.value());
            } else {
                given[at] = a.value();
            }
        }
    }

    /** @throws FormulaException for an argument that was given and has no meaning beside the others */
    public void ignored() {
        for (int i = 0; i < given.length; i++) {
            if (given[i] != null && !asked[i]) {
                throw new FormulaException(
                        given[i].column(),
                        "The argument " + function.parameters().get(i).name() + " of " + function.name()
                                + " has no meaning beside " + (first == null ? "the others" : first.described())
                                + "; leave it out.");
            }
        }
    }

    public Scope scope() {
        return evaluator.scope();
    }

    public String id() {
        return evaluator.freshId();
    }

    public int column() {
        return call.column();
    }

    /** The formula of argument i: of a parameter, or of the one of its repetitions. */
    public Expr at(int i) {
        Expr e = function.repeated() > 0 && i >= function.from()
                ? (i - function.from() < repeated.size() ? repeated.get(i - function.from()) : null)
                : expression(i);
        if (e == null) {
            throw new FormulaException(
                    call.column(),
                    function.name() + " is written " + function.signature() + "; argument " + (i + 1) + " is missing.");
        }
        return e;
    }

    private Expr expression(int parameter) {
        asked[parameter] = true;
        return given[parameter];
    }

    private Expr named(String name) {
        int at = function.index(name);
        if (at < 0) {
            throw new IllegalStateException(function.name() + " declares no " + name);
        }
        return expression(at);
    }

    private Value evaluated(Expr e) {
        Value v = values.get(e);
        if (v == null) {
            v = evaluator.evaluate(e);
            values.put(e, v);
            first = first == null ? v : first;
        }
        return v;
    }

    public Value value(int i) {
        return evaluated(at(i));
    }

    /**
     * Two columns as the rows that belong together: of one run, where both say of which runs they are.
     *
     * @param occasions which readings the rows are; null when nothing names them
     */
    public record Pair(
            List<Quantity> first,
            List<Quantity> second,
            @Nullable Occasions occasions) {}

    public Pair pair(int i, int k) {
        List<Quantity> first = rows(i);
        List<Quantity> second = rows(k);
        RowLabels a = ((Value.Column) value(i)).labels();
        RowLabels b = ((Value.Column) value(k)).labels();
        if (a == null || b == null || a.equals(b)) {
            return new Pair(first, second, occasions(i));
        }
        RowPairs rows = RowPairs.of(first.size(), a, second.size(), b, at(k).column());
        if (rows.labels() == null) {
            return new Pair(first, second, occasions(i));
        }
        return new Pair(
                Arrays.stream(rows.left()).mapToObj(first::get).toList(),
                Arrays.stream(rows.right()).mapToObj(second::get).toList(),
                rows.labels().occasions());
    }

    public Value each(int i, java.util.function.Function<Quantity, Quantity> op) {
        Parameter p = parameter(i);
        return evaluator.each(value(i), at(i), q -> op.apply(fitting(p, q, at(i))));
    }

    public Quantity quantity(int i) {
        return fitting(parameter(i), Evaluator.scalar(value(i), at(i)), at(i));
    }

    private Parameter parameter(int i) {
        return function.parameters().get(function.position(i));
    }

    /** The quantity, in a unit that its parameter asks for; a pure 0 that was not given is 0 in any. */
    private Quantity fitting(Parameter p, Quantity q, Expr at) {
        if (p.unit() != null && !q.unit().fits(LabUnit.parse(p.unit()))) {
            throw new FormulaException(
                    at.column(),
                    "The argument " + p.name() + " of " + function.name() + " is given in "
                            + LabUnit.parse(p.unit()).named() + " or the like; " + q + " cannot be expressed so.");
        }
        return q;
    }

    public double number(int i) {
        return Evaluator.pureNumber(quantity(i), at(i), "Argument " + (i + 1) + " of " + function.name());
    }

    public String words(int i) {
        return words(value(i), at(i));
    }

    private static String words(Value v, Expr at) {
        if (v instanceof Value.Words w) {
            return w.text();
        }
        throw new FormulaException(at.column(), "A text in quotes is needed here, not " + v.described() + ".");
    }

    public List<Quantity> rows(int i) {
        Evaluator.absent(value(i), at(i));
        if (value(i) instanceof Value.Column c) {
            if (c.rows().isEmpty()) {
                throw new FormulaException(
                        at(i).column(),
                        Spelling.of(at(i))
                                + " has no rows yet: "
                                + (c.labels() != null && c.labels().isPooled()
                                        ? "take sessions into the pool first."
                                        : at(i) instanceof Expr.Call
                                                ? "nothing is captured, or nothing of the kind is in what was."
                                                : "capture or import a run first."));
            }
            return c.rows();
        }
        throw new FormulaException(
                at(i).column(), "A column of values is needed here, not " + value(i).described() + ".");
    }

    /** A column with what its rows are called. */
    public Value.Column column(int i) {
        rows(i);
        return (Value.Column) value(i);
    }

    /** Which readings the rows of argument i are; null when nothing names them. */
    public @Nullable Occasions occasions(int i) {
        return value(i) instanceof Value.Column c && c.labels() != null
                ? c.labels().occasions()
                : null;
    }

    /** How many arguments stand in the place of the one that repeats, with those before it. */
    public int positional() {
        return function.from() + repeated.size();
    }

    /** One column, or several quantities that make one. */
    public List<Quantity> rowsOrAll() {
        return repeated.size() == 1 ? rows(function.from()) : all();
    }

    public List<Quantity> all() {
        List<Quantity> out = new ArrayList<>();
        for (int i = 0; i < repeated.size(); i++) {
            Quantity q = quantity(i);
            if (!out.isEmpty() && !q.unit().fits(out.get(0).unit())) {
                throw new FormulaException(at(i).column(), q + " does not go in a column with " + out.get(0) + ".");
            }
            out.add(q);
        }
        return out;
    }

    public Trace trace(int i) {
        Evaluator.absent(value(i), at(i));
        if (value(i) instanceof Value.Signal s) {
            if (repeated.size() > 1) {
                throw new FormulaException(
                        repeated.get(1).column(),
                        "After a trace the arguments of " + function.name() + " are given by name; it is written "
                                + function.signature() + ".");
            }
            if (s.ends() != null && !takesEnds) {
                throw new FormulaException(
                        at(i).column(),
                        function.name()
                                + " takes no window with uncertain ends; mean, slope, intercept and polynomial do.");
            }
            return s.trace();
        }
        throw new FormulaException(at(i).column(), "A trace is needed here, not " + value(i).described() + ".");
    }

    /** The uncertain ends of the window that the trace of argument i was cut out by; null when it has none. */
    public Value.@Nullable Ends ends(int i) {
        takesEnds = true;
        if (value(i) instanceof Value.Signal s && s.ends() == null && function.index("window") >= 0) {
            String name = words("window");
            return name.isEmpty() ? null : scope().ends(name, s.trace()).orElse(null);
        }
        return value(i) instanceof Value.Signal s ? s.ends() : null;
    }

    public Fit fit(int i) {
        Evaluator.absent(value(i), at(i));
        if (value(i) instanceof Value.Fitted f) {
            return f.fit();
        }
        throw new FormulaException(at(i).column(), "A fit is needed here, not " + value(i).described() + ".");
    }

    /** The trace of argument i inside the window that the call names; the whole trace when it names none. */
    public Trace windowed(int i) {
        Trace t = trace(i);
        String name = words("window");
        return name.isEmpty() ? t : t.within(namedWindow(name, t));
    }

    /** The fit, its remarks told to whoever asked for the formula. */
    public Fit told(Fit fit) {
        fit.remarks().forEach(evaluator.scope()::remark);
        return fit;
    }

    /** True when the argument was given. */
    public boolean has(String name) {
        return given[function.index(name)] != null;
    }

    /** What was given by that name, or the usual value that the function declares. */
    private Value valueOf(String name) {
        Expr e = named(name);
        String usual = function.parameter(name).orElseThrow().usual();
        if (e != null) {
            return evaluated(e);
        }
        if (usual == null) {
            throw new FormulaException(
                    call.column(),
                    function.name() + " is written " + function.signature() + "; " + name + " is missing.");
        }
        return Formula.parse(usual).evaluate(Scope.empty("usual"));
    }

    private Expr placeOf(String name) {
        Expr e = named(name);
        return e == null ? call : e;
    }

    public String words(String name) {
        return words(valueOf(name), placeOf(name));
    }

    public double number(String name) {
        return Evaluator.pureNumber(
                Evaluator.scalar(valueOf(name), placeOf(name)), placeOf(name), "The argument " + name);
    }

    public Quantity quantity(String name) {
        return fitting(
                function.parameter(name).orElseThrow(), Evaluator.scalar(valueOf(name), placeOf(name)), placeOf(name));
    }

    /** A quantity by name in a unit that fits another; where it is not given, its usual 0 is 0 of that kind. */
    public Quantity quantityLike(String name, Quantity other) {
        if (!has(name)) {
            return Quantity.exact(quantity(name).value(), other.unit());
        }
        Quantity q = quantity(name);
        if (!q.unit().fits(other.unit())) {
            throw new UnitException(
                    "The argument " + name + " of " + function.name() + ", " + q + ", does not go with " + other + ".");
        }
        return q;
    }

    /** An integer given by name, between two bounds. */
    public int whole(String name, int least, int most) {
        return whole(number(name), "The argument " + name + " is a whole number", placeOf(name), least, most);
    }

    public int whole(int i, int least, int most) {
        return whole(number(i), "A whole number", at(i), least, most);
    }

    private static int whole(double d, String what, Expr at, int least, int most) {
        if (d != Math.rint(d) || d < least || d > most) {
            throw new FormulaException(
                    at.column(),
                    what + " from " + least + " to " + most
                            + (what.startsWith("A ") ? " is needed here, not " : ", not ") + d + ".");
        }
        return (int) d;
    }

    /** Marks an argument as seen that the function does not need this time: a branch that is not taken. */
    public void pass(int i) {
        at(i);
    }

    /** The position given to a trace by name, from the session. */
    public Window namedWindow(String name, Trace t) {
        return scope().window(name, t)
                .orElseThrow(() -> new FormulaException(
                        call.column(),
                        "No window \"" + name + "\" could be proposed on " + t.name() + "; set one by hand."));
    }
}

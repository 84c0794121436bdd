package eagerneedle.core.formula;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowStatistics;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;

/** The functions of the formula language, each with its signature, what it does and an example that can be run. */
public final class Functions {
    /**
     * One function as documented.
     *
     * @param signature how it is written
     * @param meaning   what it gives, with units
     * @param example   a formula that runs on its own, or one that needs a session (then {@code gives} is empty)
     * @param gives     what the example prints
     */
    public record Entry(String signature, String meaning, String example, String gives) {
    }

    private interface Body {
        Value apply(Arguments a);
    }

    private record Definition(Entry entry, Body body) {
    }

    private static final Map<String, Definition> TABLE = new TreeMap<>();

    static {
        for (Elementary f : Elementary.values()) {
            String name = f.name().toLowerCase(Locale.ROOT);
            boolean angle = List.of("sin", "cos", "tan").contains(name);
            define(name, name + "(x)", name + " of " + (angle ? "an angle" : "a pure number"), name + (angle ? "(30 deg)" : "(0.5)"),
                    null, a -> a.each(0, f::of));
        }
        define("sqrt", "sqrt(x)", "square root, unit to the power one half", "sqrt(6.25 m^2)", "2.5 m", a -> a.each(0, q -> q.power(0.5)));
        define("abs", "abs(x)", "absolute value, same unit", "abs(-3 N)", "3 N", a -> a.each(0, Elementary::abs));
        define("atan2", "atan2(y, x)", "angle of the point (x, y) from the x axis, -180 deg to 180 deg", "atan2(1 m, 1 m)", "0.7853981634 rad",
                a -> new Value.Scalar(Elementary.atan2(a.quantity(0), a.quantity(1))));
        define("value", "value(x)", "the nominal value as exact, same unit", "value(9.81(2) m/s^2)", "9.81 m/s²",
                a -> a.each(0, q -> Quantity.exact(q.value(), q.unit())));
        define("u", "u(x)", "the standard uncertainty as an exact quantity, same unit", "u(9.81(2) m/s^2)", "0.02 m/s²",
                a -> a.each(0, q -> Quantity.exact(q.u(), q.unit())));
        define("limit", "limit(x, a)", "x with a largest believable error a: a rectangular influence of that half-width", "u(limit(5 mm, 0.3 mm))", "0.1732050808 mm",
                Functions::limit);
        define("fresh", "fresh(x)", "a fresh reading of x: same value and standard uncertainty, independent of every other use of x", "u(fresh(5.0(1) mm) - fresh(5.0(1) mm))", "0.1414213562 mm",
                Functions::fresh);
        define("if", "if(condition, a, b)", "a where the condition holds, otherwise b", "if(2 mm < 1 cm, 5 V, 6 V)", "5 V",
                a -> Evaluator.truth(a.value(0), a.at(0)) ? a.value(1) : a.value(2));
        define("to", "to(x, \"unit\")", "x expressed in a unit", "to(90 km/h, \"m/s\")", "25 m/s", a -> a.each(0, q -> q.to(LabUnit.parse(a.words(1)))));
        define("column", "column(a, b, ...)", "a column of quantities of one kind", "sum(column(1 m, 20 cm))", "1.2 m",
                a -> new Value.Column(a.all()));
        define("count", "count(column)", "number of rows or samples, a pure number", "count(column(1, 2, 3))", "3",
                a -> new Value.Scalar(Quantity.number(a.value(0) instanceof Value.Signal ? a.trace(0).size() : a.rows(0).size())));
        define("sum", "sum(column)", "sum of a column, correlations kept", "sum(column(1 m, 2 m))", "3 m", a -> new Value.Scalar(sum(a.rows(0))));
        define("mean", "mean(column) or mean(trace, window: \"name\")",
                "mean with its standard uncertainty: from the scatter of the rows, shared influences kept once; of a trace with autocorrelation",
                "mean(column(9.79, 9.83, 9.81))", "9.810(12)", Functions::mean);
        define("sd", "sd(column) or sd(trace, window: \"name\")", "standard deviation with n - 1, as an exact quantity", "sd(column(1 V, 2 V, 3 V))", "1 V", Functions::sd);
        define("line", "line(y, x)", "straight line through two columns; residuals give the scatter", "slope(line(column(1 m, 3 m, 5 m), column(0 s, 1 s, 2 s)))", "2 m/s",
                a -> new Value.Fitted(points(a, 1)));
        define("polynomial", "polynomial(y, x, degree: 2) or polynomial(trace, degree: 2, window: \"name\")",
                "polynomial through two columns, or in time through the window of a trace", "coefficient(polynomial(column(0, 1, 4, 9), column(0, 1, 2, 3), degree: 2), 2)", null,
                Functions::polynomial);
        define("slope", "slope(y, x), slope(fit) or slope(trace, window: \"name\")", "slope of a straight line, unit of y per unit of x",
                "slope(column(1 m, 3 m, 5 m), column(0 s, 1 s, 2 s))", "2 m/s", a -> new Value.Scalar(lineOf(a).parameter(1)));
        define("intercept", "intercept(y, x) or intercept(fit)", "intercept of a straight line, unit of y",
                "intercept(column(1 m, 3 m, 5 m), column(0 s, 1 s, 2 s))", "1 m", a -> new Value.Scalar(lineOf(a).parameter(0)));
        define("coefficient", "coefficient(fit, k)", "coefficient of x to the power k", "coefficient(line(column(1, 3, 5), column(0, 1, 2)), 0)", "1",
                a -> new Value.Scalar(a.fit(0).parameter((int) a.number(1))));
        define("residual_sd", "residual_sd(fit)", "residual standard deviation, unit of y, as exact", "residual_sd(line(column(1, 3, 5), column(0, 1, 2)))", null,
                a -> new Value.Scalar(Quantity.exact(a.fit(0).residualSd(), a.fit(0).yUnit())));
        define("duration", "duration(trace, window: \"name\")", "length of a window in s, each edge uncertain by half a sample", "duration(x, window: \"rolling\")", "", Functions::duration);
        define("travel", "travel(fit)", "change of a fitted polynomial over its points, unit of y", "travel(line(column(1 m, 3 m, 5 m), column(0 s, 1 s, 2 s)))", "4 m",
                a -> new Value.Scalar(travel(a.fit(0))));
        define("rate_at_end", "rate_at_end(fit)", "derivative of a fitted polynomial at its last point, unit of y per unit of x",
                "rate_at_end(line(column(1 m, 3 m, 5 m), column(0 s, 1 s, 2 s)))", "2 m/s", a -> new Value.Scalar(rateAtEnd(a.fit(0))));
    }

    private Functions() {
    }

    /** All functions by name, for documents and help. */
    public static Map<String, Entry> documented() {
        Map<String, Entry> out = new LinkedHashMap<>();
        TABLE.forEach((name, d) -> out.put(name, d.entry()));
        return out;
    }

    /** The table of functions in docs/formula-language.md, one row a function. */
    public static String markdown() {
        StringBuilder b = new StringBuilder("| function | gives | example | prints |\n|---|---|---|---|\n");
        documented().forEach((name, e) -> {
            String prints = e.gives() == null || e.gives().isEmpty() ? "" : "`" + e.gives() + "`";
            b.append("| `").append(e.signature().replace("|", "\\|")).append("` | ").append(e.meaning()).append(" | `").append(e.example()).append("` | ").append(prints).append(" |\n");
        });
        return b.toString();
    }

    static Value call(Evaluator evaluator, Expr.Call call) {
        Definition d = TABLE.get(call.function());
        if (d == null) {
            throw new FormulaException(call.column(), "There is no function " + call.function() + NearName.hint(call.function(), TABLE.keySet()));
        }
        return d.body().apply(new Arguments(evaluator, call, d.entry().signature()));
    }

    private static void define(String name, String signature, String meaning, String example, String gives, Body body) {
        TABLE.put(name, new Definition(new Entry(signature, meaning, example, gives), body));
    }

    private static Value limit(Arguments a) {
        Quantity x = a.quantity(0);
        Quantity half = a.quantity(1).to(x.unit());
        Leaf leaf = Leaf.typeB(a.id(), a.scope().label() + ": limit", a.scope().origin(), eagerneedle.core.quantity.Distribution.RECTANGULAR);
        return new Value.Scalar(x.with(leaf, Math.abs(half.value()) / Math.sqrt(3)));
    }

    private static Value fresh(Arguments a) {
        Quantity x = a.quantity(0);
        String label = x.contributions().size() == 1 ? x.contributions().keySet().iterator().next().label() : a.scope().label();
        return new Value.Scalar(Quantity.exact(x.value(), x.unit()).with(Leaf.typeA(a.id(), label, a.scope().origin(), Double.POSITIVE_INFINITY), x.u()));
    }

    private static Quantity sum(List<Quantity> rows) {
        Quantity s = rows.get(0);
        for (Quantity q : rows.subList(1, rows.size())) {
            s = s.plus(q);
        }
        return s;
    }

    private static Value mean(Arguments a) {
        if (a.value(0) instanceof Value.Signal) {
            Trace t = a.windowed(0);
            WindowStatistics s = WindowStatistics.of(t);
            Quantity q = Quantity.of(s.mean(), s.uMean(), t.unit(), Leaf.typeA(a.id(), "scatter of samples", a.scope().origin(), Math.max(1, s.effectiveN() - 1)));
            for (Trace.Shared shared : t.shared()) {
                double sum = 0;
                for (double v : t.value()) {
                    sum += shared.contribution().applyAsDouble(v);
                }
                q = q.with(shared.leaf(), sum / t.size());
            }
            return new Value.Scalar(q);
        }
        List<Quantity> rows = a.rows(0);
        List<Quantity> index = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            index.add(Quantity.number(i));
        }
        Scatter scatter = a.scope().planning() || rows.size() == 1 ? Scatter.FROM_UNCERTAINTIES : Scatter.FROM_RESIDUALS;
        return new Value.Scalar(PolynomialFit.ofPoints(index, rows, 0, scatter, a.id(), a.words("label", "scatter between runs")).parameter(0));
    }

    private static Value sd(Arguments a) {
        if (a.value(0) instanceof Value.Signal) {
            Trace t = a.windowed(0);
            return new Value.Scalar(Quantity.exact(WindowStatistics.of(t).sd(), t.unit()));
        }
        List<Quantity> rows = a.rows(0);
        if (rows.size() < 2) {
            throw new FormulaException(a.at(0).column(), "A standard deviation needs at least 2 rows.");
        }
        double m = 0;
        LabUnit unit = rows.get(0).unit();
        for (Quantity q : rows) {
            m += q.in(unit) / rows.size();
        }
        double ss = 0;
        for (Quantity q : rows) {
            ss += (q.in(unit) - m) * (q.in(unit) - m);
        }
        return new Value.Scalar(Quantity.exact(Math.sqrt(ss / (rows.size() - 1)), unit));
    }

    private static Value polynomial(Arguments a) {
        int degree = (int) a.number("degree", 2);
        if (degree < 0 || degree > 20) {
            throw new FormulaException(a.column(), "A polynomial's degree lies between 0 and 20, not at " + degree + ".");
        }
        return new Value.Fitted(a.value(0) instanceof Value.Signal ? PolynomialFit.ofTrace(a.windowed(0), degree, a.id(), a.words("label", "scatter within a run"))
                : points(a, degree));
    }

    private static Fit points(Arguments a, int degree) {
        Scatter scatter = a.scope().planning() || a.words("scatter", "residuals").equals("stated") ? Scatter.FROM_UNCERTAINTIES : Scatter.FROM_RESIDUALS;
        return PolynomialFit.ofPoints(a.rows(1), a.rows(0), degree, scatter, a.id(), a.words("label", "scatter between runs"));
    }

    private static Fit lineOf(Arguments a) {
        if (a.value(0) instanceof Value.Fitted) {
            return a.fit(0);
        }
        return a.value(0) instanceof Value.Signal ? PolynomialFit.ofTrace(a.windowed(0), 1, a.id(), "scatter within a run") : points(a, 1);
    }

    private static Value duration(Arguments a) {
        Trace t = a.windowed(0);
        if (t.size() < 2) {
            throw new FormulaException(a.at(0).column(), "The window holds fewer than 2 samples.");
        }
        double edge = t.interval() / Math.sqrt(12) * Math.sqrt(2);
        Leaf leaf = Leaf.typeB(a.id(), "half a sample at each edge", a.scope().origin(), eagerneedle.core.quantity.Distribution.TRIANGULAR);
        return new Value.Scalar(Quantity.of(t.time()[t.size() - 1] - t.time()[0], edge, LabUnit.SECOND, leaf));
    }

    private static Quantity travel(Fit f) {
        double from = f.x()[0];
        double to = f.x()[f.x().length - 1];
        return f.at(to).minus(f.at(from));
    }

    private static Quantity rateAtEnd(Fit f) {
        double end = f.x()[f.x().length - 1] * f.xUnit().factor();
        LabUnit unit = f.parameter(1).unit();
        Quantity sum = f.parameter(1);
        for (int k = 2; k < f.parameters().size(); k++) {
            double c = k * Math.pow(end, k - 1);
            Quantity p = f.parameter(k);
            sum = sum.plus(p.mapped(p.value() * c, unit, c));
        }
        return sum;
    }

    /** The arguments of one call: by position, by name, checked for kind. */
    private static final class Arguments {
        private final Evaluator evaluator;
        private final Expr.Call call;
        private final String signature;
        private final Map<Integer, Value> values = new LinkedHashMap<>();

        Arguments(Evaluator evaluator, Expr.Call call, String signature) {
            this.evaluator = evaluator;
            this.call = call;
            this.signature = signature;
            for (Expr.Argument a : call.arguments()) {
                if (a.name() != null && !List.of("window", "degree", "scatter", "label").contains(a.name())) {
                    throw new FormulaException(call.column(), call.function() + " has no argument called " + a.name() + "; it is written " + signature + ".");
                }
            }
        }

        Scope scope() {
            return evaluator.scope();
        }

        String id() {
            return evaluator.freshId();
        }

        int column() {
            return call.column();
        }

        Expr at(int i) {
            int seen = 0;
            for (Expr.Argument a : call.arguments()) {
                if (a.name() == null && seen++ == i) {
                    return a.value();
                }
            }
            throw new FormulaException(call.column(), call.function() + " is written " + signature + "; argument " + (i + 1) + " is missing.");
        }

        Value value(int i) {
            Value v = values.get(i);
            if (v == null) {
                v = evaluator.evaluate(at(i));
                values.put(i, v);
            }
            return v;
        }

        Value each(int i, Function<Quantity, Quantity> op) {
            return evaluator.each(value(i), at(i), op::apply);
        }

        Quantity quantity(int i) {
            return Evaluator.scalar(value(i), at(i));
        }

        double number(int i) {
            return Evaluator.pureNumber(quantity(i), at(i), "Argument " + (i + 1) + " of " + call.function());
        }

        String words(int i) {
            if (value(i) instanceof Value.Words w) {
                return w.text();
            }
            throw new FormulaException(at(i).column(), "A text in quotes is needed here, not " + value(i).described() + ".");
        }

        List<Quantity> rows(int i) {
            if (value(i) instanceof Value.Column c) {
                if (c.rows().isEmpty()) {
                    throw new FormulaException(at(i).column(), Spelling.of(at(i)) + " has no rows yet: capture or import a run first.");
                }
                return c.rows();
            }
            throw new FormulaException(at(i).column(), "A column of values is needed here, not " + value(i).described() + ".");
        }

        List<Quantity> all() {
            List<Quantity> out = new ArrayList<>();
            for (int i = 0; i < call.arguments().size(); i++) {
                Quantity q = quantity(i);
                if (!out.isEmpty() && !q.unit().fits(out.get(0).unit())) {
                    throw new FormulaException(at(i).column(), q + " does not go in a column with " + out.get(0) + ".");
                }
                out.add(q);
            }
            return out;
        }

        Trace trace(int i) {
            if (value(i) instanceof Value.Signal s) {
                return s.trace();
            }
            throw new FormulaException(at(i).column(), "A trace is needed here, not " + value(i).described() + ".");
        }

        Fit fit(int i) {
            if (value(i) instanceof Value.Fitted f) {
                return f.fit();
            }
            throw new FormulaException(at(i).column(), "A fit is needed here, not " + value(i).described() + ".");
        }

        Trace windowed(int i) {
            Trace t = trace(i);
            String name = words("window", null);
            if (name == null) {
                return t;
            }
            Window w = scope().window(name, t).orElseThrow(() -> new FormulaException(call.column(),
                    "No window \"" + name + "\" could be proposed on " + t.name() + "; set one by hand."));
            return t.within(w);
        }

        String words(String name, String otherwise) {
            Expr e = named(name);
            if (e == null) {
                return otherwise;
            }
            if (evaluator.evaluate(e) instanceof Value.Words w) {
                return w.text();
            }
            throw new FormulaException(e.column(), "The argument " + name + " takes a text in quotes.");
        }

        double number(String name, double otherwise) {
            Expr e = named(name);
            return e == null ? otherwise : Evaluator.pureNumber(Evaluator.scalar(evaluator.evaluate(e), e), e, "The argument " + name);
        }

        private Expr named(String name) {
            return call.arguments().stream().filter(a -> name.equals(a.name())).map(Expr.Argument::value).findFirst().orElse(null);
        }
    }
}

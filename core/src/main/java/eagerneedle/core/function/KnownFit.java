package eagerneedle.core.function;

import eagerneedle.core.fit.CurveFit;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.NumberedCurve;
import eagerneedle.core.fit.Occasions;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A fit of a formula, or of a rate of change, in which other names of the sheet may stand.
 *
 * <p>What is known acts on the parameters as an error of the ordinates would that is as large as what it does to the
 * curve, with the opposite sign. So a first fit finds where the parameters are, each influence of what is known is laid
 * on the ordinates there, and a second fit, from there, inherits them all with sign and size, correlations with the
 * points included.
 */
final class KnownFit {
    private final Arguments a;
    private final Expr at;
    private final boolean isRate;
    private final Formula model;
    private final Sought sought;
    private final @Nullable Trace trace;

    private KnownFit(Arguments a, @Nullable Trace trace) {
        this.a = a;
        this.trace = trace;
        this.isRate = a.has("rate");
        this.at = a.at(0);
        if (isRate && !a.words("formula").isEmpty()) {
            throw new FormulaException(a.column(), "A fit has a formula or a rate, not both.");
        }
        String text = a.words(isRate ? "rate" : "formula");
        if (text.isEmpty()) {
            throw new FormulaException(a.column(), "A fit that is to find something needs a formula or a rate.");
        }
        this.model = Formula.parse(text);
        this.sought = Sought.of(a.words("find"), a.column());
    }

    /** @param trace the samples that are fitted; null for columns */
    static Fit of(Arguments a, @Nullable Trace trace) {
        return new KnownFit(a, trace).fit();
    }

    private Fit fit() {
        String state = isRate ? name(at, "y") : "";
        String abscissa = abscissa();
        Set<String> own = new LinkedHashSet<>(sought.names());
        own.add(abscissa);
        if (isRate) {
            own.add(state);
        }
        final Points points;
        final Knowns knowns;
        FitOptions options = FitRequests.choices(a, Map.of());
        if (trace != null) {
            knowns = Knowns.ofTrace(a, model, own, trace, at);
            points = Points.of(trace);
            options = FitRequests.read(a, options, trace, model.text());
        } else {
            Value.Column y = a.column(0);
            Knowns all = Knowns.ofColumn(a, model, own, y, at);
            Arguments.Pair pair = hasAbscissa() ? a.pair(0, 1) : null;
            if (pair != null && pair.first().size() != y.rows().size()) {
                throw new FormulaException(
                        a.at(1).column(), "Some points have no abscissa; choose the rows with where(...) first.");
            }
            List<Quantity> ys = all.points().stream().map(y.rows()::get).toList();
            List<Quantity> xs =
                    pair != null ? all.points().stream().map(pair.second()::get).toList() : firstColumn(all, ys.size());
            points = Points.of(xs, ys);
            knowns = all;
            // Which readings the points are is told before anything is laid on them.
            Occasions known = pair != null && ys.size() == y.rows().size() ? pair.occasions() : null;
            options = options.readOn(known == null ? Occasions.of(points.y()) : known);
        }
        Map<String, Quantity> start = start(state, abscissa, points, knowns);
        if (points.size() < start.size()) {
            throw new FitException(
                    "A fit of " + start.size() + " parameters needs as many points, not " + points.size() + ".");
        }
        boolean exact = points.size() == start.size();
        Bounds bounds = Bounds.of(a.words("bounds"), start, a.column());
        FitOptions choices = exact && options.scatter() == Scatter.FROM_RESIDUALS
                ? new FitOptions(Scatter.FROM_UNCERTAINTIES, options.origin(), options.label())
                : options;
        return bounds.keep(start, knowns, (sought, known, free) -> {
            NumberedCurve curve = isRate
                    ? new RateCurve(model, sought, state, abscissa, points, known, a.column())
                    : new KnownCurve(model, sought, abscissa, points, known);
            return through(sought, known, curve, points, free ? choices : choices.bounded());
        });
    }

    private Fit through(
            Map<String, Quantity> start, Knowns knowns, NumberedCurve curve, Points points, FitOptions choices) {
        Fit first = found(start, curve, points, choices);
        double[] there =
                first.parameters().stream().mapToDouble(Quantity::value).toArray();
        Points laid = laid(points, knowns, (Known) curve, there);
        if (laid == points) {
            return first;
        }
        Map<String, Quantity> again = new LinkedHashMap<>();
        int k = 0;
        for (Map.Entry<String, Quantity> e : start.entrySet()) {
            again.put(e.getKey(), Quantity.exact(there[k++], e.getValue().unit()));
        }
        return found(again, curve, laid, choices);
    }

    private Fit found(Map<String, Quantity> start, NumberedCurve curve, Points points, FitOptions choices) {
        return CurveFit.ofPoints(
                model.text(),
                List.copyOf(start.keySet()),
                start.values().stream().map(Quantity::unit).toList(),
                start.values().stream().mapToDouble(Quantity::value).toArray(),
                curve,
                ((Known) curve).drawn(),
                points,
                choices);
    }

    private boolean hasAbscissa() {
        return a.has("x");
    }

    private static List<Quantity> firstColumn(Knowns knowns, int n) {
        return knowns.columns().isEmpty()
                ? number(n)
                : knowns.columns().values().iterator().next().stream()
                        .map(q -> Quantity.exact(q.value(), q.unit()))
                        .toList();
    }

    private static List<Quantity> number(int n) {
        List<Quantity> out = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            out.add(Quantity.number(i));
        }
        return out;
    }

    /** What the abscissa is called in the model: x, t for a trace, or its own name. */
    private String abscissa() {
        Set<String> names = model.names();
        if (trace != null) {
            return names.contains("x") && !sought.names().contains("x") ? "x" : "t";
        }
        if (!hasAbscissa()) {
            return "x";
        }
        String own = name(a.at(1), "x");
        return names.contains(own) && !own.equals("x") ? own : "x";
    }

    /** What an argument is called: its name, without the capture it belongs to. */
    private static String name(Expr e, String usual) {
        return e instanceof Expr.Name n ? n.name() : usual;
    }

    private Map<String, Quantity> start(String state, String abscissa, Points points, Knowns knowns) {
        for (String name : sought.names()) {
            if (!model.names().contains(name) && !name.equals(state + "_0")) {
                throw new FormulaException(a.column(), "The model has no " + name + " that could be found.");
            }
        }
        Map<String, Quantity> out = sought.complete(
                model.expression(), points.yUnit(), e -> unit(e, state, abscissa, points, knowns), a.column());
        if (!isRate) {
            return out;
        }
        // What it starts from is found too, and comes last.
        String begin = state.replace('.', '_') + "_0";
        Quantity given = out.remove(begin);
        out.put(
                begin,
                given != null
                        ? given.to(points.yUnit())
                        : Quantity.exact(points.y().get(0).value(), points.yUnit()));
        return out;
    }

    private LabUnit unit(Expr e, String state, String abscissa, Points points, Knowns knowns) {
        Map<String, Value> seen = new HashMap<>();
        knowns.held().forEach((n, q) -> seen.put(n, new Value.Scalar(q)));
        knowns.columns().forEach((n, c) -> seen.put(n, new Value.Scalar(c.get(c.size() / 2))));
        seen.put(abscissa, new Value.Scalar(points.x().get(points.size() / 2)));
        if (!state.isEmpty()) {
            seen.put(state, new Value.Scalar(points.y().get(0)));
        }
        if (Formula.of(e).evaluate(Scope.over("fit", seen)) instanceof Value.Scalar s) {
            LabUnit unit = s.quantity().unit().coherent();
            return isRate ? unit.times(points.xUnit().coherent()) : unit;
        }
        throw new FormulaException(e.column(), "A model gives one quantity at each point.");
    }

    /** The points with what known things do to the curve laid on them; the same points where that is nothing. */
    private static Points laid(Points points, Knowns knowns, Known curve, double[] there) {
        Set<Leaf> leaves = new LinkedHashSet<>();
        knowns.held().values().forEach(q -> leaves.addAll(q.contributions().keySet()));
        knowns.columns()
                .values()
                .forEach(c -> c.forEach(q -> leaves.addAll(q.contributions().keySet())));
        if (leaves.isEmpty()) {
            return points;
        }
        List<Quantity> y = new ArrayList<>(points.y());
        for (Leaf leaf : leaves) {
            double[] held = knowns.held().values().stream()
                    .mapToDouble(q -> q.contribution(leaf))
                    .toArray();
            double[][] columns = knowns.columns().values().stream()
                    .map(c -> c.stream().mapToDouble(q -> q.contribution(leaf)).toArray())
                    .toArray(double[][]::new);
            double[] effect = curve.effect(there, held, columns);
            for (int i = 0; i < effect.length; i++) {
                if (effect[i] != 0 && Double.isFinite(effect[i])) {
                    Quantity shift =
                            Quantity.of(0, Math.abs(effect[i]), points.yUnit().difference(), leaf);
                    Quantity q = y.get(i);
                    y.set(i, effect[i] > 0 ? q.minus(shift) : q.plus(shift));
                }
            }
        }
        return Points.of(points.x(), y.stream().map(q -> q.to(points.yUnit())).toList());
    }
}

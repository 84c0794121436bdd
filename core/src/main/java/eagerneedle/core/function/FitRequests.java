package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.fit;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.Model;
import eagerneedle.core.fit.ModelComparison;
import eagerneedle.core.fit.NamedModel;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;

/** What a call of a function of fits asks for: points, choices, starting values, parameters. */
final class FitRequests {
    /** How far beside an abscissa the curve is looked at for its slope, as a share of its span. */
    private static final double BESIDE = 1e-3;

    private FitRequests() {}

    static ModelComparison compared(Arguments a) {
        List<Fit> fits = new ArrayList<>();
        for (int i = 0; i < a.positional(); i++) {
            fits.add(a.fit(i));
        }
        return ModelComparison.of(fits);
    }

    static Scatter scatter(Arguments a) {
        String told = a.words("scatter");
        return switch (told) {
            case "residuals" -> a.scope().planning() ? Scatter.FROM_UNCERTAINTIES : Scatter.FROM_RESIDUALS;
            case "stated" -> Scatter.FROM_UNCERTAINTIES;
            case "generalised" -> a.scope().planning() ? Scatter.FROM_UNCERTAINTIES : Scatter.GENERALISED;
            default ->
                throw new FormulaException(
                        a.column(),
                        "The scatter is told by \"residuals\", \"stated\" uncertainties, or \"generalised\".");
        };
    }

    private static Points points(Arguments a) {
        Arguments.Pair p = a.pair(0, 1);
        return Points.of(p.second(), p.first());
    }

    static Fit points(Arguments a, int degree) {
        return PolynomialFit.ofPoints(
                points(a),
                degree,
                new FitOptions(scatter(a), a.id(), label(a, "scatter between runs"))
                        .readOn(a.pair(0, 1).occasions()));
    }

    static Value polynomial(Arguments a) {
        int degree = a.whole("degree", 0, 20);
        if (!(a.value(0) instanceof Value.Signal)) {
            return new Value.Fitted(points(a, degree));
        }
        Value.Ends ends = a.ends(0);
        Fit fit = PolynomialFit.ofTrace(a.windowed(0), degree, a.id(), label(a, "scatter within a run"));
        List<Quantity> parameters = new ArrayList<>();
        for (int k = 0; k <= degree; k++) {
            int at = k;
            ToDoubleFunction<Trace> plain = t -> PolynomialFit.ofTrace(t, degree, "moved", "moved")
                    .parameter(at)
                    .value();
            parameters.add(TraceRequests.withEnds(ends, TraceRequests.withChoice(a, fit.parameter(k), plain), plain));
        }
        return new Value.Fitted(fit.withParameters(parameters));
    }

    /** What the call says the scatter is called, or what it usually is. */
    static String label(Arguments a, String otherwise) {
        String given = a.words("label");
        return given.isEmpty() ? otherwise : given;
    }

    /** Slope or intercept: of a fit that has one, or of a straight line through what is given. */
    static Quantity lineParameter(Arguments a, String which) {
        if (a.value(0) instanceof Value.Fitted) {
            Fit f = a.fit(0);
            int k = f.names().indexOf(which);
            if (k < 0) {
                throw new FormulaException(
                        a.at(0).column(),
                        "The fit of a " + f.model() + " has no " + which + "; ask for one of its parameters ("
                                + String.join(", ", f.names()) + ") by parameter(fit, \"name\").");
            }
            return f.parameter(k);
        }
        int k = which.equals("slope") ? 1 : 0;
        if (a.value(0) instanceof Value.Signal) {
            String label = label(a, "scatter within a run");
            ToDoubleFunction<Trace> plain = t ->
                    PolynomialFit.ofTrace(t, 1, "moved", "moved").parameter(k).value();
            java.util.function.Function<Trace, Quantity> full =
                    t -> a.told(PolynomialFit.ofTrace(t, 1, a.id(), label)).parameter(k);
            return k == 1
                    ? TraceRequests.answered(a, plain, full)
                    : TraceRequests.withEnds(a.ends(0), full.apply(a.windowed(0)), plain);
        }
        return a.told(points(a, 1)).parameter(k);
    }

    static Value proportional(Arguments a) {
        return scalar(a.told(Model.proportional()
                        .fit(points(a), choices(a, Map.of()).readOn(a.pair(0, 1).occasions())))
                .parameter(0));
    }

    static FitOptions choices(Arguments a, Map<String, Double> start) {
        return new FitOptions(scatter(a), a.id(), label(a, "scatter of the points"), start);
    }

    static Fit fitted(Arguments a) {
        boolean samples = a.value(0) instanceof Value.Signal;
        Trace trace = samples ? a.windowed(0) : null;
        if (a.has("find")) {
            return KnownFit.of(a, trace);
        }
        Points points = trace != null ? Points.of(trace) : points(a);
        String formula = a.words("formula");
        String id = formula.isEmpty() ? a.words("model") : formula;
        Map<String, Quantity> start = start(a);
        if (!formula.isEmpty()) {
            return FormulaFit.model(Formula.parse(formula), start)
                    .fit(points, read(a, choices(a, Map.of()), trace, id));
        }
        NamedModel model = NamedModel.named(id);
        if (model == null) {
            throw new FormulaException(
                    a.column(),
                    id.isEmpty()
                            ? "A fit needs a model, a formula or a rate."
                            : "There is no model " + id
                                    + NearName.hint(
                                            id,
                                            Arrays.stream(NamedModel.values())
                                                    .map(NamedModel::id)
                                                    .toList()));
        }
        Map<String, Double> numbers = new LinkedHashMap<>();
        start.forEach((name, q) -> {
            if (!model.parameters().contains(name)) {
                throw new FormulaException(
                        a.column(),
                        "The model " + id + " has no parameter " + name + NearName.hint(name, model.parameters()));
            }
            numbers.put(name, q.value());
        });
        return model.fit(points, read(a, choices(a, numbers), trace, id));
    }

    /** FitOptions for points that are readings of runs, or samples of a trace. */
    static FitOptions read(Arguments a, FitOptions choices, @Nullable Trace trace, String basis) {
        if (trace == null) {
            return choices.readOn(a.pair(0, 1).occasions());
        }
        if (choices.scatter() != Scatter.FROM_RESIDUALS) {
            throw new FormulaException(
                    a.column(),
                    "Samples of a trace have no stated uncertainties of their own; their scatter is told by the "
                            + "residuals.");
        }
        return choices.samplesOf(trace, basis);
    }

    static Map<String, Quantity> start(Arguments a) {
        Map<String, Quantity> out = new LinkedHashMap<>();
        String text = a.words("start");
        for (String part : text.isBlank() ? new String[0] : text.split(",")) {
            Formula f = Formula.parse(part.strip());
            if (f.defines() == null || !(f.evaluate(Scope.empty("start")) instanceof Value.Scalar s)) {
                throw new FormulaException(a.column(), "Starting values are written \"a = 1 V, tau = 3 s\".");
            }
            out.put(f.defines(), s.quantity());
        }
        return out;
    }

    static int named(Arguments a, Fit f) {
        String name = a.words(1);
        int k = f.names().indexOf(name);
        if (k < 0) {
            throw new FormulaException(
                    a.at(1).column(),
                    "The fit of a " + f.model() + " has no parameter " + name + NearName.hint(name, f.names()));
        }
        return k;
    }

    static Quantity parameter(Arguments a) {
        Fit f = a.fit(0);
        return f.parameter(named(a, f));
    }

    static Value inverse(Arguments a) {
        Fit f = a.fit(0);
        Quantity y = a.quantity(1);
        int readings = a.whole("readings", 0, 1_000_000);
        if (readings > 0 && f.residualSd() > 0) {
            y = y.to(f.yUnit())
                    .with(
                            Leaf.typeA(
                                            a.id(),
                                            "scatter of the reading",
                                            a.scope().origin(),
                                            Math.max(1, f.dof()))
                                    .inPool(f.scatterPool()),
                            f.residualSd() / Math.sqrt(readings));
        }
        return scalar(f.inverse(y));
    }

    /** By the two values beside the abscissa: exact for a parabola, and the lineage of both is that of the curve. */
    static Quantity derivativeAt(Arguments a) {
        Fit f = a.fit(0);
        Quantity x = a.quantity(1).to(f.xUnit());
        double span = Arrays.stream(f.x()).max().orElseThrow()
                - Arrays.stream(f.x()).min().orElseThrow();
        Quantity h = Quantity.exact(span * BESIDE, f.xUnit().difference());
        Quantity rise = f.at(x.plus(h)).minus(f.at(x.minus(h)));
        return rise.dividedBy(h.plus(h));
    }

    static Quantity rateAtEnd(Arguments a) {
        Fit f = a.fit(0);
        if (!f.isPolynomial()) {
            throw new FormulaException(
                    a.at(0).column(),
                    "The rate at the end is told by a polynomial; this is the fit of a " + f.model() + ".");
        }
        if (f.parameters().size() == 1) {
            return Quantity.exact(0, f.yUnit().coherent().per(f.xUnit().coherent()));
        }
        double end = f.xUnit()
                .convert(Arrays.stream(f.x()).max().orElseThrow(), f.xUnit().coherent());
        LabUnit unit = f.parameter(1).unit();
        Quantity sum = f.parameter(1);
        for (int k = 2; k < f.parameters().size(); k++) {
            double c = k * Math.pow(end, k - 1);
            Quantity p = f.parameter(k);
            sum = sum.plus(p.mapped(p.value() * c, unit, c));
        }
        return sum;
    }
}

package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.column;
import static eagerneedle.core.formula.Parameter.fit;
import static eagerneedle.core.formula.Parameter.number;
import static eagerneedle.core.formula.Parameter.of;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.Model;
import eagerneedle.core.fit.ModelComparison;
import eagerneedle.core.fit.NamedModel;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.fit.SecondOpinion;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Parameter.Kind;
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

/** Fits: lines, polynomials, named models and free formulas, and what to ask of them. */
final class FitFunctions {
    private static final String XY = "column(1 m, 3 m, 5 m), column(0 s, 1 s, 2 s)";
    private static final String SCATTER = "scatter: \"residuals\"";
    private static final String HOW =
            "scatter is told by the residuals, or \"stated\" uncertainties weight the points in both "
                    + "coordinates, or \"generalised\" with what points share";

    private FitFunctions() {}

    static void define() {
        Functions.define(
                Function.of(
                                "line",
                                column("y"),
                                column("x"),
                                words("scatter").saying("residuals"),
                                words("label").saying(""))
                        .described(
                                "two columns; " + HOW,
                                "a fit of a straight line",
                                "line(" + XY + ")",
                                "intercept = 1 m, slope = 2 m/s"),
                a -> new Value.Fitted(points(a, 1)));
        Functions.define(
                Function.of(
                                "polynomial",
                                of(Kind.COLUMN_OR_TRACE, "y"),
                                column("x").orNone(),
                                number("degree").usually("2"),
                                words("scatter").saying("residuals"),
                                words("label").saying(""),
                                words("window").saying(""),
                                quantity("choice").in("%").usually("0 %"))
                        .described(
                                "two columns, or a trace with a window; degree 0 to 20; choice: share by which "
                                        + "the window's edges may move",
                                "a fit of a polynomial in x, or in time",
                                "polynomial(column(1.01, 1.99, 5.02, 9.98), column(0, 1, 2, 3))",
                                "c0 = 1.004(26), c1 = 0.009(42), c2 = 0.995(13)"),
                FitFunctions::polynomial);
        Functions.define(
                Function.of(
                                "proportional",
                                column("y"),
                                column("x"),
                                words("scatter").saying("residuals"),
                                words("label").saying(""))
                        .described(
                                "two columns",
                                "slope of the straight line through the origin, unit of y per unit of x",
                                "proportional(column(2.1 V, 3.9 V, 6.0 V), column(1 A, 2 A, 3 A))",
                                "1.993(26) Ω"),
                FitFunctions::proportional);
        Functions.define(
                Function.of(
                                "fit",
                                of(Kind.COLUMN_OR_TRACE, "y"),
                                column("x").orNone(),
                                words("model").saying(""),
                                words("formula").saying(""),
                                words("start").saying(""),
                                words("scatter").saying("residuals"),
                                words("label").saying(""),
                                words("name").saying(""),
                                words("window").saying(""))
                        .described(
                                "two columns, or a trace with a window; a named model ("
                                        + String.join(
                                                ", ",
                                                Arrays.stream(NamedModel.values())
                                                        .map(NamedModel::id)
                                                        .toList())
                                        + "), or a formula in x with starting values such as \"a = 1 V, tau = 3 "
                                        + "s\"; what to call the model",
                                "a fit; parameters as the model or the starting values name them",
                                "parameter(fit(exp(-index(9) / 3) * 2 V + 1 V, index(9) * 1 s, model: "
                                        + "\"decay\"), \"tau\")",
                                "3 s"),
                a -> {
                    String name = a.words("name");
                    return new Value.Fitted(
                            name.isEmpty() ? fitted(a) : fitted(a).named(name));
                });
        Functions.define(
                Function.of("parameter", fit("fit"), words("name"))
                        .described(
                                "a fit and the name of a parameter",
                                "that parameter",
                                "parameter(line(" + XY + "), \"slope\")",
                                "2 m/s"),
                a -> scalar(parameter(a)));
        Functions.define(
                Function.of("coefficient", fit("fit"), number("k"))
                        .described(
                                "a fit and a number from 0",
                                "coefficient of x to the power k, or parameter k",
                                "coefficient(line(" + XY + "), 0)",
                                "1 m"),
                a -> scalar(a.fit(0).parameter(a.whole(1, 0, 100))));
        Functions.define(
                Function.of(
                                "slope",
                                of(Kind.POINTS, "y"),
                                column("x").orNone(),
                                words("scatter").saying("residuals"),
                                words("label").saying(""),
                                words("window").saying(""),
                                quantity("choice").in("%").usually("0 %"))
                        .described(
                                "two columns, a fit, or a trace with a window; choice: share by which the "
                                        + "window's edges may move",
                                "slope of a straight line, unit of y per unit of x",
                                "slope(" + XY + ")",
                                "2 m/s"),
                a -> scalar(lineParameter(a, "slope")));
        Functions.define(
                Function.of(
                                "intercept",
                                of(Kind.POINTS, "y"),
                                column("x").orNone(),
                                words("scatter").saying("residuals"),
                                words("label").saying(""),
                                words("window").saying(""))
                        .described(
                                "two columns, a fit, or a trace with a window",
                                "intercept of a straight line, unit of y",
                                "intercept(" + XY + ")",
                                "1 m"),
                a -> scalar(lineParameter(a, "intercept")));
        Functions.define(
                Function.of("residual_sd", fit("fit"))
                        .described(
                                "a fit",
                                "residual standard deviation as exact, unit of y",
                                "residual_sd(line(column(1.0 V, 3.1 V, 4.9 V, 7.0 V), column(0, 1, 2, 3)))",
                                "0.09486832981 V"),
                a -> scalar(Quantity.exact(a.fit(0).residualSd(), a.fit(0).yUnit())));
        Functions.define(
                Function.of("chi_square", fit("fit"))
                        .described(
                                "a fit with stated uncertainties",
                                "weighted sum of squared residuals, a pure number",
                                "chi_square(line(column(1.0(1), 3.1(1), 4.9(1), 7.0(1)), index(4), scatter: "
                                        + "\"stated\"))",
                                "1.8"),
                a -> {
                    if (Double.isNaN(a.fit(0).chiSquared())) {
                        throw new FormulaException(
                                a.column(), "Chi-square needs stated uncertainties: fit with scatter: \"stated\".");
                    }
                    return scalar(Quantity.number(a.fit(0).chiSquared()));
                });
        Functions.define(
                Function.of("predict", fit("fit"), quantity("x"))
                        .described(
                                "a fit and an abscissa",
                                "the curve there with the uncertainty of its parameters, unit of y",
                                "predict(line(" + XY + "), 4 s)",
                                "9 m"),
                a -> scalar(a.fit(0).at(a.quantity(1))));
        Functions.define(
                Function.of("predict_reading", fit("fit"), quantity("x"))
                        .described(
                                "a fit and an abscissa",
                                "a further reading there: the curve with one more share of the scatter, unit of y",
                                "u(predict_reading(line(column(1.0 V, 3.1 V, 4.9 V, 7.0 V), index(4)), 1.5)) > "
                                        + "u(predict(line(column(1.0 V, 3.1 V, 4.9 V, 7.0 V), index(4)), 1.5))",
                                "true"),
                a -> scalar(a.fit(0).readingAt(a.quantity(1), a.id())));
        Functions.define(
                Function.of(
                                "inverse",
                                fit("fit"),
                                quantity("y"),
                                number("readings").usually("0"))
                        .described(
                                "a fit and an ordinate; readings: how many readings of the fit's own scatter the "
                                        + "ordinate is the mean of",
                                "the abscissa at which the curve takes it, unit of x",
                                "inverse(line(" + XY + "), 4 m)",
                                "1.5 s"),
                FitFunctions::inverse);
        Functions.define(
                Function.of("travel", fit("fit"))
                        .described(
                                "a fit",
                                "change of the curve from its smallest abscissa to its largest, unit of y",
                                "travel(line(" + XY + "))",
                                "4 m"),
                a -> {
                    Fit f = a.fit(0);
                    return scalar(f.at(Arrays.stream(f.x()).max().orElseThrow())
                            .minus(f.at(Arrays.stream(f.x()).min().orElseThrow())));
                });
        Functions.define(
                Function.of("rate_at_end", fit("fit"))
                        .described(
                                "a fit of a polynomial",
                                "derivative at its largest abscissa, unit of y per unit of x",
                                "rate_at_end(line(" + XY + "))",
                                "2 m/s"),
                a -> scalar(rateAtEnd(a)));
        Functions.define(
                Function.of("robust", fit("fit"), words("name"))
                        .described(
                                "a fit and the name of a parameter",
                                "the same parameter of a robust fit (Huber) as exact",
                                "robust(line(column(1.1, 2.9, 5.2, 6.8, 30, 11.1), index(6)), \"slope\") < 2.2",
                                "true"),
                a -> {
                    Fit f = a.fit(0);
                    return scalar(Quantity.exact(
                            SecondOpinion.of(f).parameters()[named(a, f)],
                            parameter(a).unit()));
                });
        Functions.define(
                Function.of("compare", fit("fit"))
                        .repeating(0, 1)
                        .described(
                                "fits of different models to the same points",
                                "what the data say of them, in words",
                                "compare(line(index(30)^2 + sin(index(30) * 2), index(30)), "
                                        + "polynomial(index(30)^2 + sin(index(30) * 2), index(30)))",
                                "The residuals of the straight line bend. The straight line is out of the "
                                        + "question beside the parabola."),
                a -> new Value.Words(compared(a).advice()));
        Functions.define(
                Function.of("likelihood_share", fit("fit"))
                        .repeating(0, 1)
                        .described(
                                "fits of different models to the same points",
                                "Akaike weight of the first among them (AICc), a pure number as exact",
                                "likelihood_share(polynomial(index(30)^2 + sin(index(30) * 2), index(30)), "
                                        + "line(index(30)^2 + sin(index(30) * 2), index(30))) > 0.999",
                                "true"),
                a -> scalar(Quantity.number(compared(a).entries().get(0).share())));
    }

    private static ModelComparison compared(Arguments a) {
        List<Fit> fits = new ArrayList<>();
        for (int i = 0; i < a.positional(); i++) {
            fits.add(a.fit(i));
        }
        return ModelComparison.of(fits);
    }

    private static Scatter scatter(Arguments a) {
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

    private static Fit points(Arguments a, int degree) {
        return PolynomialFit.ofPoints(
                Points.of(a.rows(1), a.rows(0)),
                degree,
                new FitOptions(scatter(a), a.id(), label(a, "scatter between runs")).readOn(a.occasions(0)));
    }

    private static Value polynomial(Arguments a) {
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
            parameters.add(TraceFunctions.withEnds(ends, TraceFunctions.withChoice(a, fit.parameter(k), plain), plain));
        }
        return new Value.Fitted(fit.withParameters(parameters));
    }

    /** What the call says the scatter is called, or what it usually is. */
    private static String label(Arguments a, String otherwise) {
        String given = a.words("label");
        return given.isEmpty() ? otherwise : given;
    }

    /** Slope or intercept: of a fit that has one, or of a straight line through what is given. */
    private static Quantity lineParameter(Arguments a, String which) {
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
                    ? TraceFunctions.answered(a, plain, full)
                    : TraceFunctions.withEnds(a.ends(0), full.apply(a.windowed(0)), plain);
        }
        return a.told(points(a, 1)).parameter(k);
    }

    private static Value proportional(Arguments a) {
        return scalar(a.told(Model.proportional()
                        .fit(
                                Points.of(a.rows(1), a.rows(0)),
                                choices(a, Map.of()).readOn(a.occasions(0))))
                .parameter(0));
    }

    private static FitOptions choices(Arguments a, Map<String, Double> start) {
        return new FitOptions(scatter(a), a.id(), label(a, "scatter of the points"), start);
    }

    private static Fit fitted(Arguments a) {
        boolean samples = a.value(0) instanceof Value.Signal;
        Trace trace = samples ? a.windowed(0) : null;
        Points points = samples ? Points.of(trace) : Points.of(a.rows(1), a.rows(0));
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
                            ? "A fit needs a model or a formula."
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
    private static FitOptions read(Arguments a, FitOptions choices, Trace trace, String basis) {
        if (trace == null) {
            return choices.readOn(a.occasions(0));
        }
        if (choices.scatter() != Scatter.FROM_RESIDUALS) {
            throw new FormulaException(
                    a.column(),
                    "Samples of a trace have no stated uncertainties of their own; their scatter is told by the "
                            + "residuals.");
        }
        return choices.samplesOf(trace, basis);
    }

    private static Map<String, Quantity> start(Arguments a) {
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

    private static int named(Arguments a, Fit f) {
        String name = a.words(1);
        int k = f.names().indexOf(name);
        if (k < 0) {
            throw new FormulaException(
                    a.at(1).column(),
                    "The fit of a " + f.model() + " has no parameter " + name + NearName.hint(name, f.names()));
        }
        return k;
    }

    private static Quantity parameter(Arguments a) {
        Fit f = a.fit(0);
        return f.parameter(named(a, f));
    }

    private static Value inverse(Arguments a) {
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

    private static Quantity rateAtEnd(Arguments a) {
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

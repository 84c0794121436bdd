package eagerneedle.core.formula;

import static eagerneedle.core.formula.Functions.scalar;

import eagerneedle.core.fit.Choices;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.Model;
import eagerneedle.core.fit.ModelComparison;
import eagerneedle.core.fit.NamedModel;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.fit.SecondOpinion;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Fits: lines, polynomials, named models and free formulas, and what to ask of them. */
final class FitFunctions {
    private static final String XY = "column(1 m, 3 m, 5 m), column(0 s, 1 s, 2 s)";
    private static final String SCATTER = "scatter: \"residuals\"";
    private static final String HOW = "scatter is told by the residuals, or \"stated\" uncertainties weight the points in both coordinates, or \"generalised\" with what points share";

    private FitFunctions() {
    }

    static void define() {
        Functions.define("line(y, x, " + SCATTER + ", label: \"\")", "two columns; " + HOW, "a fit of a straight line", "line(" + XY + ")", "intercept = 1 m, slope = 2 m/s", a -> new Value.Fitted(points(a, 1)));
        Functions.define("polynomial(y, x, degree: 2, " + SCATTER + ", label: \"\", window: \"\", choice: 0 %)", "two columns, or a trace with a window; degree 0 to 20; choice: share by which the window's edges may move", "a fit of a polynomial in x, or in time",
                "polynomial(column(1.01, 1.99, 5.02, 9.98), column(0, 1, 2, 3))", "c0 = 1.004(26), c1 = 0.009(42), c2 = 0.995(13)", FitFunctions::polynomial);
        Functions.define("proportional(y, x, " + SCATTER + ", label: \"\")", "two columns", "slope of the straight line through the origin, unit of y per unit of x",
                "proportional(column(2.1 V, 3.9 V, 6.0 V), column(1 A, 2 A, 3 A))", "1.993(26) Ω", FitFunctions::proportional);
        Functions.define("fit(y, x, model: \"decay\", formula: \"\", start: \"\", " + SCATTER + ", label: \"\", name: \"\", window: \"\")",
                "two columns, or a trace with a window; a named model (" + String.join(", ", Arrays.stream(NamedModel.values()).map(NamedModel::id).toList())
                        + "), or a formula in x with starting values such as \"a = 1 V, tau = 3 s\"; what to call the model", "a fit; parameters as the model or the starting values name them",
                "parameter(fit(exp(-index(9) / 3) * 2 V + 1 V, index(9) * 1 s, model: \"decay\"), \"tau\")", "3 s", a -> new Value.Fitted(a.has("name") ? fit(a).named(a.words("name", "")) : fit(a)));
        Functions.define("parameter(fit, \"name\")", "a fit and the name of a parameter", "that parameter", "parameter(line(" + XY + "), \"slope\")", "2 m/s", a -> scalar(parameter(a)));
        Functions.define("coefficient(fit, k)", "a fit and a number from 0", "coefficient of x to the power k, or parameter k", "coefficient(line(" + XY + "), 0)", "1 m",
                a -> scalar(a.fit(0).parameter(a.whole(1, 0, 100))));
        Functions.define("slope(y, x, " + SCATTER + ", label: \"\", window: \"\", choice: 0 %)", "two columns, a fit, or a trace with a window; choice: share by which the window's edges may move",
                "slope of a straight line, unit of y per unit of x", "slope(" + XY + ")", "2 m/s", a -> scalar(choice(a, lineOf(a).parameter(1), 1)));
        Functions.define("intercept(y, x, " + SCATTER + ", label: \"\", window: \"\")", "two columns, a fit, or a trace with a window", "intercept of a straight line, unit of y", "intercept(" + XY + ")", "1 m",
                a -> scalar(lineOf(a).parameter(0)));
        Functions.define("residual_sd(fit)", "a fit", "residual standard deviation as exact, unit of y", "residual_sd(line(column(1.0 V, 3.1 V, 4.9 V, 7.0 V), column(0, 1, 2, 3)))", "0.09486832981 V",
                a -> scalar(Quantity.exact(a.fit(0).residualSd(), a.fit(0).yUnit())));
        Functions.define("chi_square(fit)", "a fit with stated uncertainties", "weighted sum of squared residuals, a pure number",
                "chi_square(line(column(1.0(1), 3.1(1), 4.9(1), 7.0(1)), index(4), scatter: \"stated\"))", "1.8", a -> {
                    if (Double.isNaN(a.fit(0).chiSquared())) {
                        throw new FormulaException(a.column(), "Chi-square needs stated uncertainties: fit with scatter: \"stated\".");
                    }
                    return scalar(Quantity.number(a.fit(0).chiSquared()));
                });
        Functions.define("predict(fit, x)", "a fit and an abscissa", "the curve there with the uncertainty of its parameters, unit of y", "predict(line(" + XY + "), 4 s)", "9 m", a -> scalar(a.fit(0).at(a.quantity(1))));
        Functions.define("predict_reading(fit, x)", "a fit and an abscissa", "a further reading there: the curve with one more share of the scatter, unit of y",
                "u(predict_reading(line(column(1.0 V, 3.1 V, 4.9 V, 7.0 V), index(4)), 1.5)) > u(predict(line(column(1.0 V, 3.1 V, 4.9 V, 7.0 V), index(4)), 1.5))", "true",
                a -> scalar(a.fit(0).readingAt(a.quantity(1), a.id())));
        Functions.define("inverse(fit, y, readings: 0)", "a fit and an ordinate; readings: how many readings of the fit's own scatter the ordinate is the mean of", "the abscissa at which the curve takes it, unit of x",
                "inverse(line(" + XY + "), 4 m)", "1.5 s", FitFunctions::inverse);
        Functions.define("travel(fit)", "a fit", "change of the curve over its points, unit of y", "travel(line(" + XY + "))", "4 m", a -> {
            Fit f = a.fit(0);
            return scalar(f.at(f.x()[f.x().length - 1]).minus(f.at(f.x()[0])));
        });
        Functions.define("rate_at_end(fit)", "a fit of a polynomial", "derivative at its last point, unit of y per unit of x", "rate_at_end(line(" + XY + "))", "2 m/s", a -> scalar(rateAtEnd(a.fit(0))));
        Functions.define("robust(fit, \"name\")", "a fit and the name of a parameter", "the same parameter of a robust fit (Huber) as exact",
                "robust(line(column(1.1, 2.9, 5.2, 6.8, 30, 11.1), index(6)), \"slope\") < 2.2", "true", a -> {
                    Fit f = a.fit(0);
                    return scalar(Quantity.exact(SecondOpinion.of(f).parameters()[named(a, f)], parameter(a).unit()));
                });
        Functions.define("compare(fit, fit, ...)", "fits of different models to the same points", "what the data say of them, in words",
                "compare(line(index(30)^2 + sin(index(30) * 2), index(30)), polynomial(index(30)^2 + sin(index(30) * 2), index(30)))",
                "The residuals of the straight line bend. The straight line is out of the question beside the parabola.", a -> new Value.Words(compared(a).advice()));
        Functions.define("likelihood_share(fit, fit, ...)", "fits of different models to the same points", "Akaike weight of the first among them (AICc), a pure number as exact",
                "likelihood_share(polynomial(index(30)^2 + sin(index(30) * 2), index(30)), line(index(30)^2 + sin(index(30) * 2), index(30))) > 0.999", "true",
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
        if (a.scope().planning()) {
            return Scatter.FROM_UNCERTAINTIES;
        }
        return switch (a.words("scatter", "residuals")) {
            case "residuals" -> Scatter.FROM_RESIDUALS;
            case "stated" -> Scatter.FROM_UNCERTAINTIES;
            case "generalised" -> Scatter.GENERALISED;
            default -> throw new FormulaException(a.column(), "The scatter is told by \"residuals\", \"stated\" uncertainties, or \"generalised\".");
        };
    }

    private static Fit points(Arguments a, int degree) {
        return PolynomialFit.ofPoints(a.rows(1), a.rows(0), degree, scatter(a), a.id(), a.words("label", "scatter between runs"));
    }

    private static Value polynomial(Arguments a) {
        int degree = a.whole("degree", 2, 0, 20);
        if (!(a.value(0) instanceof Value.Signal)) {
            return new Value.Fitted(points(a, degree));
        }
        Fit fit = PolynomialFit.ofTrace(a.windowed(0), degree, a.id(), a.words("label", "scatter within a run"));
        List<Quantity> parameters = new ArrayList<>();
        for (int k = 0; k <= degree; k++) {
            int at = k;
            parameters.add(TraceFunctions.withChoice(a, fit.parameter(k), t -> PolynomialFit.ofTrace(t, degree, "moved", "moved").parameter(at).value()));
        }
        return new Value.Fitted(fit.withParameters(parameters));
    }

    private static Fit lineOf(Arguments a) {
        if (a.value(0) instanceof Value.Fitted) {
            return a.fit(0);
        }
        return a.value(0) instanceof Value.Signal ? PolynomialFit.ofTrace(a.windowed(0), 1, a.id(), "scatter within a run") : points(a, 1);
    }

    private static Quantity choice(Arguments a, Quantity q, int k) {
        return a.has("choice") && a.value(0) instanceof Value.Signal ? TraceFunctions.withChoice(a, q, t -> PolynomialFit.ofTrace(t, 1, "moved", "moved").parameter(k).value()) : q;
    }

    private static Value proportional(Arguments a) {
        return scalar(Model.proportional().fit(Points.of(a.rows(1), a.rows(0)), choices(a, Map.of())).parameter(0));
    }

    private static Choices choices(Arguments a, Map<String, Double> start) {
        return new Choices(scatter(a), a.id(), a.words("label", "scatter of the points"), start);
    }

    private static Fit fit(Arguments a) {
        Points points;
        if (a.value(0) instanceof Value.Signal) {
            Trace t = a.windowed(0);
            List<Quantity> x = new ArrayList<>();
            List<Quantity> y = new ArrayList<>();
            for (int i = 0; i < t.size(); i++) {
                Quantity v = Quantity.exact(t.value()[i], t.unit());
                for (Trace.Shared s : t.shared()) {
                    v = v.with(s.leaf(), s.contribution().applyAsDouble(t.value()[i]));
                }
                x.add(Quantity.exact(t.time()[i], LabUnit.SECOND));
                y.add(v);
            }
            points = Points.of(x, y);
        } else {
            points = Points.of(a.rows(1), a.rows(0));
        }
        Map<String, Quantity> start = start(a);
        String formula = a.words("formula", "");
        if (!formula.isEmpty()) {
            return FormulaFit.model(Formula.parse(formula), start).fit(points, choices(a, Map.of()));
        }
        String id = a.words("model", "");
        NamedModel model = NamedModel.named(id);
        if (model == null) {
            throw new FormulaException(a.column(), id.isEmpty() ? "A fit needs a model or a formula." : "There is no model " + id + NearName.hint(id, Arrays.stream(NamedModel.values()).map(NamedModel::id).toList()));
        }
        Map<String, Double> numbers = new LinkedHashMap<>();
        start.forEach((name, q) -> {
            if (!model.parameters().contains(name)) {
                throw new FormulaException(a.column(), "The model " + id + " has no parameter " + name + NearName.hint(name, model.parameters()));
            }
            numbers.put(name, q.value());
        });
        return model.fit(points, choices(a, numbers));
    }

    private static Map<String, Quantity> start(Arguments a) {
        Map<String, Quantity> out = new LinkedHashMap<>();
        String text = a.words("start", "");
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
            throw new FormulaException(a.at(1).column(), "The fit of a " + f.model() + " has no parameter " + name + NearName.hint(name, f.names()));
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
        int readings = a.whole("readings", 0, 0, 1_000_000);
        if (readings > 0 && f.residualSd() > 0) {
            y = y.to(f.yUnit()).with(Leaf.typeA(a.id(), "scatter of the reading", a.scope().origin(), Math.max(1, f.dof())).inPool(f.scatterPool()), f.residualSd() / Math.sqrt(readings));
        }
        return scalar(f.inverse(y));
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
}

package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.column;
import static eagerneedle.core.formula.Parameter.fit;
import static eagerneedle.core.formula.Parameter.model;
import static eagerneedle.core.formula.Parameter.number;
import static eagerneedle.core.formula.Parameter.of;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.sought;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.NamedModel;
import eagerneedle.core.fit.SecondOpinion;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Parameter.Kind;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.Arrays;

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
                a -> new Value.Fitted(FitRequests.points(a, 1)));
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
                FitRequests::polynomial);
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
                FitRequests::proportional);
        Functions.define(
                Function.of(
                                "fit",
                                of(Kind.COLUMN_OR_TRACE, "y"),
                                column("x").orNone(),
                                words("model").saying(""),
                                model("formula"),
                                model("rate"),
                                sought("find"),
                                words("bounds").saying(""),
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
                                        + "); or a formula, or the rate at which y changes, in which names of the "
                                        + "sheet stand for what they are, and find: 'tau = 3 s, c' says what is to "
                                        + "be found, bounds: 'tau > 0 s' between what; or, as before, a formula in x with start: and all its parameters; "
                                        + "what to call the model",
                                "a fit; parameters as the model or the starting values name them",
                                "parameter(fit(exp(-index(9) / 3) * 2 V + 1 V, index(9) * 1 s, model: "
                                        + "\"decay\"), \"tau\")",
                                "3 s"),
                a -> {
                    String name = a.words("name");
                    return new Value.Fitted(
                            name.isEmpty()
                                    ? FitRequests.fitted(a)
                                    : FitRequests.fitted(a).named(name));
                });
        Functions.define(
                Function.of(
                                "closure",
                                column("readings"),
                                column("first"),
                                column("second"),
                                words("scatter").saying("residuals"),
                                words("label").saying(""))
                        .described(
                                "readings of two divided circles, and the number of the interval of either that was "
                                        + "read against the other, from 1",
                                "a fit of the errors of both, first less second, each adding up to nothing; parameters "
                                        + "by the names of the columns: lower_1, upper_3",
                                "closure(column(3 um, 1 um, 0 um, -2 um), column(1, 1, 2, 2), column(1, 2, 1, 2))",
                                "first_1 = 1.50(35) µm, first_2 = −1.50(35) µm, second_1 = −1.00(35) µm, "
                                        + "second_2 = 1.00(35) µm"),
                ClosureFit::value);
        Functions.define(
                Function.of("parameter", fit("fit"), words("name"))
                        .described(
                                "a fit and the name of a parameter",
                                "that parameter",
                                "parameter(line(" + XY + "), \"slope\")",
                                "2 m/s"),
                a -> scalar(FitRequests.parameter(a)));
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
                a -> scalar(FitRequests.lineParameter(a, "slope")));
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
                a -> scalar(FitRequests.lineParameter(a, "intercept")));
        Functions.define(
                Function.of("residual_sd", fit("fit"))
                        .described(
                                "a fit",
                                "residual standard deviation as exact, unit of y (of temperatures in K)",
                                "residual_sd(line(column(1.0 V, 3.1 V, 4.9 V, 7.0 V), column(0, 1, 2, 3)))",
                                "0.09486832981 V"),
                a -> scalar(
                        Quantity.exact(a.fit(0).residualSd(), a.fit(0).yUnit().difference())));
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
                Function.of("derivative_at", fit("fit"), quantity("x"))
                        .described(
                                "a fit and an abscissa",
                                "the slope of the curve there, unit of y per unit of x",
                                "derivative_at(polynomial(column(0 m, 1 m, 4 m, 9 m), index(4) * 1 s), 2 s)",
                                "4 m/s"),
                a -> scalar(FitRequests.derivativeAt(a)));
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
                FitRequests::inverse);
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
                a -> scalar(FitRequests.rateAtEnd(a)));
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
                            SecondOpinion.of(f).parameters()[FitRequests.named(a, f)],
                            FitRequests.parameter(a).unit()));
                });
        Functions.define(
                Function.of("compare", fit("fit"))
                        .repeating(0, 1)
                        .described(
                                "fits of different models to the same points",
                                "what the data say of them, in words",
                                "compare(line(index(30)^2 + sin(index(30) * 2), index(30)), "
                                        + "polynomial(index(30)^2 + sin(index(30) * 2), index(30)))",
                                "The residuals of the straight line bend. Beside the parabola the straight "
                                        + "line is ruled out."),
                a -> new Value.Words(FitRequests.compared(a).advice()));
        Functions.define(
                Function.of("likelihood_share", fit("fit"))
                        .repeating(0, 1)
                        .described(
                                "fits of different models to the same points",
                                "Akaike weight of the first among them (AICc), a pure number as exact",
                                "likelihood_share(polynomial(index(30)^2 + sin(index(30) * 2), index(30)), "
                                        + "line(index(30)^2 + sin(index(30) * 2), index(30))) > 0.999",
                                "true"),
                a -> scalar(
                        Quantity.number(FitRequests.compared(a).entries().get(0).share())));
    }
}

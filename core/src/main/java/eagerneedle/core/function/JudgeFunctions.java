package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.rows;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Value;
import eagerneedle.core.judge.Candidates;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.Percent;
import eagerneedle.core.judge.Routes;
import eagerneedle.core.judge.School;
import eagerneedle.core.judge.Target;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Comparing results with references and with each other. */
final class JudgeFunctions {
    private JudgeFunctions() {}

    static void define() {
        Functions.define(
                Function.of("percent_error", quantity("result"), quantity("reference"))
                        .described(
                                "a result and a reference of one kind",
                                "(result - reference) / |reference| in %, signed",
                                "percent_error(9.7 m/s^2, 9.81 m/s^2)",
                                "−1.121304791 %"),
                a -> scalar(Percent.error(a.quantity(0), a.quantity(1))));
        Functions.define(
                Function.of("percent_difference", quantity("a"), quantity("b"))
                        .described(
                                "two measurements of one kind",
                                "|a - b| over the mean of their sizes in %",
                                "percent_difference(9.7 V, 9.9 V)",
                                "2.040816327 %"),
                a -> scalar(Percent.difference(a.quantity(0), a.quantity(1))));
        Functions.define(
                Function.of("normalised_difference", quantity("a"), quantity("b"))
                        .described(
                                "two quantities of one kind, not both exact",
                                "(a - b) over the standard uncertainty of a - b, shared inputs cancelled; a pure "
                                        + "number as exact",
                                "normalised_difference(9.70(5) m/s^2, 9.81 m/s^2)",
                                "−2.2"),
                a -> {
                    Quantity d = a.quantity(0).minus(a.quantity(1));
                    if (d.u() == 0) {
                        throw new FormulaException(
                                a.column(),
                                "Neither value has an uncertainty of its own, so their difference cannot be "
                                        + "normalised.");
                    }
                    return scalar(Quantity.number(d.value() / d.u()));
                });
        Functions.define(
                Function.of(
                                "agree",
                                quantity("a"),
                                quantity("b"),
                                words("school").saying("standard"))
                        .described(
                                "two quantities of one kind; school: standard or limits",
                                "true or false",
                                "agree(9.70(5) m/s^2, 9.81 m/s^2)",
                                "false"),
                a -> new Value.Truth(comparison(a).agrees(school(a))));
        Functions.define(
                Function.of(
                                "verdict",
                                quantity("a"),
                                quantity("b"),
                                words("school").saying("standard"))
                        .described(
                                "a result and a reference of one kind; school: standard, limits or percent",
                                "the verdict, a sentence",
                                "verdict(9.70(5) m/s^2, 9.81 m/s^2)",
                                "9.700(50) m/s² does not agree with 9.81 m/s²: the difference −0.110 ± 0.098 "
                                        + "m/s² is 2.20 combined standard uncertainties (limit of agreement 1.96)."),
                a -> new Value.Words(comparison(a).verdict(school(a))));
        Functions.define(
                Function.of("weighted_mean", rows("column"))
                        .repeating(0, 1)
                        .described(
                                "a column, or quantities of one kind, each with an uncertainty",
                                "their mean weighted by the inverse of their covariance, same unit",
                                "weighted_mean(10.0(1) V, 10.4(2) V)",
                                "10.080(89) V"),
                a -> {
                    Routes r = routes(a);
                    Quantity mean = r.mean();
                    if (mean == null) {
                        throw new FormulaException(a.column(), r.sentence());
                    }
                    return scalar(mean);
                });
        Functions.define(
                Function.of("birge_ratio", rows("column"))
                        .repeating(0, 1)
                        .described(
                                "a column, or quantities of one kind, each with an uncertainty",
                                "square root of chi-square per degree of freedom, a pure number as exact",
                                "birge_ratio(10.0(1) V, 10.4(2) V)",
                                "1.788854382"),
                a -> {
                    Routes r = routes(a);
                    if (r.isRedundant()) {
                        throw new FormulaException(a.column(), r.sentence());
                    }
                    return scalar(Quantity.number(r.birgeRatio()));
                });
        Functions.define(
                Function.of("routes", rows("column"))
                        .repeating(0, 1)
                        .described(
                                "a column, or quantities of one kind, each with an uncertainty",
                                "whether they agree and what they give together, a sentence",
                                "routes(10.0(1) V, 10.1(2) V)",
                                "The 2 routes agree (chi-square 0.2 for 1 degree of freedom, Birge ratio 0.45); "
                                        + "together they give 10.020(89) V."),
                a -> new Value.Words(routes(a).sentence()));
        Functions.define(
                Function.of("nearest", quantity("x"), words("name"), quantity("reference"))
                        .repeating(1, 3)
                        .described(
                                "a result, then names and references of candidates",
                                "which candidate it fits, a sentence",
                                "nearest(8.50(5) kg/L, \"brass\", 8.48 kg/L, \"steel\", 7.85 kg/L)",
                                "8.500(50) kg/L fits brass best (100 % of the likelihood, 0.4 standard "
                                        + "uncertainties away)."),
                a -> {
                    Map<String, Quantity> references = new LinkedHashMap<>();
                    for (int i = 1; i + 1 < a.positional(); i += 2) {
                        references.put(a.words(i), a.quantity(i + 1));
                    }
                    return new Value.Words(
                            Candidates.of(a.quantity(0), references).sentence());
                });
        Functions.define(
                Function.of("budget", quantity("x"))
                        .described(
                                "any quantity",
                                "its influences and their shares of the variance, largest first, in words",
                                "budget(limit(10 V, 0.3 V, reason: \"drift\"))",
                                "drift 100 %"),
                a -> {
                    Quantity q = a.quantity(0);
                    List<String> parts = new ArrayList<>();
                    Budget.of(q)
                            .lines()
                            .forEach(l -> parts.add(l.label() + " " + Notation.plain(100 * l.share(), 3) + " %"));
                    return new Value.Words(
                            parts.isEmpty() ? "Nothing about it is uncertain." : String.join(", ", parts));
                });
        Functions.define(
                Function.of("target", quantity("x"), quantity("u"))
                        .described(
                                "any quantity and a standard uncertainty to reach, in a unit that fits",
                                "the cheapest way there, a sentence",
                                "target(limit(10 V, 0.3 V, reason: \"drift\"), 0.1 V)",
                                "To reach u = 0.10 V, make drift 1.7 times smaller."),
                a -> {
                    Quantity q = a.quantity(0);
                    return new Value.Words(Target.of(
                                    q,
                                    a.quantity(1).value() * a.quantity(1).unit().scaleTo(q.unit()))
                            .sentence());
                });
    }

    private static Routes routes(Arguments a) {
        List<Quantity> rows = a.rowsOrAll();
        List<String> labels = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            labels.add(
                    rows.size() > 1 && a.positional() == rows.size() && a.at(i) instanceof Expr.Name n
                            ? n.name()
                            : String.valueOf(i + 1));
        }
        return Routes.of(labels, rows);
    }

    private static Comparison comparison(Arguments a) {
        return Comparison.of("comparison", "comparison", a.quantity(0), a.quantity(1), Coverage.DEFAULT, Double.NaN);
    }

    private static School school(Arguments a) {
        return switch (a.words("school")) {
            case "standard" -> School.STANDARD;
            case "limits" -> School.LIMITS;
            case "percent" -> School.PERCENT;
            default -> throw new FormulaException(a.column(), "A school is standard, limits or percent.");
        };
    }
}

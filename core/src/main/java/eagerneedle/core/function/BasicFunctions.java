package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.number;
import static eagerneedle.core.formula.Parameter.of;
import static eagerneedle.core.formula.Parameter.quantities;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Elementary;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Parameter.Kind;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Correlated;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.MonteCarlo;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Shape;
import java.util.List;
import java.util.Locale;

/** Elementary functions, and functions that make, take apart and look into a quantity. */
final class BasicFunctions {
    private BasicFunctions() {}

    static void define() {
        for (Elementary f : Elementary.values()) {
            String name = f.name().toLowerCase(Locale.ROOT);
            boolean angle = List.of("sin", "cos", "tan").contains(name);
            boolean inverse = List.of("asin", "acos", "atan").contains(name);
            Functions.define(
                    Function.of(name, quantities("x"))
                            .withDerivative(f.derivative())
                            .described(
                                    angle ? "an angle" : "a pure number",
                                    inverse ? "an angle in rad" : "a pure number",
                                    "value(" + name + "(" + (angle ? "30 deg" : "0.5") + "))",
                                    Notation.plain(f.valueAt(angle ? Math.PI / 6 : 0.5), 10) + (inverse ? " rad" : "")),
                    a -> a.each(0, f::of));
        }
        Functions.define(
                Function.of("sqrt", quantities("x"))
                        .withDerivative("1 / (2 * sqrt(x))")
                        .described(
                                "any quantity not below zero",
                                "its unit to the power one half",
                                "sqrt(6.25 m^2)",
                                "2.5 m"),
                a -> a.each(0, q -> q.power(0.5)));
        Functions.define(
                Function.of("abs", quantities("x")).described("any quantity", "the same unit", "abs(-3 N)", "3 N"),
                a -> a.each(0, Elementary::abs));
        Functions.define(
                Function.of("atan2", quantity("y"), quantity("x"))
                        .described(
                                "two quantities of one kind",
                                "the angle of the point (x, y), -180 deg to 180 deg, in rad",
                                "atan2(1 m, 1 m)",
                                "0.7853981634 rad"),
                a -> scalar(Elementary.atan2(a.quantity(0), a.quantity(1))));
        Functions.define(
                Function.of("to", quantities("x"), words("unit"))
                        .described(
                                "a quantity and a unit that fits", "x in that unit", "to(90 km/h, \"m/s\")", "25 m/s"),
                a -> a.each(0, q -> q.to(LabUnit.parse(a.words(1)))));
        Functions.define(
                Function.of("if", of(Kind.CONDITION, "condition"), of(Kind.ANY, "a"), of(Kind.ANY, "b"))
                        .described(
                                "a comparison, or one a row, and two values",
                                "a where the condition holds, otherwise b; row by row where there are rows",
                                "if(2 mm < 1 cm, 5 V, 6 V)",
                                "5 V"),
                RowFunctions::choice);
        Functions.define(
                Function.of("value", quantities("x"))
                        .described(
                                "any quantity",
                                "its nominal value as exact, same unit",
                                "value(9.81(2) m/s^2)",
                                "9.81 m/s²"),
                a -> a.each(0, q -> Quantity.exact(q.value(), q.unit())));
        Functions.define(
                Function.of("u", quantities("x"))
                        .described(
                                "any quantity",
                                "its standard uncertainty as exact, same unit (a temperature's in K)",
                                "u(9.81(2) m/s^2)",
                                "0.02 m/s²"),
                a -> a.each(0, q -> Quantity.exact(q.u(), q.unit().difference())));
        Functions.define(
                Function.of("dof", quantity("x"))
                        .described(
                                "any quantity",
                                "effective degrees of freedom, a pure number; 1e99 when taken as known",
                                "dof(uncertain(5 V, 0.1 V, dof: 7))",
                                "7"),
                a -> scalar(Quantity.number(Math.min(1e99, a.quantity(0).dof()))));
        Functions.define(
                Function.of(
                                "expanded",
                                quantity("x"),
                                quantity("coverage").in("%").usually("95 %"))
                        .described(
                                "any quantity",
                                "expanded uncertainty k u as exact, same unit",
                                "expanded(9.81(2) m/s^2)",
                                "0.03919927969 m/s²"),
                a -> scalar(Quantity.exact(
                        coverage(a).expanded(a.quantity(0)),
                        a.quantity(0).unit().difference())));
        Functions.define(
                Function.of("correlation", quantity("x"), quantity("y"))
                        .described(
                                "two quantities",
                                "their correlation coefficient, a pure number",
                                "correlation(5.0(1) V + 0 V, 3 V)",
                                "0"),
                a -> scalar(Quantity.number(a.quantity(0).correlation(a.quantity(1)))));
        Functions.define(
                Function.of("covariance", quantity("x"), quantity("y"))
                        .described(
                                "two quantities",
                                "their covariance through shared influences as exact, in the product of their units",
                                "to(covariance(5.0(1) V, 3 V) + 0 V^2, \"V^2\")",
                                "0 V²"),
                a -> {
                    Quantity x = a.quantity(0).coherent();
                    Quantity y = a.quantity(1).coherent();
                    return scalar(Quantity.exact(x.covariance(y), x.unit().times(y.unit())));
                });
        Functions.define(
                Function.of(
                                "limit",
                                quantity("x"),
                                quantity("a"),
                                words("shape").saying("rectangular"),
                                words("reason").saying(""))
                        .described(
                                "a quantity and a largest believable error in a unit that fits; shape: "
                                        + "rectangular, triangular, arcsine, trapezoidal",
                                "x with that influence, same unit",
                                "u(limit(5 mm, 0.3 mm, reason: \"soft stop\"))",
                                "0.1732050808 mm"),
                BasicFunctions::limit);
        Functions.define(
                Function.of(
                                "uncertain",
                                quantities("x"),
                                quantity("u"),
                                number("dof").usually("1e99"),
                                words("reason").saying(""))
                        .described(
                                "a quantity, or a column of them, and a standard uncertainty in a unit that "
                                        + "fits, with its degrees of freedom",
                                "x with that influence, same unit; each row of a column with one of its own",
                                "uncertain(5 V, 20 mV, dof: 4)",
                                "5.000(20) V"),
                BasicFunctions::uncertain);
        Functions.define(
                Function.of("fresh", quantity("x"))
                        .described(
                                "any quantity",
                                "a fresh reading of x: same value and u, independent of every other use of x",
                                "u(fresh(5.0(1) mm) - fresh(5.0(1) mm))",
                                "0.1414213562 mm"),
                BasicFunctions::fresh);
        Functions.define(
                Function.of("correlated", quantity("x"), quantity("y"), number("r"))
                        .described(
                                "two quantities and their declared correlation coefficient, -1 to 1",
                                "a column of the two, correlated",
                                "u(sum(correlated(3.0(3) V, 4.0(4) V, -1)))",
                                "0.1 V"),
                BasicFunctions::correlated);
        Functions.define(
                Function.of("drawn_mean", quantity("x"))
                        .described(
                                "any quantity",
                                "mean of its Monte Carlo draws (JCGM 101) as exact, same unit",
                                "drawn_mean(value(3 V))",
                                "3 V"),
                a -> scalar(drawn(a, 0)));
        Functions.define(
                Function.of("drawn_u", quantity("x"))
                        .described(
                                "any quantity",
                                "standard deviation of its Monte Carlo draws as exact, same unit",
                                "abs(drawn_u(1.00(2) V * 2) - 0.04 V) < 1 mV",
                                "true"),
                a -> scalar(drawn(a, 1)));
        Functions.define(
                Function.of(
                                "drawn_low",
                                quantity("x"),
                                quantity("coverage").in("%").usually("95 %"))
                        .described(
                                "any quantity",
                                "lower end of the probabilistically symmetric interval of its draws, same unit",
                                "drawn_low((0.0 ± 1.0)^2) < 0.01",
                                "true"),
                a -> scalar(drawn(a, 2)));
        Functions.define(
                Function.of(
                                "drawn_high",
                                quantity("x"),
                                quantity("coverage").in("%").usually("95 %"))
                        .described(
                                "any quantity",
                                "upper end of that interval, same unit",
                                "abs(drawn_high((0.0 ± 1.0)^2) - 5.024) < 0.1",
                                "true"),
                a -> scalar(drawn(a, 3)));
    }

    private static Coverage coverage(Arguments a) {
        double p = a.quantity("coverage").in(LabUnit.ONE);
        if (!(p > 0 && p < 1)) {
            throw new FormulaException(a.column(), "A coverage lies between 0 % and 100 %, not at " + 100 * p + " %.");
        }
        return new Coverage(p);
    }

    private static Quantity drawn(Arguments a, int which) {
        Quantity q = a.quantity(0);
        MonteCarlo m = MonteCarlo.of(q, which < 2 ? Coverage.DEFAULT : coverage(a), MonteCarlo.Settings.DEFAULT);
        double v = which == 0
                ? m.mean()
                : which == 1
                        ? m.sd()
                        : which == 2 ? m.symmetric().low() : m.symmetric().high();
        return Quantity.exact(v, which == 1 ? q.unit().difference() : q.unit());
    }

    private static String reason(Arguments a, String otherwise) {
        String given = a.words("reason");
        return given.isEmpty() ? a.scope().label() + ": " + otherwise : given;
    }

    private static double inUnitOf(Quantity x, Quantity half) {
        if (half.value() < 0) {
            throw new IllegalArgumentException("An uncertainty or a limit cannot be negative; " + half + " is.");
        }
        return half.value() * half.unit().scaleTo(x.unit());
    }

    private static Value limit(Arguments a) {
        Quantity x = a.quantity(0);
        double half = inUnitOf(x, a.quantity(1));
        Shape shape = switch (a.words("shape")) {
            case "rectangular" -> Shape.of(Distribution.RECTANGULAR);
            case "triangular" -> Shape.of(Distribution.TRIANGULAR);
            case "arcsine" -> Shape.of(Distribution.ARCSINE);
            case "trapezoidal" -> Shape.trapezoidal(0.5);
            default ->
                throw new FormulaException(
                        a.column(), "A limit has the shape rectangular, triangular, arcsine or trapezoidal.");
        };
        return scalar(
                x.with(Leaf.typeB(a.id(), reason(a, "limit"), a.scope().origin(), shape), half / shape.limitFactor()));
    }

    private static Value uncertain(Arguments a) {
        double dof = a.number("dof");
        if (!(dof > 0)) {
            throw new FormulaException(a.column(), "Degrees of freedom are above zero, not " + dof + ".");
        }
        double known = dof > 1e50 ? Double.POSITIVE_INFINITY : dof;
        if (a.value(0) instanceof Value.Column column) {
            String id = a.id();
            List<Quantity> rows = new java.util.ArrayList<>();
            for (Quantity q : column.rows()) {
                rows.add(q.with(
                        Leaf.typeA(
                                id + "#" + rows.size(),
                                reason(a, "uncertainty"),
                                a.scope().origin(),
                                known),
                        inUnitOf(q, a.quantity(1))));
            }
            return new Value.Column(rows, column.labels());
        }
        Quantity x = a.quantity(0);
        return scalar(x.with(
                Leaf.typeA(a.id(), reason(a, "uncertainty"), a.scope().origin(), known), inUnitOf(x, a.quantity(1))));
    }

    private static Value fresh(Arguments a) {
        Quantity x = a.quantity(0);
        String label = x.contributions().size() == 1
                ? x.contributions().keySet().iterator().next().label()
                : a.scope().label();
        return scalar(Quantity.exact(x.value(), x.unit())
                .with(Leaf.typeA(a.id(), label, a.scope().origin(), Double.POSITIVE_INFINITY), x.u()));
    }

    private static Value correlated(Arguments a) {
        double r = a.number(2);
        String id = a.id();
        return new Value.Column(Correlated.of(
                List.of(a.quantity(0), a.quantity(1)),
                new double[][] {{1, r}, {r, 1}},
                List.of(id + "#1", id + "#2"),
                List.of(
                        a.scope().label() + ": first of two correlated",
                        a.scope().label() + ": second of two correlated")));
    }
}

package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.quantities;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.function.DoubleUnaryOperator;

/**
 * Whole numbers, remainders and lengths.
 *
 * <p>Rounding makes nothing better known: what is rounded keeps its uncertainty, and the Monte Carlo draws of it are
 * rounded each. A step is exact. A ratio within {@value #ULPS} units of its last place of a whole number is taken for
 * whole, so that 0.3 holds 0.1 three times; remainders themselves are exact (IEEE 754).
 */
final class RoundingFunctions {
    private static final int ULPS = 4;

    private RoundingFunctions() {}

    static void define() {
        rounding("floor", "the multiple of step at or below it", "floor(7.3)", "7", Math::floor);
        rounding("ceil", "the multiple of step at or above it", "ceil(7.3 mm, step: 0.5 mm)", "7.5 mm", Math::ceil);
        rounding(
                "round",
                "the nearest multiple of step, away from zero where two are as near",
                "round(2.5)",
                "3",
                x -> Math.signum(x) * Math.floor(Math.abs(x) + 0.5));
        Functions.define(
                Function.of("mod", quantities("x"), quantity("y"))
                        .described(
                                "any quantity and one of its kind above zero",
                                "what is left of x after whole multiples of y, from 0 up to y, unit of x",
                                "mod(370 deg, 360 deg)",
                                "10 °"),
                a -> a.each(0, x -> remainder(x, a.quantity(1))));
        Functions.define(
                Function.of("hypot", quantity("x"), quantity("y"))
                        .described(
                                "two quantities of one kind",
                                "the square root of x^2 + y^2, unit of x",
                                "hypot(3 m, 400 cm)",
                                "5 m"),
                a -> scalar(length(a.quantity(0), a.quantity(1))));
    }

    private static void rounding(String name, String gives, String example, String prints, DoubleUnaryOperator whole) {
        Functions.define(
                Function.of(name, quantities("x"), quantity("step").usually("1"))
                        .described(
                                "any quantity and a step above zero in a unit that fits",
                                gives + ", with the uncertainty of x, unit of x",
                                example,
                                prints),
                a -> rounded(a, name, whole));
    }

    private static Value rounded(Arguments a, String name, DoubleUnaryOperator whole) {
        Quantity step = a.quantity("step");
        return a.each(0, x -> {
            if (x.unit().isAffine()) {
                throw new ArithmeticException("Where a temperature is rounded to depends on its zero; write it in K.");
            }
            if (!x.unit().fits(step.unit())) {
                throw new ArithmeticException(
                        "%s takes a pure number, or a step in a unit that fits: %s(%s, step: 1 %s)."
                                .formatted(name, name, x.toString(), x.unit().symbol()));
            }
            if (!step.isExact()) {
                throw new ArithmeticException("A step must be exact; write value(...) around it.");
            }
            double every = above(step.in(x.unit()), "A step");
            return x.through(v -> whole.applyAsDouble(nearlyWhole(v / every)) * every, x.unit(), 1);
        });
    }

    private static double above(double v, String what) {
        if (!(v > 0)) {
            throw new ArithmeticException(what + " must be above zero.");
        }
        return v;
    }

    private static double nearlyWhole(double ratio) {
        double whole = Math.rint(ratio);
        return Math.abs(ratio - whole) <= ULPS * Math.ulp(ratio) ? whole : ratio;
    }

    private static Quantity remainder(Quantity x, Quantity y) {
        if (x.unit().isAffine() || y.unit().isAffine()) {
            throw new ArithmeticException("What is left of a temperature depends on its zero; write it in K.");
        }
        if (!x.unit().fits(y.unit())) {
            throw new ArithmeticException("mod takes two values of one kind, not " + x + " and " + y + ".");
        }
        Quantity every = y.to(x.unit());
        above(every.value(), "What mod divides by");
        double times = Math.rint((x.value() - left(x.value(), every.value())) / every.value());
        return Quantity.through(List.of(x, every), v -> left(v[0], v[1]), x.unit(), new double[] {1, -times});
    }

    private static double left(double x, double y) {
        double least = ULPS * Math.ulp(Math.max(Math.abs(x), y));
        double rest = x % y;
        double left = rest < 0 ? rest + y : rest;
        return left <= least || y - left <= least ? 0 : left;
    }

    private static Quantity length(Quantity x, Quantity y) {
        if (x.unit().isAffine() || y.unit().isAffine()) {
            throw new ArithmeticException("hypot takes no temperatures on a scale; write them in K.");
        }
        if (!x.unit().fits(y.unit())) {
            throw new ArithmeticException("hypot takes two values of one kind, not " + x + " and " + y + ".");
        }
        Quantity other = y.to(x.unit());
        double r = Math.hypot(x.value(), other.value());
        if (r == 0 && !(x.isExact() && other.isExact())) {
            throw new ArithmeticException("The uncertainty of hypot cannot be propagated where both are zero.");
        }
        return Quantity.through(List.of(x, other), v -> Math.hypot(v[0], v[1]), x.unit(), new double[] {
            r == 0 ? 0 : x.value() / r, r == 0 ? 0 : other.value() / r
        });
    }
}

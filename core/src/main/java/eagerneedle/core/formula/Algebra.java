package eagerneedle.core.formula;

import eagerneedle.core.quantity.Digits;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Syntax trees built with the rules that keep them short: nothing is added to 0, multiplied by 1, or raised to the
 * power 1.
 */
final class Algebra {
    private Algebra() {}

    /** True for a function with an elementary derivative; what others give is taken as a quantity of its own. */
    static boolean isElementary(Expr.Call c) {
        return c.arguments().size() == 1 && derivative(c.function()) != null;
    }

    private static @Nullable String derivative(String function) {
        Function f = Library.shipped().functions().get(function);
        return f == null ? null : f.derivative();
    }

    /** The derivative of an elementary function by its argument, at that argument. */
    static Expr slope(Expr.Call c) {
        return at(
                Formula.parse(Objects.requireNonNull(derivative(c.function()))).expression(),
                c.arguments().get(0).value());
    }

    /** A formula in x with something else in its place, kept short. */
    private static Expr at(Expr e, Expr x) {
        if (e instanceof Expr.Name) {
            return x;
        } else if (e instanceof Expr.Prefix p) {
            return negative(at(p.operand(), x));
        } else if (e instanceof Expr.Call c) {
            return call(c.function(), at(c.arguments().get(0).value(), x));
        } else if (e instanceof Expr.Infix i) {
            Expr a = at(i.left(), x);
            Expr b = at(i.right(), x);
            return switch (i.op()) {
                case "+" -> plus(a, b);
                case "-" -> minus(a, b);
                case "*" -> times(a, b);
                case "/" -> over(a, b);
                default -> power(a, b);
            };
        }
        return e;
    }

    static Expr number(double v) {
        String text = v == Math.rint(v) && Math.abs(v) < 1e9 ? Long.toString((long) v) : Digits.plain(v, 6);
        return v < 0 ? new Expr.Prefix("-", number(-v), 0) : new Expr.Literal(Reading.parse(text), text, 0);
    }

    /** The number that a tree is; NaN for anything with a name or a unit in it. */
    static double value(Expr e) {
        if (e instanceof Expr.Literal l) {
            return l.reading().unit().equals(LabUnit.ONE) && l.reading().u() == 0
                    ? l.reading().value()
                    : Double.NaN;
        }
        return e instanceof Expr.Prefix p && p.op().equals("-") ? -value(p.operand()) : Double.NaN;
    }

    static boolean is(Expr e, double v) {
        return value(e) == v;
    }

    static Expr plus(Expr a, Expr b) {
        if (is(a, 0)) {
            return b;
        }
        if (is(b, 0)) {
            return a;
        }
        if (!Double.isNaN(value(a) + value(b))) {
            return number(value(a) + value(b));
        }
        return b instanceof Expr.Prefix p && p.op().equals("-") ? infix("-", a, p.operand()) : infix("+", a, b);
    }

    static Expr minus(Expr a, Expr b) {
        return is(a, 0)
                ? negative(b)
                : b instanceof Expr.Prefix p && p.op().equals("-")
                        ? plus(a, p.operand())
                        : is(b, 0) ? a : infix("-", a, b);
    }

    static Expr negative(Expr a) {
        return is(a, 0)
                ? a
                : a instanceof Expr.Prefix p && p.op().equals("-") ? p.operand() : new Expr.Prefix("-", a, 0);
    }

    static Expr times(Expr a, Expr b) {
        if (is(a, 0) || is(b, 0)) {
            return number(0);
        }
        if (is(a, 1)) {
            return b;
        }
        if (is(b, 1)) {
            return a;
        }
        if (a instanceof Expr.Prefix p && p.op().equals("-")) {
            return negative(times(p.operand(), b));
        }
        if (b instanceof Expr.Prefix p && p.op().equals("-")) {
            return negative(times(a, p.operand()));
        }
        if (!Double.isNaN(value(a) * value(b))) {
            return number(value(a) * value(b));
        }
        if (a instanceof Expr.Infix d && d.op().equals("/") && is(d.left(), 1)) {
            return over(b, d.right());
        }
        if (b instanceof Expr.Infix d && d.op().equals("/") && is(d.left(), 1)) {
            return over(a, d.right());
        }
        return Double.isNaN(value(b)) ? infix("*", a, b) : times(b, a);
    }

    static Expr over(Expr a, Expr b) {
        if (is(a, 0) || is(b, 1)) {
            return a;
        }
        if (a instanceof Expr.Prefix p && p.op().equals("-")) {
            return negative(over(p.operand(), b));
        }
        return Spelling.of(a).equals(Spelling.of(b)) ? number(1) : infix("/", a, b);
    }

    static Expr power(Expr a, Expr b) {
        return is(b, 1)
                ? a
                : is(b, 0)
                        ? number(1)
                        : a instanceof Expr.Infix i && i.op().equals("^") && !Double.isNaN(value(i.right()) * value(b))
                                ? infix("^", i.left(), number(value(i.right()) * value(b)))
                                : infix("^", a, b);
    }

    static Expr call(String function, Expr argument) {
        return new Expr.Call(function, java.util.List.of(new Expr.Argument(null, argument)), 0);
    }

    private static Expr infix(String op, Expr a, Expr b) {
        return new Expr.Infix(op, a, b, 0);
    }
}

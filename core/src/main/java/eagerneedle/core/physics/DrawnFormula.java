package eagerneedle.core.physics;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.List;

/**
 * Replaces what is uncertain in a formula by values drawn for it: a written {@code 205(2) GPa}, {@code limit(x, a)},
 * {@code uncertain(x, u)}. Each draw is keyed by the formula's path and its place among the draws of that formula.
 */
final class DrawnFormula {
    private final Draws draws;
    private final String path;
    private int count;

    private DrawnFormula(Draws draws, String path) {
        this.draws = draws;
        this.path = path;
    }

    /** The formula with its draws made. */
    static Expr of(Expr e, Draws draws, String path) {
        return new DrawnFormula(draws, path).drawn(e);
    }

    /** True when something in the formula would be drawn. */
    static boolean isIn(Expr e) {
        if (e instanceof Expr.Literal l) {
            return l.reading().u() > 0;
        } else if (e instanceof Expr.Prefix p) {
            return isIn(p.operand());
        } else if (e instanceof Expr.Infix i) {
            return isIn(i.left()) || isIn(i.right());
        } else if (e instanceof Expr.Call c) {
            return isDraw(c) || c.arguments().stream().anyMatch(a -> isIn(a.value()));
        }
        return false;
    }

    /** True for a call that stands for a draw about its first argument, as wide as its second. */
    static boolean isDraw(Expr.Call c) {
        return (c.function().equals("limit") || c.function().equals("uncertain"))
                && c.arguments().size() >= 2;
    }

    private Expr drawn(Expr e) {
        if (e instanceof Expr.Literal l) {
            return literal(l);
        } else if (e instanceof Expr.Prefix p) {
            return new Expr.Prefix(p.op(), drawn(p.operand()), p.column());
        } else if (e instanceof Expr.Infix i) {
            Expr left = drawn(i.left());
            return new Expr.Infix(i.op(), left, drawn(i.right()), i.column());
        } else if (e instanceof Expr.Call c && isDraw(c)) {
            String key = path + "#" + count++;
            double k = c.function().equals("limit") ? draws.even(key) : draws.normal(key);
            Expr about = drawn(c.arguments().get(0).value());
            Expr wide = drawn(c.arguments().get(1).value());
            Expr.Literal times = number(k, LabUnit.ONE, c.column());
            return new Expr.Infix("+", about, new Expr.Infix("*", times, wide, c.column()), c.column());
        } else if (e instanceof Expr.Call c) {
            List<Expr.Argument> arguments = c.arguments().stream()
                    .map(a -> new Expr.Argument(a.name(), drawn(a.value())))
                    .toList();
            return new Expr.Call(c.function(), arguments, c.column());
        }
        return e;
    }

    private Expr literal(Expr.Literal l) {
        Reading r = l.reading();
        if (r.u() == 0) {
            return l;
        }
        return number(r.value() + drawn(r, path + "#" + count++), r.unit(), l.column());
    }

    private double drawn(Reading r, String key) {
        return of(r, draws.stream(key));
    }

    /** An error drawn as a reading says, in its unit. */
    static double of(Reading r, Draws.Stream stream) {
        return r.distribution() == Distribution.RECTANGULAR
                ? r.u() * Math.sqrt(3) * stream.even()
                : r.u() * stream.normal();
    }

    private static Expr.Literal number(double value, LabUnit unit, int column) {
        Reading exact = new Reading(value, 0, unit, Distribution.NORMAL);
        return new Expr.Literal(exact, exact.text(), column);
    }
}

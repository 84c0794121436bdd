package eagerneedle.core.formula;

import static eagerneedle.core.formula.Algebra.call;
import static eagerneedle.core.formula.Algebra.is;
import static eagerneedle.core.formula.Algebra.minus;
import static eagerneedle.core.formula.Algebra.negative;
import static eagerneedle.core.formula.Algebra.number;
import static eagerneedle.core.formula.Algebra.over;
import static eagerneedle.core.formula.Algebra.plus;
import static eagerneedle.core.formula.Algebra.power;
import static eagerneedle.core.formula.Algebra.times;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The law of propagation of a formula in symbols (JCGM 100, 5.1.2): what it rests on and how fast it changes with each.
 *
 * <p>What a formula rests on are its names, quantities written with an uncertainty, and functions that are not
 * elementary, such as the slope of a line: these have an uncertainty of their own and are taken as they are. How many
 * there are of something is no such thing: it is exact. Derivatives are found by the rules of calculus, not
 * numerically, so that they can be printed; that they give what the lineage gives is a test.
 *
 * @param terms in the order of the formula
 * @param exponents powers of the terms' names where the formula is a product of powers, for which the law is shortest
 *     in relative uncertainties; empty otherwise
 */
public record Propagation(List<Term> terms, Map<String, Double> exponents) {
    /**
     * Something that a formula rests on.
     *
     * @param of it
     * @param derivative the partial derivative of the formula by it
     */
    public record Term(Expr of, Expr derivative) {
        public String name() {
            return Spelling.of(of);
        }
    }

    public Propagation {
        terms = List.copyOf(terms);
        exponents = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(exponents));
    }

    /**
     * Finds the partial derivatives of an algebraic formula; a formula that compares or decides has none and gives no
     * terms.
     */
    public static Propagation of(Formula formula) {
        Map<String, Expr> atoms = new LinkedHashMap<>();
        atoms(formula.expression(), atoms);
        List<Term> terms = new ArrayList<>();
        for (Map.Entry<String, Expr> atom : atoms.entrySet()) {
            Expr d = by(formula.expression(), atom.getKey());
            if (d == null) {
                return new Propagation(List.of(), Map.of());
            }
            if (!is(d, 0)) {
                terms.add(new Term(atom.getValue(), d));
            }
        }
        Map<String, Double> exponents = new LinkedHashMap<>();
        boolean product = powers(formula.expression(), 1, exponents);
        exponents.values().removeIf(v -> v == 0);
        boolean worth =
                product && (exponents.size() > 1 || exponents.values().stream().anyMatch(v -> v != 1));
        return new Propagation(terms, worth ? exponents : Map.of());
    }

    /** Collects the powers of what a product holds; false when it is no product of powers. */
    private static boolean powers(Expr e, double power, Map<String, Double> into) {
        if (e instanceof Expr.Name n && Constants.has(n.name())
                || counts(e)
                || e instanceof Expr.Literal l && l.reading().u() == 0) {
            return true;
        }
        if (e instanceof Expr.Name || e instanceof Expr.Literal || opaque(e)) {
            into.merge(Spelling.of(e), power, Double::sum);
            return true;
        }
        if (e instanceof Expr.Prefix p) {
            return !p.op().equals("not") && powers(p.operand(), power, into);
        }
        if (e instanceof Expr.Infix i) {
            return switch (i.op()) {
                case "*" -> powers(i.left(), power, into) && powers(i.right(), power, into);
                case "/" -> powers(i.left(), power, into) && powers(i.right(), -power, into);
                case "^" ->
                    !Double.isNaN(Algebra.value(i.right())) && powers(i.left(), power * Algebra.value(i.right()), into);
                default -> false;
            };
        }
        return e instanceof Expr.Call c
                && c.function().equals("sqrt")
                && powers(c.arguments().get(0).value(), power / 2, into);
    }

    /**
     * {@code u(y)^2 = (derivative)^2 * u(x)^2 + ...}, in the formula language, for a result of that name; for a product
     * of powers {@code (u(y) / y)^2 = (power * u(x) / x)^2 + ...}. Empty without terms.
     */
    public String standard(String result) {
        if (!exponents.isEmpty()) {
            return "(u(" + result + ") / " + result + ")^2 = "
                    + String.join(
                            " + ",
                            exponents.entrySet().stream()
                                    .map(e -> "(" + share("u", e) + ")^2")
                                    .toList());
        }
        return terms.isEmpty()
                ? ""
                : squared("u", result) + " = "
                        + String.join(
                                " + ",
                                terms.stream()
                                        .map(t -> factor(t.derivative(), true) + squared("u", t.name()))
                                        .toList());
    }

    /** {@code a(y) = abs(derivative) * a(x) + ...}: the school of limits. */
    public String limits(String result) {
        if (!exponents.isEmpty()) {
            return "a(" + result + ") / abs(" + result + ") = "
                    + String.join(
                            " + ",
                            exponents.entrySet().stream()
                                    .map(e -> share("a", e))
                                    .toList());
        }
        return terms.isEmpty()
                ? ""
                : "a(" + result + ") = "
                        + String.join(
                                " + ",
                                terms.stream()
                                        .map(t -> factor(t.derivative(), false) + "a(" + t.name() + ")")
                                        .toList());
    }

    private static String share(String symbol, Map.Entry<String, Double> e) {
        double power = Math.abs(e.getValue());
        return (power == 1 ? "" : Spelling.of(number(power)) + " * ") + symbol + "(" + e.getKey() + ") / "
                + (symbol.equals("a") ? "abs(" + e.getKey() + ")" : e.getKey());
    }

    private static String squared(String symbol, String name) {
        return symbol + "(" + name + ")^2";
    }

    private static String factor(Expr d, boolean square) {
        Expr positive = d instanceof Expr.Prefix p && p.op().equals("-") ? p.operand() : d;
        if (is(positive, 1)) {
            return "";
        }
        boolean simple = positive instanceof Expr.Name || positive instanceof Expr.Literal;
        String s = Spelling.of(positive);
        return square ? (simple ? s : "(" + s + ")") + "^2 * " : simple ? s + " * " : "abs(" + s + ") * ";
    }

    /** A number of things, which is exact. */
    private static boolean counts(Expr e) {
        return e instanceof Expr.Call c && c.function().equals("count");
    }

    private static boolean opaque(Expr e) {
        return e instanceof Expr.Call c && !Algebra.isElementary(c);
    }

    private static void atoms(Expr e, Map<String, Expr> into) {
        if (counts(e)) {
            return;
        }
        if (e instanceof Expr.Name n && !Constants.has(n.name())
                || opaque(e)
                || e instanceof Expr.Literal l && l.reading().u() > 0) {
            into.put(Spelling.of(e), e);
        } else if (e instanceof Expr.Prefix p) {
            atoms(p.operand(), into);
        } else if (e instanceof Expr.Infix i) {
            atoms(i.left(), into);
            atoms(i.right(), into);
        } else if (e instanceof Expr.Call c) {
            c.arguments().forEach(a -> atoms(a.value(), into));
        }
    }

    /** The partial derivative by an atom; null where there is none to be written. */
    private static @Nullable Expr by(Expr e, String atom) {
        if (Spelling.of(e).equals(atom)) {
            return number(1);
        }
        if (e instanceof Expr.Literal || e instanceof Expr.Name || opaque(e)) {
            return number(0);
        }
        if (e instanceof Expr.Prefix p) {
            Expr d = by(p.operand(), atom);
            return d == null || p.op().equals("not") ? null : p.op().equals("-") ? negative(d) : d;
        }
        if (e instanceof Expr.Infix i) {
            return infix(i, by(i.left(), atom), by(i.right(), atom));
        }
        if (e instanceof Expr.Call c) {
            Expr x = c.arguments().get(0).value();
            Expr d = by(x, atom);
            return d == null ? null : times(Algebra.slope(c), d);
        }
        return null;
    }

    private static @Nullable Expr infix(Expr.Infix i, @Nullable Expr da, @Nullable Expr db) {
        if (da == null || db == null) {
            return null;
        }
        Expr a = i.left();
        Expr b = i.right();
        return switch (i.op()) {
            case "+" -> plus(da, db);
            case "-" -> minus(da, db);
            case "*" -> plus(times(da, b), times(a, db));
            case "/" -> minus(over(da, b), times(db, over(a, power(b, number(2)))));
            case "^" ->
                is(db, 0)
                        ? times(times(b, power(a, less(b))), da)
                        : plus(
                                is(da, 0) ? number(0) : times(times(b, power(a, less(b))), da),
                                times(times(i, call("ln", a)), db));
            default -> null;
        };
    }

    private static Expr less(Expr b) {
        return Double.isNaN(Algebra.value(b)) ? minus(b, number(1)) : number(Algebra.value(b) - 1);
    }
}

package eagerneedle.core.arithmetic;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Elementary;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Turns syntax trees into nodes: every value once, however often it is written, constants worked out beforehand, and
 * derivatives formed by the rules of differentiation from the same nodes, so that a value and its derivatives share
 * what they have in common.
 */
final class Compiler {
    private static final int NONE = -1;

    private final Map<String, Node> names;
    private final boolean units;
    private final List<Node> nodes = new ArrayList<>();
    private final Map<Node, Integer> known = new HashMap<>();

    /**
     * @param names the scalar or column that each name stands for
     * @param units true when all numbers are those of coherent units, so that 5 cm is 0.05
     */
    Compiler(Map<String, Node> names, boolean units) {
        this.names = names;
        this.units = units;
    }

    List<Node> nodes() {
        return nodes;
    }

    private int keep(Node n) {
        return known.computeIfAbsent(n, k -> {
            nodes.add(k);
            return nodes.size() - 1;
        });
    }

    private int constant(double v) {
        return keep(Node.constant(v));
    }

    private int literal(Reading r) {
        if (r.u() != 0 || r.unit().isAffine() || !units && !r.unit().equals(LabUnit.ONE)) {
            return NONE;
        }
        return constant(
                r.unit().equals(LabUnit.ONE) ? r.value() : r.value() * r.unit().factor());
    }

    /** Index of the value of a formula; -1 where it needs more of the language than arithmetic. */
    int value(Expr e) {
        if (e instanceof Expr.Literal l) {
            return literal(l.reading());
        } else if (e instanceof Expr.Name n) {
            Node named = names.get(n.name());
            Optional<Double> number = Constants.number(n.name());
            return named != null ? keep(named) : number.isPresent() ? constant(number.get()) : NONE;
        } else if (e instanceof Expr.Prefix p && !p.op().equals("not")) {
            int a = value(p.operand());
            return a == NONE || p.op().equals("+") ? a : step(Op.NEGATE, a, NONE);
        } else if (e instanceof Expr.Infix i) {
            Op op = arithmetic(i.op());
            int a = op == null ? NONE : value(i.left());
            int b = a == NONE ? NONE : value(i.right());
            return op == null || b == NONE ? NONE : step(op, a, b);
        } else if (e instanceof Expr.Call c) {
            return call(c);
        }
        return NONE;
    }

    private static @Nullable Op arithmetic(String sign) {
        return switch (sign) {
            case "+" -> Op.ADD;
            case "-" -> Op.SUBTRACT;
            case "*" -> Op.MULTIPLY;
            case "/" -> Op.DIVIDE;
            case "^" -> Op.POWER;
            default -> null;
        };
    }

    private int call(Expr.Call c) {
        if (c.arguments().size() != 1 || c.arguments().get(0).name() != null) {
            return NONE;
        }
        boolean root = c.function().equals("sqrt");
        Elementary f = Elementary.named(c.function());
        int a = root || f != null ? value(c.arguments().get(0).value()) : NONE;
        return a == NONE ? NONE : f == null || root ? step(Op.SQRT, a, NONE) : function(Op.FUNCTION, f, a);
    }

    private int function(Op op, Elementary f, int a) {
        Node of = nodes.get(a);
        if (of.kind() == Node.Kind.CONSTANT) {
            return constant(op == Op.FUNCTION ? f.valueAt(of.number()) : f.slopeAt(of.number()));
        }
        return keep(Node.step(op, f, a, NONE, of.rows()));
    }

    /** A step, or what is known of it without doing it. */
    private int step(Op op, int a, int b) {
        Node x = nodes.get(a);
        Node y = b == NONE ? null : nodes.get(b);
        if (x.kind() == Node.Kind.CONSTANT && (y == null || y.kind() == Node.Kind.CONSTANT)) {
            return constant(op.of(x.number(), y == null ? 0 : y.number()));
        }
        if (op == Op.POWER && y != null && y.isConstant(2)) {
            return step(Op.MULTIPLY, a, a);
        }
        if (op == Op.POWER && y != null && y.isConstant(1)) {
            return a;
        }
        return keep(Node.step(op, null, a, b, x.rows() || y != null && y.rows()));
    }

    /**
     * Index of the derivative of a value by an input.
     *
     * @param done derivatives by the same input that were formed already
     */
    int derivative(int of, Node by, Map<Integer, Integer> done) {
        Integer before = done.get(of);
        if (before == null) {
            before = differentiated(of, by, done);
            done.put(of, before);
        }
        return before;
    }

    private int differentiated(int of, Node by, Map<Integer, Integer> done) {
        Node n = nodes.get(of);
        if (n.kind() != Node.Kind.STEP) {
            return constant(n.equals(by) ? 1 : 0);
        }
        int da = derivative(n.a(), by, done);
        int db = n.b() == NONE ? constant(0) : derivative(n.b(), by, done);
        return switch (n.does()) {
            case ADD -> sum(da, db);
            case SUBTRACT -> difference(da, db);
            case NEGATE -> difference(constant(0), da);
            case MULTIPLY -> sum(product(da, n.b()), product(n.a(), db));
            case DIVIDE -> isZero(da) && isZero(db) ? da : step(Op.DIVIDE, difference(da, product(of, db)), n.b());
            case SQRT -> chain(da, step(Op.DIVIDE, constant(0.5), of));
            case FUNCTION -> n.of().isSmooth() ? product(da, slope(n, of)) : chain(da, slope(n, of));
            case POWER -> sum(chain(da, byBase(n)), chain(db, byExponent(n, of)));
            case CHAIN, SLOPE -> throw new IllegalStateException("derivatives are formed once");
        };
    }

    /** The exponential is its own slope; that of others is computed beside them. */
    private int slope(Node n, int of) {
        return n.of() == Elementary.EXP ? of : function(Op.SLOPE, n.of(), n.a());
    }

    private int byBase(Node n) {
        Node p = nodes.get(n.b());
        if (p.isConstant(0)) {
            return constant(0);
        }
        int less = p.kind() == Node.Kind.CONSTANT ? constant(p.number() - 1) : step(Op.SUBTRACT, n.b(), constant(1));
        return step(Op.MULTIPLY, n.b(), step(Op.POWER, n.a(), less));
    }

    private int byExponent(Node n, int of) {
        return step(Op.MULTIPLY, of, function(Op.FUNCTION, Elementary.LN, n.a()));
    }

    private boolean isZero(int a) {
        return nodes.get(a).isConstant(0);
    }

    private int sum(int a, int b) {
        return isZero(a) ? b : isZero(b) ? a : step(Op.ADD, a, b);
    }

    private int difference(int a, int b) {
        return isZero(b) ? a : isZero(a) ? step(Op.NEGATE, b, NONE) : step(Op.SUBTRACT, a, b);
    }

    private int product(int a, int b) {
        if (isZero(a) || isZero(b)) {
            return constant(0);
        }
        return nodes.get(a).isConstant(1) ? b : nodes.get(b).isConstant(1) ? a : step(Op.MULTIPLY, a, b);
    }

    private int chain(int derivative, int slope) {
        if (isZero(derivative)) {
            return derivative;
        }
        return nodes.get(derivative).kind() == Node.Kind.CONSTANT
                ? product(derivative, slope)
                : step(Op.CHAIN, derivative, slope);
    }
}

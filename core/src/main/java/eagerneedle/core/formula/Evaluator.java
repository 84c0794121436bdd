package eagerneedle.core.formula;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.core.trace.Pointwise;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.BinaryOperator;
import org.hipparchus.exception.MathRuntimeException;

/**
 * Evaluates a syntax tree in a scope. Operators work element by element on columns. Whatever goes wrong below is told
 * with the column of the part of the formula it happened in.
 */
public final class Evaluator {
    private final Scope scope;
    private int counter;

    Evaluator(Scope scope) {
        this.scope = scope;
    }

    Scope scope() {
        return scope;
    }

    /** An id for something that this formula creates: the same for the same formula, different for each part of it. */
    String freshId() {
        return scope.origin() + "/" + counter++;
    }

    Value evaluate(Expr e) {
        try {
            Value v = switch (kind(e)) {
                case 0 -> literal((Expr.Literal) e);
                case 1 -> new Value.Words(((Expr.Text) e).text());
                case 2 -> name((Expr.Name) e);
                case 3 -> prefix((Expr.Prefix) e);
                case 4 -> infix((Expr.Infix) e);
                default -> Calls.call(this, (Expr.Call) e);
            };
            if (v instanceof Value.Scalar s
                    && !(Double.isFinite(s.quantity().value())
                            && Double.isFinite(s.quantity().u()))) {
                throw new FormulaException(e.column(), "'" + Spelling.of(e) + "' has no finite value.");
            }
            return v;
        } catch (FormulaException known) {
            throw known;
        } catch (MathRuntimeException numerical) {
            throw new FormulaException(
                    e.column(), "'" + Spelling.of(e) + "' cannot be computed with these numbers.", numerical);
        } catch (IllegalArgumentException | ArithmeticException bad) {
            throw new FormulaException(e.column(), String.valueOf(bad.getMessage()), bad);
        }
    }

    private static int kind(Expr e) {
        return e instanceof Expr.Literal
                ? 0
                : e instanceof Expr.Text
                        ? 1
                        : e instanceof Expr.Name ? 2 : e instanceof Expr.Prefix ? 3 : e instanceof Expr.Infix ? 4 : 5;
    }

    private Value literal(Expr.Literal l) {
        return new Value.Scalar(l.reading().toQuantity(freshId(), scope.label() + ": " + l.text(), scope.origin()));
    }

    private Value name(Expr.Name n) {
        if (n.name().equals("none")) {
            return new Value.None();
        }
        Value v = scope.lookup(n.name())
                .or(() -> Constants.of(n.name()).map(Value.Scalar::new))
                .orElse(null);
        if (v == null) {
            throw new FormulaException(
                    n.column(), "The name " + n.name() + " is not known" + NearName.hint(n.name(), known()));
        }
        return v;
    }

    private Set<String> known() {
        Set<String> known = new LinkedHashSet<>(scope.names());
        known.addAll(Constants.names());
        return known;
    }

    private Value prefix(Expr.Prefix p) {
        Value v = evaluate(p.operand());
        if (v instanceof Value.None || v instanceof Value.Undecided) {
            return v;
        }
        return switch (p.op()) {
            case "not" -> Logic.not(v, p.operand());
            case "-" -> each(v, p.operand(), Quantity::negate);
            default -> each(v, p.operand(), q -> q);
        };
    }

    private Value infix(Expr.Infix i) {
        if (i.op().equals("and") || i.op().equals("or")) {
            return Logic.joined(i, evaluate(i.left()), () -> evaluate(i.right()));
        }
        Value a = evaluate(i.left());
        Value b = evaluate(i.right());
        boolean compares = Logic.compares(i.op());
        if (a instanceof Value.None || b instanceof Value.None) {
            return compares ? new Value.Undecided() : new Value.None();
        }
        if (compares && (a instanceof Value.Signal || b instanceof Value.Signal)) {
            throw new FormulaException(
                    i.column(),
                    "A trace is not compared sample by sample; ask for its max(...), mean(...) or crossings(...).");
        }
        if (compares) {
            Value difference = pairwise(a, b, i, Quantity::minus);
            return difference instanceof Value.Column c
                    ? new Value.Truths(
                            c.rows().stream()
                                    .map(q -> Logic.holds(i.op(), q.value()))
                                    .toList(),
                            c.labels())
                    : new Value.Truth(Logic.holds(i.op(), scalar(difference, i).value()));
        }
        return switch (i.op()) {
            case "+" -> pairwise(a, b, i, Quantity::plus);
            case "-" -> pairwise(a, b, i, Quantity::minus);
            case "*" -> pairwise(a, b, i, Quantity::times);
            case "/" -> pairwise(a, b, i, Quantity::dividedBy);
            default -> pairwise(a, b, i, (x, y) -> Elementary.power(x, y));
        };
    }

    private Value pairwise(Value a, Value b, Expr.Infix at, BinaryOperator<Quantity> op) {
        try {
            if (a instanceof Value.Signal || b instanceof Value.Signal) {
                return Signals.of(this, a, b, at, op);
            }
            if (a instanceof Value.Column x && b instanceof Value.Column y) {
                RowPairs pairs =
                        RowPairs.of(x.rows().size(), x.labels(), y.rows().size(), y.labels(), at.column());
                List<Quantity> out = new ArrayList<>();
                for (int k = 0; k < pairs.left().length; k++) {
                    out.add(op.apply(x.rows().get(pairs.left()[k]), y.rows().get(pairs.right()[k])));
                }
                return new Value.Column(out, pairs.labels());
            }
            if (a instanceof Value.Column x) {
                Quantity y = scalar(b, at.right());
                return new Value.Column(
                        x.rows().stream().map(q -> op.apply(q, y)).toList(), x.labels());
            }
            if (b instanceof Value.Column y) {
                Quantity x = scalar(a, at.left());
                return new Value.Column(
                        y.rows().stream().map(q -> op.apply(x, q)).toList(), y.labels());
            }
            return new Value.Scalar(op.apply(scalar(a, at.left()), scalar(b, at.right())));
        } catch (UnitException e) {
            throw new FormulaException(
                    at.column(),
                    "In '" + Spelling.of(at) + "': "
                            + Character.toLowerCase(e.getMessage().charAt(0))
                            + e.getMessage().substring(1),
                    e);
        }
    }

    Value each(Value v, Expr at, java.util.function.UnaryOperator<Quantity> op) {
        if (v instanceof Value.Signal s) {
            return new Value.Signal(Pointwise.of(Spelling.of(at), Signals.whole(s, at), op));
        }
        if (v instanceof Value.Column c) {
            return new Value.Column(c.rows().stream().map(op).toList(), c.labels());
        }
        return new Value.Scalar(op.apply(scalar(v, at)));
    }

    static Quantity scalar(Value v, Expr at) {
        if (v instanceof Value.Scalar s) {
            return s.quantity();
        }
        absent(v, at);
        throw new FormulaException(at.column(), "One quantity is needed here, not " + v.described() + ".");
    }

    /** Where something is absent, whoever needs it has nothing. */
    static void absent(Value v, Expr at) {
        if (v instanceof Value.None || v instanceof Value.Undecided) {
            throw new AbsentException(at.column());
        }
    }

    public static boolean truth(Value v, Expr at) {
        if (v instanceof Value.Truth t) {
            return t.holds();
        }
        absent(v, at);
        if (v instanceof Value.Truths) {
            throw new FormulaException(
                    at.column(),
                    "One comparison is needed here, not " + v.described() + "; ask for all(...) or any(...) of them.");
        }
        throw new FormulaException(at.column(), "A comparison is needed here, not " + v.described() + ".");
    }

    public static double pureNumber(Quantity q, Expr at, String what) {
        if (!q.unit().isDimensionless()) {
            throw new FormulaException(at.column(), what + " must be a pure number, not " + q + ".");
        }
        return q.in(LabUnit.ONE);
    }
}

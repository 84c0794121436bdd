package eagerneedle.core.formula;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;

/**
 * Comparisons and what joins them, row by row where there are rows, in three values: what rests on something absent is
 * undecided unless the rest decides it (Kleene).
 */
final class Logic {
    private Logic() {}

    static boolean compares(String op) {
        return switch (op) {
            case "<", "<=", ">", ">=", "==", "!=" -> true;
            default -> false;
        };
    }

    static boolean holds(String op, double difference) {
        return switch (op) {
            case "<" -> difference < 0;
            case "<=" -> difference <= 0;
            case ">" -> difference > 0;
            case ">=" -> difference >= 0;
            case "==" -> difference == 0;
            default -> difference != 0;
        };
    }

    static Value not(Value v, Expr at) {
        if (v instanceof Value.Truths t) {
            return new Value.Truths(t.rows().stream().map(b -> !b).toList(), t.labels());
        }
        return new Value.Truth(!Evaluator.truth(v, at));
    }

    /** The left side, and the right one where the left has not decided. */
    static Value joined(Expr.Infix i, Value left, Supplier<Value> right) {
        boolean and = i.op().equals("and");
        if (left instanceof Value.Truth t && t.holds() != and) {
            return left;
        }
        Value other = right.get();
        if (left instanceof Value.Truths || other instanceof Value.Truths) {
            return rows(i, and, left, other);
        }
        if (undecided(left) || undecided(other)) {
            boolean decided = other instanceof Value.Truth t && t.holds() != and;
            return decided ? other : new Value.Undecided();
        }
        boolean a = Evaluator.truth(left, i.left());
        boolean b = Evaluator.truth(other, i.right());
        return new Value.Truth(and ? a && b : a || b);
    }

    private static boolean undecided(Value v) {
        return v instanceof Value.Undecided || v instanceof Value.None;
    }

    private static Value rows(Expr.Infix i, boolean and, Value left, Value right) {
        if (undecided(left) || undecided(right)) {
            return new Value.Undecided();
        }
        if (left instanceof Value.Truths a && right instanceof Value.Truths b) {
            RowPairs pairs = RowPairs.of(a.rows().size(), a.labels(), b.rows().size(), b.labels(), i.column());
            List<Boolean> out = new ArrayList<>();
            for (int k = 0; k < pairs.left().length; k++) {
                boolean x = a.rows().get(pairs.left()[k]);
                boolean y = b.rows().get(pairs.right()[k]);
                out.add(and ? x && y : x || y);
            }
            return new Value.Truths(out, pairs.labels());
        }
        boolean rowsLeft = left instanceof Value.Truths;
        Value.Truths rows = (Value.Truths) (rowsLeft ? left : right);
        boolean one = Evaluator.truth(rowsLeft ? right : left, rowsLeft ? i.right() : i.left());
        return new Value.Truths(
                rows.rows().stream().map(x -> and ? x && one : x || one).toList(), rows.labels());
    }
}

package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.column;
import static eagerneedle.core.formula.Parameter.of;
import static eagerneedle.core.formula.Parameter.words;

import eagerneedle.core.formula.AlignedRows;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Evaluator;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Parameter.Kind;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** Rows that are chosen, put in order, compared with their neighbours, or absent. */
final class RowFunctions {
    private RowFunctions() {}

    static void define() {
        Functions.define(
                Function.of("where", column("column"), of(Kind.CONDITION, "condition"))
                        .described(
                                "a column, and a comparison for each of its rows",
                                "the rows for which it holds, same unit",
                                "where(column(1 V, 2 V, 3 V), column(10, 20, 30) > 15)",
                                "2 V, 3 V"),
                RowFunctions::where);
        Functions.define(
                Function.of("sorted", column("column"), column("by"))
                        .described(
                                "two columns",
                                "the rows of the first in the order in which the second rises",
                                "sorted(column(1 V, 2 V, 3 V), by: column(30, 10, 20))",
                                "2 V, 3 V, 1 V"),
                RowFunctions::sorted);
        Functions.define(
                Function.of("difference", column("column"))
                        .described(
                                "a column of two rows or more",
                                "each row less the one before, one row less",
                                "difference(column(1 V, 4 V, 9 V))",
                                "3 V, 5 V"),
                RowFunctions::difference);
        Functions.define(
                Function.of("members", words("set"), words("member"), of(Kind.ANY, "value"))
                        .repeating(1, 3)
                        .described(
                                "the name of a set, and for each of its members its name and a value or a column",
                                "all in one column, its rows labelled; a sheet writes the name of a family instead",
                                "members('side', 'before', 1 V, 'after', 2 V)",
                                "1 V, 2 V"),
                RowFunctions::members);
        Functions.define(
                Function.of("known", of(Kind.ANY, "x"))
                        .described("any value", "true unless it is none", "known(none)", "false"),
                a -> new Value.Truth(!isAbsent(a.value(0))));
        Functions.define(
                Function.of("all", of(Kind.CONDITION, "condition"))
                        .described(
                                "a comparison for each row",
                                "true when it holds for every row",
                                "all(column(1, 2, 3) > 1)",
                                "false"),
                a -> every(a, true));
        Functions.define(
                Function.of("any", of(Kind.CONDITION, "condition"))
                        .described(
                                "a comparison for each row",
                                "true when it holds for one row or more",
                                "any(column(1, 2, 3) > 1)",
                                "true"),
                a -> every(a, false));
    }

    private static boolean isAbsent(Value v) {
        return v instanceof Value.None || v instanceof Value.Undecided;
    }

    private static Value every(Arguments a, boolean all) {
        if (a.value(0) instanceof Value.Truths t) {
            return new Value.Truth(all ? !t.rows().contains(false) : t.rows().contains(true));
        }
        return isAbsent(a.value(0)) ? new Value.Undecided() : new Value.Truth(Evaluator.truth(a.value(0), a.at(0)));
    }

    private static Value where(Arguments a) {
        Value.Column column = a.column(0);
        if (!(a.value(1) instanceof Value.Truths t)) {
            return Evaluator.truth(a.value(1), a.at(1)) ? column : some(column, List.of());
        }
        AlignedRows rows = AlignedRows.of(column, t.rows().size(), t.labels(), a.at(1));
        return some(
                column,
                IntStream.range(0, rows.size())
                        .filter(k -> t.rows().get(rows.right(k)))
                        .map(rows::left)
                        .boxed()
                        .toList());
    }

    private static Value members(Arguments a) {
        List<Quantity> out = new ArrayList<>();
        List<RowLabels.Row> labels = new ArrayList<>();
        String capture = "";
        List<String> levels = List.of();
        for (int i = 1; i < a.positional(); i += 2) {
            RowLabels.Row member = RowLabels.Row.member(a.words(0), a.words(i));
            Value v = a.value(i + 1);
            if (isAbsent(v)) {
                continue;
            }
            boolean column = v instanceof Value.Column;
            List<Quantity> rows = column ? ((Value.Column) v).rows() : List.of(a.quantity(i + 1));
            RowLabels own = column ? ((Value.Column) v).labels() : null;
            for (int k = 0; k < rows.size(); k++) {
                if (!out.isEmpty() && !rows.get(k).unit().fits(out.get(0).unit())) {
                    throw new FormulaException(
                            a.at(i + 1).column(), rows.get(k) + " does not go in a column with " + out.get(0) + ".");
                }
                out.add(rows.get(k));
                // Rows that nobody named are told apart by their number within the member.
                RowLabels.Row row = own != null
                        ? own.rows().get(k)
                        : column ? RowLabels.Row.member("row", Integer.toString(k + 1)) : member;
                labels.add(row.with(member));
            }
            if (own != null && !own.capture().isEmpty()) {
                capture = own.capture();
                levels = own.levels();
            }
        }
        return new Value.Column(out, new RowLabels(capture, labels, levels));
    }

    private static Value.Column some(Value.Column column, List<Integer> which) {
        return new Value.Column(
                which.stream().map(column.rows()::get).toList(),
                column.labels() == null ? null : column.labels().only(which));
    }

    private static Value sorted(Arguments a) {
        Value.Column column = a.column(0);
        Value.Column by = a.column(1);
        AlignedRows rows = AlignedRows.of(column, by.rows().size(), by.labels(), a.at(1));
        List<Integer> pairs =
                new ArrayList<>(IntStream.range(0, rows.size()).boxed().toList());
        pairs.sort(Comparator.comparingDouble(k -> by.rows().get(rows.right(k)).value()));
        return some(column, pairs.stream().map(rows::left).toList());
    }

    private static Value difference(Arguments a) {
        List<Quantity> rows = a.rows(0);
        if (rows.size() < 2) {
            throw new FormulaException(a.at(0).column(), "A difference of neighbours needs two rows or more.");
        }
        return new Value.Column(IntStream.range(1, rows.size())
                .mapToObj(i -> rows.get(i).minus(rows.get(i - 1)))
                .toList());
    }

    /** One way or the other; the one that is not taken is not looked at. */
    static Value choice(Arguments a) {
        if (!(a.value(0) instanceof Value.Truths t)) {
            boolean holds = Evaluator.truth(a.value(0), a.at(0));
            a.pass(holds ? 2 : 1);
            return holds ? a.value(1) : a.value(2);
        }
        List<Quantity> out = new ArrayList<>();
        List<Integer> which = new ArrayList<>();
        for (int i = 0; i < t.rows().size(); i++) {
            int way = t.rows().get(i) ? 1 : 2;
            Quantity q = taken(a, way, t, i);
            if (q != null) {
                out.add(q);
                which.add(i);
            }
        }
        a.pass(1);
        a.pass(2);
        return new Value.Column(out, t.labels() == null ? null : t.labels().only(which));
    }

    private static @Nullable Quantity taken(Arguments a, int way, Value.Truths t, int row) {
        Value v = a.value(way);
        if (isAbsent(v)) {
            return null;
        }
        if (v instanceof Value.Column c) {
            AlignedRows rows = AlignedRows.of(c, t.rows().size(), t.labels(), a.at(way));
            for (int k = 0; k < rows.size(); k++) {
                if (rows.right(k) == row) {
                    return c.rows().get(rows.left(k));
                }
            }
            return null;
        }
        return a.quantity(way);
    }
}

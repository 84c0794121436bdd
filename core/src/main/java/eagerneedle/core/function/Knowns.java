package eagerneedle.core.function;

import eagerneedle.core.formula.AlignedRows;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What the names of a fitted formula stand for, but for what is to be found: quantities, alike at every point, and
 * columns with one a point. All come with their lineage.
 *
 * @param held quantities by name
 * @param columns n values each, by name
 * @param points numbers of the rows of the ordinate that have a partner in every column
 */
record Knowns(Map<String, Quantity> held, Map<String, List<Quantity>> columns, List<Integer> points) {
    /**
     * Of a formula fitted to a column.
     *
     * @param own names that mean something in the fit itself
     * @throws FormulaException for a name that nobody knows
     */
    static Knowns ofColumn(Arguments a, Formula model, Set<String> own, Value.Column y, Expr at) {
        Map<String, Quantity> held = new LinkedHashMap<>();
        Map<String, Value.Column> found = new LinkedHashMap<>();
        for (String name : names(model, own)) {
            Value v = known(a, name, own, at);
            if (v instanceof Value.Scalar s) {
                held.put(name, s.quantity());
            } else if (v instanceof Value.Column c) {
                found.put(name, c);
            } else if (v != null) {
                throw new FormulaException(
                        at.column(), name + " is " + v.described() + "; beside a column it cannot be used.");
            }
        }
        List<Integer> points = new ArrayList<>();
        Map<String, List<@Nullable Quantity>> beside = new LinkedHashMap<>();
        found.forEach((name, c) -> {
            List<@Nullable Quantity> rows = new ArrayList<>();
            y.rows().forEach(q -> rows.add(null));
            AlignedRows pairs = AlignedRows.of(y, c.rows().size(), c.labels(), at);
            for (int k = 0; k < pairs.size(); k++) {
                rows.set(pairs.left(k), c.rows().get(pairs.right(k)));
            }
            beside.put(name, rows);
        });
        for (int i = 0; i < y.rows().size(); i++) {
            int row = i;
            if (beside.values().stream().allMatch(rows -> rows.get(row) != null)) {
                points.add(i);
            }
        }
        Map<String, List<Quantity>> columns = new LinkedHashMap<>();
        beside.forEach((name, rows) ->
                columns.put(name, List.copyOf(points.stream().map(rows::get).toList())));
        return new Knowns(held, columns, points);
    }

    /** Of a formula fitted to the samples of a trace; other traces are taken at their moments. */
    static Knowns ofTrace(Arguments a, Formula model, Set<String> own, Trace y, Expr at) {
        Map<String, Quantity> held = new LinkedHashMap<>();
        Map<String, List<Quantity>> columns = new LinkedHashMap<>();
        for (String name : names(model, own)) {
            Value v = known(a, name, own, at);
            if (v instanceof Value.Scalar s) {
                held.put(name, s.quantity());
            } else if (v instanceof Value.Signal s) {
                columns.put(name, at(s.trace(), y.time(), name, at));
            } else if (v != null) {
                throw new FormulaException(
                        at.column(), name + " is " + v.described() + "; beside a trace it cannot be used.");
            }
        }
        List<Integer> points = new ArrayList<>();
        for (int i = 0; i < y.size(); i++) {
            points.add(i);
        }
        return new Knowns(held, columns, points);
    }

    private static Set<String> names(Formula model, Set<String> own) {
        Set<String> names = new LinkedHashSet<>(model.names());
        names.removeAll(own);
        names.remove("none");
        return names;
    }

    private static @Nullable Value known(Arguments a, String name, Set<String> own, Expr at) {
        Value v = a.scope().lookup(name).orElse(null);
        if (v == null && !Constants.has(name)) {
            Set<String> all = new LinkedHashSet<>(own);
            all.addAll(a.scope().names());
            throw new FormulaException(
                    at.column(),
                    "The name " + name + " in the model is not known" + NearName.hint(name, all)
                            + " What is to be found is declared: find: '" + name + " = 1'.");
        }
        return v;
    }

    private static List<Quantity> at(Trace driver, double[] time, String name, Expr at) {
        if (driver.size() == 0
                || driver.time()[0] > time[0] + driver.interval()
                || driver.time()[driver.size() - 1] < time[time.length - 1] - driver.interval()) {
            throw new FormulaException(
                    at.column(), "The trace " + name + " does not cover the time over which the model is fitted.");
        }
        List<Quantity> out = new ArrayList<>();
        for (double t : time) {
            out.add(driver.at(t));
        }
        return out;
    }

    LabUnit unit(String name) {
        Quantity q = held.get(name);
        List<Quantity> column = columns.get(name);
        if (q == null && column == null) {
            throw new IllegalArgumentException("Nothing is known of " + name + ".");
        }
        return q != null ? q.unit() : Objects.requireNonNull(column).get(0).unit();
    }
}

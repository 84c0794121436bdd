package eagerneedle.core.function;

import eagerneedle.core.arithmetic.Program;
import eagerneedle.core.fit.Curve;
import eagerneedle.core.fit.NumberedCurve;
import eagerneedle.core.fit.Points;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A formula in which some names are known and others are to be found, as a curve over numbered points, with its
 * derivatives by everything: by the parameters, for the fit, and by what is known, for the lineage of what was found.
 *
 * <p>As in {@link UnitCurve} a compiled program is used where it says the same as the language at several points.
 */
final class KnownCurve implements NumberedCurve, Known {
    private static final int PROBES = 5;
    private static final double SAME = 1e-9;

    private final Formula model;
    private final List<String> names = new ArrayList<>();
    private final List<LabUnit> units = new ArrayList<>();
    private final int parameters;
    private final int heldCount;
    private final double[] held;
    /** The abscissa first, then the known columns; n values each, in their own units. */
    private final double[][] columns;

    private final LabUnit y;
    private final List<Leaf> leaves = new ArrayList<>();
    private final Optional<Program> program;
    private double @Nullable [][] derivatives;
    private double @Nullable [] derivativesAt;

    /** @param abscissa what the abscissa is called in the model */
    KnownCurve(Formula model, Map<String, Quantity> start, String abscissa, Points points, Knowns knowns) {
        this.model = model;
        this.parameters = start.size();
        this.heldCount = knowns.held().size();
        start.forEach((n, q) -> add(n, q.unit()));
        knowns.held().forEach((n, q) -> add(n, q.unit()));
        add(abscissa, points.xUnit());
        knowns.columns().keySet().forEach(n -> add(n, knowns.unit(n)));
        this.held = knowns.held().values().stream().mapToDouble(Quantity::value).toArray();
        this.columns = new double[1 + knowns.columns().size()][];
        columns[0] = points.xValues();
        int c = 1;
        for (Map.Entry<String, List<Quantity>> e : knowns.columns().entrySet()) {
            LabUnit unit = knowns.unit(e.getKey());
            columns[c++] = e.getValue().stream().mapToDouble(q -> q.in(unit)).toArray();
        }
        this.y = points.yUnit();
        // What cannot be worked out at the start is a mistake; on the way it is only no value.
        double[] first = start.values().stream().mapToDouble(Quantity::value).toArray();
        for (int i = 0; i < columns[0].length; i++) {
            try {
                careful(i, columns[0][i], first);
            } catch (FormulaException e) {
                throw new FormulaException(
                        e.column(),
                        "The model has no value at point " + (i + 1) + ", where " + abscissa + " is "
                                + Quantity.exact(columns[0][i], points.xUnit()) + ": "
                                + String.valueOf(e.getMessage()).replaceFirst("\\(\\d+\\)", ""),
                        e);
            }
        }
        int scalars = parameters + heldCount;
        Optional<Program> compiled = Program.inCoherentUnits(
                model.expression(), names.subList(0, scalars), names.subList(scalars, names.size()));
        this.program = compiled.filter(p ->
                agrees(p, start.values().stream().mapToDouble(Quantity::value).toArray()));
    }

    private void add(String name, LabUnit unit) {
        names.add(name);
        units.add(unit);
        leaves.add(Leaf.typeA("by:" + name, name, "fit", Double.POSITIVE_INFINITY));
    }

    private boolean agrees(Program p, double[] start) {
        double[] moved = new double[start.length];
        for (int k = 0; k < start.length; k++) {
            moved[k] = start[k] == 0 ? 0.21 + 0.1 * k : start[k] * (1.13 + 0.03 * k);
        }
        int n = columns[0].length;
        int finite = 0;
        for (double[] at : List.of(start, moved)) {
            for (int i = 0; i < n; i += Math.max(1, n / PROBES)) {
                double[] fast = fast(p, i, i + 1, columns, at)[0];
                double[] slow;
                try {
                    slow = careful(i, columns[0][i], at);
                } catch (FormulaException e) {
                    return false;
                }
                if (Double.isFinite(slow[0]) != Double.isFinite(fast[0])) {
                    return false;
                }
                for (int k = 0; k < slow.length && Double.isFinite(slow[0]); k++) {
                    if (Math.abs(slow[k] - fast[k]) > SAME * Math.max(Math.abs(slow[k]), Math.abs(fast[k]))) {
                        return false;
                    }
                }
                finite += Double.isFinite(slow[0]) ? 1 : 0;
            }
        }
        return finite > 1;
    }

    /** Through the language: value, then derivatives by everything. */
    private double[] careful(int point, double x, double[] at) {
        Map<String, Value> seen = new HashMap<>();
        for (int k = 0; k < names.size(); k++) {
            double v = k < parameters
                    ? at[k]
                    : k < parameters + heldCount
                            ? held[k - parameters]
                            : k == parameters + heldCount ? x : columns[k - parameters - heldCount][point];
            seen.put(names.get(k), new Value.Scalar(Quantity.of(v, 1, units.get(k), leaves.get(k))));
        }
        if (!(model.evaluate(Scope.over("fit", seen)) instanceof Value.Scalar s)) {
            throw new FormulaException(1, "A model gives one quantity at each point.");
        }
        Quantity q = s.quantity().to(y);
        double[] out = new double[1 + names.size()];
        out[0] = q.value();
        for (int k = 0; k < names.size(); k++) {
            out[1 + k] = q.contribution(leaves.get(k));
        }
        return out;
    }

    /** By the program: a row for each point from one up to another. */
    private double[][] fast(Program p, int from, int to, double[][] data, double[] at) {
        int n = to - from;
        int scalars = parameters + heldCount;
        double[] s = new double[scalars];
        for (int k = 0; k < scalars; k++) {
            s[k] = coherent(units.get(k), k < parameters ? at[k] : held[k - parameters]);
        }
        double[][] c = new double[data.length][n];
        for (int k = 0; k < data.length; k++) {
            for (int i = 0; i < n; i++) {
                c[k][i] = coherent(units.get(scalars + k), data[k][from + i]);
            }
        }
        double[][] out = new double[1 + names.size()][n];
        p.run(s, c, 0, n, out);
        double[][] rows = new double[n][1 + names.size()];
        for (int i = 0; i < n; i++) {
            rows[i][0] = y.coherent().convert(out[0][i], y);
            for (int k = 0; k < names.size(); k++) {
                rows[i][1 + k] = out[1 + k][i] * units.get(k).factor() / y.factor();
            }
        }
        return rows;
    }

    private static double coherent(LabUnit unit, double v) {
        return unit.convert(v, unit.coherent());
    }

    private double[] row(int point, double x, double[] at) {
        if (program.isEmpty()) {
            try {
                return careful(point, x, at);
            } catch (FormulaException e) {
                double[] nothing = new double[1 + names.size()];
                java.util.Arrays.fill(nothing, Double.NaN);
                return nothing;
            }
        }
        double[][] one = new double[columns.length][];
        for (int k = 0; k < columns.length; k++) {
            one[k] = new double[] {k == 0 ? x : columns[k][point]};
        }
        return fast(program.get(), 0, 1, one, at)[0];
    }

    @Override
    public double at(int point, double x, double[] at, double[] gradient) {
        double[] row = row(point, x, at);
        System.arraycopy(row, 1, gradient, 0, parameters);
        gradient[parameters] = row[1 + parameters + heldCount];
        return row[0];
    }

    @Override
    public void all(
            double[] x, double[] at, double[] value, double @Nullable [][] byParameter, double @Nullable [] byX) {
        double[][] rows = rows(at);
        for (int i = 0; i < x.length; i++) {
            value[i] = rows[i][0];
            for (int k = 0; k < parameters && byParameter != null; k++) {
                byParameter[k][i] = rows[i][1 + k];
            }
            if (byX != null) {
                byX[i] = rows[i][1 + parameters + heldCount];
            }
        }
    }

    @Override
    public double[] effect(double[] at, double[] ofHeld, double[][] ofColumns) {
        if (derivatives == null || !java.util.Arrays.equals(at, derivativesAt)) {
            derivatives = rows(at);
            derivativesAt = at.clone();
        }
        double[] out = new double[columns[0].length];
        for (int i = 0; i < out.length; i++) {
            for (int k = 0; k < ofHeld.length; k++) {
                out[i] += derivatives[i][1 + parameters + k] * ofHeld[k];
            }
            for (int k = 0; k < ofColumns.length; k++) {
                out[i] += derivatives[i][2 + parameters + heldCount + k] * ofColumns[k][i];
            }
        }
        return out;
    }

    private double[][] rows(double[] at) {
        double[] x = columns[0];
        return program.map(p -> fast(p, 0, x.length, columns, at)).orElseGet(() -> {
            double[][] slow = new double[x.length][];
            for (int i = 0; i < x.length; i++) {
                slow[i] = row(i, x[i], at);
            }
            return slow;
        });
    }

    @Override
    public Curve drawn() {
        return (x, at, gradient) -> at(nearest(columns[0], x), x, at, gradient);
    }

    static int nearest(double[] all, double x) {
        int best = 0;
        for (int i = 1; i < all.length; i++) {
            if (Math.abs(all[i] - x) < Math.abs(all[best] - x)) {
                best = i;
            }
        }
        return best;
    }
}

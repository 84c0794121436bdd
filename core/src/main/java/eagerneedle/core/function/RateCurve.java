package eagerneedle.core.function;

import eagerneedle.core.arithmetic.Program;
import eagerneedle.core.fit.Curve;
import eagerneedle.core.fit.NumberedCurve;
import eagerneedle.core.fit.Points;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The curve whose rate of change a formula gives: dy/dx = f(y, x, parameters, what is known). It starts where the last
 * parameter says, is integrated from point to point (Runge and Kutta's rule of fourth order, in steps that are short
 * beside the time in which the curve itself changes), and its derivatives by the parameters are integrated beside it.
 * Known columns are straight between the points.
 */
final class RateCurve implements NumberedCurve, Known {
    /** Largest product of a step and the rate at which neighbouring curves come together or part. */
    private static final double STEP = 0.05;

    private static final int MOST_STEPS = 10_000;
    private static final double SMALL = 1e-6;

    private final Program program;
    /** Parameters of the rate; the one more is the value at the first point. */
    private final int parameters;

    private final double[] held;
    private final double[] x;
    private final double[][] columns;
    private final List<LabUnit> units = new ArrayList<>();
    private final LabUnit yUnit;
    private final LabUnit yCoherent;
    /** Of the parameters, and of one coherent unit in theirs by those of y. */
    private final LabUnit[] coherent;

    private final double[] shares;
    /** What was integrated last: points are asked for one after another. */
    private volatile @Nullable Path last;

    private record Path(double[] values, double[][] points) {}

    /**
     * @param start parameters of the rate, and last the value at the first point
     * @param state what the ordinate is called in the rate
     * @param abscissa what the abscissa is called there
     * @throws FormulaException for a rate that needs more than arithmetic, or whose unit does not fit
     */
    RateCurve(
            Formula rate,
            Map<String, Quantity> start,
            String state,
            String abscissa,
            Points points,
            Knowns knowns,
            int column) {
        List<String> scalars = new ArrayList<>(start.keySet());
        scalars.remove(scalars.size() - 1);
        this.parameters = scalars.size();
        start.values().forEach(q -> units.add(q.unit()));
        scalars.addAll(knowns.held().keySet());
        List<String> names = new ArrayList<>(List.of(state, abscissa));
        names.addAll(knowns.columns().keySet());
        this.program = Program.inCoherentUnits(rate.expression(), scalars, names)
                .orElseThrow(() -> new FormulaException(
                        column, "The rate '" + rate.text() + "' needs more than arithmetic and elementary functions."));
        this.yUnit = points.yUnit();
        this.yCoherent = yUnit.coherent();
        this.coherent = units.stream().map(LabUnit::coherent).toArray(LabUnit[]::new);
        this.shares =
                units.stream().mapToDouble(u -> u.factor() / yUnit.factor()).toArray();
        this.held = knowns.held().values().stream()
                .mapToDouble(q -> q.in(q.unit().coherent()))
                .toArray();
        this.x = coherent(points.x());
        for (int i = 1; i < x.length; i++) {
            if (x[i] <= x[i - 1]) {
                throw new FormulaException(column, "A rate is followed along an abscissa that rises from row to row.");
            }
        }
        this.columns =
                knowns.columns().values().stream().map(RateCurve::coherent).toArray(double[][]::new);
    }

    private static double[] coherent(List<Quantity> of) {
        LabUnit unit = of.get(0).unit();
        LabUnit to = unit.coherent();
        return of.stream()
                .mapToDouble(q -> q.unit() == unit ? unit.convert(q.value(), to) : q.in(to))
                .toArray();
    }

    @Override
    public double at(int point, double at, double[] values, double[] gradient) {
        double[][] all = along(values);
        System.arraycopy(all[point], 1, gradient, 0, parameters + 1);
        gradient[parameters + 1] = slope(new Rate(), point, all[point][0], values);
        return all[point][0];
    }

    @Override
    public void all(
            double[] at, double[] values, double[] value, double @Nullable [][] byParameter, double @Nullable [] byX) {
        double[][] all = along(values);
        Rate rate = new Rate();
        for (int i = 0; i < x.length; i++) {
            value[i] = all[i][0];
            for (int k = 0; k <= parameters && byParameter != null; k++) {
                byParameter[k][i] = all[i][1 + k];
            }
            if (byX != null) {
                byX[i] = slope(rate, i, all[i][0], values);
            }
        }
    }

    @Override
    public NumberedCurve over(int[] points) {
        return (i, at, values, gradient) -> at(points[i], at, values, gradient);
    }

    /** dy/dx at a point, in the unit of y per coherent unit of x. */
    private double slope(Rate rate, int point, double y, double[] values) {
        double[] given = new double[2 + columns.length];
        given(point, 0, columns, given);
        given[0] = yUnit.convert(y, yCoherent);
        given[1] = x[point];
        return rate.at(scalars(values, held), given)[0] / yUnit.factor();
    }

    private double[] scalars(double[] values, double[] known) {
        double[] s = new double[parameters + known.length];
        for (int k = 0; k < parameters; k++) {
            s[k] = units.get(k).convert(values[k], coherent[k]);
        }
        System.arraycopy(known, 0, s, parameters, known.length);
        return s;
    }

    /** Columns at a share of the way from one point to the next; places 0 and 1 are for y and x. */
    private void given(int point, double share, double[][] known, double[] out) {
        int next = Math.min(point + 1, x.length - 1);
        for (int k = 0; k < known.length; k++) {
            out[2 + k] = known[k][point] + share * (known[k][next] - known[k][point]);
        }
    }

    /** The rate and its derivatives by the scalars, by y and by the rest, on arrays that are used again. */
    private final class Rate {
        private final double[] room = new double[program.room()];
        private final double[] out = new double[program.outputs()];

        double[] at(double[] scalars, double[] given) {
            program.one(scalars, given, room, out);
            return out;
        }
    }

    private double[][] along(double[] values) {
        Path known = last;
        if (known == null || !Arrays.equals(known.values, values)) {
            known = new Path(values.clone(), new Way(values, held, columns, parameters + 1).points());
            last = known;
        }
        return known.points;
    }

    /**
     * One way along the points, in coherent units: the ordinate, and its derivatives by as many parameters as are
     * wanted (none where only the ordinate is). All steps are taken in the same arrays: a fit goes this way thousands
     * of times.
     */
    private final class Way {
        private final Rate rate = new Rate();
        private final double[] scalars;
        private final double[][] data;
        private final double[] given;
        private final double[] state;
        private final double[] moved;
        private final double[] a;
        private final double[] b;
        private final double[] c;
        private final double[] d;

        Way(double[] values, double[] known, double[][] data, int derivatives) {
            this.scalars = scalars(values, known);
            this.data = data;
            this.given = new double[2 + data.length];
            this.state = new double[1 + derivatives];
            this.moved = new double[state.length];
            this.a = new double[state.length];
            this.b = new double[state.length];
            this.c = new double[state.length];
            this.d = new double[state.length];
            state[0] = units.get(parameters).convert(values[parameters], yCoherent);
            if (derivatives > 0) {
                state[derivatives] = 1;
            }
        }

        /** By point: the ordinate in its own unit, then its derivatives by the parameters in theirs. */
        double[][] points() {
            double[][] out = new double[x.length][];
            for (int i = 0; i < x.length; i++) {
                out[i] = shown();
                if (i + 1 < x.length && Double.isFinite(state[0])) {
                    step(i);
                }
            }
            return out;
        }

        private double[] shown() {
            double[] out = new double[state.length];
            out[0] = yCoherent.convert(state[0], yUnit);
            for (int k = 0; k < state.length - 1; k++) {
                out[1 + k] = state[1 + k] * shares[k];
            }
            return out;
        }

        private void step(int point) {
            double whole = x[point + 1] - x[point];
            double own = Math.abs(rateOf(state[0], point, 0)[1 + scalars.length]);
            int steps = (int) Math.max(1, Math.min(MOST_STEPS, Math.ceil(own * whole / STEP)));
            double h = whole / steps;
            for (int k = 0; k < steps; k++) {
                double half = (k + 0.5) / steps;
                change(state, point, (double) k / steps, a);
                change(moved(a, h / 2), point, half, b);
                change(moved(b, h / 2), point, half, c);
                change(moved(c, h), point, (double) k / steps + 1.0 / steps, d);
                for (int j = 0; j < state.length; j++) {
                    state[j] += h / 6 * (a[j] + 2 * b[j] + 2 * c[j] + d[j]);
                }
            }
        }

        private double[] moved(double[] by, double h) {
            for (int j = 0; j < moved.length; j++) {
                moved[j] = state[j] + h * by[j];
            }
            return moved;
        }

        private void change(double[] y, int point, double share, double[] out) {
            double[] f = rateOf(y[0], point, share);
            out[0] = f[0];
            double own = f[1 + scalars.length];
            for (int k = 0; k < out.length - 1; k++) {
                out[1 + k] = own * y[1 + k] + (k < parameters ? f[1 + k] : 0);
            }
        }

        private double[] rateOf(double y, int point, double share) {
            given(point, share, data, given);
            given[0] = y;
            given[1] = x[point] + share * (x[point + 1] - x[point]);
            return rate.at(scalars, given);
        }
    }

    @Override
    public double[] effect(double[] values, double[] ofHeld, double[][] ofColumns) {
        double[][] up = new Way(values, with(ofHeld, SMALL), withColumns(ofColumns, SMALL), 0).points();
        double[][] down = new Way(values, with(ofHeld, -SMALL), withColumns(ofColumns, -SMALL), 0).points();
        double[] out = new double[x.length];
        for (int i = 0; i < out.length; i++) {
            out[i] = (up[i][0] - down[i][0]) / (2 * SMALL);
        }
        return out;
    }

    private double[] with(double[] change, double factor) {
        double[] out = held.clone();
        for (int k = 0; k < out.length; k++) {
            out[k] += factor * change[k];
        }
        return out;
    }

    private double[][] withColumns(double[][] change, double factor) {
        double[][] out = new double[columns.length][];
        for (int k = 0; k < out.length; k++) {
            out[k] = columns[k].clone();
            for (int i = 0; i < out[k].length; i++) {
                out[k][i] += factor * change[k][i];
            }
        }
        return out;
    }

    @Override
    public Curve drawn() {
        return (at, values, gradient) -> {
            double wanted = at;
            int i = 0;
            while (i + 2 < x.length && x[i + 1] <= wanted) {
                i++;
            }
            double[][] all = along(values);
            double share = (wanted - x[i]) / (x[i + 1] - x[i]);
            for (int k = 0; k <= parameters; k++) {
                gradient[k] = all[i][1 + k] + share * (all[i + 1][1 + k] - all[i][1 + k]);
            }
            gradient[parameters + 1] = (all[i + 1][0] - all[i][0]) / (x[i + 1] - x[i]);
            return all[i][0] + share * (all[i + 1][0] - all[i][0]);
        };
    }
}

package eagerneedle.core.function;

import eagerneedle.core.fit.Curve;
import eagerneedle.core.fit.CurveFit;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.NumberedCurve;
import eagerneedle.core.fit.Points;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/**
 * Two divided circles against each other, as a fit of columns: a reading is the error of an interval of the first less
 * that of an interval of the second, and the errors of each circle add up to nothing, since it closes. So no better
 * standard is needed; where every pair is read once, the error of an interval is its mean over the other circle.
 *
 * <p>The last interval of each circle is minus the sum of the others and is among the parameters that come out, with
 * its correlations.
 */
final class ClosureFit {
    private static final String MODEL = "closure of two circles";

    private final String first;
    private final String second;
    private final int n;
    private final int m;
    private final int[] i;
    private final int[] k;

    private ClosureFit(Arguments a) {
        this.first = name(a.at(1), "first");
        this.second = name(a.at(2), "second");
        if (first.equals(second)) {
            throw new FormulaException(a.at(2).column(), "The two circles of a closure are two columns, not one.");
        }
        this.i = intervals(a, 1, first);
        this.k = intervals(a, 2, second);
        this.n = Arrays.stream(i).max().orElse(0) + 1;
        this.m = Arrays.stream(k).max().orElse(0) + 1;
    }

    /**
     * The errors of both circles, in the unit of the readings, named after the columns that number their intervals:
     * {@code lower_1}, {@code upper_3}.
     *
     * @throws FitException when the readings are too few, or do not hang together
     */
    static Fit of(Arguments a) {
        return new ClosureFit(a).fit(a);
    }

    private Fit fit(Arguments a) {
        Arguments.Pair pair = a.pair(0, 1);
        List<Quantity> readings = pair.first();
        // A row that one of the columns lacks would shift the others.
        int all = a.rows(0).size();
        boolean whole = readings.size() == all && a.pair(0, 2).first().size() == all;
        if (!whole || readings.size() != i.length || readings.size() != k.length) {
            throw new FormulaException(
                    a.column(), "Each reading of a closure needs the number of its interval on either circle.");
        }
        List<Quantity> numbers = new ArrayList<>();
        for (int r = 0; r < readings.size(); r++) {
            numbers.add(Quantity.number(r + 1.0));
        }
        Points points = Points.of(numbers, readings);
        LabUnit unit = points.yUnit().difference();
        int free = n - 1 + m - 1;
        List<String> names = new ArrayList<>(named(first, n - 1));
        names.addAll(named(second, m - 1));
        NumberedCurve reduced = (row, x, theta, gradient) -> {
            Arrays.fill(gradient, 0);
            return add(gradient, theta, 0, n, i[row], 1) + add(gradient, theta, n - 1, m, k[row], -1);
        };
        Fit f = CurveFit.ofPoints(
                MODEL,
                names,
                Collections.nCopies(free, unit),
                new double[free],
                reduced,
                (x, theta, gradient) -> reduced.at(row(x), x, theta, gradient),
                points,
                FitRequests.choices(a, Map.of()).readOn(pair.occasions()));
        return whole(f);
    }

    /** Adds an interval's error; the last one is minus the sum of the others. */
    private static double add(double[] gradient, double[] theta, int from, int n, int interval, double sign) {
        if (interval < n - 1) {
            gradient[from + interval] += sign;
            return sign * theta[from + interval];
        }
        double sum = 0;
        for (int j = 0; j < n - 1; j++) {
            gradient[from + j] -= sign;
            sum -= sign * theta[from + j];
        }
        return sum;
    }

    /** With the last interval of each circle among the parameters. */
    private Fit whole(Fit f) {
        List<Quantity> all = new ArrayList<>(closed(f.parameters().subList(0, n - 1)));
        all.addAll(closed(f.parameters().subList(n - 1, n + m - 2)));
        List<String> names = new ArrayList<>(named(first, n));
        names.addAll(named(second, m));
        Curve law = (x, theta, gradient) -> {
            int row = row(x);
            Arrays.fill(gradient, 0);
            gradient[i[row]] = 1;
            gradient[n + k[row]] = -1;
            return theta[i[row]] - theta[n + k[row]];
        };
        return new Fit(
                MODEL,
                names,
                all,
                f.x(),
                f.y(),
                f.fitted(),
                f.xUnit(),
                f.yUnit(),
                f.residualSd(),
                f.chiSquared(),
                f.dof(),
                f.remarks(),
                law);
    }

    private int row(double x) {
        return Math.max(0, Math.min(i.length - 1, (int) Math.round(x) - 1));
    }

    private static List<Quantity> closed(List<Quantity> free) {
        double[] minus = new double[free.size()];
        Arrays.fill(minus, -1);
        double last = -free.stream().mapToDouble(Quantity::value).sum();
        List<Quantity> out = new ArrayList<>(free);
        out.add(Quantity.combination(free, minus, last, free.get(0).unit()));
        return out;
    }

    private static List<String> named(String circle, int n) {
        List<String> out = new ArrayList<>();
        for (int j = 1; j <= n; j++) {
            out.add(circle + "_" + j);
        }
        return out;
    }

    /** The intervals of a column as indices from 0; numbered from 1, and all of a circle are there. */
    private static int[] intervals(Arguments a, int argument, String name) {
        int column = a.at(argument).column();
        List<Quantity> rows = a.pair(0, argument).second();
        TreeSet<Integer> there = new TreeSet<>();
        int[] out = new int[rows.size()];
        for (int r = 0; r < out.length; r++) {
            double v = rows.get(r).in(LabUnit.ONE);
            if (v != Math.rint(v) || v < 1) {
                throw new FormulaException(
                        column,
                        "The intervals of a circle are numbered 1, 2, 3 and so on; " + name + " has " + v + ".");
            }
            out[r] = (int) v - 1;
            there.add((int) v);
        }
        for (int j = 1; !there.isEmpty() && j <= there.last(); j++) {
            if (!there.contains(j)) {
                throw new FitException("Interval " + j + " of " + name
                        + " was never read; a circle closes only over all its intervals.");
            }
        }
        if (there.size() < 2) {
            throw new FitException("A closure needs two intervals or more of " + name + ".");
        }
        return out;
    }

    private static String name(Expr e, String usual) {
        return e instanceof Expr.Name name ? name.name().substring(name.name().lastIndexOf('.') + 1) : usual;
    }

    /** The function's value. */
    static Value value(Arguments a) {
        return new Value.Fitted(of(a));
    }
}

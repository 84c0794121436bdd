package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.column;
import static eagerneedle.core.formula.Parameter.number;
import static eagerneedle.core.formula.Parameter.of;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.rows;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.event.Counting;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Evaluator;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Parameter.Kind;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Outliers;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Columns and their statistics, counts and rates. */
final class StatisticsFunctions {
    /** Samples on either side that a sample of a trace is judged by. */
    private static final int NEIGHBOURS = 10;

    private StatisticsFunctions() {}

    static void define() {
        Functions.define(
                Function.of("column", quantity("x"))
                        .repeating(0, 1)
                        .described("quantities of one kind", "a column of them", "column(1 m, 20 cm)", "1 m, 20 cm"),
                a -> new Value.Column(a.all()));
        Functions.define(
                Function.of("index", number("n"))
                        .described(
                                "a whole number",
                                "the column 0, 1, 2, ... of n pure numbers",
                                "index(4) * 2 s",
                                "0 s, 2 s, 4 s, 6 s"),
                a -> {
                    List<Quantity> out = new ArrayList<>();
                    int n = a.whole(0, 1, 100_000);
                    for (int i = 0; i < n; i++) {
                        out.add(Quantity.number(i));
                    }
                    return new Value.Column(out);
                });
        Functions.define(
                Function.of("row", column("column"), of(Kind.ANY, "k"))
                        .described(
                                "a column over runs and the name of a level, or its number in the sheet, from 1; "
                                        + "of a column written out the number of a row",
                                "the row at that level",
                                "row(column(5 V, 6 V, 9 V), 2)",
                                "6 V"),
                a -> {
                    List<Quantity> rows = a.rows(0);
                    RowLabels labels = ((Value.Column) a.value(0)).labels();
                    if (a.value(1) instanceof Value.Words level) {
                        if (labels == null) {
                            throw new FormulaException(
                                    a.at(1).column(),
                                    "This column was written out and has no levels; give the number of a row.");
                        }
                        return scalar(rows.get(labels.at(level.text())));
                    }
                    return scalar(rows.get(
                            labels == null
                                    ? a.whole(1, 1, rows.size()) - 1
                                    : labels.at(labels.levels()
                                            .get(a.whole(1, 1, labels.levels().size()) - 1))));
                });
        Functions.define(
                Function.of("first", column("column"))
                        .described("a column", "its first row", "first(column(5 V, 6 V, 9 V))", "5 V"),
                a -> scalar(a.rows(0).get(0)));
        Functions.define(
                Function.of("last", column("column"))
                        .described("a column", "its last row", "last(column(5 V, 6 V, 9 V))", "9 V"),
                a -> scalar(a.rows(0).get(a.rows(0).size() - 1)));
        Functions.define(
                Function.of("count", of(Kind.COLUMN_OR_TRACE, "column"))
                        .described(
                                "a column or a trace",
                                "number of rows or samples, a pure number",
                                "count(column(1, 2, 3))",
                                "3"),
                a -> scalar(Quantity.number(
                        a.value(0) instanceof Value.Signal
                                ? a.trace(0).size()
                                : a.rows(0).size())));
        Functions.define(
                Function.of("sum", rows("column"))
                        .repeating(0, 1)
                        .described(
                                "a column, or quantities of one kind",
                                "their sum, correlations kept, same unit",
                                "sum(column(1 m, 2 m))",
                                "3 m"),
                a -> {
                    List<Quantity> rows = a.rowsOrAll();
                    double[] ones = new double[rows.size()];
                    java.util.Arrays.fill(ones, 1);
                    LabUnit unit = rows.get(0).unit();
                    if (unit.isAffine() && rows.size() > 1) {
                        throw new FormulaException(
                                a.column(), "Temperatures in " + unit.pretty() + " cannot be summed; write them in K.");
                    }
                    List<Quantity> same = rows.stream().map(q -> q.to(unit)).toList();
                    return scalar(Quantity.combination(
                            same,
                            ones,
                            same.stream().mapToDouble(Quantity::value).sum(),
                            unit));
                });
        Functions.define(
                Function.of("min", of(Kind.ROWS_OR_TRACE, "column"))
                        .repeating(0, 1)
                        .described(
                                "a column, quantities of one kind, or a trace",
                                "the smallest, with its lineage; of a trace its smallest sample",
                                "min(3 V, 200 mV, 1 V)",
                                "200 mV"),
                a -> scalar(
                        a.value(0) instanceof Value.Signal ? extreme(a.trace(0), -1) : picked(a.rowsOrAll(), 0, 0)));
        Functions.define(
                Function.of("max", of(Kind.ROWS_OR_TRACE, "column"))
                        .repeating(0, 1)
                        .described(
                                "a column, quantities of one kind, or a trace",
                                "the largest, with its lineage; of a trace its largest sample",
                                "max(3 V, 200 mV, 1 V)",
                                "3 V"),
                a -> {
                    if (a.value(0) instanceof Value.Signal) {
                        return scalar(extreme(a.trace(0), 1));
                    }
                    List<Quantity> rows = a.rowsOrAll();
                    return scalar(picked(rows, rows.size() - 1, rows.size() - 1));
                });
        Functions.define(
                Function.of(
                                "mean",
                                of(Kind.ROWS_OR_TRACE, "column"),
                                words("label").saying(""),
                                words("window").saying(""),
                                quantity("choice").in("%").usually("0 %"))
                        .repeating(0, 1)
                        .described(
                                "a column, quantities of one kind, or a trace with a window",
                                "the mean with its standard uncertainty: from the scatter of the rows, shared "
                                        + "influences kept once; of a trace with autocorrelation; same unit",
                                "mean(column(9.79, 9.83, 9.81))",
                                "9.810(12)"),
                StatisticsFunctions::mean);
        Functions.define(
                Function.of(
                                "median",
                                of(Kind.ROWS_OR_TRACE, "column"),
                                words("window").saying(""))
                        .repeating(0, 1)
                        .described(
                                "a column or a trace with a window",
                                "the median, of a column with its lineage, of a trace as exact; same unit",
                                "median(column(1 V, 2 V, 9 V))",
                                "2 V"),
                a -> {
                    if (a.value(0) instanceof Value.Signal) {
                        Trace t = a.windowed(0);
                        return scalar(Quantity.exact(WindowStatistics.of(t).median(), t.unit()));
                    }
                    List<Quantity> rows = a.rowsOrAll();
                    return scalar(picked(rows, (rows.size() - 1) / 2, rows.size() / 2));
                });
        Functions.define(
                Function.of(
                                "sd",
                                of(Kind.ROWS_OR_TRACE, "column"),
                                words("window").saying(""))
                        .repeating(0, 1)
                        .described(
                                "a column, quantities of one kind, or a trace with a window",
                                "standard deviation with n - 1 as exact, same unit (of temperatures in K)",
                                "sd(column(1 V, 2 V, 3 V))",
                                "1 V"),
                StatisticsFunctions::sd);
        Functions.define(
                Function.of(
                                "outliers",
                                of(Kind.COLUMN_OR_TRACE, "column"),
                                number("threshold").usually("3.5"))
                        .described(
                                "a column of at least 5, or a trace",
                                "numbers of the rows that lie far from the others, of the samples that lie far "
                                        + "from their neighbours, from 1 (Hampel); 0 for none",
                                "outliers(column(5.1, 5.0, 5.2, 9.9, 5.1, 5.0, 5.2))",
                                "4"),
                a -> {
                    List<Integer> at;
                    if (a.value(0) instanceof Value.Signal) {
                        at = Outliers.flagged(
                                a.trace(0).value(),
                                NEIGHBOURS,
                                a.number("threshold"),
                                a.trace(0).step());
                    } else {
                        List<Quantity> rows = a.rows(0);
                        double[] v = rows.stream()
                                .mapToDouble(q -> q.in(rows.get(0).unit()))
                                .toArray();
                        at = Outliers.flagged(v, Math.max(2, v.length / 2), a.number("threshold"), 0);
                    }
                    return new Value.Column(
                            at.isEmpty()
                                    ? List.of(Quantity.number(0))
                                    : at.stream()
                                            .map(i -> Quantity.number(i + 1))
                                            .toList());
                });
        Functions.define(
                Function.of("poisson", number("n"))
                        .described(
                                "a count, a pure number",
                                "the count with its Poisson uncertainty, a pure number",
                                "poisson(400)",
                                "400(20)"),
                a -> scalar(Counting.count(count(a, 0), a.id(), a.scope().label() + ": counting")));
        Functions.define(
                Function.of(
                                "rate",
                                number("n"),
                                quantity("time").in("s"),
                                quantity("dead_time").in("s").usually("0 s"),
                                number("prescale").usually("1"))
                        .described(
                                "a displayed count and the counting time; dead time per event; events per "
                                        + "displayed count",
                                "true rate in 1/s",
                                "rate(40000, 10 s, dead_time: 25 us)",
                                "4444(25) 1/s"),
                a -> scalar(Counting.rate(
                        count(a, 0), a.number("prescale"), a.quantity(1), a.quantity("dead_time"), a.id())));
        Functions.define(
                Function.of("dispersion", rows("column"))
                        .repeating(0, 1)
                        .described(
                                "counts taken for equal times, pure numbers",
                                "variance over mean, 1 on average for random events, as exact",
                                "dispersion(column(96, 104, 110, 90))",
                                "0.7733333333"),
                a -> scalar(Quantity.number(Counting.dispersion(a.rowsOrAll().stream()
                                .mapToDouble(q -> Evaluator.pureNumber(q, a.at(0), "A count"))
                                .toArray())
                        .index())));
    }

    /**
     * The mean of the values of two ranks, counted from 0 among the sorted ones; which rows these are is decided draw
     * by draw.
     */
    /** The sample that lies furthest up or down, with what all samples share and the converter's step. */
    private static Quantity extreme(Trace t, int sign) {
        if (t.size() == 0) {
            throw new IllegalArgumentException("The trace " + t.name() + " holds no samples.");
        }
        int at = 0;
        for (int i = 1; i < t.size(); i++) {
            at = sign * t.value()[i] > sign * t.value()[at] ? i : at;
        }
        Quantity q = t.sample(at);
        return t.step() == 0
                ? q
                : q.with(
                        Leaf.typeB(
                                "sample:" + t.identity() + "#" + at,
                                "converter step",
                                t.name(),
                                Distribution.RECTANGULAR),
                        t.step() / Math.sqrt(12));
    }

    private static Quantity picked(List<Quantity> rows, int low, int high) {
        LabUnit unit = rows.get(0).unit();
        List<Quantity> same = rows.stream().map(q -> q.to(unit)).toList();
        int[] order = java.util.stream.IntStream.range(0, same.size())
                .boxed()
                .sorted(java.util.Comparator.comparingDouble(i -> same.get(i).value()))
                .mapToInt(i -> i)
                .toArray();
        double[] derivatives = new double[same.size()];
        derivatives[order[low]] += 0.5;
        derivatives[order[high]] += 0.5;
        Quantity q = Quantity.through(
                same,
                v -> {
                    double[] sorted = v.clone();
                    Arrays.sort(sorted);
                    return (sorted[low] + sorted[high]) / 2;
                },
                unit,
                derivatives);
        return low == high && rows.size() > 0 ? q.to(rows.get(order[low]).unit()) : q;
    }

    private static double count(Arguments a, int i) {
        double n = a.number(i);
        if (!(n >= 0)) {
            throw new FormulaException(a.at(i).column(), "A count is 0 or more, not " + n + ".");
        }
        return n;
    }

    private static Value mean(Arguments a) {
        String given = a.words("label");
        if (a.value(0) instanceof Value.Signal) {
            return scalar(TraceRequests.answered(
                    a,
                    t -> WindowStatistics.of(t).mean(),
                    t -> meanOf(t, a, given.isEmpty() ? "scatter of samples" : given)));
        }
        List<Quantity> rows = a.rowsOrAll();
        List<Quantity> index = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            index.add(Quantity.number(i));
        }
        Scatter scatter =
                a.scope().planning() || rows.size() == 1 ? Scatter.FROM_UNCERTAINTIES : Scatter.FROM_RESIDUALS;
        return scalar(a.told(PolynomialFit.ofPoints(
                        Points.of(index, rows),
                        0,
                        new FitOptions(scatter, a.id(), given.isEmpty() ? "scatter between runs" : given)
                                .readOn(a.occasions(0))))
                .parameter(0));
    }

    /** The mean of a trace: its noise with autocorrelation; where it sits within one converter step, that step. */
    private static Quantity meanOf(Trace t, Arguments a, String label) {
        if (t.size() < 2) {
            throw new IllegalArgumentException(
                    "A mean of " + t.name() + " needs at least 2 samples; the window holds " + t.size() + ".");
        }
        Fit fit = a.told(PolynomialFit.ofTrace(t, 0, a.id(), label));
        Quantity q = fit.parameter(0);
        double floor = t.step() / Math.sqrt(12);
        double own = q.keeping(l -> l.pool().startsWith("scatter:")).u();
        double span = Arrays.stream(t.value()).max().orElse(0)
                - Arrays.stream(t.value()).min().orElse(0);
        return span <= t.step() && own < floor
                ? q.with(
                        Leaf.typeB(a.id(), "converter step", a.scope().origin(), Distribution.RECTANGULAR),
                        Math.sqrt(floor * floor - own * own))
                : q;
    }

    private static Value sd(Arguments a) {
        if (a.value(0) instanceof Value.Signal) {
            Trace t = a.windowed(0);
            return scalar(Quantity.exact(WindowStatistics.of(t).sd(), t.unit().difference()));
        }
        List<Quantity> rows = a.rowsOrAll();
        if (rows.size() < 2) {
            throw new FormulaException(a.at(0).column(), "A standard deviation needs at least 2 rows.");
        }
        double m = 0;
        LabUnit unit = rows.get(0).unit();
        for (Quantity q : rows) {
            m += q.in(unit) / rows.size();
        }
        double ss = 0;
        for (Quantity q : rows) {
            ss += (q.in(unit) - m) * (q.in(unit) - m);
        }
        return scalar(Quantity.exact(Math.sqrt(ss / (rows.size() - 1)), unit.difference()));
    }
}

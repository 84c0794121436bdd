package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.column;
import static eagerneedle.core.formula.Parameter.number;
import static eagerneedle.core.formula.Parameter.of;
import static eagerneedle.core.formula.Parameter.quantity;
import static eagerneedle.core.formula.Parameter.rows;
import static eagerneedle.core.formula.Parameter.trace;
import static eagerneedle.core.formula.Parameter.words;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.event.Edges;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Parameter.Kind;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Crossings;
import eagerneedle.core.trace.Cursor;
import eagerneedle.core.trace.Derivative;
import eagerneedle.core.trace.Integral;
import eagerneedle.core.trace.Segmentation;
import eagerneedle.core.trace.Smoothed;
import eagerneedle.core.trace.Spectrum;
import eagerneedle.core.trace.Steadiness;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Turns;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowStatistics;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Traces: making, windowing, reading and differentiating them; steadiness, changes, edges, periods. */
final class TraceFunctions {
    private static final String WAVE = "trace(index(80) * 50 ms, sin(2 * pi * index(80) / 20) * 3 V)";

    private TraceFunctions() {}

    static void define() {
        Functions.define(
                Function.of("trace", column("times"), column("values"))
                        .described(
                                "a rising column of times and a column of values",
                                "a trace",
                                "count(trace(index(5) * 1 s, index(5) * 2 V))",
                                "5"),
                TraceRequests::traced);
        Functions.define(
                Function.of(
                                "window",
                                trace("trace"),
                                of(Kind.ANY, "from"),
                                quantity("to").orNone())
                        .described(
                                "a trace and two moments in s, or the name of a window of the session",
                                "the samples in between, a trace",
                                "count(window(trace(index(11) * 1 s, index(11) * 2 V), 2 s, 5 s))",
                                "4"),
                a -> {
                    Trace t = a.trace(0);
                    if (a.value(1) instanceof Value.Words w) {
                        return new Value.Signal(t.within(a.namedWindow(w.text(), t)));
                    }
                    Quantity from = a.quantity(1).to(LabUnit.SECOND);
                    Quantity to = a.quantity(2).to(LabUnit.SECOND);
                    return new Value.Signal(
                            t.within(new Window(from.value(), to.value(), "written")),
                            from.isExact() && to.isExact() ? null : new Value.Ends(t, from, to));
                });
        Functions.define(
                Function.of("value_at", trace("trace"), quantity("moment").in("s"))
                        .described(
                                "a trace and a moment in s",
                                "the value there with the scatter of the samples around it, in the trace's unit",
                                "value_at(trace(index(11) * 1 s, index(11) * 2 V), 3.5 s)",
                                "7 V"),
                a -> scalar(Cursor.valueAt(a.trace(0), a.quantity(1), a.id())));
        Functions.define(
                Function.of("duration", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace with a window",
                                "length of the window in s, each edge uncertain by half a sample",
                                "duration(trace(index(11) * 1 s, index(11) * 2 V))",
                                "10.00(41) s"),
                TraceRequests::duration);
        Functions.define(
                Function.of("effective_n", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace with a window",
                                "effective number of independent samples, a pure number",
                                "effective_n(trace(index(4) * 1 s, column(1 V, -1 V, 1 V, -1 V)))",
                                "4"),
                a -> scalar(Quantity.number(WindowStatistics.of(a.windowed(0)).effectiveN())));
        Functions.define(
                Function.of(
                                "averaging_gain",
                                trace("trace"),
                                number("n"),
                                words("window").saying(""))
                        .described(
                                "a trace and how many neighbouring samples are averaged",
                                "by how much that reduces the standard deviation, as measured; the square root "
                                        + "of n only for white noise",
                                "averaging_gain(trace(index(8) * 1 s, column(1 V, 1 V, -1 V, -1 V, 1 V, 1 V, -1 "
                                        + "V, -1 V)), 2)",
                                "0.9258200998"),
                a -> {
                    Trace t = a.windowed(0);
                    int each = a.whole(1, 1, Math.max(1, t.size() / 2));
                    double[] time = new double[t.size() / each];
                    double[] mean = new double[time.length];
                    for (int i = 0; i < time.length; i++) {
                        time[i] = t.time()[i * each];
                        for (int k = 0; k < each; k++) {
                            mean[i] += t.value()[i * each + k] / each;
                        }
                    }
                    double left = WindowStatistics.of(new Trace(t.name(), time, mean, t.unit(), 0, List.of()))
                            .sd();
                    if (!(left > 0)) {
                        throw new FormulaException(
                                a.column(), "The averages do not scatter at all, so no gain can be stated.");
                    }
                    return scalar(Quantity.number(WindowStatistics.of(t).sd() / left));
                });
        Functions.define(
                Function.of(
                                "derivative",
                                trace("trace"),
                                number("points").usually("11"),
                                number("degree").usually("2"),
                                words("window").saying(""))
                        .described(
                                "a trace; an odd number of points under the sliding polynomial and its degree",
                                "its rate of change, a trace, unit per s",
                                "count(derivative(trace(index(21) * 0.1 s, index(21) * 0.3 m), points: 5))",
                                "17"),
                a -> new Value.Signal(Derivative.of(a.windowed(0), a.whole("points", 3, 1001), a.whole("degree", 1, 9))
                        .trace()));
        Functions.define(
                Function.of("integral", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace with a window",
                                "the area under it, with what noise and shared influences do, unit times s",
                                "integral(trace(index(11) * 1 s, index(11) * 2 W))",
                                "100 N·m"),
                a -> scalar(Integral.of(a.windowed(0), a.id())));
        Functions.define(
                Function.of("cumulative", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace with a window",
                                "the area under it up to each sample, a trace, unit times s",
                                "max(values(cumulative(trace(index(11) * 1 s, index(11) * 2 W))))",
                                "100 N·m"),
                a -> new Value.Signal(Integral.cumulative(a.windowed(0))));
        Functions.define(
                Function.of("step", trace("trace"))
                        .described(
                                "a trace",
                                "the smallest step that its converter can show, 0 where that is not known, as exact",
                                "step(trace(index(3) * 1 s, index(3) * 2 V))",
                                "0 V"),
                a -> scalar(Quantity.exact(a.trace(0).step(), a.trace(0).unit().difference())));
        Functions.define(
                Function.of(
                                "smoothed",
                                trace("trace"),
                                number("points").usually("11"),
                                words("window").saying(""))
                        .described(
                                "a trace; an odd number of points",
                                "the mean over the points about each sample, a trace, shorter by half of them at each end",
                                "count(smoothed(trace(index(21) * 0.1 s, index(21) * 0.3 m), points: 5))",
                                "17"),
                a -> new Value.Signal(Smoothed.of(a.windowed(0), a.whole("points", 3, 100_001))));
        Functions.define(
                Function.of(
                                "turns",
                                trace("trace"),
                                words("window").saying(""),
                                rows("begin").usually("0 s"))
                        .described(
                                "a trace that comes back again and again; where a gate tells when each cycle begins, those "
                                        + "moments in s",
                                "its mean over each whole cycle, a column: what repeats within a cycle takes no part",
                                "count(turns(" + WAVE + "))",
                                "2"),
                a -> {
                    List<Quantity> means = a.has("begin")
                            ? Turns.means(
                                    a.windowed(0),
                                    a.rows(2).stream()
                                            .mapToDouble(q -> q.in(LabUnit.SECOND))
                                            .toArray())
                            : Turns.means(a.windowed(0));
                    if (means.isEmpty()) {
                        throw new FormulaException(a.at(0).column(), "The trace holds no whole cycle.");
                    }
                    return new Value.Column(means);
                });
        Functions.define(
                Function.of("middle", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace with a window",
                                "the moment in its middle, in s as exact",
                                "middle(trace(index(11) * 1 s, index(11) * 2 V))",
                                "5 s"),
                a -> {
                    Trace t = a.windowed(0);
                    if (t.size() == 0) {
                        throw new FormulaException(a.at(0).column(), "The window holds no samples.");
                    }
                    return scalar(t.clocked(
                            Quantity.exact((t.time()[0] + t.time()[t.size() - 1]) / 2, LabUnit.SECOND)));
                });
        Functions.define(
                Function.of("steady_since", trace("trace"), number("k").usually("2"))
                        .described(
                                "a trace; how many standard uncertainties the slope may have",
                                "the moment from which it is steady, in s, uncertain by half a sample",
                                "steady_since(trace(index(200) * 1 s, exp(-index(200) / 5) * 1 V + "
                                        + "sin(index(200) * 2) * 5 mV)) < 60 s",
                                "true"),
                a -> {
                    Trace t = a.trace(0);
                    double since = Steadiness.of(t, a.number("k"))
                            .orElseThrow(() -> new FormulaException(a.column(), "The trace does not become steady."))
                            .since();
                    Leaf leaf = Leaf.typeB(
                            "moment:" + t.identity() + ":steady", "half a sample", t.name(), Distribution.RECTANGULAR);
                    return scalar(t.clocked(Quantity.of(since, t.interval() / Math.sqrt(12), LabUnit.SECOND, leaf)));
                });
        Functions.define(
                Function.of("change_points", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace",
                                "the moments at which its straight pieces meet, in s, each uncertain by half a sample; none "
                                        + "where noise that remembers explains the record as well",
                                "change_points(trace(index(40) * 1 s, abs(index(40) - 20) * 1 V + sin(index(40) "
                                        + "* 2) * 10 mV))",
                                "20.50(29) s"),
                a -> {
                    Trace t = a.windowed(0);
                    List<Quantity> at = new ArrayList<>();
                    List<Segmentation.Piece> pieces = Segmentation.demandedPieces(t);
                    for (int i = 1; i < pieces.size(); i++) {
                        int from = pieces.get(i).from();
                        at.add(TraceRequests.between(t, from, "change"));
                    }
                    return at.isEmpty() ? new Value.None() : new Value.Column(at);
                });
        Functions.define(
                Function.of("frequency", trace("trace"), words("window").saying(""))
                        .described(
                                "an evenly sampled trace",
                                "frequency of the tallest line of its spectrum, in Hz, uncertain by half a line",
                                "abs(frequency(" + WAVE + ") - 1 Hz) < 10 mHz",
                                "true"),
                a -> {
                    Trace t = a.windowed(0);
                    double line = 1 / (t.time()[t.size() - 1] - t.time()[0]);
                    return scalar(Quantity.of(
                            Spectrum.of(t).peak(),
                            line / Math.sqrt(12),
                            LabUnit.parse("Hz"),
                            Leaf.typeB(
                                    "spectrum:" + t.identity(),
                                    "half a line of the spectrum",
                                    t.name(),
                                    Distribution.RECTANGULAR)));
                });
        Functions.define(
                Function.of(
                                "crossings",
                                trace("trace"),
                                quantity("level"),
                                words("window").saying(""),
                                words("way").saying("up"))
                        .described(
                                "a trace and a level in its unit; way: up, down or both",
                                "moments of the crossings, in s, each as uncertain as the samples leave it",
                                "crossings(trace(index(9) * 1 s, sin(index(9) * pi / 4 - 1) * 1 V), 0 V)",
                                "1.28(29) s"),
                a -> {
                    Trace t = a.windowed(0);
                    double level = a.quantity(1).in(t.unit());
                    double span = Arrays.stream(t.value()).max().orElse(0)
                            - Arrays.stream(t.value()).min().orElse(0);
                    String way = a.words("way");
                    if (!List.of("up", "down", "both").contains(way)) {
                        throw new FormulaException(a.column(), "Crossings go up, down or both ways, not " + way + ".");
                    }
                    List<Quantity> found = new ArrayList<>();
                    for (boolean up : new boolean[] {true, false}) {
                        if (way.equals("both") || up == way.equals("up")) {
                            found.addAll(TraceRequests.through(
                                    t,
                                    Crossings.found(t, level, 0.1 * span, up),
                                    (up ? "up" : "down") + " through " + level,
                                    a.quantity(1).to(t.unit())));
                        }
                    }
                    found.sort(java.util.Comparator.comparingDouble(Quantity::value));
                    return new Value.Column(found);
                });
        Functions.define(
                Function.of("edges", trace("trace"), words("window").saying(""))
                        .described(
                                "the trace of a gate",
                                "moments of the rising edges, in s, each uncertain by half a sample",
                                "edges(trace(index(8) * 1 s, column(0 V, 5 V, 0 V, 0 V, 5 V, 5 V, 0 V, 5 V)))",
                                "0.50(29) s, 3.50(29) s, 6.50(29) s"),
                a -> {
                    Trace t = a.windowed(0);
                    return new Value.Column(TraceRequests.moments(t, Edges.crossings(t, true), "rising"));
                });
        Functions.define(
                Function.of("block_times", trace("trace"), words("window").saying(""))
                        .described(
                                "the trace of a gate that is high while blocked",
                                "how long it was blocked each time, in s, each edge uncertain by half a sample",
                                "block_times(trace(index(8) * 1 s, column(0 V, 5 V, 5 V, 0 V, 0 V, 5 V, 0 V, 0 V)))",
                                "2.00(41) s, 1.00(41) s"),
                TraceRequests::blockTimes);
        Functions.define(
                Function.of("times", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace",
                                "the moments of its samples as a column, in s as exact",
                                "times(trace(index(3) * 1 s, index(3) * 2 V))",
                                "0 s, 1 s, 2 s"),
                a -> new Value.Column(Arrays.stream(a.windowed(0).time())
                        .mapToObj(s -> a.trace(0).clocked(Quantity.exact(s, LabUnit.SECOND)))
                        .toList()));
        Functions.define(
                Function.of("values", trace("trace"), words("window").saying(""))
                        .described(
                                "a trace",
                                "its samples as a column, with what they share but without their scatter, in the "
                                        + "trace's unit",
                                "values(trace(index(3) * 1 s, index(3) * 2 V))",
                                "0 V, 2 V, 4 V"),
                a -> {
                    Trace t = a.windowed(0);
                    List<Quantity> out = new ArrayList<>();
                    for (int i = 0; i < t.size(); i++) {
                        out.add(t.sample(i));
                    }
                    return new Value.Column(out);
                });
        Functions.define(
                Function.of("suspects", column("edges"))
                        .described(
                                "a column of at least 4 edge times",
                                "edges that seem to be missing or seen twice, a sentence",
                                "suspects(column(0 s, 1 s, 2 s, 4 s, 5 s, 6 s))",
                                "After edge 3 one edge seems to be missing."),
                a -> {
                    List<Edges.Suspect> s = Edges.of(a.rows(0).stream()
                                    .mapToDouble(q -> q.in(LabUnit.SECOND))
                                    .toArray())
                            .suspects();
                    return new Value.Words(
                            s.isEmpty()
                                    ? "No edge is suspect."
                                    : String.join(
                                            " ",
                                            s.stream()
                                                    .map(Edges.Suspect::sentence)
                                                    .toList()));
                });
        Functions.define(
                Function.of(
                                "period",
                                of(Kind.COLUMN_OR_TRACE, "edges"),
                                quantity("resolution").in("s").usually("0 s"),
                                words("window").saying(""))
                        .described(
                                "a column of at least 3 edge times, or the trace of an oscillation; the timer's step",
                                "the period in s",
                                "period(column(0.000 s, 1.003 s, 1.999 s, 3.001 s, 4.000 s))",
                                "0.99980(54) s"),
                TraceRequests::period);
    }
}

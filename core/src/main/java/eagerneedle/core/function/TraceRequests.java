package eagerneedle.core.function;

import static eagerneedle.core.formula.Parameter.of;
import static eagerneedle.core.function.Functions.scalar;

import eagerneedle.core.event.Edges;
import eagerneedle.core.event.Period;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.NamedModel;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Crossings;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowSensitivity;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;

/** What a call of a function of traces asks for: moments, what the choice of ends or of a cut may change, spans. */
final class TraceRequests {
    private TraceRequests() {}

    /**
     * Crossings of a level as moments. What all samples share makes the signal cross earlier or later, by itself over
     * the slope there, and so does what the level is uncertain by.
     */
    static List<Quantity> through(Trace t, List<Crossings.Crossing> found, String kind, Quantity level) {
        List<Quantity> out = new ArrayList<>();
        List<Quantity> alone = moments(t, found, kind);
        for (int i = 0; i < alone.size(); i++) {
            Crossings.Crossing c = found.get(i);
            Quantity q = alone.get(i);
            for (Trace.Shared s : t.shared()) {
                if (s.seconds() == null && c.slope() != 0) {
                    q = q.with(s.leaf(), -s.at(c.moment(), level.value()) / c.slope());
                }
            }
            for (Map.Entry<Leaf, Double> e : level.contributions().entrySet()) {
                q = c.slope() == 0 ? q : q.with(e.getKey(), e.getValue() / c.slope());
            }
            out.add(q);
        }
        return out;
    }

    /** Moments that samples show, with the clock of the trace. */
    static List<Quantity> moments(Trace t, List<Crossings.Crossing> found, String kind) {
        String root = "moment:" + t.identity() + ":" + kind + "#";
        List<Quantity> out = new ArrayList<>();
        for (Crossings.Crossing c : found) {
            String id = root + out.size();
            Leaf leaf = c.step()
                    ? Leaf.typeB(id, "half a sample at an edge", t.name(), Distribution.RECTANGULAR)
                    : Double.isInfinite(c.dof())
                            ? Leaf.typeB(id, "where the samples cross", t.name(), Distribution.NORMAL)
                            : Leaf.typeA(id, "where the samples cross", t.name(), c.dof());
            out.add(t.clocked(Quantity.exact(c.moment(), LabUnit.SECOND).with(leaf, c.u())));
        }
        return out;
    }

    /** A moment between a sample and the one before it. */
    static Quantity between(Trace t, int sample, String kind) {
        double gap = t.time()[sample] - t.time()[sample - 1];
        Leaf leaf = Leaf.typeB(
                "moment:" + t.identity() + ":" + kind + "#" + sample,
                "half a sample",
                t.name(),
                Distribution.RECTANGULAR);
        return t.clocked(
                Quantity.of((t.time()[sample - 1] + t.time()[sample]) / 2, gap / Math.sqrt(12), LabUnit.SECOND, leaf));
    }

    /**
     * An answer from the trace of the first argument: with the influence of the choice of window when the call asks for
     * it, and of the window's ends where these are uncertain.
     *
     * @param plain the answer's number from any window
     * @param of the answer with what the samples make of it
     */
    static Quantity answered(
            Arguments a, ToDoubleFunction<Trace> plain, java.util.function.Function<Trace, Quantity> of) {
        Value.Ends ends = a.ends(0);
        return withEnds(ends, withChoice(a, of.apply(a.windowed(0)), plain), plain);
    }

    static Quantity withEnds(Value.@Nullable Ends ends, Quantity q, ToDoubleFunction<Trace> plain) {
        if (ends == null) {
            return q;
        }
        double least = ends.whole().interval();
        double[] slope = new double[2];
        for (int end = 0; end < 2; end++) {
            double h = Math.max(least, (end == 0 ? ends.from() : ends.to()).u());
            double[] v = new double[2];
            for (int side = 0; side < 2; side++) {
                double moved = side == 0 ? -h : h;
                v[side] = plain.applyAsDouble(ends.whole()
                        .within(new Window(
                                ends.from().value() + (end == 0 ? moved : 0),
                                ends.to().value() + (end == 1 ? moved : 0),
                                "moved")));
            }
            slope[end] = (v[1] - v[0]) / (2 * h);
        }
        return Quantity.combination(
                List.of(q, ends.from(), ends.to()), new double[] {1, slope[0], slope[1]}, q.value(), q.unit());
    }

    /** Adds the influence of the choice of window when the call asks for it. */
    static Quantity withChoice(Arguments a, Quantity q, ToDoubleFunction<Trace> answer) {
        double share = a.quantity("choice").in(LabUnit.ONE);
        if (share == 0) {
            return q;
        }
        Trace whole = a.trace(0);
        String name = a.words("window");
        Window w = name.isEmpty()
                ? new Window(whole.time()[0], whole.time()[whole.size() - 1], "whole")
                : a.namedWindow(name, whole);
        WindowSensitivity s = WindowSensitivity.of(whole, w, share, answer);
        Leaf leaf = Leaf.typeB(a.id(), "choice of window", a.scope().origin(), Distribution.RECTANGULAR);
        return s.halfRange() == 0 ? q : q.with(leaf, s.halfRange() / Math.sqrt(3));
    }

    static Value traced(Arguments a) {
        List<Quantity> times = a.rows(0);
        List<Quantity> values = a.rows(1);
        if (times.size() != values.size()) {
            throw new FormulaException(
                    a.column(),
                    "A trace needs as many times as values, not " + times.size() + " and " + values.size() + ".");
        }
        LabUnit unit = values.get(0).unit();
        double[] t = times.stream().mapToDouble(q -> q.in(LabUnit.SECOND)).toArray();
        for (int i = 1; i < t.length; i++) {
            if (!(t[i] > t[i - 1])) {
                throw new FormulaException(a.at(0).column(), "Times of a trace rise; row " + (i + 1) + " does not.");
            }
        }
        return new Value.Signal(new Trace(
                a.scope().label(),
                t,
                values.stream().mapToDouble(q -> q.in(unit)).toArray(),
                unit,
                0,
                List.of()));
    }

    static Value duration(Arguments a) {
        Trace t = a.windowed(0);
        if (t.size() < 2) {
            throw new FormulaException(a.at(0).column(), "The window holds fewer than 2 samples.");
        }
        double edge = t.interval() / Math.sqrt(12) * Math.sqrt(2);
        Leaf leaf = Leaf.typeB(a.id(), "half a sample at each edge", a.scope().origin(), Distribution.TRIANGULAR);
        return scalar(Quantity.of(t.time()[t.size() - 1] - t.time()[0], edge, LabUnit.SECOND, leaf));
    }

    static Value blockTimes(Arguments a) {
        Trace t = a.windowed(0);
        List<Quantity> up = moments(t, Edges.crossings(t, true), "rising");
        List<Quantity> down = moments(t, Edges.crossings(t, false), "falling");
        List<Quantity> out = new ArrayList<>();
        for (Quantity start : up) {
            down.stream()
                    .filter(d -> d.value() > start.value())
                    .findFirst()
                    .ifPresent(end -> out.add(end.minus(start)));
        }
        return new Value.Column(out);
    }

    static Value period(Arguments a) {
        if (a.value(0) instanceof Value.Signal) {
            Trace t = a.windowed(0);
            Fit f = a.told(NamedModel.DAMPED_COSINE.fit(
                    Points.of(t),
                    new FitOptions(Scatter.FROM_RESIDUALS, a.id(), "scatter of samples")
                            .samplesOf(t, "damped cosine")));
            return scalar(f.parameter(f.names().indexOf("period")));
        }
        List<Quantity> moments =
                a.rows(0).stream().map(q -> q.to(LabUnit.SECOND)).toList();
        Period p = Period.of(
                Edges.of(moments.stream().mapToDouble(Quantity::value).toArray()),
                moments,
                a.quantity("resolution").in(LabUnit.SECOND),
                a.id());
        p.remarks().forEach(a.scope()::remark);
        return scalar(p.value());
    }
}

package eagerneedle.core.trace;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.List;

/**
 * What a trace shows at one moment: the value there with its uncertainty, and the moment to half a sample.
 *
 * @param moment in s
 * @param value in the trace's unit, at just that moment
 * @param rate how fast the trace changes there, in its unit per s
 */
public record Cursor(Quantity moment, Quantity value, double rate) {
    private static final int SIDE = 3;

    /**
     * Reads a trace by a straight line through the samples around a moment.
     *
     * @param origin identity of this reading, root of its leaves' ids
     * @throws IllegalArgumentException when the moment lies outside the trace
     */
    public static Cursor at(Trace trace, double moment, String origin) {
        int n = trace.size();
        if (n < 2 || !(moment >= trace.time()[0] && moment <= trace.time()[n - 1])) {
            throw new IllegalArgumentException(
                    "The moment " + moment + " s lies outside the trace of " + trace.name() + ".");
        }
        int centre = trace.indexAt(moment);
        int from = Math.max(0, Math.min(centre - SIDE, n - 2 * SIDE - 1));
        int to = Math.min(n, from + 2 * SIDE + 1);
        double t = 0;
        double v = 0;
        int m = to - from;
        for (int i = from; i < to; i++) {
            t += (trace.time()[i] - moment) / m;
            v += trace.value()[i] / m;
        }
        double tt = 0;
        double tv = 0;
        double vv = 0;
        for (int i = from; i < to; i++) {
            double dt = trace.time()[i] - moment - t;
            double dv = trace.value()[i] - v;
            tt += dt * dt;
            tv += dt * dv;
            vv += dv * dv;
        }
        double slope = tt > 0 ? tv / tt : 0;
        double s2 = m > 2 ? Math.max(0, vv - slope * tv) / (m - 2) : 0;
        double value = v - slope * t;
        double scatter = Math.sqrt(s2 * (1.0 / m + (tt > 0 ? t * t / tt : 0)));
        Quantity q = Quantity.exact(value, trace.unit());
        String here = "cursor:" + trace.identity() + "@" + moment;
        if (scatter > 0) {
            q = q.with(
                    Leaf.typeA(here + "#scatter", "scatter at the cursor", trace.name(), Math.max(1, m - 2)), scatter);
        }
        if (trace.step() > 0) {
            q = q.with(
                    Leaf.typeB(here + "#step", "converter step", trace.name(), Distribution.RECTANGULAR),
                    trace.step() / Math.sqrt(12));
        }
        for (Trace.Shared s : trace.shared()) {
            q = q.with(s.leaf(), s.contribution().applyAsDouble(value));
        }
        Leaf half = Leaf.typeB(origin + "#moment", "half a sample", trace.name(), Distribution.RECTANGULAR);
        return new Cursor(Quantity.of(moment, trace.interval() / Math.sqrt(12), LabUnit.SECOND, half), q, slope);
    }

    /**
     * Reads a trace at a moment that is itself uncertain: the value is as uncertain as the trace changes in that time.
     *
     * @param moment in a unit of time
     * @throws IllegalArgumentException when the moment lies outside the trace
     */
    public static Quantity valueAt(Trace trace, Quantity moment, String origin) {
        Quantity at = moment.to(LabUnit.SECOND);
        Cursor c = at(trace, at.value(), origin);
        return at.isExact()
                ? c.value()
                : Quantity.combination(
                        List.of(c.value(), at),
                        new double[] {1, c.rate()},
                        c.value().value(),
                        trace.unit());
    }
}

package eagerneedle.core.trace;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;

/** Areas under a trace by trapezia: whole, or growing from its first sample on. */
public final class Integral {
    private Integral() {}

    /**
     * The area under a trace, with what its samples share and what their noise does. The noise is told by how far
     * samples lie off the straight line between their neighbours, which white noise does by √(3/2) of its standard
     * deviation.
     *
     * @param origin root of the leaf of the noise
     */
    public static Quantity of(Trace t, String origin) {
        if (t.size() < 2) {
            throw new IllegalArgumentException("An area needs 2 samples or more.");
        }
        Trace all = cumulative(t);
        int last = all.size() - 1;
        Quantity q = all.sample(last);
        double noise = Math.max(noise(t), t.step() / Math.sqrt(12)) * t.unit().factor();
        double squares = 0;
        for (int i = 0; i < t.size(); i++) {
            double before = i == 0 ? 0 : (t.time()[i] - t.time()[i - 1]) / 2;
            double after = i == last ? 0 : (t.time()[i + 1] - t.time()[i]) / 2;
            squares += (before + after) * (before + after);
        }
        double u = noise * Math.sqrt(squares) / q.unit().factor();
        return u == 0
                ? q
                : q.with(Leaf.typeA(origin, "noise of the samples under the area", t.name(), t.size() - 2.0), u);
    }

    /** The area from the first sample up to each, a trace. */
    public static Trace cumulative(Trace t) {
        LabUnit unit = t.unit().coherent().times(LabUnit.SECOND);
        double[] value = new double[t.size()];
        for (int i = 0; i < value.length; i++) {
            value[i] = coherent(t, t.value()[i]);
        }
        List<Trace.Shared> shared = new ArrayList<>();
        for (Trace.Shared s : t.shared()) {
            double[] each = new double[t.size()];
            for (int i = 0; i < each.length; i++) {
                each[i] = s.at(t.time()[i], t.value()[i]) * t.unit().factor();
            }
            shared.add(Trace.Shared.oneByOne(s.leaf(), t.time(), grown(t.time(), each)));
        }
        return new Trace("area of " + t.name(), t.time().clone(), grown(t.time(), value), unit, 0, shared);
    }

    private static double coherent(Trace t, double v) {
        return t.unit().convert(v, t.unit().coherent());
    }

    private static double[] grown(double[] time, double[] v) {
        double[] out = new double[v.length];
        for (int i = 1; i < v.length; i++) {
            out[i] = out[i - 1] + (time[i] - time[i - 1]) * (v[i] + v[i - 1]) / 2;
        }
        return out;
    }

    private static double noise(Trace t) {
        double sum = 0;
        for (int i = 1; i + 1 < t.size(); i++) {
            double share = (t.time()[i] - t.time()[i - 1]) / (t.time()[i + 1] - t.time()[i - 1]);
            double straight = t.value()[i - 1] + share * (t.value()[i + 1] - t.value()[i - 1]);
            double d = t.value()[i] - straight;
            sum += d * d;
        }
        return t.size() < 4 ? 0 : Math.sqrt(sum / (t.size() - 2) / 1.5);
    }
}

package eagerneedle.core.trace;

import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** Whole cycles of a trace that comes back again and again, from one upward crossing of its middle to the next. */
public final class Turns {
    private static final double HYSTERESIS = 0.1;

    private Turns() {}

    /**
     * The mean over each whole cycle: what repeats within a cycle takes no part.
     *
     * @return one quantity a cycle, with what all samples share; empty where there is no whole cycle
     */
    public static List<Quantity> means(Trace t) {
        double high = Arrays.stream(t.value()).max().orElse(0);
        double low = Arrays.stream(t.value()).min().orElse(0);
        return means(t, Crossings.of(t, (high + low) / 2, HYSTERESIS * (high - low), true));
    }

    /**
     * The mean over each stretch between moments that something else tells, such as a gate; those outside the trace
     * take no part.
     *
     * @param moments s, rising
     * @return one quantity a stretch, with what all samples share
     */
    public static List<Quantity> means(Trace t, double[] moments) {
        List<Quantity> out = new ArrayList<>();
        double[] starts = t.size() < 2
                ? new double[0]
                : Arrays.stream(moments)
                        .filter(m -> m >= t.time()[0] && m <= t.time()[t.size() - 1])
                        .toArray();
        if (starts.length < 2) {
            return out;
        }
        Trace area = Integral.cumulative(t);
        for (int i = 1; i < starts.length; i++) {
            Quantity whole = between(t, area, starts[i - 1], starts[i]);
            out.add(whole.to(t.unit().isAffine() ? whole.unit() : t.unit()));
        }
        return out;
    }

    private static Quantity between(Trace t, Trace area, double from, double to) {
        Quantity grown = at(t, area, to).minus(at(t, area, from));
        Quantity mean = grown.dividedBy(Quantity.exact(to - from, eagerneedle.core.quantity.LabUnit.SECOND));
        // A mean of temperatures is one of temperatures in kelvin.
        return mean;
    }

    /** The area up to a moment between samples. */
    private static Quantity at(Trace t, Trace area, double moment) {
        int next = Math.max(1, Math.min(t.indexAt(moment), t.size() - 1));
        Quantity before = area.sample(next - 1);
        Quantity a = t.sample(next - 1).coherent();
        Quantity b = t.at(moment).coherent();
        Quantity rest = a.plus(b)
                .times(Quantity.exact((moment - t.time()[next - 1]) / 2, eagerneedle.core.quantity.LabUnit.SECOND));
        return before.plus(rest);
    }
}

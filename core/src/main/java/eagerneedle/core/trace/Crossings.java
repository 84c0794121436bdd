package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.List;

/** Moments at which a signal crosses a level, each crossing counted once however noisy it is. */
public final class Crossings {
    private Crossings() {
    }

    /**
     * Upward or downward crossings.
     *
     * @param trace      any trace
     * @param level      in the trace's unit
     * @param hysteresis how far the signal must have been on the other side before a crossing counts, in the trace's unit
     * @param rising     upward crossings; otherwise downward ones
     * @return seconds from the start of the run, from a straight line through the samples about the crossing
     */
    public static double[] of(Trace trace, double level, double hysteresis, boolean rising) {
        double sign = rising ? 1 : -1;
        double[] v = trace.value();
        List<Double> out = new ArrayList<>();
        boolean armed = false;
        int last = -1;
        for (int i = 0; i < v.length; i++) {
            double d = sign * (v[i] - level);
            if (d <= -hysteresis) {
                armed = true;
                last = i;
            } else if (armed && d < 0) {
                last = i;
            } else if (armed && d >= hysteresis) {
                out.add(moment(trace, level, last, i));
                armed = false;
            }
        }
        return out.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static double moment(Trace trace, double level, int from, int to) {
        int a = from;
        int b = to;
        double t = 0;
        double v = 0;
        int n = b - a + 1;
        for (int i = a; i <= b; i++) {
            t += trace.time()[i] / n;
            v += trace.value()[i] / n;
        }
        double tt = 0;
        double tv = 0;
        for (int i = a; i <= b; i++) {
            tt += (trace.time()[i] - t) * (trace.time()[i] - t);
            tv += (trace.time()[i] - t) * (trace.value()[i] - v);
        }
        double moment = t + (level - v) / (tv / tt);
        return Math.max(trace.time()[from], Math.min(trace.time()[to], moment));
    }
}

package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;

/** Moments at which a signal crosses a level, each crossing counted once however noisy it is. */
public final class Crossings {
    private static final double JUMP = 0.5;
    private static final int NEIGHBOURS = 2;

    private Crossings() {}

    /**
     * Upward or downward crossings.
     *
     * @param trace any trace
     * @param level in the trace's unit
     * @param hysteresis how far the signal must have been on the other side before a crossing counts, in the trace's
     *     unit
     * @param rising upward crossings; otherwise downward ones
     * @return seconds from the start of the run, from a straight line through the samples about the crossing
     */
    public static double[] of(Trace trace, double level, double hysteresis, boolean rising) {
        return found(trace, level, hysteresis, rising).stream()
                .mapToDouble(Crossing::moment)
                .toArray();
    }

    /**
     * One crossing.
     *
     * @param moment in s
     * @param u its standard uncertainty in s, what the samples leave open
     * @param step true when the signal jumped between two samples, so that the moment may lie anywhere between them
     * @param slope how fast the signal rises there, in the trace's unit a second
     * @param dof degrees of freedom of u; infinite where it is no scatter
     */
    public record Crossing(double moment, double u, boolean step, double slope, double dof) {}

    /** As {@link #of}, with what the samples leave open. */
    public static List<Crossing> found(Trace trace, double level, double hysteresis, boolean rising) {
        double sign = rising ? 1 : -1;
        double[] v = trace.value();
        List<int[]> pairs = new ArrayList<>();
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
                pairs.add(new int[] {last, i});
                armed = false;
            }
        }
        double range = Arrays.stream(v).max().orElse(0) - Arrays.stream(v).min().orElse(0);
        List<Bend> bends =
                pairs.stream().map(p -> bend(trace, level, p[0], p[1], range)).toList();
        double squares =
                bends.stream().filter(b -> !b.step()).mapToDouble(Bend::squares).sum();
        long dof = bends.stream().filter(b -> !b.step()).count() * (2 * NEIGHBOURS + 2 - 4);
        double noise = Math.max(dof > 0 ? Math.sqrt(squares / dof) : 0, trace.step() / Math.sqrt(12));
        return bends.stream().map(b -> crossing(b, noise, dof)).toList();
    }

    private static Crossing crossing(Bend b, double noise, long dof) {
        if (b.step()) {
            return new Crossing(b.moment(), b.gap() / Math.sqrt(12), true, b.slope(), Double.POSITIVE_INFINITY);
        }
        double scatter = noise * b.leverage() / Math.abs(b.slope());
        double u = Math.min(b.gap(), Math.hypot(b.off(), scatter));
        // Only the scatter is known from so few samples (Welch and Satterthwaite).
        double share = scatter / Math.hypot(b.off(), scatter);
        return new Crossing(
                b.moment(),
                u,
                false,
                b.slope(),
                dof > 0 && share > 0 ? dof / (share * share * share * share) : Double.POSITIVE_INFINITY);
    }

    /**
     * A crossing on the way: where the straight line has it, how much of the noise of one sample that line has there,
     * how far off a cubic through the neighbours is, its slope there and what that leaves.
     */
    private record Bend(
            double moment, double leverage, double gap, boolean step, double off, double slope, double squares) {}

    /** A moment on a straight line through samples, and how much of the noise of one sample the line has there. */
    private record OnLine(double moment, double leverage) {}

    /**
     * A jump between two samples happened anywhere between them. A signal that is resolved crosses where the straight
     * line through the samples says, give or take what a cubic through the neighbours says instead, and its noise over
     * its slope.
     */
    private static Bend bend(Trace trace, double level, int from, int to, double range) {
        double[] t = trace.time();
        double[] v = trace.value();
        OnLine line = moment(trace, level, from, to);
        double moment = line.moment();
        double gap = t[to] - t[from];
        int first = from - NEIGHBOURS;
        int last = to + NEIGHBOURS;
        if (to == from + 1 && Math.abs(v[to] - v[from]) > JUMP * range || first < 0 || last >= v.length) {
            return new Bend(moment, 1, gap, true, 0, (v[to] - v[from]) / gap, 0);
        }
        int n = last - first + 1;
        double[][] design = new double[n][4];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            double x = (t[first + i] - moment) / gap;
            design[i] = new double[] {1, x, x * x, x * x * x};
            y[i] = v[first + i] - level;
        }
        double[] c = new QRDecomposition(new Array2DRowRealMatrix(design, false))
                .getSolver()
                .solve(new ArrayRealVector(y, false))
                .toArray();
        double squares = 0;
        for (int i = 0; i < n; i++) {
            double r = y[i] - c[0] - c[1] * design[i][1] - c[2] * design[i][2] - c[3] * design[i][3];
            squares += r * r;
        }
        double x = 0;
        for (int pass = 0; pass < 8; pass++) {
            double slope = c[1] + x * (2 * c[2] + x * 3 * c[3]);
            double step = (c[0] + x * (c[1] + x * (c[2] + x * c[3]))) / slope;
            x = Double.isFinite(step) ? Math.max(-1, Math.min(1, x - step)) : 1;
        }
        return new Bend(
                moment,
                line.leverage(),
                gap,
                false,
                gap * Math.abs(x),
                c[1] / gap,
                squares * (2.0 * NEIGHBOURS - 2) / (n - 4));
    }

    private static OnLine moment(Trace trace, double level, int from, int to) {
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
        return new OnLine(
                Math.max(trace.time()[from], Math.min(trace.time()[to], moment)),
                Math.sqrt(1.0 / n + (moment - t) * (moment - t) / tt));
    }
}

package eagerneedle.core.trace;

import eagerneedle.core.quantity.Digest;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * The samples of one channel in one run, in the measurand's unit, with the influences all samples share.
 *
 * <p>A calibration makes every sample wrong together. Such influences are kept once, as a contribution that depends on
 * the value, so that whatever is computed from the samples by exact derivatives inherits them with the right sign and
 * size.
 *
 * @param name the channel
 * @param time n moments in seconds from the start of the run, rising
 * @param value n values in {@code unit}
 * @param unit of the values
 * @param step smallest step the converter can show, in {@code unit}; 0 if not known
 * @param shared influences common to all samples
 */
public record Trace(String name, double[] time, double[] value, LabUnit unit, double step, List<Shared> shared) {
    /**
     * An influence that all samples share.
     *
     * @param leaf the influence
     * @param contribution what one standard deviation of it does to a sample of a given value; both in the trace's unit
     * @param moments of samples on which it acts one by one, because the trace was reckoned from others; null where the
     *     value says it all
     * @param each what it does at each of these moments, in the trace's unit
     * @param seconds by how much it makes times wrong, s at a time in s; null for one that leaves times alone
     */
    public record Shared(
            Leaf leaf,
            DoubleUnaryOperator contribution,
            double @Nullable [] moments,
            double @Nullable [] each,
            @Nullable DoubleUnaryOperator seconds) {
        public Shared(Leaf leaf, DoubleUnaryOperator contribution) {
            this(leaf, contribution, null, null, null);
        }

        /**
         * Of an influence that makes all times of a trace wrong: at any moment a signal v shows what it was a little
         * before, which is wrong by the slope of v times that.
         */
        static Shared ofTimes(Leaf leaf, Trace of, DoubleUnaryOperator seconds) {
            double[] each = new double[of.size()];
            for (int i = 0; i < each.length; i++) {
                int a = Math.max(0, i - 1);
                int b = Math.min(each.length - 1, i + 1);
                double slope = b > a ? (of.value[b] - of.value[a]) / (of.time[b] - of.time[a]) : 0;
                each[i] = -slope * seconds.applyAsDouble(of.time[i]);
            }
            return new Shared(leaf, v -> Double.NaN, of.time, each, seconds);
        }

        /** The same for a gate, whose edges are all that it tells. */
        static Shared ofEdges(Leaf leaf, DoubleUnaryOperator seconds) {
            return new Shared(leaf, v -> 0, null, null, seconds);
        }

        /** Of an influence that acts on samples one by one. */
        public static Shared oneByOne(Leaf leaf, double[] moments, double[] each) {
            return new Shared(leaf, v -> Double.NaN, moments, each, null);
        }

        /** What one standard deviation does to each sample of a trace; in the trace's unit. */
        public double[] onSamplesOf(Trace trace) {
            double[] effects = new double[trace.size()];
            for (int i = 0; i < effects.length; i++) {
                effects[i] = at(trace.time()[i], trace.value()[i]);
            }
            return effects;
        }

        /** What one standard deviation does to a sample at a moment (s) that has a value; straight in between. */
        public double at(double moment, double value) {
            if (moments == null || each == null) {
                return contribution.applyAsDouble(value);
            }
            int at = Arrays.binarySearch(moments, moment);
            if (at >= 0) {
                return each[at];
            }
            int next = -at - 1;
            if (next == 0 || next == moments.length) {
                return each[next == 0 ? 0 : moments.length - 1];
            }
            double share = (moment - moments[next - 1]) / (moments[next] - moments[next - 1]);
            return each[next - 1] + share * (each[next] - each[next - 1]);
        }
    }

    /** Share of the distance of samples that is taken for rounding. */
    private static final double SLACK = 1e-6;

    public Trace {
        if (time.length != value.length) {
            throw new IllegalArgumentException(
                    "A trace needs as many times as values, not " + time.length + " and " + value.length + ".");
        }
        shared = List.copyOf(shared);
    }

    public int size() {
        return time.length;
    }

    /** What tells these samples from others: the same moments and values are the same samples. */
    public String identity() {
        Digest digest = new Digest();
        digest.add(time);
        digest.add(value);
        return digest.toString();
    }

    /** Index of the first sample at or after a moment (s); {@link #size()} if there is none. */
    public int indexAt(double moment) {
        int at = Arrays.binarySearch(time, moment);
        return at >= 0 ? at : -at - 1;
    }

    /** A sample as a quantity, with what all samples share but without its scatter. */
    public Quantity sample(int i) {
        return sample(time[i], value[i]);
    }

    /** What the trace shows at a moment (s), straight between samples; as {@link #sample}. */
    public Quantity at(double moment) {
        return sample(moment, valueAt(moment));
    }

    /** The value at a moment (s), straight between samples; before the first and after the last it is theirs. */
    public double valueAt(double moment) {
        if (size() < 2) {
            return value[0];
        }
        int next = Math.max(1, Math.min(indexAt(moment), size() - 1));
        double share = (moment - time[next - 1]) / (time[next] - time[next - 1]);
        double held = Math.max(0, Math.min(1, share));
        return held == 1 ? value[next] : value[next - 1] + held * (value[next] - value[next - 1]);
    }

    private Quantity sample(double moment, double v) {
        Quantity q = Quantity.exact(v, unit);
        for (Shared s : shared) {
            q = q.with(s.leaf(), s.at(moment, v));
        }
        return q;
    }

    /**
     * A moment that was found in this trace, with what makes all its times wrong.
     *
     * @param moment in s
     */
    public Quantity clocked(Quantity moment) {
        Quantity q = moment;
        for (Shared s : shared) {
            if (s.seconds() != null) {
                q = q.with(s.leaf(), s.seconds().applyAsDouble(moment.value()));
            }
        }
        return q;
    }

    /** The samples inside a window; influences stay. */
    public Trace within(Window window) {
        // Clocks are sums of steps: a sample that is an end but for rounding belongs to it.
        double slack = time.length < 2 ? 0 : SLACK * (time[time.length - 1] - time[0]) / (time.length - 1);
        int from = indexAt(window.from() - slack);
        int to = from;
        while (to < time.length && time[to] <= window.to() + slack) {
            to++;
        }
        return slice(from, to);
    }

    /** The samples from one index up to, and without, another; influences stay. */
    public Trace slice(int from, int to) {
        return new Trace(
                name, Arrays.copyOfRange(time, from, to), Arrays.copyOfRange(value, from, to), unit, step, shared);
    }

    /**
     * A signal of steps from samples that each tell what it is from their moment on, as a gate timer sends them: every
     * change is a rise or fall of the length of the timer's step about its moment, so that edges are found where they
     * were. It is taken to be 0 at first.
     *
     * @param resolution of the timer, s
     */
    public Trace stairs(double resolution) {
        double[] t = new double[2 * time.length];
        double[] v = new double[2 * time.length];
        int n = 0;
        for (int i = 0; i < time.length; i++) {
            double before = i == 0 ? 0 : value[i - 1];
            if (before != value[i] && (n == 0 || time[i] - resolution / 2 > t[n - 1])) {
                t[n] = time[i] - resolution / 2;
                v[n++] = before;
                t[n] = time[i] + resolution / 2;
                v[n++] = value[i];
            }
        }
        return new Trace(name, Arrays.copyOf(t, n), Arrays.copyOf(v, n), unit, step, shared);
    }

    /** Median distance of neighbouring samples in seconds; NaN for fewer than two samples. */
    public double interval() {
        if (time.length < 2) {
            return Double.NaN;
        }
        double[] gaps = new double[time.length - 1];
        for (int i = 0; i < gaps.length; i++) {
            gaps[i] = time[i + 1] - time[i];
        }
        Arrays.sort(gaps);
        return gaps[gaps.length / 2];
    }
}

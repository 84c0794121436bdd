package eagerneedle.core.trace;

import eagerneedle.core.quantity.Digest;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;

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
     */
    public record Shared(Leaf leaf, DoubleUnaryOperator contribution) {}

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

    /** The samples inside a window; influences stay. */
    public Trace within(Window window) {
        int from = indexAt(window.from());
        int to = from;
        while (to < time.length && time[to] <= window.to()) {
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

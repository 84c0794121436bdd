package eagerneedle.app.bench;

import eagerneedle.core.trace.RawSamples;
import java.util.Arrays;

/** Samples of one channel as they come in, safe to add to and to look at from different threads. */
final class GrowingSamples {
    private double[] time = new double[1024];
    private double[] values = new double[1024];
    private int size;

    synchronized void add(double[] t, double[] v) {
        if (size + t.length > time.length) {
            int bigger = Math.max(2 * time.length, size + t.length);
            time = Arrays.copyOf(time, bigger);
            values = Arrays.copyOf(values, bigger);
        }
        System.arraycopy(t, 0, time, size, t.length);
        System.arraycopy(v, 0, values, size, v.length);
        size += t.length;
    }

    synchronized RawSamples all() {
        return new RawSamples(Arrays.copyOf(time, size), Arrays.copyOf(values, size));
    }

    /** The samples from index {@code from} on. */
    synchronized RawSamples since(int from) {
        return new RawSamples(Arrays.copyOfRange(time, from, Math.max(from, size)), Arrays.copyOfRange(values, from, Math.max(from, size)));
    }

    /** The samples of the last so many seconds. */
    synchronized RawSamples last(double seconds) {
        int from = size;
        while (from > 0 && time[from - 1] >= time[size - 1] - seconds) {
            from--;
        }
        return since(from);
    }

    synchronized int size() {
        return size;
    }
}

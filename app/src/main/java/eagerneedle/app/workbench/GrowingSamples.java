package eagerneedle.app.workbench;

import eagerneedle.core.trace.Pyramid;
import eagerneedle.core.trace.RawSamples;
import java.util.Arrays;

/**
 * Samples of one channel as they come in, safe to add to and to look at from different threads: the newest ones
 * themselves, as many as there is room for, and the outline of all of them.
 */
final class GrowingSamples {
    private final int room;
    private final Pyramid outline = new Pyramid();
    private double[] time = new double[1024];
    private double[] values = new double[1024];
    private int size;
    private long gone;

    /** @param room how many of the newest samples are kept at least */
    GrowingSamples(int room) {
        this.room = Math.max(1024, room);
    }

    synchronized void add(double[] t, double[] v) {
        if (size + t.length > time.length && size + t.length > 2 * room) {
            int drop = Math.max(0, Math.min(size, size + t.length - room));
            System.arraycopy(time, drop, time, 0, size - drop);
            System.arraycopy(values, drop, values, 0, size - drop);
            size -= drop;
            gone += drop;
        }
        if (size + t.length > time.length) {
            int bigger = Math.max(Math.min(2 * time.length, 2 * room), size + t.length);
            time = Arrays.copyOf(time, bigger);
            values = Arrays.copyOf(values, bigger);
        }
        System.arraycopy(t, 0, time, size, t.length);
        System.arraycopy(v, 0, values, size, v.length);
        size += t.length;
        outline.add(t, v, t.length);
    }

    /** All samples that are still here. */
    synchronized RawSamples all() {
        return new RawSamples(Arrays.copyOf(time, size), Arrays.copyOf(values, size));
    }

    /** All samples that are still here where they are few, otherwise so many of them, evenly chosen. */
    synchronized RawSamples thinned(int most) {
        int n = Math.min(size, most);
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            int at = (int) ((long) i * size / n);
            t[i] = time[at];
            v[i] = values[at];
        }
        return new RawSamples(t, v);
    }

    /** True when no sample had to make room for newer ones. */
    synchronized boolean whole() {
        return gone == 0;
    }

    /** The samples of the last so many seconds, as far as they are still here. */
    synchronized RawSamples last(double seconds) {
        if (size == 0) {
            return RawSamples.NONE;
        }
        int at = Arrays.binarySearch(time, 0, size, time[size - 1] - seconds);
        int from = at < 0 ? -at - 1 : at;
        return new RawSamples(Arrays.copyOfRange(time, from, size), Arrays.copyOfRange(values, from, size));
    }

    /** The outline of everything that came. */
    Pyramid outline() {
        return outline;
    }

    /** How many came. */
    synchronized long count() {
        return gone + size;
    }

    /** Moment of the newest sample, s; 0 while there is none. */
    synchronized double end() {
        return size == 0 ? 0 : time[size - 1];
    }
}

package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The outline of a long trace: least and greatest value of every bin of {@value #BIN} samples, of every {@value #FAN}
 * such bins, and so on upwards. A view of any width is drawn from the level that has a few bins for each pixel, so that
 * a hundred million samples cost as much as a thousand. It grows at its end while samples come in. Safe to use from
 * several threads.
 *
 * <p>Values are kept as floats rounded outwards: a bin never looks smaller than it is.
 */
public final class Pyramid {
    /** Samples in a bin of the lowest level. */
    public static final int BIN = 256;

    private static final int FAN = 8;

    /**
     * Part of an outline.
     *
     * @param time start of each of n bins, s
     * @param low least value of each
     * @param high greatest value of each
     * @param each how many samples a bin stands for
     */
    public record Outline(double[] time, float[] low, float[] high, int each) {
        public int size() {
            return time.length;
        }
    }

    private static final class Level {
        private double[] time = new double[64];
        private float[] low = new float[64];
        private float[] high = new float[64];
        private int size;

        void add(double t, float l, float h) {
            if (size == time.length) {
                time = Arrays.copyOf(time, 2 * size);
                low = Arrays.copyOf(low, 2 * size);
                high = Arrays.copyOf(high, 2 * size);
            }
            time[size] = t;
            low[size] = l;
            high[size++] = h;
        }

        /** Index of the last bin that starts at or before t; 0 if none does. */
        int at(double t) {
            int i = Arrays.binarySearch(time, 0, size, t);
            return Math.max(0, i >= 0 ? i : -i - 2);
        }
    }

    private final List<Level> levels = new ArrayList<>(List.of(new Level()));
    private long samples;
    private double end = Double.NaN;
    private double openTime;
    private float openLow;
    private float openHigh;
    private int open;

    /** Takes samples in order of time. */
    public synchronized void add(double[] time, double[] values, int n) {
        for (int i = 0; i < n; i++) {
            float down = down(values[i]);
            float up = up(values[i]);
            if (open == 0) {
                openTime = time[i];
                openLow = down;
                openHigh = up;
            } else {
                openLow = Math.min(openLow, down);
                openHigh = Math.max(openHigh, up);
            }
            if (++open == BIN) {
                close();
            }
        }
        samples += n;
        end = n > 0 ? time[n - 1] : end;
    }

    /** Takes bins that were made before, such as stored ones, of {@code count} samples that end at {@code last}. */
    public synchronized void add(Outline bins, long count, double last) {
        close();
        for (int i = 0; i < bins.size(); i++) {
            push(0, bins.time()[i], bins.low()[i], bins.high()[i]);
        }
        samples += count;
        end = last;
    }

    private void close() {
        if (open > 0) {
            push(0, openTime, openLow, openHigh);
            open = 0;
        }
    }

    private void push(int level, double t, float low, float high) {
        Level l = levels.get(level);
        l.add(t, low, high);
        if (l.size % FAN == 0) {
            if (levels.size() == level + 1) {
                levels.add(new Level());
            }
            float least = low;
            float greatest = high;
            for (int i = l.size - FAN; i < l.size; i++) {
                least = Math.min(least, l.low[i]);
                greatest = Math.max(greatest, l.high[i]);
            }
            push(level + 1, l.time[l.size - FAN], least, greatest);
        }
    }

    /** Samples taken so far. */
    public synchronized long samples() {
        return samples;
    }

    /** Moment of the last sample, s; NaN while there is none. */
    public synchronized double end() {
        return end;
    }

    /** Moment of the first sample, s; NaN while there is none. */
    public synchronized double start() {
        return samples == 0 ? Double.NaN : levels.get(0).size > 0 ? levels.get(0).time[0] : openTime;
    }

    /**
     * The outline of a span, with at least as many bins as columns while there are that many, and at most about
     * {@value #FAN} times as many.
     */
    public synchronized Outline over(double from, double to, int columns) {
        int level = levels.size() - 1;
        while (level > 0 && levels.get(level).at(to) - levels.get(level).at(from) < columns) {
            level--;
        }
        Level l = levels.get(level);
        int a = l.at(from);
        int b = l.size == 0 ? 0 : l.at(to) + 1;
        // What this level has not gathered yet stands in the levels below it.
        Level rest = new Level();
        if (b == l.size) {
            int done = l.size;
            for (int below = level - 1; below >= 0; below--) {
                Level m = levels.get(below);
                done *= FAN;
                for (int i = done; i < m.size && m.time[i] <= to; i++) {
                    rest.add(m.time[i], m.low[i], m.high[i]);
                }
                done = m.size;
            }
            if (open > 0 && openTime <= to) {
                rest.add(openTime, openLow, openHigh);
            }
        }
        int n = b - a + rest.size;
        double[] t = Arrays.copyOf(Arrays.copyOfRange(l.time, a, b), n);
        float[] low = Arrays.copyOf(Arrays.copyOfRange(l.low, a, b), n);
        float[] high = Arrays.copyOf(Arrays.copyOfRange(l.high, a, b), n);
        System.arraycopy(rest.time, 0, t, b - a, rest.size);
        System.arraycopy(rest.low, 0, low, b - a, rest.size);
        System.arraycopy(rest.high, 0, high, b - a, rest.size);
        return new Outline(t, low, high, (int) Math.min(Integer.MAX_VALUE, BIN * Math.round(Math.pow(FAN, level))));
    }

    /** The bins of the lowest level of some samples, as they are stored with them. */
    public static Outline bins(double[] time, double[] values) {
        int n = (values.length + BIN - 1) / BIN;
        double[] t = new double[n];
        float[] low = new float[n];
        float[] high = new float[n];
        for (int b = 0; b < n; b++) {
            double least = Double.POSITIVE_INFINITY;
            double greatest = Double.NEGATIVE_INFINITY;
            int to = Math.min(values.length, (b + 1) * BIN);
            for (int i = b * BIN; i < to; i++) {
                least = Math.min(least, values[i]);
                greatest = Math.max(greatest, values[i]);
            }
            t[b] = time[b * BIN];
            low[b] = down(least);
            high[b] = up(greatest);
        }
        return new Outline(t, low, high, BIN);
    }

    private static float down(double v) {
        float f = (float) v;
        return f > v ? Math.nextDown(f) : f;
    }

    private static float up(double v) {
        float f = (float) v;
        return f < v ? Math.nextUp(f) : f;
    }
}

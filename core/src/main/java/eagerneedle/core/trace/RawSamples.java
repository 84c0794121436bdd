package eagerneedle.core.trace;

import java.util.Arrays;

/**
 * Samples as they arrived: never altered.
 *
 * @param time n moments in seconds from the start of the run, by the instrument's clock
 * @param values n raw values: counts of the converter, or numbers in the unit of an imported file
 */
public record RawSamples(double[] time, double[] values) {
    public static final RawSamples NONE = new RawSamples(new double[0], new double[0]);

    public RawSamples {
        if (time.length != values.length) {
            throw new IllegalArgumentException(
                    "Raw samples need as many times as values, not " + time.length + " and " + values.length + ".");
        }
    }

    public int size() {
        return time.length;
    }

    /** The samples from one moment to another, both included, in s. */
    public RawSamples between(double from, double to) {
        int a = Arrays.binarySearch(time, from);
        int b = Arrays.binarySearch(time, to);
        a = a < 0 ? -a - 1 : a;
        b = b < 0 ? -b - 1 : b + 1;
        return a >= b
                ? NONE
                : a == 0 && b == size()
                        ? this
                        : new RawSamples(Arrays.copyOfRange(time, a, b), Arrays.copyOfRange(values, a, b));
    }

    /** The last sample at or before a moment, in s; none where all came later. */
    public RawSamples lastUntil(double moment) {
        int at = Arrays.binarySearch(time, moment);
        int last = at < 0 ? -at - 2 : at;
        return last < 0 ? NONE : new RawSamples(new double[] {time[last]}, new double[] {values[last]});
    }

    public RawSamples plus(RawSamples more) {
        double[] t = Arrays.copyOf(time, size() + more.size());
        double[] v = Arrays.copyOf(values, size() + more.size());
        System.arraycopy(more.time, 0, t, size(), more.size());
        System.arraycopy(more.values, 0, v, size(), more.size());
        return new RawSamples(t, v);
    }
}

package eagerneedle.core.trace;

import eagerneedle.core.quantity.Ranks;
import java.util.Arrays;

/**
 * The median in two passes at memory speed: some samples tell within which bounds it lies almost surely; those below
 * are counted, those within are selected from (Floyd and Rivest 1975). Where the bounds miss it, or hold most of the
 * values as a coarse converter makes them, plain selection does it.
 */
final class Median {
    private static final int MANY = 50_000;
    private static final int LOOKED_AT = 16_384;
    /**
     * Share of the ranks to each side of the middle: 3.6 standard deviations of the rank of a median of those looked
     * at.
     */
    private static final double MARGIN = 0.014;

    private Median() {}

    /** The median of values; they stay as they are. */
    static double of(double[] values) {
        return values.length < MANY ? selected(values.clone(), values.length) : ofMany(values);
    }

    private static double ofMany(double[] v) {
        Bounds bounds = Bounds.of(v);
        return of(v, Tiles.map(v.length, (from, to) -> within(v, bounds, from, to), Within[]::new));
    }

    /** True for so many values that bounds are looked for first. */
    static boolean isOfMany(double[] v) {
        return v.length >= MANY;
    }

    /** Where the median lies almost surely: within so much of a centre, in the unit of the values. */
    record Bounds(double centre, double half) {
        static Bounds of(double[] v) {
            int n = v.length;
            double[] some = new double[LOOKED_AT];
            for (int i = 0; i < LOOKED_AT; i++) {
                some[i] = v[(int) ((long) i * n / LOOKED_AT)];
            }
            int first = (int) ((0.5 - MARGIN) * LOOKED_AT);
            double low = Ranks.select(some, 0, LOOKED_AT, first);
            double high = Ranks.select(some, first, LOOKED_AT, (int) ((0.5 + MARGIN) * LOOKED_AT));
            double centre = low + (high - low) / 2;
            return new Bounds(centre, Math.max(centre - low, high - centre));
        }
    }

    /** The median, from what lies within the bounds in blocks that together are all values. */
    static double of(double[] v, Within[] parts) {
        int n = v.length;
        long below = 0;
        int inside = 0;
        for (Within w : parts) {
            below += w.below;
            inside += w.count;
        }
        long lower = (n - 1) / 2 - below;
        long upper = n / 2 - below;
        if (lower < 0 || upper >= inside || inside > n / 4) {
            return selected(v.clone(), n);
        }
        double[] middle = new double[inside];
        int at = 0;
        for (Within w : parts) {
            System.arraycopy(w.values, 0, middle, at, w.count);
            at += w.count;
        }
        double one = Ranks.select(middle, 0, inside, (int) lower);
        return lower == upper ? one : (one + Ranks.select(middle, 0, inside, (int) upper)) / 2;
    }

    /** The values of a block within the bounds, and how many lie below. */
    record Within(int below, double[] values, int count) {}

    static Within within(double[] v, Bounds bounds, int from, int to) {
        double centre = bounds.centre;
        double half = bounds.half;
        int below = 0;
        for (int i = from; i < to; i++) {
            // The sign itself is counted: which side a value lies on cannot be foretold, and a branch would be guessed.
            below += (int) (Double.doubleToRawLongBits(v[i] - centre + half) >>> 63);
        }
        double[] inside = new double[(to - from) / 8];
        int count = 0;
        for (int i = from; i < to; i++) {
            if (Math.abs(v[i] - centre) <= half) {
                if (count == inside.length) {
                    inside = Arrays.copyOf(inside, Math.max(16, 2 * count));
                }
                inside[count++] = v[i];
            }
        }
        return new Within(below, inside, count);
    }

    private static double selected(double[] v, int n) {
        double upper = Ranks.select(v, 0, n, n / 2);
        if (n % 2 != 0) {
            return upper;
        }
        double lower = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < n / 2; i++) {
            lower = Math.max(lower, v[i]);
        }
        return (lower + upper) / 2;
    }
}

package eagerneedle.core.quantity;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * The two ends of very many numbers, in order: all that coverage intervals need of them. Some that are looked at tell
 * where the ends begin; what lies beyond is collected in one pass and sorted, and the middle is left as it is.
 *
 * @param n how many numbers there are
 * @param low the smallest, rising
 * @param high the largest, rising
 */
record Tails(int n, double[] low, double[] high) {
    private static final int FEW = 20_000;
    private static final int LOOKED_AT = 8_192;
    private static final double SURELY = 4.5;

    /**
     * The ends that an interval of a coverage probability can have.
     *
     * @param v finite numbers; they stay as they are
     * @param probability 0 to 1
     */
    static Tails of(double[] v, double probability) {
        int n = v.length;
        int wanted = n - (int) Math.round(probability * n) + 2;
        if (n < FEW || wanted > n / 4) {
            double[] sorted = v.clone();
            Ranks.sort(sorted);
            return new Tails(n, sorted, sorted);
        }
        double[] some = new double[LOOKED_AT];
        for (int i = 0; i < LOOKED_AT; i++) {
            some[i] = v[(int) ((long) i * n / LOOKED_AT)];
        }
        Arrays.sort(some);
        double share = wanted / (double) n;
        int margin = (int) Math.ceil(LOOKED_AT * share + SURELY * Math.sqrt(LOOKED_AT * share * (1 - share)));
        double[][] ends = new double[2][];
        IntStream.range(0, 2)
                .parallel()
                .forEach(side -> ends[side] =
                        side == 0 ? end(v, some[margin], -1, wanted) : end(v, some[LOOKED_AT - 1 - margin], 1, wanted));
        return new Tails(n, ends[0], ends[1]);
    }

    private static double[] end(double[] v, double bound, int side, int wanted) {
        double[] beyond = new double[wanted + wanted / 2];
        int count = 0;
        for (double x : v) {
            if (side < 0 ? x <= bound : x >= bound) {
                if (count == beyond.length) {
                    beyond = Arrays.copyOf(beyond, 2 * count);
                }
                beyond[count++] = x;
            }
        }
        // A pattern that those looked at fell in step with: all are sorted.
        beyond = count < wanted ? v.clone() : Arrays.copyOf(beyond, count);
        Ranks.sort(beyond);
        return beyond;
    }

    /** The number of a rank, 0-based, that lies in one of the ends. */
    double rank(int k) {
        return k < low.length ? low[k] : high[high.length - (n - k)];
    }
}

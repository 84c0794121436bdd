package eagerneedle.core.quantity;

import java.util.Arrays;
import java.util.stream.IntStream;

/** Very many numbers in order, and the few order statistics of a block that its figures need. */
public final class Ranks {
    private static final int FEW = 20_000;
    private static final int LOOKED_AT = 1024;
    private static final int IN_A_BIN = 8;
    private static final int SHORT = 40;
    private static final int SHARES = 64;
    private static final int COUNTING = 4;

    private Ranks() {}

    /**
     * Sorts numbers by laying them out in bins of a few and sorting each bin: one pass over memory instead of twenty.
     * Bins are even between the outermost of some that are looked at, which suits whatever is dense in the middle; what
     * lies outside, or in a bin that holds far more than the others, is sorted the general way.
     *
     * @param v finite numbers
     */
    static void sort(double[] v) {
        int n = v.length;
        if (n < FEW) {
            Arrays.sort(v);
            return;
        }
        double[] some = new double[LOOKED_AT];
        for (int i = 0; i < LOOKED_AT; i++) {
            some[i] = v[(int) ((long) i * n / LOOKED_AT)];
        }
        Arrays.sort(some);
        int bins = n / IN_A_BIN;
        double low = some[0];
        double scale = (bins - 2) / (some[LOOKED_AT - 1] - low);
        if (!(scale > 0) || Double.isInfinite(scale)) {
            Arrays.parallelSort(v);
            return;
        }
        double[] laidOut = new double[n];
        int[] ends = layOut(v, low, scale, bins, laidOut);
        IntStream.range(0, SHARES).parallel().forEach(s -> {
            int first = (int) ((long) s * bins / SHARES);
            int last = (int) ((long) (s + 1) * bins / SHARES);
            for (int b = first; b < last; b++) {
                sort(laidOut, b == 0 ? 0 : ends[b - 1], ends[b]);
            }
            int from = first == 0 ? 0 : ends[first - 1];
            System.arraycopy(laidOut, from, v, from, (last == 0 ? 0 : ends[last - 1]) - from);
        });
    }

    /**
     * Lays numbers out bin by bin; where each bin ends is returned. Several shares count for themselves and then write.
     */
    private static int[] layOut(double[] v, double low, double scale, int bins, double[] out) {
        int n = v.length;
        int[][] next = new int[COUNTING][bins];
        IntStream.range(0, COUNTING).parallel().forEach(s -> {
            int to = (int) ((long) (s + 1) * n / COUNTING);
            for (int i = (int) ((long) s * n / COUNTING); i < to; i++) {
                next[s][bin(v[i], low, scale, bins)]++;
            }
        });
        int[] ends = new int[bins];
        int at = 0;
        for (int b = 0; b < bins; b++) {
            for (int s = 0; s < COUNTING; s++) {
                int count = next[s][b];
                next[s][b] = at;
                at += count;
            }
            ends[b] = at;
        }
        IntStream.range(0, COUNTING).parallel().forEach(s -> {
            int to = (int) ((long) (s + 1) * n / COUNTING);
            for (int i = (int) ((long) s * n / COUNTING); i < to; i++) {
                out[next[s][bin(v[i], low, scale, bins)]++] = v[i];
            }
        });
        return ends;
    }

    private static int bin(double x, double low, double scale, int bins) {
        // A number far outside becomes the largest or smallest whole number, never one between.
        return Math.max(0, Math.min(bins - 1, (int) ((x - low) * scale) + 1));
    }

    private static void sort(double[] v, int from, int to) {
        if (to - from > SHORT) {
            Arrays.sort(v, from, to);
            return;
        }
        for (int i = from + 1; i < to; i++) {
            double x = v[i];
            int j = i - 1;
            while (j >= from && v[j] > x) {
                v[j + 1] = v[j];
                j--;
            }
            v[j + 1] = x;
        }
    }

    /**
     * Brings the k-th smallest to its place; nothing before it is larger and nothing behind it smaller (Hoare 1961,
     * median of three).
     *
     * @param v finite numbers in any unit; those between {@code from} and, without it, {@code to} are put in another
     *     order
     * @param k rank counted from 0 at the beginning of the array, from {@code from} to below {@code to}
     * @return the k-th smallest, in the unit of {@code v}
     */
    public static double select(double[] v, int from, int to, int k) {
        int low = from;
        int high = to - 1;
        while (low < high) {
            double a = v[low];
            double b = v[(low + high) >>> 1];
            double c = v[high];
            double pivot = Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
            int i = low;
            int j = high;
            while (i <= j) {
                while (v[i] < pivot) {
                    i++;
                }
                while (v[j] > pivot) {
                    j--;
                }
                if (i <= j) {
                    double t = v[i];
                    v[i++] = v[j];
                    v[j--] = t;
                }
            }
            if (k <= j) {
                high = j;
            } else if (k >= i) {
                low = i;
            } else {
                return v[k];
            }
        }
        return v[k];
    }
}

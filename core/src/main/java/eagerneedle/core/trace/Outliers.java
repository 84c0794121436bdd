package eagerneedle.core.trace;

import java.util.ArrayList;
import java.util.List;

/**
 * Flags samples that lie far from their neighbours (Hampel 1974). It never removes one: leaving out is a person's
 * choice.
 */
public final class Outliers {
    private Outliers() {}

    /**
     * Indices of the samples that lie further from the median of their neighbourhood than so many robust standard
     * deviations.
     *
     * @param half neighbours on either side, 1 or more
     * @param threshold in standard deviations estimated from the median absolute deviation, 3 or more by custom
     * @param floor smallest standard deviation to believe, in the unit of the values: a converter's step, say
     */
    public static List<Integer> flagged(double[] values, int half, double threshold, double floor) {
        List<Integer> out = new ArrayList<>();
        int n = values.length;
        for (int i = 0; i < n; i++) {
            int from = Math.max(0, Math.min(i - half, n - 2 * half - 1));
            int to = Math.min(n, from + 2 * half + 1);
            double[] near = java.util.Arrays.copyOfRange(values, from, to);
            double median = Median.of(near);
            for (int k = 0; k < near.length; k++) {
                near[k] = Math.abs(near[k] - median);
            }
            double sd = Math.max(1.4826 * Median.of(near), floor);
            if (Math.abs(values[i] - median) > threshold * sd) {
                out.add(i);
            }
        }
        return out;
    }
}

package eagerneedle.core.judge;

import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;

/**
 * Values in groups, such as fillings, days or benches, that may differ from group to group beyond the scatter within
 * (analysis of variance in one way; JCGM 100, H.5).
 *
 * @param means the mean of each group
 * @param within variance within groups; 0 where no group has two values
 * @param between standard deviation from group to group beyond that; 0 where the groups differ no more than the scatter
 *     within explains
 */
public record Groups(List<Quantity> means, double within, double between) {
    /** @param groups two or more, each with one value or more, all in one unit */
    public static Groups of(List<List<Quantity>> groups) {
        List<Quantity> means = new ArrayList<>();
        double squares = 0;
        int dof = 0;
        double total = 0;
        double sumOfSquaredCounts = 0;
        for (List<Quantity> g : groups) {
            double[] equal = new double[g.size()];
            java.util.Arrays.fill(equal, 1.0 / g.size());
            double mean = g.stream().mapToDouble(Quantity::value).average().orElseThrow();
            means.add(Quantity.combination(g, equal, mean, g.get(0).unit()));
            for (Quantity q : g) {
                squares += (q.value() - mean) * (q.value() - mean);
            }
            dof += g.size() - 1;
            total += g.size();
            sumOfSquaredCounts += (double) g.size() * g.size();
        }
        double within = dof > 0 ? squares / dof : 0;
        int k = groups.size();
        double grand = 0;
        for (int i = 0; i < k; i++) {
            grand += groups.get(i).size() * means.get(i).value() / total;
        }
        double among = 0;
        for (int i = 0; i < k; i++) {
            double d = means.get(i).value() - grand;
            among += groups.get(i).size() * d * d;
        }
        among /= k - 1;
        double effective = (total - sumOfSquaredCounts / total) / (k - 1);
        return new Groups(List.copyOf(means), within, Math.sqrt(Math.max(0, among - within) / effective));
    }

    public int count() {
        return means.size();
    }

    /** The mean of the groups' means, each counting alike, with what the values themselves carry. */
    public Quantity mean() {
        double[] equal = new double[count()];
        java.util.Arrays.fill(equal, 1.0 / count());
        double value = means.stream().mapToDouble(Quantity::value).average().orElseThrow();
        return Quantity.combination(means, equal, value, means.get(0).unit());
    }

    /** What the scatter of the groups' means leaves of their mean: their standard deviation over the root of k. */
    public double uOfMean() {
        double mean = means.stream().mapToDouble(Quantity::value).average().orElseThrow();
        double squares = means.stream()
                .mapToDouble(q -> (q.value() - mean) * (q.value() - mean))
                .sum();
        return Math.sqrt(squares / (count() - 1) / count());
    }
}

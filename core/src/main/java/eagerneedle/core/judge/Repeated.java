package eagerneedle.core.judge;

import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;

/**
 * The same thing measured again and again with the same instruments: what the values give together.
 *
 * <p>Values are weighted by what each has of its own. What they share is no reason to prefer one to another, is not averaged down,
 * and must not enter the weights: with a common scale factor, weights from the whole covariance pull the mean below most of the
 * values as soon as these differ (Peelle's puzzle). Where values differ by more than each says of itself, the plain mean with the
 * scatter between them takes its place.
 *
 * @param mean  with everything the values share; in the unit of the first
 * @param birge square root of chi-square over its degrees of freedom, from what each has of its own; NaN where one has nothing of its own
 * @param more  true when they differ by more than that, at one in a hundred
 */
public record Repeated(Quantity mean, double birge, boolean more) {
    private static final double SURELY = 0.01;

    /** @throws IllegalArgumentException for fewer than two values */
    public static Repeated of(List<Quantity> values, String id) {
        int n = values.size();
        if (n < 2) {
            throw new IllegalArgumentException("At least two values are taken together.");
        }
        List<Quantity> v = values.stream().map(q -> q.to(values.get(0).unit())).toList();
        Map<Leaf, Integer> times = new HashMap<>();
        v.forEach(q -> q.contributions().keySet().forEach(l -> times.merge(l, 1, Integer::sum)));
        Predicate<Leaf> own = l -> times.get(l) == 1;
        double[] w = v.stream().mapToDouble(q -> q.keeping(own).u()).map(u -> 1 / (u * u)).toArray();
        double all = java.util.Arrays.stream(w).sum();
        double plain = v.stream().mapToDouble(Quantity::value).average().orElseThrow();
        double squares = v.stream().mapToDouble(q -> (q.value() - plain) * (q.value() - plain)).sum();
        double mean = 0;
        for (int i = 0; i < n; i++) {
            mean += w[i] / all * v.get(i).value();
        }
        double chi = 0;
        for (int i = 0; i < n; i++) {
            chi += w[i] * (v.get(i).value() - mean) * (v.get(i).value() - mean);
        }
        boolean known = Double.isFinite(all);
        if (known && 1 - new ChiSquaredDistribution(n - 1).cumulativeProbability(chi) >= SURELY) {
            double total = all;
            return new Repeated(Quantity.combination(v, java.util.Arrays.stream(w).map(x -> x / total).toArray(), mean, v.get(0).unit()), Math.sqrt(chi / (n - 1)), false);
        }
        double[] equal = new double[n];
        java.util.Arrays.fill(equal, 1.0 / n);
        Quantity shared = Quantity.combination(v.stream().map(q -> q.keeping(own.negate())).toList(), equal, plain, v.get(0).unit());
        return new Repeated(shared.with(Leaf.typeA(id + "#scatter", "scatter between runs", id, n - 1), Math.sqrt(squares / (n - 1) / n)), known ? Math.sqrt(chi / (n - 1)) : Double.NaN, known);
    }
}

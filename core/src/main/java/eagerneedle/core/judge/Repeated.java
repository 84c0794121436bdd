package eagerneedle.core.judge;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import java.util.stream.IntStream;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;

/**
 * The same thing measured again and again with the same instruments: what the values give together.
 *
 * <p>Values are weighted by what each has of its own. What they share is no reason to prefer one to another, is not
 * averaged down, and must not enter the weights: with a common scale factor, weights from the whole covariance pull the
 * mean below most of the values as soon as these differ (R. W. Peelle, Peelle's pertinent puzzle, Oak Ridge 1987).
 * Where values differ by more than each says of itself (R. T. Birge, Phys. Rev. 40, 207, 1932), the plain mean with the
 * scatter between them takes its place, as JCGM 100:2008, 4.2.3, evaluates repeats.
 *
 * @param mean with everything the values share; in the unit of the first
 * @param birge Birge ratio, square root of chi-square over its degrees of freedom, from what each has of its own; no
 *     unit; NaN where one has nothing of its own
 * @param overdispersed true when they differ by more than that, at one in a hundred
 */
public record Repeated(Quantity mean, double birge, boolean overdispersed) {
    private static final double SURELY = 0.01;

    /**
     * Takes values of one thing together.
     *
     * @param values at least two, of one kind of unit, in any order
     * @param id names the leaf of their scatter among the influences
     * @throws IllegalArgumentException for fewer than two values, or units of different kinds
     */
    public static Repeated of(List<Quantity> values, String id) {
        int n = values.size();
        if (n < 2) {
            throw new IllegalArgumentException("At least two values are taken together.");
        }
        LabUnit unit = values.get(0).unit();
        List<Quantity> v = values.stream().map(q -> q.to(unit)).toList();
        Map<Leaf, Integer> times = new HashMap<>();
        v.forEach(q -> q.contributions().keySet().forEach(l -> times.merge(l, 1, Integer::sum)));
        Predicate<Leaf> own = l -> times.getOrDefault(l, 0) == 1;
        double[] w =
                v.stream().mapToDouble(q -> Math.pow(q.keeping(own).u(), -2)).toArray();
        double total = Arrays.stream(w).sum();
        if (!Double.isFinite(total)) {
            return new Repeated(scattered(v, own, id), Double.NaN, false);
        }
        double[] share = Arrays.stream(w).map(x -> x / total).toArray();
        double mean = IntStream.range(0, n)
                .mapToDouble(i -> share[i] * v.get(i).value())
                .sum();
        double chi2 = IntStream.range(0, n)
                .mapToDouble(i -> w[i] * Math.pow(v.get(i).value() - mean, 2))
                .sum();
        boolean overdispersed = 1 - new ChiSquaredDistribution(n - 1).cumulativeProbability(chi2) < SURELY;
        return new Repeated(
                overdispersed ? scattered(v, own, id) : Quantity.combination(v, share, mean, unit),
                Math.sqrt(chi2 / (n - 1)),
                overdispersed);
    }

    /** The plain mean: what all share stays, and the scatter s/√n stands for what each has of its own. */
    private static Quantity scattered(List<Quantity> v, Predicate<Leaf> own, String id) {
        int n = v.size();
        double mean = v.stream().mapToDouble(Quantity::value).average().orElseThrow();
        double squares =
                v.stream().mapToDouble(q -> Math.pow(q.value() - mean, 2)).sum();
        double[] share = new double[n];
        Arrays.fill(share, 1.0 / n);
        Quantity shared = Quantity.combination(
                v.stream().map(q -> q.keeping(own.negate())).toList(),
                share,
                mean,
                v.get(0).unit());
        return shared.with(
                Leaf.typeA(id + "#scatter", "scatter between runs", id, n - 1), Math.sqrt(squares / (n - 1) / n));
    }
}

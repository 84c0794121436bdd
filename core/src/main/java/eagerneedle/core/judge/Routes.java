package eagerneedle.core.judge;

import eagerneedle.core.quantity.Covariance;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.jspecify.annotations.Nullable;

/**
 * Several routes to one quantity: whether they agree, what they give together, and which one stands out.
 *
 * <p>The mean is weighted by the inverse of the whole covariance (generalised least squares), so that what routes share
 * is not averaged away. Routes that are functions of each other have a singular covariance: such a set holds no
 * independent evidence, is named, and is not averaged.
 *
 * @param labels n names
 * @param values n quantities in one unit
 * @param mean weighted mean with lineage; null when the covariance is singular
 * @param weights n weights that add up to 1, negative ones possible with strong correlation; null when singular
 * @param chiSquare of the differences; NaN when singular
 * @param redundant indices of the routes that are functions of each other, empty otherwise
 */
public record Routes(
        List<String> labels,
        List<Quantity> values,
        @Nullable Quantity mean,
        double @Nullable [] weights,
        double chiSquare,
        List<Integer> redundant) {
    /** @throws IllegalArgumentException for fewer than two routes or a route without uncertainty */
    public static Routes of(List<String> labels, List<Quantity> values) {
        int n = values.size();
        if (n < 2) {
            throw new IllegalArgumentException("A comparison of routes needs at least two.");
        }
        List<Quantity> v = values.stream().map(q -> q.to(values.get(0).unit())).toList();
        for (int i = 0; i < n; i++) {
            if (v.get(i).u() == 0) {
                throw new IllegalArgumentException("The route " + labels.get(i)
                        + " has no uncertainty, so it cannot be weighed against the others.");
            }
        }
        Covariance c = Covariance.of(v);
        if (c.isSingular()) {
            return new Routes(List.copyOf(labels), v, null, null, Double.NaN, c.bound());
        }
        RealMatrix inverse = MatrixUtils.inverse(MatrixUtils.createRealMatrix(c.matrix()));
        double[] w = new double[n];
        double total = 0;
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                w[i] += inverse.getEntry(i, j);
            }
            total += w[i];
        }
        double mean = 0;
        for (int i = 0; i < n; i++) {
            w[i] /= total;
            mean += w[i] * v.get(i).value();
        }
        double chi = 0;
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                chi += (v.get(i).value() - mean)
                        * inverse.getEntry(i, j)
                        * (v.get(j).value() - mean);
            }
        }
        return new Routes(
                List.copyOf(labels),
                v,
                Quantity.combination(v, w, mean, v.get(0).unit()),
                w,
                chi,
                List.of());
    }

    public boolean isRedundant() {
        return !redundant.isEmpty();
    }

    /** Square root of chi-square over its degrees of freedom, 1 on average. */
    public double birgeRatio() {
        return Math.sqrt(chiSquare / (values.size() - 1));
    }

    /** Chance of differences this large or larger, were the stated uncertainties right; between 0 and 1. */
    public double chance() {
        return 1 - new ChiSquaredDistribution(values.size() - 1).cumulativeProbability(chiSquare);
    }

    /**
     * Index of the route that lies furthest from the mean of the others, in its own combined standard uncertainties.
     */
    public int oddOneOut() {
        int odd = -1;
        double worst = -1;
        for (int i = 0; i < values.size(); i++) {
            double apart = Math.abs(apart(i));
            if (apart > worst) {
                worst = apart;
                odd = i;
            }
        }
        return odd;
    }

    /** How far a route lies from the weighted mean of the others, in standard uncertainties of that difference. */
    public double apart(int route) {
        List<String> otherLabels = new ArrayList<>(labels);
        List<Quantity> others = new ArrayList<>(values);
        otherLabels.remove(route);
        others.remove(route);
        Quantity rest =
                others.size() == 1 ? others.get(0) : of(otherLabels, others).mean();
        Quantity d = values.get(route).minus(Objects.requireNonNull(rest, "they are not redundant"));
        return d.u() == 0 ? 0 : d.value() / d.u();
    }

    /** One sentence fit for a report. */
    public String sentence() {
        if (isRedundant()) {
            List<String> names = redundant.stream().map(labels::get).toList();
            return "The routes %s are functions of each other and hold no independent evidence; they were not averaged."
                    .formatted(listed(names));
        }
        String numbers = Notation.sentence(
                "chi-square %.1f for %d degree%s of freedom, Birge ratio %.2f",
                chiSquare, values.size() - 1, values.size() == 2 ? "" : "s", birgeRatio());
        if (chance() >= 0.05) {
            return "The %d routes agree (%s); together they give %s."
                    .formatted(values.size(), numbers, Notation.bracket(Objects.requireNonNull(mean)));
        }
        String odd = values.size() == 2
                ? ""
                : "; %s stands out, %s standard uncertainties from the others"
                        .formatted(labels.get(oddOneOut()), Notation.plain(Math.abs(apart(oddOneOut())), 2));
        return "The %d routes do not agree (%s)%s.".formatted(values.size(), numbers, odd);
    }

    private static String listed(List<String> names) {
        return names.size() < 2
                ? String.join("", names)
                : String.join(", ", names.subList(0, names.size() - 1)) + " and " + names.get(names.size() - 1);
    }
}

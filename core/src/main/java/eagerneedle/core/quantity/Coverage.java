package eagerneedle.core.quantity;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * Coverage intervals from Student's t (JCGM 100, annex G).
 *
 * @param probability coverage probability, between 0 and 1; 0.95 by default
 */
public record Coverage(double probability) {
    public static final Coverage DEFAULT = new Coverage(0.95);
    private static final double PRACTICALLY_INFINITE = 1e6;
    /** Quantiles that were asked for: a session has few degrees of freedom, and asks for each of them often. */
    private static final Map<Asked, Double> FACTORS = new ConcurrentHashMap<>();

    private static final int MOST = 2000;

    private record Asked(double probability, double dof) {}

    public Coverage {
        if (!(probability > 0 && probability < 1)) {
            throw new IllegalArgumentException(
                    "A coverage probability lies between 0 and 1, not at " + probability + ".");
        }
    }

    /** {@code 95 %}. */
    public String percent() {
        return Notation.plain(100 * probability, 4) + " %";
    }

    /** Coverage factor k for so many degrees of freedom. */
    public double factor(double dof) {
        if (FACTORS.size() > MOST) {
            FACTORS.clear();
        }
        return FACTORS.computeIfAbsent(new Asked(probability, dof), Coverage::quantile);
    }

    private static double quantile(Asked asked) {
        double tail = (1 + asked.probability) / 2;
        double dof = asked.dof;
        return dof > PRACTICALLY_INFINITE
                ? new NormalDistribution().inverseCumulativeProbability(tail)
                : new TDistribution(dof).inverseCumulativeProbability(tail);
    }

    /** Expanded uncertainty U = k u, in the quantity's unit; not a number where u is none. */
    public double expanded(Quantity q) {
        if (Double.isNaN(q.u()) || Double.isNaN(q.dof())) {
            return Double.NaN;
        }
        return q.isExact() ? 0 : factor(q.dof()) * q.u();
    }

    /** Probability of a deviation at least this many standard uncertainties from zero, either side. */
    public static double tails(double standardised, double dof) {
        double z = Math.abs(standardised);
        return 2
                * (dof > PRACTICALLY_INFINITE
                        ? new NormalDistribution().cumulativeProbability(-z)
                        : new TDistribution(dof).cumulativeProbability(-z));
    }
}

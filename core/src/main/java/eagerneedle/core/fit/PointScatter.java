package eagerneedle.core.fit;

import eagerneedle.core.quantity.Digest;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Seen;
import eagerneedle.core.trace.SerialNoise;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Predicate;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;

/**
 * What the residuals of a fit say of its parameters, as p standardised leaves: one for each of the p orthonormal
 * directions in which the parameters look at the points.
 *
 * <p><em>Points</em> may carry uncertainties of their own. These always reach the parameters, with their lineage. Where
 * the points scatter more than their own uncertainties explain, the rest is a further scatter, equal for all points, of
 * variance τ² = (Σe² - Σ(1 - h) v) / (n - p), with leverages h and own variances v: the moment estimate of a variance
 * component (DerSimonian and Laird 1986, for any curve). Together they give s² (JᵀJ)⁻¹ when all points are alike, and
 * never less than what is stated. Degrees of freedom are those of s² as long as τ is most of it.
 *
 * <p><em>Samples of a trace</em> are alike from one to the next. Their noise is told by {@link SerialNoise} and reaches
 * the parameters through its covariance.
 *
 * @param sd residual standard deviation with n - p
 * @param leaves p leaves, empty when nothing scatters
 * @param factor p by p: what each leaf does along each direction
 * @param remarks what a careful reader should know, one sentence each
 */
record PointScatter(double sd, List<Leaf> leaves, double[][] factor, List<String> remarks) {
    private static final double SURELY = 0.005;
    private static final double ROUNDING = 8 * Math.ulp(1.0);

    /**
     * The scatter of points whose residuals speak.
     *
     * @param slopes n slopes of the curve
     * @param q p by n orthonormal directions
     * @param residuals n residuals, in the unit of the ordinate
     */
    static PointScatter of(Points points, double[] slopes, double[][] q, double[] residuals, FitOptions choices) {
        int n = residuals.length;
        int p = q.length;
        if (choices.series() != null) {
            return ofSamples(q, residuals, choices);
        }
        double squares = squares(residuals, points.yValues());
        double own = 0;
        double[] variances = ownVariances(points, slopes);
        boolean all = true;
        for (int i = 0; i < n; i++) {
            double leverage = 0;
            for (double[] direction : q) {
                leverage += direction[i] * direction[i];
            }
            own += Math.max(0, 1 - leverage) * variances[i];
            all &= variances[i] > 0;
        }
        double s2 = squares / (n - p);
        double rest = Math.max(0, squares - own) / (n - p);
        List<String> remarks = new ArrayList<>();
        if (all && own > 0) {
            double tail = new ChiSquaredDistribution(n - p).cumulativeProbability((n - p) * squares / own);
            if (tail > 1 - SURELY) {
                remarks.add(Notation.sentence(
                        "The points scatter %.1f times as much as their own uncertainties explain; what is left "
                                + "over is counted beside them.",
                        Math.sqrt(squares / own)));
            } else if (tail < SURELY && n - p > 1) {
                remarks.add(Notation.sentence(
                        "The points scatter less than their own uncertainties say (by a factor of %.2f); these "
                                + "are kept, but may be stated too large, or be shared.",
                        Math.sqrt(squares / own)));
            }
        }
        if (rest == 0) {
            return new PointScatter(Math.sqrt(s2), List.of(), new double[0][], remarks);
        }
        double share = rest / s2;
        double dof = Math.max(Math.min(n - p, 3), (n - p) * share * share);
        Occasions occasions = choices.occasions() == null ? Occasions.of(points.y()) : choices.occasions();
        String[] ids = occasions.ids().toArray(new String[0]);
        double length = Math.sqrt(squares);
        double[] unit = new double[n];
        for (int i = 0; i < n; i++) {
            unit[i] = residuals[i] / length;
        }
        String pool = "scatter:" + occasions.group();
        List<Leaf> leaves = new ArrayList<>();
        double[][] factor = new double[p][p];
        for (int k = 0; k < p; k++) {
            double[] direction = q[k].clone();
            Digest digest = new Digest();
            for (int i = 0; i < n; i++) {
                digest.add(ids[i]);
            }
            digest.add(direction);
            digest.add(unit);
            leaves.add(Leaf.typeA(pool + ":" + digest, choices.label(), choices.origin(), dof)
                    .inPool(pool)
                    .seenIn(new Seen(occasions.group(), ids, direction, unit)));
            factor[k][k] = Math.sqrt(rest);
        }
        return new PointScatter(Math.sqrt(s2), leaves, factor, remarks);
    }

    /** The scatter of the samples of a trace, which are alike from one to the next. */
    static PointScatter ofSamples(double[][] q, double[] residuals, FitOptions choices) {
        Trace samples = Objects.requireNonNull(choices.series());
        int n = residuals.length;
        int p = q.length;
        double squares = squares(residuals, samples.value());
        double floor = samples.step() / Math.sqrt(12);
        double sd = Math.max(Math.sqrt(squares / (n - p)), floor);
        if (sd == 0) {
            return new PointScatter(0, List.of(), new double[0][], List.of());
        }
        SerialNoise noise = SerialNoise.of(samples.time(), residuals, p, floor);
        String pool = "scatter:samples " + samples.identity() + ":" + choices.basis();
        List<Leaf> leaves = new ArrayList<>();
        for (int k = 0; k < p; k++) {
            leaves.add(Leaf.typeA(pool + "#" + k, choices.label(), choices.origin(), noise.dof())
                    .inPool(pool));
        }
        return new PointScatter(
                sd, leaves, noise.factor(q), noise.remark().map(List::of).orElse(List.of()));
    }

    /** Sum of squares; residuals that are rounding of the ordinates are no scatter. */
    static double squares(double[] residuals, double[] y) {
        double sum = 0;
        double size = 0;
        for (int i = 0; i < y.length; i++) {
            sum += residuals[i] * residuals[i];
            size = Math.max(size, Math.abs(y[i]));
        }
        return Math.sqrt(sum / y.length) <= ROUNDING * size ? 0 : sum;
    }

    /** True for what is no more than the rounding of some ordinates. */
    static boolean isRounding(double effect, double[] y) {
        double size = 0;
        for (double v : y) {
            size = Math.max(size, Math.abs(v));
        }
        return Math.abs(effect) <= ROUNDING * size;
    }

    private static double[] ownVariances(Points points, double[] slopes) {
        int n = points.size();
        double[] v = new double[n];
        Predicate<Leaf> own = null;
        for (int i = 0; i < n; i++) {
            Quantity x = points.x().get(i);
            Quantity y = points.y().get(i);
            if (x.isExact() && y.isExact()) {
                continue;
            }
            own = own == null ? points.own() : own;
            Quantity ownX = x.keeping(own);
            Quantity ownY = y.keeping(own);
            v[i] = ownY.covariance(ownY)
                    + slopes[i] * slopes[i] * ownX.covariance(ownX)
                    - 2 * slopes[i] * ownX.covariance(ownY);
        }
        return v;
    }

    /** A parameter with its scatter: {@code row} is what each direction does to it, in its unit. */
    Quantity on(Quantity parameter, double[] row) {
        Quantity q = parameter;
        for (int j = 0; j < leaves.size(); j++) {
            double c = 0;
            for (int k = 0; k < row.length; k++) {
                c += row[k] * factor[k][j];
            }
            if (c != 0 && Double.isFinite(c)) {
                q = q.with(leaves.get(j), c);
            }
        }
        return q;
    }
}

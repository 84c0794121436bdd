package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.random.RandomGenerator;

/**
 * Standardised random draws of leaves (JCGM 101:2008, clause 6.4).
 *
 * <p>The draws of a leaf depend on the seed, the leaf's id and the number of the row, on nothing else: so the same seed
 * gives the same draws whichever thread takes which row, and whatever other leaves there are. Leaves of one pool with
 * finite degrees of freedom share one draw of their variance, as the parameters of one fit do. Draws from Student's t
 * keep their wider spread (6.4.9): a standard deviation from few readings is itself uncertain.
 */
final class LeafDraws {
    private static final double ROOT3 = Math.sqrt(3);
    private static final double ROOT6 = Math.sqrt(6);
    private final List<Leaf> leaves;
    private final long seed;
    /** Leaves that are seen together: their indices, and the factor that turns independent draws into theirs. */
    private final List<Together> together = new ArrayList<>();

    private record Together(int[] which, double[][] root) {}

    LeafDraws(List<Leaf> leaves, long seed) {
        this.leaves = List.copyOf(leaves);
        this.seed = seed;
        Map<String, List<Integer>> groups = new java.util.TreeMap<>();
        for (int k = 0; k < leaves.size(); k++) {
            Seen seen = leaves.get(k).seen();
            if (seen != null) {
                groups.computeIfAbsent(seen.group(), g -> new ArrayList<>()).add(k);
            }
        }
        groups.values().stream().filter(g -> g.size() > 1).forEach(g -> together.add(root(g)));
    }

    /**
     * The lower root of the leaves' correlations (Cholesky); a leaf that is a sum of those before it gets no draws of
     * its own.
     */
    private Together root(List<Integer> group) {
        int[] which = group.stream()
                .sorted(java.util.Comparator.comparing(k -> leaves.get(k).id()))
                .mapToInt(Integer::intValue)
                .toArray();
        double[][] l = new double[which.length][which.length];
        for (int i = 0; i < which.length; i++) {
            double rest = 1;
            for (int j = 0; j < i; j++) {
                double r = leaves.get(which[i]).correlation(leaves.get(which[j]));
                for (int k = 0; k < j; k++) {
                    r -= l[i][k] * l[j][k];
                }
                l[i][j] = l[j][j] > 1e-7 ? r / l[j][j] : 0;
                rest -= l[i][j] * l[i][j];
            }
            l[i][i] = Math.sqrt(Math.max(0, rest));
        }
        return new Together(which, l);
    }

    /** Fills the first n places of one row a leaf. */
    void fill(long rowNumber, double[][] rows, int n) {
        Map<String, double[]> pools = new HashMap<>();
        double[][] correlated = correlated(rowNumber, rows.length, n);
        for (int k = 0; k < rows.length; k++) {
            Leaf leaf = leaves.get(k);
            RandomGenerator random = generator(leaf.id(), rowNumber);
            double[] row = rows[k];
            switch (leaf.distribution()) {
                case NORMAL -> Ziggurat.fill(seed(leaf.id(), rowNumber), row, n);
                case STUDENT_T -> {
                    if (correlated[k] != null) {
                        System.arraycopy(correlated[k], 0, row, 0, n);
                    } else {
                        Ziggurat.fill(seed(leaf.id(), rowNumber), row, n);
                    }
                    double[] stretch = pools.computeIfAbsent(
                            leaf.pool(), p -> stretches(generator(p + "#variance", rowNumber), leaf.dof(), n));
                    for (int i = 0; i < n; i++) {
                        row[i] *= stretch[i];
                    }
                }
                case RECTANGULAR -> {
                    for (int i = 0; i < n; i++) {
                        row[i] = ROOT3 * (2 * random.nextDouble() - 1);
                    }
                }
                case TRIANGULAR -> {
                    for (int i = 0; i < n; i++) {
                        row[i] = ROOT6 * (random.nextDouble() + random.nextDouble() - 1);
                    }
                }
                case TRAPEZOIDAL -> {
                    double flat = leaf.shape().parameter();
                    double half = Math.sqrt(6 / (1 + flat * flat));
                    for (int i = 0; i < n; i++) {
                        row[i] = half
                                * ((1 + flat) / 2 * (2 * random.nextDouble() - 1)
                                        + (1 - flat) / 2 * (2 * random.nextDouble() - 1));
                    }
                }
                case INEXACT_LIMITS -> {
                    double share = leaf.shape().parameter();
                    double half = 1 / Math.sqrt(1.0 / 3 + share * share / 9);
                    for (int i = 0; i < n; i++) {
                        row[i] = half * (1 + share * (2 * random.nextDouble() - 1)) * (2 * random.nextDouble() - 1);
                    }
                }
                case ARCSINE -> {
                    for (int i = 0; i < n; i++) {
                        row[i] = Math.sqrt(2) * Math.sin(2 * Math.PI * random.nextDouble());
                    }
                }
                case POISSON -> {
                    double count = Math.max(1, leaf.shape().parameter());
                    for (int i = 0; i < n; i++) {
                        row[i] = (gamma(random, leaf.shape().parameter() + 1)
                                        - leaf.shape().parameter())
                                / Math.sqrt(count);
                    }
                }
                default -> throw new IllegalStateException("No draws for " + leaf.distribution());
            }
        }
    }

    /** Normal draws of the leaves that are seen together; null for the others. */
    private double[][] correlated(long rowNumber, int count, int n) {
        double[][] out = new double[count][];
        for (Together t : together) {
            double[][] alone = new double[t.which().length][n];
            for (int i = 0; i < alone.length; i++) {
                Ziggurat.fill(seed(leaves.get(t.which()[i]).id(), rowNumber), alone[i], n);
            }
            for (int i = 0; i < alone.length; i++) {
                double[] row = new double[n];
                for (int j = 0; j <= i; j++) {
                    double factor = t.root()[i][j];
                    for (int d = 0; factor != 0 && d < n; d++) {
                        row[d] += factor * alone[j][d];
                    }
                }
                out[t.which()[i]] = row;
            }
        }
        return out;
    }

    /** n draws of sqrt(dof / chi-square with dof degrees of freedom). */
    private static double[] stretches(RandomGenerator random, double dof, int n) {
        double[] out = new double[n];
        for (int i = 0; i < n; i++) {
            out[i] = Double.isInfinite(dof) ? 1 : Math.sqrt(dof / (2 * gamma(random, dof / 2)));
        }
        return out;
    }

    /** One draw from the gamma distribution of a shape and scale 1 (Marsaglia and Tsang 2000). */
    private static double gamma(RandomGenerator random, double shape) {
        if (shape < 1) {
            return gamma(random, shape + 1) * Math.pow(random.nextDouble(), 1 / shape);
        }
        double d = shape - 1.0 / 3;
        double c = 1 / Math.sqrt(9 * d);
        while (true) {
            double x = random.nextGaussian();
            double v = 1 + c * x;
            if (v <= 0) {
                continue;
            }
            v = v * v * v;
            double u = random.nextDouble();
            // The first bound lies below the second one: nearly all draws need no logarithm, and none comes out
            // otherwise.
            if (u < 1 - 0.0331 * (x * x) * (x * x) || Math.log(u) < x * x / 2 + d - d * v + d * Math.log(v)) {
                return d * v;
            }
        }
    }

    private RandomGenerator generator(String id, long rowNumber) {
        return new SplittableRandom(seed(id, rowNumber));
    }

    private long seed(String id, long rowNumber) {
        long h = 0xcbf29ce484222325L;
        for (int i = 0; i < id.length(); i++) {
            h = (h ^ id.charAt(i)) * 0x100000001b3L;
        }
        return Ziggurat.mixed(
                Ziggurat.mixed(seed ^ Ziggurat.mixed(h)) + Ziggurat.mixed(rowNumber * 0x9e3779b97f4a7c15L));
    }
}

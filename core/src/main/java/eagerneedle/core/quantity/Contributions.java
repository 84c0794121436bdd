package eagerneedle.core.quantity;

import java.util.Arrays;
import java.util.function.BiConsumer;
import java.util.function.Predicate;

/**
 * A sparse, immutable map from leaf influence to signed contribution, sorted by leaf id so that two maps merge in one
 * pass.
 *
 * <p>A contribution is what one standard deviation of the leaf does to the quantity, in the quantity's unit: the
 * sensitivity coefficient times the standard uncertainty (JCGM 100, clause 5.1.3). Entries that cancel exactly vanish.
 */
final class Contributions {
    static final Contributions NONE = new Contributions(new Leaf[0], new double[0]);

    private final Leaf[] leaves;
    private final double[] values;

    private Contributions(Leaf[] leaves, double[] values) {
        this.leaves = leaves;
        this.values = values;
    }

    static Contributions of(Leaf leaf, double contribution) {
        return contribution == 0 ? NONE : new Contributions(new Leaf[] {leaf}, new double[] {contribution});
    }

    /** a times this plus b times other. */
    Contributions combine(double a, Contributions other, double b) {
        if (other.leaves.length == 0) {
            return times(a);
        }
        if (leaves.length == 0) {
            return other.times(b);
        }
        Leaf[] outLeaves = new Leaf[leaves.length + other.leaves.length];
        double[] out = new double[outLeaves.length];
        int i = 0;
        int j = 0;
        int n = 0;
        while (i < leaves.length || j < other.leaves.length) {
            int order = i == leaves.length
                    ? 1
                    : j == other.leaves.length
                            ? -1
                            : leaves[i] == other.leaves[j] ? 0 : leaves[i].compareTo(other.leaves[j]);
            Leaf leaf = order <= 0 ? leaves[i] : other.leaves[j];
            double c = order < 0
                    ? a * values[i++]
                    : order > 0 ? b * other.values[j++] : a * values[i++] + b * other.values[j++];
            if (c != 0) {
                outLeaves[n] = leaf;
                out[n++] = c;
            }
        }
        return new Contributions(Arrays.copyOf(outLeaves, n), Arrays.copyOf(out, n));
    }

    /** The sum of parts, each times its factor; one pass however many there are. */
    static Contributions weighted(java.util.List<Contributions> parts, double[] factors) {
        java.util.TreeMap<Leaf, Double> sums = new java.util.TreeMap<>();
        for (int k = 0; k < factors.length; k++) {
            Contributions c = parts.get(k);
            for (int i = 0; i < c.leaves.length; i++) {
                sums.merge(c.leaves[i], factors[k] * c.values[i], Double::sum);
            }
        }
        sums.values().removeIf(v -> v == 0);
        return new Contributions(
                sums.keySet().toArray(new Leaf[0]),
                sums.values().stream().mapToDouble(Double::doubleValue).toArray());
    }

    Contributions times(double a) {
        if (a == 0) {
            return NONE;
        }
        if (a == 1) {
            return this;
        }
        double[] scaled = new double[values.length];
        for (int i = 0; i < scaled.length; i++) {
            scaled[i] = a * values[i];
        }
        return new Contributions(leaves, scaled);
    }

    Contributions keep(Predicate<Leaf> which) {
        Leaf[] outLeaves = new Leaf[leaves.length];
        double[] out = new double[leaves.length];
        int n = 0;
        for (int i = 0; i < leaves.length; i++) {
            if (which.test(leaves[i])) {
                outLeaves[n] = leaves[i];
                out[n++] = values[i];
            }
        }
        return n == leaves.length ? this : new Contributions(Arrays.copyOf(outLeaves, n), Arrays.copyOf(out, n));
    }

    double get(Leaf leaf) {
        int at = Arrays.binarySearch(leaves, leaf);
        return at < 0 ? 0 : values[at];
    }

    /**
     * The covariance of two quantities with these contributions: leaves meet themselves, and leaves of a scatter those
     * seen with them.
     */
    double dot(Contributions other) {
        double sum = 0;
        int mine = 0;
        for (Leaf leaf : leaves) {
            mine += leaf.seen() == null ? 0 : 1;
        }
        if (mine > 0) {
            sum = together(other);
        }
        int i = 0;
        int j = 0;
        while (i < leaves.length && j < other.leaves.length) {
            int order = leaves[i] == other.leaves[j] ? 0 : leaves[i].compareTo(other.leaves[j]);
            if (order == 0) {
                sum += values[i++] * other.values[j++];
            } else if (order < 0) {
                i++;
            } else {
                j++;
            }
        }
        return sum;
    }

    /** What leaves of a scatter share with others than themselves. */
    private double together(Contributions other) {
        double sum = 0;
        for (int i = 0; i < leaves.length; i++) {
            for (int j = 0; leaves[i].seen() != null && j < other.leaves.length; j++) {
                if (other.leaves[j].seen() != null
                        && leaves[i] != other.leaves[j]
                        && !leaves[i].equals(other.leaves[j])) {
                    sum += values[i] * other.values[j] * leaves[i].correlation(other.leaves[j]);
                }
            }
        }
        return sum;
    }

    /** True when no leaf is a scatter seen in readings, so that leaves are independent. */
    boolean independent() {
        for (Leaf leaf : leaves) {
            if (leaf.seen() != null) {
                return false;
            }
        }
        return true;
    }

    int size() {
        return leaves.length;
    }

    void forEach(BiConsumer<Leaf, Double> visitor) {
        for (int i = 0; i < leaves.length; i++) {
            visitor.accept(leaves[i], values[i]);
        }
    }
}

package eagerneedle.core.quantity;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One leaf influence: a cause of uncertainty of its own, standardised to mean 0 and standard deviation 1.
 *
 * <p>A leaf has no unit of its own. What one standard deviation of it does to a quantity is that quantity's
 * {@linkplain Quantity#contribution contribution}, in the quantity's unit. Two leaves are the same influence when their
 * {@code id} is the same.
 *
 * @param id identity within a session, for instance {@code input:spacing}
 * @param label what a person calls it, for instance {@code foot spacing by tape}; budgets group by it
 * @param source which reading, instrument, calibration or choice it came from
 * @param type type A (from statistics) or B (from other knowledge), JCGM 100 clause 2.3
 * @param shape the shape of what is known
 * @param dof degrees of freedom of its standard uncertainty; infinite when taken as known
 * @param pool leaves of one pool share one variance estimate (the parameters of one fit, say); their variances are
 *     added before Welch-Satterthwaite. By default the leaf's own id
 * @param seen for the leaf of a scatter the readings it was seen in, which correlate it with others; otherwise null
 */
public record Leaf(
        String id,
        String label,
        String source,
        Type type,
        Shape shape,
        double dof,
        String pool,
        @Nullable Seen seen) implements Comparable<Leaf> {

    /** How the standard uncertainty was evaluated. */
    public enum Type {
        A,
        B
    }

    public Leaf {
        Objects.requireNonNull(id);
        Objects.requireNonNull(label);
        Objects.requireNonNull(pool);
        Objects.requireNonNull(shape);
        if (!(dof > 0)) {
            throw new IllegalArgumentException("Degrees of freedom of " + label + " must be above 0, not " + dof + ".");
        }
    }

    /** A type A influence with {@code dof} degrees of freedom, t-distributed when they are finite. */
    public static Leaf typeA(String id, String label, String source, double dof) {
        return new Leaf(
                id,
                label,
                source,
                Type.A,
                Shape.of(Double.isInfinite(dof) ? Distribution.NORMAL : Distribution.STUDENT_T),
                dof,
                id,
                null);
    }

    /** A type B influence of the given family, taken as known (infinite degrees of freedom). */
    public static Leaf typeB(String id, String label, String source, Distribution distribution) {
        return typeB(id, label, source, Shape.of(distribution));
    }

    /** A type B influence of the given shape, taken as known (infinite degrees of freedom). */
    public static Leaf typeB(String id, String label, String source, Shape shape) {
        return new Leaf(id, label, source, Type.B, shape, Double.POSITIVE_INFINITY, id, null);
    }

    public Distribution distribution() {
        return shape.kind();
    }

    /** The same influence whose standard uncertainty has so many degrees of freedom. */
    public Leaf withDof(double newDof) {
        return new Leaf(id, label, source, type, shape, newDof, pool, seen);
    }

    /**
     * Largest believable error divided by the standard uncertainty; dimensionless. For a scatter it is no less than the
     * half-width of the 95 % interval with its degrees of freedom, so that few readings do not make a limit tighter
     * than that.
     */
    public double limitFactor() {
        double factor = shape.limitFactor();
        return shape.kind() == Distribution.STUDENT_T && factor == Distribution.STUDENT_T.limitFactor()
                ? Math.max(factor, Coverage.DEFAULT.factor(dof))
                : factor;
    }

    /** The same influence with another convention for its largest believable error, in standard uncertainties. */
    public Leaf withLimitFactor(double factor) {
        return new Leaf(id, label, source, type, shape.withLimitFactor(factor), dof, pool, seen);
    }

    public Leaf inPool(String newPool) {
        return new Leaf(id, label, source, type, shape, dof, newPool, seen);
    }

    /** The same influence as the scatter of some readings. */
    public Leaf seenIn(Seen readings) {
        return new Leaf(id, label, source, type, shape, dof, pool, readings);
    }

    /** Correlation with another leaf: 1 with itself, that of the readings between leaves of a scatter, otherwise 0. */
    public double correlation(Leaf other) {
        return equals(other) ? 1 : seen == null || other.seen == null ? 0 : seen.correlation(other.seen);
    }

    @Override
    public int compareTo(Leaf other) {
        return id.compareTo(other.id);
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof Leaf leaf && leaf.id.equals(id);
    }

    @Override
    public int hashCode() {
        return id.hashCode();
    }
}

package eagerneedle.core.quantity;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Predicate;

/**
 * A quantity value with its unit, standard uncertainty, degrees of freedom and lineage; immutable.
 *
 * <p>Arithmetic propagates uncertainty by exact first derivatives (JCGM 100, clause 5.1 and 5.2). Because every quantity
 * remembers which leaf influences it rests on, quantities that share an input stay correlated: {@code x.minus(x)} is exactly
 * 0 with uncertainty 0.
 *
 * <p>Sums keep the unit of the left operand. Products and quotients are in coherent SI units, so that 3 mm / 2 m is the pure
 * number 0.0015. Temperatures in degC and temperature differences in K are not confused: degC + K is a temperature, degC -
 * degC a difference, degC + degC is refused.
 */
public final class Quantity {
    private final double value;
    private final LabUnit unit;
    private final Contributions contributions;

    private Quantity(double value, LabUnit unit, Contributions contributions) {
        this.value = value;
        this.unit = unit;
        this.contributions = contributions;
    }

    /** A value taken as exact. */
    public static Quantity exact(double value, LabUnit unit) {
        return new Quantity(value, unit, Contributions.NONE);
    }

    /** An exact pure number. */
    public static Quantity number(double value) {
        return exact(value, LabUnit.ONE);
    }

    /** A value with one leaf influence of the given standard uncertainty, both in {@code unit}. */
    public static Quantity of(double value, double standardUncertainty, LabUnit unit, Leaf leaf) {
        if (standardUncertainty < 0 || Double.isNaN(standardUncertainty)) {
            throw new IllegalArgumentException("A standard uncertainty cannot be " + standardUncertainty + ".");
        }
        return new Quantity(value, unit, Contributions.of(leaf, standardUncertainty));
    }

    /** The nominal value, in {@link #unit()}. */
    public double value() {
        return value;
    }

    public LabUnit unit() {
        return unit;
    }

    /** The nominal value in another unit. */
    public double in(LabUnit other) {
        return unit.convert(value, other);
    }

    /** Combined standard uncertainty, in {@link #unit()}. */
    public double u() {
        return Math.sqrt(contributions.dot(contributions));
    }

    /** Effective degrees of freedom by Welch-Satterthwaite (JCGM 100, G.4.1), leaves of one pool taken together. */
    public double dof() {
        Map<String, double[]> pools = new HashMap<>();
        contributions.forEach((leaf, c) -> {
            double[] sum = pools.computeIfAbsent(leaf.pool(), p -> new double[] {0, leaf.dof()});
            sum[0] += c * c;
        });
        double total = 0;
        double denominator = 0;
        for (double[] pool : pools.values()) {
            total += pool[0];
            denominator += pool[0] * pool[0] / pool[1];
        }
        return denominator == 0 ? Double.POSITIVE_INFINITY : total * total / denominator;
    }

    /** What one standard deviation of the leaf does to this quantity, signed, in {@link #unit()}; 0 if it plays no part. */
    public double contribution(Leaf leaf) {
        return contributions.get(leaf);
    }

    /** All contributions, signed, in {@link #unit()}, by leaf. */
    public Map<Leaf, Double> contributions() {
        Map<Leaf, Double> map = new LinkedHashMap<>();
        contributions.forEach(map::put);
        return map;
    }

    /** Covariance with another quantity through shared leaves, in the product of the two units. */
    public double covariance(Quantity other) {
        return contributions.dot(other.contributions);
    }

    /** Correlation coefficient with another quantity; 0 where either has no uncertainty. */
    public double correlation(Quantity other) {
        double uu = u() * other.u();
        return uu == 0 ? 0 : Math.max(-1, Math.min(1, covariance(other) / uu));
    }

    public Quantity plus(Quantity other) {
        if (unit.isAffine() && other.unit.isAffine()) {
            throw new UnitException("Two temperatures in " + unit.pretty() + " cannot be added; write the difference in K.");
        }
        if (other.unit.isAffine()) {
            return other.plus(this);
        }
        double scale = other.unit.scaleTo(unit);
        return new Quantity(value + other.value * scale, unit, contributions.combine(1, other.contributions, scale));
    }

    public Quantity minus(Quantity other) {
        if (other.unit.isAffine() && !unit.isAffine()) {
            throw new UnitException("A temperature in " + other.unit.pretty() + " cannot be taken from a value in " + unit.named() + ".");
        }
        double scale = other.unit.scaleTo(unit);
        Contributions c = contributions.combine(1, other.contributions, -scale);
        return other.unit.isAffine() ? new Quantity(value - other.in(unit), LabUnit.KELVIN, c)
                : new Quantity(value - other.value * scale, unit, c);
    }

    public Quantity times(Quantity other) {
        Quantity a = coherent();
        Quantity b = other.coherent();
        return new Quantity(a.value * b.value, a.unit.times(b.unit), a.contributions.combine(b.value, b.contributions, a.value));
    }

    /** @throws ArithmeticException when the divisor is zero */
    public Quantity dividedBy(Quantity other) {
        Quantity a = coherent();
        Quantity b = other.coherent();
        if (b.value == 0) {
            throw new ArithmeticException("A division by zero.");
        }
        double q = a.value / b.value;
        return new Quantity(q, a.unit.per(b.unit), a.contributions.combine(1 / b.value, b.contributions, -q / b.value));
    }

    /**
     * This to an exact power.
     *
     * @throws ArithmeticException for a negative base with a broken exponent, or zero to a negative power
     */
    public Quantity power(double p) {
        if (p == 1) {
            return this;
        }
        Quantity a = coherent();
        double v = Math.pow(a.value, p);
        double derivative = p == 0 ? 0 : p * Math.pow(a.value, p - 1);
        if (!Double.isFinite(v)) {
            throw new ArithmeticException("The value " + a.value + " cannot be raised to the power " + p + ".");
        }
        if (!Double.isFinite(derivative)) {
            throw new ArithmeticException("Its uncertainty cannot be propagated: the power " + p + " has no slope at " + a.value + ".");
        }
        return new Quantity(v, a.unit.power(p), a.contributions.times(derivative));
    }

    public Quantity negate() {
        return new Quantity(-value, unit, contributions.times(-1));
    }

    /** A new value in a new unit whose change with this one is {@code derivative} (new unit per {@link #unit()}). */
    public Quantity mapped(double newValue, LabUnit newUnit, double derivative) {
        return new Quantity(newValue, newUnit, contributions.times(derivative));
    }

    /** The same quantity times a plain number; unit unchanged. */
    public Quantity scaled(double factor) {
        return new Quantity(value * factor, unit, contributions.times(factor));
    }

    /** The same quantity with another nominal value; lineage unchanged. */
    public Quantity withValue(double newValue) {
        return new Quantity(newValue, unit, contributions);
    }

    /** Adds a leaf influence of the given standard uncertainty in {@link #unit()}. */
    public Quantity with(Leaf leaf, double standardUncertainty) {
        return new Quantity(value, unit, contributions.combine(1, Contributions.of(leaf, standardUncertainty), 1));
    }

    /** Only the influences that pass the test; the value stays. */
    public Quantity keeping(Predicate<Leaf> which) {
        return new Quantity(value, unit, contributions.keep(which));
    }

    /**
     * The same quantity in another unit.
     *
     * @throws UnitException when the dimensions differ
     */
    public Quantity to(LabUnit other) {
        return other.equals(unit) ? this : new Quantity(unit.convert(value, other), other, contributions.times(unit.scaleTo(other)));
    }

    /** The same quantity in the coherent SI unit of its dimension (a temperature in kelvin). */
    public Quantity coherent() {
        return unit.factor() == 1 && !unit.isAffine() ? this : to(unit.coherent());
    }

    /** Largest believable error: the sum of absolute contributions, each as a limit (the limits school), in {@link #unit()}. */
    public double limit() {
        double[] sum = {0};
        contributions.forEach((leaf, c) -> sum[0] += Math.abs(c) * leaf.distribution().limitFactor());
        return sum[0];
    }

    /** True when nothing about this value is uncertain. */
    public boolean isExact() {
        return contributions.size() == 0;
    }

    /** Same value, unit and contributions to the last bit. */
    public boolean sameAs(Quantity other) {
        return Double.compare(value, other.value) == 0 && unit.equals(other.unit) && contributions().equals(other.contributions());
    }

    @Override
    public String toString() {
        return Notation.bracket(this);
    }
}

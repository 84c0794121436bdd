package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Predicate;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;

/**
 * A quantity value with its unit, standard uncertainty, degrees of freedom and lineage; immutable.
 *
 * <p>Arithmetic propagates uncertainty by exact first derivatives (JCGM 100, clause 5.1 and 5.2). Because every
 * quantity remembers which leaf influences it rests on, quantities that share an input stay correlated:
 * {@code x.minus(x)} is exactly 0 with uncertainty 0.
 *
 * <p>Sums keep the unit of the left operand. Products and quotients are in coherent SI units, so that 3 mm / 2 m is the
 * pure number 0.0015. Temperatures in degC and temperature differences in K are not confused: degC + K is a
 * temperature, degC - degC a difference, degC + degC is refused.
 */
public final class Quantity {
    private final double value;
    private final LabUnit unit;
    private final Contributions contributions;
    private final @Nullable Recipe recipe;

    private Quantity(double value, LabUnit unit, Contributions contributions, @Nullable Recipe recipe) {
        this.value = value;
        this.unit = unit;
        this.contributions = contributions;
        this.recipe = recipe;
    }

    @Nullable
    Recipe recipe() {
        return recipe;
    }

    /** True when this quantity is exactly linear in its leaves, so that first derivatives tell everything. */
    public boolean isLinear() {
        return recipe == null;
    }

    /** A value taken as exact. */
    public static Quantity exact(double value, LabUnit unit) {
        return new Quantity(value, unit, Contributions.NONE, null);
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
        return new Quantity(value, unit, Contributions.of(leaf, standardUncertainty), null);
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
        return Math.sqrt(Math.max(0, contributions.dot(contributions)));
    }

    /** Effective degrees of freedom by Welch-Satterthwaite (JCGM 100, G.4.1), leaves of one pool taken together. */
    public double dof() {
        Map<String, double[]> pools = new HashMap<>();
        contributions.forEach((leaf, c) -> {
            double[] sum = pools.computeIfAbsent(leaf.pool(), p -> new double[] {0, leaf.dof(), 0});
            sum[0] += c * c;
            sum[1] = Math.min(sum[1], leaf.dof());
            sum[2] += leaf.seen() == null ? 0 : 1;
        });
        pools.forEach((pool, sum) -> {
            // What was seen together is correlated; alone in its pool it is not.
            if (sum[2] > 1) {
                Contributions own = contributions.keep(leaf -> leaf.pool().equals(pool));
                sum[0] = Math.max(0, own.dot(own));
            }
        });
        double total = 0;
        double denominator = 0;
        for (double[] pool : pools.values()) {
            total += pool[0];
            denominator += pool[0] * pool[0] / pool[1];
        }
        return denominator == 0 ? Double.POSITIVE_INFINITY : total * total / denominator;
    }

    /**
     * What one standard deviation of the leaf does to this quantity, signed, in {@link #unit()}; 0 if it plays no part.
     */
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
            throw new UnitException(
                    "Two temperatures in " + unit.pretty() + " cannot be added; write the difference in K.");
        }
        if (other.unit.isAffine()) {
            return other.plus(this);
        }
        double scale = other.unit.scaleTo(unit);
        double sum = value + other.value * scale;
        return new Quantity(
                sum,
                unit,
                contributions.combine(1, other.contributions, scale),
                Recipe.sum(this, 1, other, scale, sum));
    }

    public Quantity minus(Quantity other) {
        if (other.unit.isAffine() && !unit.isAffine()) {
            throw new UnitException("A temperature in " + other.unit.pretty() + " cannot be taken from a value in "
                    + unit.named() + ".");
        }
        double scale = other.unit.scaleTo(unit);
        Contributions c = contributions.combine(1, other.contributions, -scale);
        boolean temperatures = other.unit.isAffine();
        double difference = temperatures ? value - other.in(unit) : value - other.value * scale;
        return new Quantity(
                difference, temperatures ? unit.difference() : unit, c, Recipe.sum(this, 1, other, -scale, difference));
    }

    public Quantity times(Quantity other) {
        Quantity a = factor();
        Quantity b = other.factor();
        double product = a.value * b.value;
        Recipe how = a.isExact()
                ? Recipe.affine(b, a.value, product)
                : b.isExact() ? Recipe.affine(a, b.value, product) : new Recipe.Product(a, b);
        return new Quantity(
                product, a.unit.times(b.unit), a.contributions.combine(b.value, b.contributions, a.value), how);
    }

    /** @throws ArithmeticException when the divisor is zero */
    public Quantity dividedBy(Quantity other) {
        Quantity a = factor();
        Quantity b = other.factor();
        if (b.value == 0) {
            throw new ArithmeticException("A division by zero.");
        }
        double q = a.value / b.value;
        Recipe how = b.isExact() ? Recipe.affine(a, 1 / b.value, q) : new Recipe.Quotient(a, b);
        return new Quantity(
                q, a.unit.per(b.unit), a.contributions.combine(1 / b.value, b.contributions, -q / b.value), how);
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
        if (p == 0) {
            return Quantity.number(1);
        }
        Quantity a = factor();
        double v = Math.pow(a.value, p);
        double derivative = p * Math.pow(a.value, p - 1);
        if (!Double.isFinite(v)) {
            throw new ArithmeticException("The value " + a.value + " cannot be raised to the power " + p + ".");
        }
        if (!Double.isFinite(derivative) && !isExact()) {
            throw new ArithmeticException(
                    "Its uncertainty cannot be propagated: the power " + p + " has no slope at " + a.value + ".");
        }
        Recipe how = a.isExact() ? null : new Recipe.Unary(a, p == 2 ? x -> x * x : x -> Math.pow(x, p));
        return new Quantity(
                v, a.unit.power(p), a.contributions.times(Double.isFinite(derivative) ? derivative : 0), how);
    }

    public Quantity negate() {
        return new Quantity(-value, unit, contributions.times(-1), Recipe.affine(this, -1, -value));
    }

    /**
     * A new value in a new unit that changes with this one in proportion: {@code derivative} in the new unit per
     * {@link #unit()}.
     */
    public Quantity mapped(double newValue, LabUnit newUnit, double derivative) {
        return new Quantity(
                newValue, newUnit, contributions.times(derivative), Recipe.affine(this, derivative, newValue));
    }

    /**
     * A function of this quantity.
     *
     * @param f from a value in {@link #unit()} to a value in the new unit
     * @param newUnit unit of the result
     * @param derivative of f at the nominal value, in the new unit per {@link #unit()}
     */
    public Quantity through(DoubleUnaryOperator f, LabUnit newUnit, double derivative) {
        return new Quantity(
                f.applyAsDouble(value),
                newUnit,
                contributions.times(derivative),
                isExact() ? null : new Recipe.Unary(this, f));
    }

    /**
     * A linear combination of quantities.
     *
     * @param parts any number of quantities
     * @param factors one a part: {@code newUnit} per unit of the part
     * @param value nominal value of the combination, in {@code newUnit}
     */
    public static Quantity combination(List<Quantity> parts, double[] factors, double value, LabUnit newUnit) {
        Contributions c =
                Contributions.weighted(parts.stream().map(q -> q.contributions).toList(), factors);
        boolean linear = parts.stream().allMatch(Quantity::isLinear);
        double offset = value;
        for (int i = 0; i < factors.length; i++) {
            offset -= factors[i] * parts.get(i).value;
        }
        return new Quantity(
                value,
                newUnit,
                c,
                linear ? null : new Recipe.Sum(parts.toArray(new Quantity[0]), factors.clone(), offset));
    }

    /**
     * A function of several quantities.
     *
     * @param f from their values, each in its own unit, to a value in the new unit
     * @param newUnit unit of the result
     * @param derivatives partial derivatives of f at the nominal values, in the new unit per unit of each argument
     */
    public static Quantity through(
            List<Quantity> of, ToDoubleFunction<double[]> f, LabUnit newUnit, double[] derivatives) {
        Contributions c = Contributions.NONE;
        for (int i = 0; i < of.size(); i++) {
            c = c.combine(1, of.get(i).contributions, derivatives[i]);
        }
        double v = f.applyAsDouble(of.stream().mapToDouble(Quantity::value).toArray());
        boolean exact = of.stream().allMatch(Quantity::isExact);
        return new Quantity(v, newUnit, c, exact ? null : new Recipe.Nary(of.toArray(new Quantity[0]), f));
    }

    /** The same quantity times a plain number; unit unchanged. */
    public Quantity scaled(double factor) {
        return new Quantity(
                value * factor, unit, contributions.times(factor), Recipe.affine(this, factor, value * factor));
    }

    /** The same quantity with another nominal value; lineage unchanged. */
    public Quantity withValue(double newValue) {
        return new Quantity(newValue, unit, contributions, Recipe.affine(this, 1, newValue));
    }

    /** Adds a leaf influence of the given standard uncertainty in {@link #unit()}. */
    public Quantity with(Leaf leaf, double standardUncertainty) {
        Quantity alone = new Quantity(0, unit, Contributions.of(leaf, standardUncertainty), null);
        return new Quantity(
                value, unit, contributions.combine(1, alone.contributions, 1), Recipe.sum(this, 1, alone, 1, value));
    }

    /** Only the influences that pass the test, to first order; the value stays. */
    public Quantity keeping(Predicate<Leaf> which) {
        return new Quantity(value, unit, contributions.keep(which), null);
    }

    /** This quantity to first order: linear in its leaves. */
    public Quantity linear() {
        return recipe == null ? this : new Quantity(value, unit, contributions, null);
    }

    /**
     * The same quantity in another unit.
     *
     * @throws UnitException when the dimensions differ
     */
    public Quantity to(LabUnit other) {
        if (other.equals(unit)) {
            return this;
        }
        double converted = unit.convert(value, other);
        double scale = unit.scaleTo(other);
        return new Quantity(converted, other, contributions.times(scale), Recipe.affine(this, scale, converted));
    }

    /**
     * This in the coherent unit, as a factor of a product or a power.
     *
     * @throws UnitException for a temperature in degC, which is neither a difference nor counted from absolute zero
     */
    private Quantity factor() {
        if (unit.isAffine()) {
            throw new UnitException("The temperature " + this
                    + " cannot be multiplied or divided as it stands: write the difference in K, or "
                    + "to(..., \"K\") for the temperature above absolute zero.");
        }
        return coherent();
    }

    /** The same quantity in the coherent SI unit of its dimension (a temperature in kelvin). */
    public Quantity coherent() {
        return unit.factor() == 1 && !unit.isAffine() ? this : to(unit.coherent());
    }

    /**
     * Largest believable error: the sum of absolute contributions, each as a limit (the limits school), in
     * {@link #unit()}. The leaves of one pool are one scatter, and count once, as a multiple of what they contribute
     * together.
     */
    public double limit() {
        Map<String, Double> factors = new LinkedHashMap<>();
        contributions.forEach((leaf, c) -> factors.merge(leaf.pool(), leaf.limitFactor(), Math::max));
        if (factors.size() == contributions.size()) {
            double[] sum = {0};
            contributions.forEach((leaf, c) -> sum[0] += Math.abs(c) * leaf.limitFactor());
            return sum[0];
        }
        Map<String, List<Double>> pools = new HashMap<>();
        contributions.forEach((leaf, c) ->
                pools.computeIfAbsent(leaf.pool(), p -> new ArrayList<>()).add(c));
        double sum = 0;
        for (Map.Entry<String, Double> pool : factors.entrySet()) {
            List<Double> alone = Objects.requireNonNull(pools.get(pool.getKey()));
            double together;
            if (alone.size() == 1) {
                together = Math.abs(alone.get(0));
            } else {
                Contributions own = contributions.keep(leaf -> leaf.pool().equals(pool.getKey()));
                together = Math.sqrt(Math.max(0, own.dot(own)));
            }
            sum += pool.getValue() * together;
        }
        return sum;
    }

    /** True when nothing about this value is uncertain, not even beyond the first derivatives. */
    public boolean isExact() {
        return contributions.size() == 0 && recipe == null;
    }

    /** Same value, unit and contributions to the last bit. */
    public boolean sameAs(Quantity other) {
        return Double.compare(value, other.value) == 0
                && unit.equals(other.unit)
                && contributions().equals(other.contributions());
    }

    @Override
    public String toString() {
        return Notation.bracket(this);
    }
}

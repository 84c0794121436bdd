package eagerneedle.core.quantity;

import java.util.function.DoubleUnaryOperator;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;

/**
 * How a quantity that is not linear in its leaves follows from other quantities, so that Monte Carlo (JCGM 101) and the
 * exact corners of the limits school run through the same graph that the first derivatives ran through.
 *
 * <p>A quantity without a recipe is exactly its value plus the sum of its contributions. Recipes therefore exist only
 * from the first curved step on, and cost nothing where everything is linear.
 */
sealed interface Recipe {
    /** {@code offset + sum of factors times parts}. */
    record Sum(Quantity[] parts, double[] factors, double offset) implements Recipe {}

    record Product(Quantity a, Quantity b) implements Recipe {}

    record Quotient(Quantity a, Quantity b) implements Recipe {}

    record Unary(Quantity of, DoubleUnaryOperator f) implements Recipe {}

    record Nary(Quantity[] of, ToDoubleFunction<double[]> f) implements Recipe {}

    /**
     * a factor times one part, shifted so that the part's nominal value gives {@code value}; null when the part is
     * linear.
     */
    static @Nullable Recipe affine(Quantity part, double factor, double value) {
        return part.recipe() == null || factor == 0
                ? null
                : new Sum(new Quantity[] {part}, new double[] {factor}, value - factor * part.value());
    }

    static @Nullable Recipe sum(Quantity a, double fa, Quantity b, double fb, double value) {
        return a.recipe() == null && b.recipe() == null || a == b && fa == -fb
                ? null
                : new Sum(new Quantity[] {a, b}, new double[] {fa, fb}, value - fa * a.value() - fb * b.value());
    }
}

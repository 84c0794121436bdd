package eagerneedle.core.judge;

import org.jspecify.annotations.Nullable;

/**
 * What is asked of a comparison.
 *
 * @param matters the smallest difference that would matter, in the unit of the result; NaN when nothing is said
 * @param bound on which side of the reference the result must lie; null where it should agree with it
 */
public record Demand(double matters, @Nullable Side bound) {
    /** That both agree. */
    public static final Demand AGREEMENT = new Demand(Double.NaN, null);

    /** Below or above a bound. */
    public enum Side {
        BELOW,
        ABOVE
    }
}

package eagerneedle.core.chain;

import eagerneedle.core.quantity.LabUnit;
import java.util.function.DoubleUnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * How one stage of a chain turns what goes in into what comes out: a function that only rises or only falls, and its
 * inverse.
 *
 * <p>A law works in units natural to it; the {@link Stage} around it converts. Functions give NaN where the law does
 * not hold.
 *
 * @param input natural unit of what goes in; null for whatever the stage says
 * @param output natural unit of what comes out; null for whatever the stage says
 * @param forward from input to output
 * @param backward from output to input
 * @param lowest smallest input for which it holds, natural unit; may be minus infinity
 * @param highest largest input for which it holds; may be infinity
 * @param linear true when it is a straight line
 */
public record Law(
        @Nullable LabUnit input,
        @Nullable LabUnit output,
        DoubleUnaryOperator forward,
        DoubleUnaryOperator backward,
        double lowest,
        double highest,
        boolean linear) {
    /** Output = gain × input + offset, in whatever units. */
    public static Law linear(double gain, double offset) {
        if (gain == 0 || !Double.isFinite(gain)) {
            throw new IllegalArgumentException("a gain is a number other than 0.");
        }
        return new Law(
                null,
                null,
                x -> gain * x + offset,
                y -> (y - offset) / gain,
                Double.NEGATIVE_INFINITY,
                Double.POSITIVE_INFINITY,
                true);
    }

    static Law curved(
            @Nullable String input,
            @Nullable String output,
            DoubleUnaryOperator forward,
            DoubleUnaryOperator backward,
            double lowest,
            double highest) {
        return new Law(
                input == null ? null : LabUnit.parse(input),
                output == null ? null : LabUnit.parse(output),
                forward,
                backward,
                lowest,
                highest,
                false);
    }
}

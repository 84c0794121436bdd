package eagerneedle.core.watch;

/**
 * What a method expects of a channel, in the channel's unit; NaN and 0 for what it does not say.
 *
 * @param trend 1 when the value should rise during a run, -1 when it should fall
 * @param low lowest value this channel should show
 * @param high highest value
 * @param holds largest change that a reference may show during a run
 * @param limit value that must not be passed
 */
public record Expectation(int trend, double low, double high, double holds, double limit) {
    /** Nothing is expected. */
    public static final Expectation NONE = new Expectation(0, Double.NaN, Double.NaN, Double.NaN, Double.NaN);

    /** True when a band is stated and a value lies in it. */
    public boolean holdsBand(double v) {
        return v >= low && v <= high;
    }

    /** True when a band is stated and a value lies outside it. */
    public boolean outsideBand(double v) {
        return v < low || v > high;
    }

    /** True for what should hold still: a bath, a room. */
    boolean isReference() {
        return !Double.isNaN(holds);
    }

    /** True for a value no farther from the band than the band is wide. */
    boolean isBesideBand(double typical) {
        return typical >= low - (high - low) && typical <= high + (high - low);
    }
}

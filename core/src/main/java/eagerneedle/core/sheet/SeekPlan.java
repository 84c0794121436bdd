package eagerneedle.core.sheet;

import org.jspecify.annotations.Nullable;

/**
 * A target that is held before a row is taken.
 *
 * @param until what must stand where, {@code v = 2.00 m/s}: left what is read, right where it must stand
 * @param within how close: a share of the target, or a quantity
 * @param output which output is turned; null where a person turns something else
 * @param by hand or program
 */
public record SeekPlan(
        String until, String within, @Nullable String output, String by) {
    public SeekPlan {
        by = by == null ? "hand" : by;
    }

    /** True when the program turns the output. */
    public boolean byProgram() {
        return by.equals("program");
    }
}

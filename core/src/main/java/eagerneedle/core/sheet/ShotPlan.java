package eagerneedle.core.sheet;

import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What fires a shot and how much of it is kept.
 *
 * @param on the channel that is watched; the first when not said
 * @param at level, with its unit
 * @param rate or rate of change, with its unit
 * @param way up, down or either
 * @param before s kept from before the trigger
 * @param after s kept after it
 */
public record ShotPlan(
        @Nullable String on, @Nullable String at, @Nullable String rate, String way, double before, double after) {
    public ShotPlan {
        way = way == null ? "either" : way;
        before = before <= 0 ? 0.1 : before;
        after = after <= 0 ? 1 : after;
    }

    /** The level, or else the rate of change: one of them is said. */
    public String atOrRate() {
        return at != null ? at : Objects.requireNonNull(rate);
    }
}

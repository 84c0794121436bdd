package eagerneedle.core.physics;

import eagerneedle.core.sheet.Sheet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What nature draws once for several sessions of one method: what is called {@code nature} in the rig, values that are
 * given, instruments by their serial, and what a pool says is shared. For a session alone it is drawn like all the
 * rest.
 *
 * @param seed that of the whole pool; that of the session for a session alone
 * @param shared inputs and channels, and references of calibrations, see {@link eagerneedle.core.sheet.Pool}
 */
public record Once(long seed, Set<String> shared) {
    public Once {
        shared = Set.copyOf(shared);
    }

    /** Of a session alone. */
    public static Once of(long seed) {
        return new Once(seed, Set.of());
    }

    /** True for an input that is the same in all sessions. */
    boolean holds(String name, Sheet.@Nullable Input input) {
        return input != null && input.isGiven() || shared.contains(name);
    }
}

package eagerneedle.rig.simulated;

import java.util.List;
import java.util.Set;

/** The simulated rigs that ship, by the name a sheet gives in {@code devices: rig}. */
public final class Rigs {
    private Rigs() {
    }

    /**
     * A rig with its truth drawn from a seed.
     *
     * @throws IllegalArgumentException for a rig or fault that does not exist
     */
    public static RigModel create(String name, long seed, Set<String> faults) {
        if (!name.equals("cart-on-slope")) {
            throw new IllegalArgumentException("There is no simulated rig called " + name + "; there is: cart-on-slope.");
        }
        for (String fault : faults) {
            if (!faults(name).contains(fault)) {
                throw new IllegalArgumentException("The rig " + name + " has no fault called " + fault + "; it has: " + String.join(", ", faults(name)) + ".");
            }
        }
        return new CartOnSlope(seed, faults);
    }

    /** The mistakes a rig can make. */
    public static List<String> faults(String name) {
        return name.equals("cart-on-slope") ? CartOnSlope.FAULTS : List.of();
    }
}

package eagerneedle.rig.simulated;

import eagerneedle.core.sheet.Sheet;
import java.util.List;
import java.util.Set;

/** The simulated rigs that ship, by the name a sheet gives in {@code devices: rig}. */
public final class Rigs {
    private static final String CART = "cart-on-slope";
    private static final String CHAINS = "chains";

    private Rigs() {
    }

    /**
     * A rig with its truth drawn from a seed.
     *
     * @param name  which
     * @param sheet the sheet it serves; rigs with physics of their own do not look at it
     * @throws IllegalArgumentException for a rig or fault that does not exist
     */
    public static RigModel create(String name, Sheet sheet, long seed, Set<String> faults) {
        if (faults(name).isEmpty()) {
            throw new IllegalArgumentException("There is no simulated rig called " + name + "; there are: " + CART + ", " + CHAINS + ".");
        }
        for (String fault : faults) {
            if (!faults(name).contains(fault)) {
                throw new IllegalArgumentException("The rig " + name + " has no fault called " + fault + "; it has: " + String.join(", ", faults(name)) + ".");
            }
        }
        return name.equals(CART) ? new CartOnSlope(seed, faults) : new ChainRig(sheet, seed, faults);
    }

    /** A rig with physics of its own. */
    public static RigModel create(String name, long seed, Set<String> faults) {
        return create(name, null, seed, faults);
    }

    /** The mistakes a rig can make; empty for one that does not exist. */
    public static List<String> faults(String name) {
        return switch (name) {
            case CART -> CartOnSlope.FAULTS;
            case CHAINS -> ChainRig.FAULTS;
            default -> List.of();
        };
    }
}

package eagerneedle.rig.simulated;

import eagerneedle.core.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** The simulated rigs that ship, by the name a sheet gives in {@code devices: rig}. */
public final class Rigs {
    /** Makes a rig for a sheet; rigs with physics of their own may not look at it. */
    private interface Maker {
        RigModel make(Sheet sheet, long seed, Set<String> faults);
    }

    private record Kind(List<String> faults, Maker maker) {}

    private static final Map<String, Kind> KINDS = new LinkedHashMap<>();

    static {
        KINDS.put(
                "cart-on-slope", new Kind(CartOnSlope.FAULTS, (sheet, seed, faults) -> new CartOnSlope(seed, faults)));
        KINDS.put(
                "wheel-on-thread",
                new Kind(WheelOnThread.FAULTS, (sheet, seed, faults) -> new WheelOnThread(seed, faults)));
        KINDS.put("dye-in-cuvette", new Kind(DyeInCuvette.FAULTS, DyeInCuvette::new));
        KINDS.put("two-tables", new Kind(TwoTables.FAULTS, TwoTables::new));
        KINDS.put("reed", new Kind(Reed.FAULTS, Reed::new));
        KINDS.put("thermocouple-cabinet", new Kind(ThermocoupleCabinet.FAULTS, ThermocoupleCabinet::new));
        KINDS.put("chains", new Kind(ChainRig.FAULTS, ChainRig::new));
    }

    private Rigs() {}

    /**
     * A rig with its truth drawn from a seed.
     *
     * @param name which
     * @param sheet the sheet it serves
     * @throws IllegalArgumentException for a rig or fault that does not exist
     */
    public static RigModel create(String name, Sheet sheet, long seed, Set<String> faults) {
        Kind kind = KINDS.get(name);
        if (kind == null) {
            throw new IllegalArgumentException("There is no simulated rig called " + name + "; there are: "
                    + String.join(", ", KINDS.keySet()) + ".");
        }
        for (String fault : faults) {
            if (!kind.faults().contains(fault)) {
                throw new IllegalArgumentException("The rig " + name + " has no fault called " + fault + "; it has: "
                        + String.join(", ", kind.faults()) + ".");
            }
        }
        return kind.maker().make(sheet, seed, faults);
    }

    /** A rig with physics of its own. */
    public static RigModel create(String name, long seed, Set<String> faults) {
        return create(name, null, seed, faults);
    }

    /** The mistakes a rig can make; empty for one that does not exist. */
    public static List<String> faults(String name) {
        return KINDS.containsKey(name) ? KINDS.get(name).faults() : List.of();
    }
}

package eagerneedle.rig.simulated;

import eagerneedle.core.formula.NearName;
import eagerneedle.core.physics.Draws;
import eagerneedle.core.physics.Once;
import eagerneedle.core.physics.RigChange;
import eagerneedle.core.sheet.Device;
import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The simulated rigs: the physics that a sheet itself writes down, or, for a sheet without any, a bench of chains whose
 * channels settle. Sheets of the first edition named a rig; they find it in the sheet that holds its physics now.
 */
public final class Rigs {
    /** What a sheet without physics names. */
    public static final String CHAINS = "chains";

    /** Which shipped sheet holds the physics of a rig of the first edition. */
    private static final Map<String, String> FIRST_EDITION = new LinkedHashMap<>();

    static {
        FIRST_EDITION.put("cart-on-slope", "baggage-chute");
        FIRST_EDITION.put("wheel-on-thread", "potters-wheel");
        FIRST_EDITION.put("dye-in-cuvette", "fading-dye");
        FIRST_EDITION.put("two-tables", "dividing-tables");
        FIRST_EDITION.put("reed", "weather-vane-reed");
        FIRST_EDITION.put("thermocouple-cabinet", "drying-cabinet");
    }

    private Rigs() {}

    /**
     * The rig of a sheet, its truth drawn from a seed.
     *
     * @param faults mistakes at the bench, by the ids of the sheet, or those of any bench of chains
     * @throws IllegalArgumentException for a fault that does not exist, or a rig that the sheet names and nobody has
     */
    public static SimulatedRig of(Sheet sheet, long seed, Set<String> faults) {
        return of(sheet, seed, Once.of(seed), faults);
    }

    /** The same for one of several sessions. */
    static SimulatedRig of(Sheet sheet, long seed, Once once, Set<String> faults) {
        Sheet source = source(sheet);
        RigPlan plan = PooledSheet.rig(source);
        List<String> known = faults(sheet);
        for (String fault : faults) {
            if (!known.contains(fault)) {
                throw new IllegalArgumentException(
                        "The rig of " + sheet.id() + " has no fault called " + fault + NearName.hint(fault, known)
                                + (known.isEmpty() ? "" : " It has: " + String.join(", ", known) + "."));
            }
        }
        for (Sheet.Mistake m : source.mistakes()) {
            if (m.isAtBench() && faults.contains(m.id())) {
                for (Map.Entry<String, String> e : m.change().entrySet()) {
                    plan = RigChange.of(plan, source, e.getKey(), e.getValue());
                }
            }
        }
        SimulatedRig own = new ChainRig(sheet, plan, seed, once, faults);
        return sheet.pool().isThere() ? PoolRig.of(own, sheet, plan, seed, faults) : own;
    }

    /** The rig of a sheet with instruments that show the truth; nature is drawn as without. */
    public static SimulatedRig ideal(Sheet sheet, long seed) {
        return ideal(sheet, seed, Once.of(seed));
    }

    /** The same for one of several sessions. */
    static SimulatedRig ideal(Sheet sheet, long seed, Once once) {
        RigPlan plan = PooledSheet.rig(source(sheet));
        SimulatedRig own = ChainRig.ideal(sheet, plan, seed, once);
        return sheet.pool().isThere() ? PoolRig.ideal(own, sheet, plan, seed) : own;
    }

    /** What one of several instruments sees of the bench of a sheet; the whole of it where there is one. */
    public static SimulatedRig of(Sheet sheet, String device, long seed, Set<String> faults) {
        SimulatedRig all = of(sheet, seed, faults);
        return sheet.devices().size() < 2 ? all : new OneDevice(all, sheet, device);
    }

    /** How fast the clock of the stand-in of a device runs: 50e-6 for 50 ppm too fast. */
    public static double clock(Sheet sheet, String device, long seed) {
        return sheet.devices().size() < 2 ? 0 : new Clocks(sheet, new Draws(seed)).rate(device);
    }

    /** The rig of a sheet that ships. */
    public static SimulatedRig shipped(String id, long seed, Set<String> faults) {
        return of(SheetReader.read(SheetReader.shippedText(id), id + ".yaml").sheet(), seed, faults);
    }

    /** A bench of chains, whatever physics the sheet writes down. */
    public static SimulatedRig chains(Sheet sheet, long seed, Set<String> faults) {
        return new ChainRig(sheet, seed, faults);
    }

    /** True when an instrument of the sheet has a stand-in. */
    public static boolean standIn(Sheet sheet, Device device) {
        return device.rig() != null || sheet.hasPhysics() && !device.driver().equals("manual");
    }

    /** True when the sheet can be rehearsed. */
    public static boolean canRehearse(Sheet sheet) {
        return sheet.hasPhysics() || sheet.devices().values().stream().anyMatch(d -> standIn(sheet, d));
    }

    /** The mistakes that can be rehearsed at the bench of a sheet. */
    public static List<String> faults(Sheet sheet) {
        List<String> out = new java.util.ArrayList<>(source(sheet).mistakes().stream()
                .filter(Sheet.Mistake::isAtBench)
                .map(Sheet.Mistake::id)
                .toList());
        if (Leads.canBeExchanged(sheet) || !source(sheet).hasPhysics()) {
            out.addAll(ChainRig.FAULTS);
        }
        return List.copyOf(out);
    }

    /** The sheet that holds the physics. */
    private static Sheet source(Sheet sheet) {
        if (sheet.hasPhysics()) {
            return sheet;
        }
        String named = sheet.devices().values().stream()
                .map(Device::rig)
                .filter(r -> r != null && !r.equals(CHAINS))
                .findFirst()
                .orElse(null);
        if (named == null) {
            return sheet;
        }
        String id = FIRST_EDITION.get(named);
        if (id == null) {
            throw new IllegalArgumentException("There is no simulated rig called " + named
                    + "; write the physics under rig in the sheet, or name " + CHAINS + ".");
        }
        return SheetReader.read(SheetReader.shippedText(id), id + ".yaml").sheet();
    }
}

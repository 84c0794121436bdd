package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reference.Thermocouple;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * A drying cabinet with a thermocouple in it, its reference junction in an ice bath, and the room around: a bench of
 * chains whose temperatures belong together. The pair gives E(T) - E(T_reference), so whatever happens to its reference
 * shows in its reading.
 */
final class ThermocoupleCabinet implements RigModel {
    private static final List<String> OWN = List.of("no-reference", "ice-gone", "touches-can", "no-power");
    /**
     * Mistakes that a signal can show: no reference junction, ice gone, reference wires on the earthed can, amplifier
     * without power; and those of any bench.
     */
    static final List<String> FAULTS = all();

    private static final double SETTLES = 1.2;

    private final ChainRig bench;
    private final Set<String> faults;
    private final Thermocouple pair = Thermocouple.ofType("K");
    private final double air;
    private final double dial;
    private double warming;

    ThermocoupleCabinet(Sheet sheet, long seed, Set<String> faults) {
        this.faults = faults;
        Set<String> general = new HashSet<>(faults);
        general.retainAll(ChainRig.FAULTS);
        this.bench = new ChainRig(sheet, seed, general);
        Hidden hidden = new Hidden(seed + 104_729);
        this.air = hidden.about(41, 1.5);
        this.dial = hidden.within(air, 0.9);
        bench.settles("cabinet", 24, air, SETTLES);
        bench.settles("bath", 0.3, hidden.about(0, 0.02), SETTLES);
        bench.settles("room", 20.5, hidden.about(20.5, 0.5), SETTLES);
        bench.hidden().is("T_air", air, "degC");
        bench.hidden().is("V_pair", pair.voltage(air), "mV");
        bench.hidden().is("T_dial", air, "degC");
        bench.hidden().readsAs("T_dial", String.format(Locale.ROOT, "%.1f limit 1.0 degC", dial));
        bench.felt(this::felt);
    }

    private static List<String> all() {
        List<String> out = new ArrayList<>(OWN);
        out.addAll(ChainRig.FAULTS);
        return List.copyOf(out);
    }

    /** What a sensor gives as if it were at another temperature, in a run. */
    private double felt(String channel, double value) {
        if (channel.equals("bath") && faults.contains("ice-gone")) {
            return value + warming;
        }
        if (!channel.equals("cabinet")) {
            return value;
        }
        double reference =
                faults.contains("no-reference") ? bench.value("room") : faults.contains("ice-gone") ? warming : 0;
        double seen = pair.voltage(value) - pair.voltage(reference);
        if (faults.contains("touches-can")) {
            seen = (bench.hidden().random.nextBoolean() ? 1 : -1) * 40;
        }
        return faults.contains("no-power")
                ? 0
                : pair.temperature(Math.max(pair.voltage(-200), Math.min(pair.voltage(1200), seen)));
    }

    @Override
    public List<String> channels() {
        return bench.channels();
    }

    @Override
    public void arrange(Map<String, String> how) {
        warming = 4;
        bench.arrange(how);
    }

    @Override
    public void begin() {
        bench.begin();
    }

    @Override
    public void advance(double seconds) {
        warming += 0.1 * seconds;
        bench.advance(seconds);
    }

    @Override
    public double[] read() {
        return bench.read();
    }

    @Override
    public double duration() {
        return bench.duration();
    }

    @Override
    public Map<String, Quantity> truth() {
        return bench.truth();
    }

    @Override
    public Map<String, String> readings() {
        return bench.readings();
    }
}

package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * A dye that fades in a cuvette before a photometer, with the other reagent in such excess that its concentration
 * hardly changes.
 *
 * <p>dA/dt = -k c A with k = k_25 exp(-E/R (1/T - 1/298.15 K)); T drifts a little during a run towards the room. The
 * photometer sees the transmittance 10^-A through a chain with errors of its own, which blank and dark take out.
 */
final class DyeInCuvette extends HiddenRig {
    /**
     * Mistakes that a signal can show: frosted faces in the beam, an old blank, water condensing on cold faces, a run
     * that warms up.
     */
    static final List<String> FAULTS = List.of("frosted-side", "old-blank", "condensation", "warms-up");

    private static final double GAS = 8.314462618;
    private static final double MIXING = 0.006;
    private static final double NOISE = 0.0012;

    private final Set<String> faults;
    private final Chain chain;
    private final Channel channel;
    private final double excess;
    private final double k25;
    private final double activation;
    private double mixed = 1;
    private double absorbance;
    private double constant;
    private double start;
    private double end;
    private double time;
    private double lasts;
    private double standing = 1;
    private boolean running;

    DyeInCuvette(Sheet sheet, long seed, Set<String> faults) {
        super(seed);
        this.faults = faults;
        this.channel = sheet.channels().get("light");
        this.chain = hidden.chain(channel);
        this.excess = hidden.read("c_excess", hidden.about(0.0500, 0.001), 0.0002, "mol/L", 4);
        this.k25 = hidden.about(0.075, 0.004);
        this.activation = hidden.about(52.0, 1.5);
        hidden.read("E_table", hidden.about(activation, 0), 0.8, "kJ/mol", 1);
        hidden.is("E_a", activation, "kJ/mol");
        hidden.is("k_25", k25, "L/mol/s");
        hidden.is("E_two", activation, "kJ/mol");
        Capture plan = sheet.captures().get("fade");
        this.lasts =
                plan.prompt().first() + plan.prompt().every() * plan.prompt().count();
    }

    @Override
    public List<String> channels() {
        return List.of("light");
    }

    private double rate(double celsius) {
        return k25 * Math.exp(-activation * 1e3 / GAS * (1 / (celsius + 273.15) - 1 / 298.15));
    }

    @Override
    public void arrange(Map<String, String> bench) {
        if (bench.containsKey("point")) {
            running = false;
            standing = hidden.reference(channel, bench);
            if (faults.contains("old-blank")
                    && bench.getOrDefault("part", "points").equals("points")
                    && bench.get("point").equals("1")) {
                standing = 0.93;
            }
        } else if (bench.containsKey("capture")) {
            running = true;
            double nominal =
                    Double.parseDouble(bench.getOrDefault("level", "T25").substring(1));
            start = hidden.about(nominal, 0.3);
            end = start + hidden.about((22 - nominal) * 0.012, 0.05) + (faults.contains("warms-up") ? 3.5 : 0);
            absorbance = hidden.about(0.95, 0.04);
            constant = faults.contains("frosted-side") ? hidden.about(0.16, 0.02) : 0;
            // Mixing is never quite the same: a share of the excess that differs from run to run.
            mixed = 1 + MIXING * hidden.random.nextGaussian();
            begin();
        }
    }

    @Override
    public void begin() {
        time = 0;
    }

    @Override
    public void advance(double seconds) {
        time += seconds;
        if (running) {
            double t = start + (end - start) * Math.min(1, time / lasts);
            absorbance *= Math.exp(-rate(t) * excess * mixed * seconds);
        }
    }

    @Override
    public double[] read() {
        double transmittance = running ? Math.pow(10, -absorbance - constant) : standing;
        if (running && faults.contains("condensation")) {
            transmittance *= 1 - 0.25 * (1 - Math.exp(-time / 250));
        }
        return new double[] {chain.counts(transmittance + NOISE * hidden.random.nextGaussian())};
    }

    @Override
    public double duration() {
        return lasts;
    }

    @Override
    public Map<String, String> byEye() {
        return Map.of("T_start", seen(start), "T_end", seen(end));
    }

    private String seen(double celsius) {
        return String.format(Locale.ROOT, "%.1f limit 0.2 degC", hidden.within(celsius, 0.15));
    }
}

package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A clamped reed with a strain gauge near its root, loaded or flicked at its tip.
 *
 * <p>Stiffness at the tip k = E b h³ / (4 L³); strain at the gauge 3 h x / (2 L³) times the deflection; free motion
 * (m_eq + m) y'' = -k y (1 + β y²) - 2 γ (m_eq + m) y' with m_eq 33/140 of the reed's mass (Rayleigh), β the stiffening
 * of large deflections. The gauge's true factor differs from the marked one, and the chain sees what the gauge gives.
 */
final class Reed extends HiddenRig {
    /** Mistakes that a signal can show: the packet of another gauge, hum of the mains, a flick far too large. */
    static final List<String> FAULTS = List.of("other-gauge", "hum", "flick-too-large");

    private static final double FLICK_AT = 0.4;
    private static final double STEP = 2.5e-4;
    private static final double STIFFENING = 4;
    private static final double NOISE = 1.0;

    private final Set<String> faults;
    private final Channel channel;
    private final Chain chain;
    private final double g;
    private final double stiffness;
    private final double equivalent;
    private final double perDeflection;
    private final double gaugeRatio;
    private final double shuntRatio;
    private final double damping;
    private final double[] hung = new double[6];
    private final double[] added = new double[5];
    private double standing;
    private double mass;
    private double creep;
    private boolean ringing;
    private double time;
    private double flick;
    private boolean flicked;
    private double[] motion = new double[2];

    Reed(Sheet sheet, long seed, Set<String> faults) {
        super(seed);
        this.faults = faults;
        this.channel = sheet.channels().get("strain");
        this.chain = hidden.chain(channel);
        this.g = hidden.read("g", hidden.about(9.8126, 0.0003), 0.0003, "m/s^2", 4);
        double b = hidden.readWithin("b", hidden.about(25.0, 0.05), 0.02, "mm", 2) / 1e3;
        double h = hidden.readWithin("h", hidden.about(1.2, 0.01), 0.004, "mm", 3) / 1e3;
        double length = hidden.readWithin("L", hidden.about(200, 0.5), 0.3, "mm", 1) / 1e3;
        double x = hidden.readWithin("x", hidden.about(180, 0.5), 0.3, "mm", 1) / 1e3;
        double modulus = hidden.about(205e9, 2e9);
        double density = hidden.about(7840, 25);
        this.stiffness = modulus * b * Math.pow(h, 3) / (4 * Math.pow(length, 3));
        double own = density * b * h * length;
        this.equivalent = 33.0 / 140 * own;
        this.perDeflection = 3 * h * x / (2 * Math.pow(length, 3));
        double factor = hidden.marked("G", "2.08(1)");
        this.shuntRatio = factor / 2.08;
        this.gaugeRatio = (faults.contains("other-gauge") ? 2.22 : factor) / 2.08;
        hidden.read("R_g", hidden.about(350, 0.3), 0.1, "ohm", 2);
        hidden.read("R_1", hidden.about(1000, 1), 0.3, "kohm", 1);
        hidden.read("R_2", hidden.about(499, 0.6), 0.15, "kohm", 2);
        hidden.read("R_3", hidden.about(200, 0.2), 0.06, "kohm", 2);
        hidden.read("M_reed", own * 1e3, 0.02, "g", 2);
        for (int i = 1; i < hung.length; i++) {
            hung[i] = hidden.read("s_" + i, hidden.about(100 * i, 0.5), 0.02, "g", 2) / 1e3;
        }
        for (int i = 1; i < added.length; i++) {
            added[i] = hidden.read("a_" + i, hidden.about(20 * i, 0.2), 0.02, "g", 2) / 1e3;
        }
        this.damping = hidden.about(0.5, 0.08);
        hidden.is("k_static", stiffness, "N/m");
        hidden.is("k_dynamic", stiffness, "N/m");
        hidden.is("m_eq", equivalent * 1e3, "g");
        hidden.is("m_true", own * 1e3, "g");
        hidden.is("E", modulus / 1e9, "GPa");
        hidden.is("rho", density, "kg/m^3");
    }

    @Override
    public List<String> channels() {
        return List.of("strain");
    }

    @Override
    public void arrange(Map<String, String> bench) {
        ringing = false;
        if (bench.containsKey("point")) {
            // A shunt changes the resistance, whatever the gauge's factor is.
            standing = hidden.reference(channel, bench) * shuntRatio;
        } else if (bench.containsKey("capture")) {
            int level = Integer.parseInt(bench.getOrDefault("level", "s0").substring(1));
            if (bench.get("capture").equals("ring")) {
                mass = equivalent + added[level];
                ringing = true;
                flick = hidden.about(0.003, 0.0003) * (faults.contains("flick-too-large") ? 7 : 1);
            } else {
                // The clip hangs a little beside its mark every time.
                creep = hidden.about(0, 0.4);
                standing = apparent(hung[level] * g / stiffness) + creep;
            }
        }
        begin();
    }

    /** Strain that the chain sees of a deflection, microstrain by the marked gauge factor. */
    private double apparent(double deflection) {
        return 1e6 * perDeflection * deflection * gaugeRatio;
    }

    @Override
    public void begin() {
        time = 0;
        flicked = false;
        motion = new double[2];
    }

    @Override
    public void advance(double seconds) {
        if (ringing) {
            int steps = Math.max(1, (int) Math.ceil(seconds / STEP));
            double h = seconds / steps;
            for (int i = 0; i < steps; i++) {
                if (!flicked && time + i * h >= FLICK_AT) {
                    flicked = true;
                    motion = new double[] {0, flick * Math.sqrt(stiffness / mass)};
                }
                step(h);
            }
        }
        time += seconds;
    }

    /** Classical fourth-order Runge-Kutta. */
    private void step(double h) {
        double[] y = motion;
        double a1 = pull(y[0], y[1]);
        double v2 = y[1] + a1 * h / 2;
        double a2 = pull(y[0] + y[1] * h / 2, v2);
        double v3 = y[1] + a2 * h / 2;
        double a3 = pull(y[0] + v2 * h / 2, v3);
        double v4 = y[1] + a3 * h;
        double a4 = pull(y[0] + v3 * h, v4);
        motion =
                new double[] {y[0] + h / 6 * (y[1] + 2 * v2 + 2 * v3 + v4), y[1] + h / 6 * (a1 + 2 * a2 + 2 * a3 + a4)};
    }

    private double pull(double y, double v) {
        return -stiffness / mass * y * (1 + STIFFENING * y * y) - 2 * damping * v;
    }

    @Override
    public double[] read() {
        double strain = ringing ? apparent(motion[0]) : standing;
        double hum = faults.contains("hum") ? 18 * Math.sin(2 * Math.PI * 50 * time) : 0;
        double count = chain.counts(strain + hum + NOISE * hidden.random.nextGaussian());
        return new double[] {Double.isNaN(count) ? chain.converter().highestCount() : count};
    }

    @Override
    public double duration() {
        return ringing ? FLICK_AT + 2.2 : 1;
    }
}

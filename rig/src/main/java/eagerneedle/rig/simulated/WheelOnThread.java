package eagerneedle.rig.simulated;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * A wheel on a vertical axle, driven by a thread that is wound on its hub and runs over a spoked pulley to a falling
 * mass; a light gate sees the spokes pass.
 *
 * <p>With s the way of the thread, r the effective radius of the hub (drum and half the thread), I the inertia of wheel
 * and casting, I_p and r_p of the pulley, τ_f the friction torque: (m + I/r² + I_p/r_p²) s'' = m g - τ_f / r until the
 * mass lands; then the thread is slack and the pulley runs down by itself. Spokes are a little uneven, the same at
 * every turn, and the pulley wobbles a little.
 */
final class WheelOnThread extends HiddenRig {
    /**
     * Mistakes that a signal can show: a casting beside its pin, thread wound over thread, spokes that the gate misses.
     */
    static final List<String> FAULTS = List.of("off-centre", "thread-overlaps", "missed-spokes");

    private static final int SPOKES = 10;
    private static final double BLOCKED = 0.3;
    private static final double HELD = 0.6;
    private static final double STEP = 0.0005;
    private static final double FALL = 0.82;
    private static final double LOCAL_G = 9.8126;
    private static final double RUN_DOWN = 0.16;

    private final Set<String> faults;
    private final double g;
    private final double radius;
    private final double arc;
    private final double bare;
    private final double friction;
    private final double pulleyShare;
    private final Map<String, Double> casting = new LinkedHashMap<>();
    private final Map<String, Double> hung = new LinkedHashMap<>();
    private final double[] uneven = new double[SPOKES];
    private final List<double[]> edges = new ArrayList<>();
    private double mass;
    private double inertia;
    private double runFriction;
    private double time;
    private double way;
    private double speed;
    private double slack;
    private int passed;
    private boolean blocked;
    private double wobble;
    private boolean moving;

    WheelOnThread(long seed, Set<String> faults) {
        super(seed);
        this.faults = faults;
        this.g = hidden.read("g", hidden.about(LOCAL_G, 0.0003), 0.0003, "m/s^2", 4);
        double drum = hidden.readWithin("d_drum", hidden.about(44.0, 0.3), 0.05, "mm", 2);
        double thread = hidden.readWithin("d_thread", hidden.about(0.52, 0.03), 0.03, "mm", 2);
        this.radius = (drum + thread) / 2e3;
        this.arc = hidden.read("arc", hidden.about(15.0, 0.1), 0.015, "mm", 3) / 1e3;
        this.pulleyShare = hidden.read("m_pulley", hidden.about(2.6, 0.1), 0.05, "g", 2) / 1e3;
        this.bare = hidden.about(3.2e-3, 2e-4);
        this.friction = hidden.about(2.4e-3, 3e-4);
        double[] nominal = {20, 40, 60, 80, 100};
        for (int i = 0; i < nominal.length; i++) {
            hung.put("m" + (i + 1), hidden.read("m_" + (i + 1), hidden.about(nominal[i], 0.1), 0.02, "g", 2) / 1e3);
        }
        double md = hidden.read("M_disc", hidden.about(1.4200, 0.004), 0.0003, "kg", 4);
        double dd = hidden.readWithin("D_disc", hidden.about(180.0, 0.5), 0.1, "mm", 1) / 1e3;
        double mr = hidden.read("M_ring", hidden.about(1.1800, 0.004), 0.0003, "kg", 4);
        double da = hidden.readWithin("D_out", hidden.about(178.0, 0.5), 0.1, "mm", 1) / 1e3;
        double di = hidden.readWithin("D_in", hidden.about(150.0, 0.5), 0.1, "mm", 1) / 1e3;
        double disc = md * dd * dd / 8;
        double ring = mr * (da * da + di * di) / 8;
        casting.put("disc", disc + (faults.contains("off-centre") ? md * 0.020 * 0.020 : 0));
        casting.put("ring", ring);
        for (int i = 0; i < SPOKES; i++) {
            uneven[i] = hidden.about(0, 0.00002);
        }
        double added = pulleyShare * radius * radius;
        hidden.is("I_bare", bare + added, "kg*m^2");
        hidden.is("I_disc", disc, "kg*m^2");
        hidden.is("I_ring", ring, "kg*m^2");
        hidden.is("I_disc_formula", disc, "kg*m^2");
        hidden.is("I_ring_formula", ring, "kg*m^2");
        hidden.is("friction", friction * 1e3, "mN*m");
        hidden.is("radius", radius * 1e3, "mm");
    }

    @Override
    public List<String> channels() {
        return List.of("spokes");
    }

    @Override
    public boolean isGate() {
        return true;
    }

    @Override
    public void arrange(Map<String, String> bench) {
        String capture = bench.get("capture");
        if (capture == null) {
            return;
        }
        mass = hung.getOrDefault(bench.getOrDefault("level", ""), 0.06);
        inertia = bare + casting.getOrDefault(capture, 0.0);
        runFriction = friction * (1 + 0.03 * hidden.random.nextGaussian());
        moving = true;
        begin();
    }

    @Override
    public void begin() {
        time = 0;
        speed = 0;
        slack = 0;
        // The wheel is held anywhere between two spokes.
        way = -hidden.random.nextDouble() * arc * (1 - BLOCKED);
        passed = 0;
        blocked = false;
        edges.clear();
    }

    @Override
    public void advance(double seconds) {
        int steps = Math.max(1, (int) Math.ceil(seconds / STEP));
        double h = seconds / steps;
        for (int i = 0; i < steps; i++) {
            if (moving && time >= HELD) {
                step(h);
            }
            time += h;
        }
    }

    /** One step of constant acceleration, which is exact while nothing changes; edges are placed within it. */
    private void step(double h) {
        double r = radius * (faults.contains("thread-overlaps") ? 1 + 0.09 * Math.max(0, way) / FALL : 1);
        double a = slack > 0 || way > FALL
                ? -RUN_DOWN * (1 + speed)
                : (mass * g - runFriction / r) / (mass + inertia / (r * r) + pulleyShare);
        if (way > FALL) {
            slack = 1;
        }
        if (speed + a * h <= 0) {
            speed = 0;
            return;
        }
        double before = way;
        double after = way + speed * h + a * h * h / 2;
        for (double at = nextEdge(); at <= after; at = nextEdge()) {
            double d = at - before;
            double root = Math.sqrt(Math.max(0, speed * speed + 2 * a * d));
            double t = d <= 0 ? 0 : Math.min(h, 2 * d / (speed + root));
            blocked = !blocked;
            boolean lost = faults.contains("missed-spokes") && (passed % 17 == 9);
            if (!lost) {
                edges.add(new double[] {time + t, blocked ? 1 : 0});
            }
            passed += blocked ? 0 : 1;
            wobble = hidden.about(0, 0.00004);
        }
        way = after;
        speed += a * h;
    }

    private double nextEdge() {
        return passed * arc + uneven[passed % SPOKES] + wobble + (blocked ? BLOCKED * arc : 0);
    }

    @Override
    public List<double[]> edges() {
        List<double[]> out = List.copyOf(edges);
        edges.clear();
        return out;
    }

    @Override
    public double[] read() {
        return new double[] {blocked ? 1 : 0};
    }

    @Override
    public double duration() {
        double a = (mass * g - friction / radius) / (mass + inertia / (radius * radius) + pulleyShare);
        return HELD + Math.sqrt(2 * FALL / Math.max(a, 0.005)) + 1.5;
    }
}

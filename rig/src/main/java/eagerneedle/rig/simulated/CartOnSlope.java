package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.hipparchus.ode.OrdinaryDifferentialEquation;
import org.hipparchus.ode.nonstiff.ClassicalRungeKuttaIntegrator;

/**
 * A cart with four wheels on a slope between a release and a foam stop, watched by an ultrasonic ranger.
 *
 * <p>Equation of motion along the slope, x from the ranger: a = g_eff sin(θ + τ) - f cos(θ + τ) sgn(v), with g_eff = g
 * / (1 + k m_w / m_c) for wheels that roll, f the rolling friction (which differs a little from run to run) and τ the
 * tilt of the floor. The foam is a damped spring. The ranger has a scale and a zero of its own, noise, and a timer of 4
 * µs.
 */
final class CartOnSlope implements RigModel {
    /** Mistakes that a signal can show. */
    static final List<String> FAULTS = List.of("asleep", "no-echo", "sees-stop");

    private static final double STEP = 0.002;
    private static final double STOP_AT = 1.45;
    private static final double HELD = 0.5;
    private static final double NOISE = 0.0010;
    private static final double TIMER = 4e-6;
    private static final double SOUND_NOMINAL = 5.831e-3;
    private static final double SCATTER = 0.006;
    private static final double REFERENCE_ERROR = 0.001;

    private final Random random;
    private final Set<String> faults;
    private final ClassicalRungeKuttaIntegrator integrator = new ClassicalRungeKuttaIntegrator(STEP);
    private final double g;
    private final double spacing;
    private final Map<String, Double> rise = new LinkedHashMap<>();
    private final double cart;
    private final double wheels;
    private final double shape;
    private final double friction;
    private final double tilt;
    private final double scale;
    private final double zero;
    private final Map<String, String> readings = new LinkedHashMap<>();

    private double theta;
    private double releaseSpeed;
    private double runFriction;
    private boolean free;
    private boolean standing = true;
    private double time;
    private double[] motion = {0.3, 0};
    private double asleepCount = -1;
    private int faultyRun;

    CartOnSlope(long seed, Set<String> faults) {
        this.random = new Random(seed * 6364136223846793005L + 1442695040888963407L);
        this.faults = faults;
        this.g = 9.8126 + 0.0001 * random.nextGaussian();
        this.spacing = 0.8423 + 0.002 * random.nextGaussian();
        String[] blocks = {"A", "B", "C", "D", "E"};
        for (int i = 0; i < blocks.length; i++) {
            rise.put(blocks[i], 0.020 * (i + 1) + 0.00005 * random.nextGaussian());
        }
        this.cart = 0.5124 + 0.003 * random.nextGaussian();
        this.wheels = 0.0240 + 0.0005 * random.nextGaussian();
        this.shape = 0.5 + 0.05 * (2 * random.nextDouble() - 1);
        this.friction = 0.075 * (1 + 0.08 * random.nextGaussian());
        this.tilt = 0.0008 * random.nextGaussian();
        this.scale = 1 + 0.008 * random.nextGaussian();
        this.zero = 0.004 * random.nextGaussian();
        readings.put("spacing", normal(spacing * 1e3, 0.6, "mm", 1));
        rise.forEach((b, h) -> readings.put("rise_" + b, limit(h * 1e3, 0.05, "mm", 2)));
        readings.put("m_c", normal(cart, 0.0002, "kg", 4));
        readings.put("m_w", normal(wheels, 0.0001, "kg", 4));
        readings.put("k_w", "0.50 limit 0.05");
        readings.put("g_reference", "9.8126(1) m/s^2");
    }

    private String normal(double truth, double u, String unit, int decimals) {
        double read = truth + u * random.nextGaussian();
        long digits = Math.round(u * Math.pow(10, decimals));
        return String.format(Locale.ROOT, "%." + decimals + "f(%d) %s", read, digits, unit);
    }

    private String limit(double truth, double half, String unit, int decimals) {
        return String.format(
                Locale.ROOT,
                "%." + decimals + "f limit %s %s",
                truth + half * (2 * random.nextDouble() - 1),
                half,
                unit);
    }

    @Override
    public List<String> channels() {
        return List.of("position");
    }

    @Override
    public void arrange(Map<String, String> bench) {
        String reference = bench.get("reference");
        if (reference != null) {
            double put = Reading.parse(reference.replace('_', ' '))
                    .toQuantity("x", "x", "x")
                    .in(LabUnit.parse("m"));
            motion = new double[] {put + REFERENCE_ERROR * random.nextGaussian(), 0};
            standing = true;
            return;
        }
        String capture = bench.getOrDefault("capture", "");
        String level = bench.getOrDefault("level", "");
        standing = false;
        free = false;
        theta = capture.equals("slopes") && rise.containsKey(level) ? Math.asin(rise.get(level) / spacing) : 0;
        boolean west = capture.equals("level_west");
        motion = new double[] {west ? 1.35 : 0.30, 0};
        releaseSpeed = capture.startsWith("level") ? (west ? -1 : 1) * (0.36 + 0.02 * random.nextGaussian()) : 0;
        runFriction = friction + SCATTER * random.nextGaussian();
        faultyRun++;
    }

    @Override
    public void begin() {
        time = 0;
        free = false;
        asleepCount = -1;
    }

    @Override
    public void advance(double seconds) {
        double end = time + seconds;
        if (!standing) {
            if (!free && end >= HELD) {
                free = true;
                motion[1] = releaseSpeed;
            }
            if (free) {
                move(seconds);
            }
        }
        time = end;
    }

    private void move(double seconds) {
        int steps = Math.max(1, (int) Math.ceil(seconds / STEP));
        double h = seconds / steps;
        OrdinaryDifferentialEquation law = new OrdinaryDifferentialEquation() {
            @Override
            public int getDimension() {
                return 2;
            }

            @Override
            public double[] computeDerivatives(double t, double[] y) {
                return new double[] {y[1], acceleration(y[0], y[1])};
            }
        };
        for (int i = 0; i < steps; i++) {
            double[] next = integrator.singleStep(law, 0, motion, h);
            boolean turned = motion[1] != 0 && next[1] * motion[1] < 0;
            if (turned && Math.abs(drive()) < runFriction && next[0] < STOP_AT) {
                next[1] = 0;
            }
            motion = next;
        }
    }

    private double effectiveG() {
        return g / (1 + shape * wheels / cart);
    }

    private double drive() {
        return effectiveG() * Math.sin(theta + tilt);
    }

    private double acceleration(double x, double v) {
        double f = runFriction * Math.cos(theta + tilt);
        double pull = drive();
        double a = v != 0 ? pull - f * Math.signum(v) : Math.abs(pull) <= f ? 0 : pull - f * Math.signum(pull);
        return x > STOP_AT ? a - 900 * (x - STOP_AT) - 20 * v : a;
    }

    @Override
    public double[] read() {
        boolean faulty = !standing && faultyRun % 4 == 0;
        double distance = motion[0];
        if (faulty && faults.contains("no-echo") && random.nextDouble() < 0.15) {
            return new double[] {0};
        }
        if (faulty && faults.contains("sees-stop") && time > HELD + 0.8 && random.nextDouble() < 0.3) {
            distance = STOP_AT + 0.05;
        }
        double indicated = (distance - zero) / scale + NOISE * random.nextGaussian();
        double count = Math.max(0, Math.rint(indicated * SOUND_NOMINAL / TIMER));
        if (faulty && faults.contains("asleep") && time > HELD + 0.4) {
            asleepCount = asleepCount < 0 ? count : asleepCount;
            return new double[] {asleepCount};
        }
        return new double[] {count};
    }

    @Override
    public double duration() {
        if (standing) {
            return 2;
        }
        if (releaseSpeed != 0) {
            return 3.5;
        }
        double a = drive() - friction;
        return HELD + Math.sqrt(2 * (STOP_AT - 0.30) / Math.max(a, 0.05)) + 0.6;
    }

    @Override
    public Map<String, Quantity> truth() {
        Map<String, Quantity> t = new LinkedHashMap<>();
        t.put("g", Quantity.exact(g, LabUnit.parse("m/s^2")));
        t.put("g_eff", Quantity.exact(effectiveG(), LabUnit.parse("m/s^2")));
        t.put("friction", Quantity.exact(friction * Math.cos(tilt), LabUnit.parse("m/s^2")));
        t.put("tilt", Quantity.exact(tilt, LabUnit.parse("rad")));
        t.put("a_east", Quantity.exact(effectiveG() * Math.sin(tilt) - friction, LabUnit.parse("m/s^2")));
        t.put("a_west", Quantity.exact(effectiveG() * Math.sin(tilt) + friction, LabUnit.parse("m/s^2")));
        t.put("spacing", Quantity.exact(spacing * 1e3, LabUnit.parse("mm")));
        rise.forEach((b, h) -> t.put("rise_" + b, Quantity.exact(h * 1e3, LabUnit.parse("mm"))));
        t.put("m_c", Quantity.exact(cart, LabUnit.parse("kg")));
        t.put("m_w", Quantity.exact(wheels, LabUnit.parse("kg")));
        t.put("k_w", Quantity.number(shape));
        return t;
    }

    @Override
    public Map<String, String> readings() {
        return readings;
    }
}

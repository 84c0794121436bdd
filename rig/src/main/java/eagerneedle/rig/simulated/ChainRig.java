package eagerneedle.rig.simulated;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.physics.Course;
import eagerneedle.core.physics.Draws;
import eagerneedle.core.physics.Hands;
import eagerneedle.core.physics.Once;
import eagerneedle.core.physics.World;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * A bench of sensors made from a sheet alone: every channel is its chain with hidden errors drawn from what its links
 * are uncertain of, and hidden true inputs drawn from theirs. It can be calibrated in every way, touched, and adjusted
 * by its trims; in a run each channel settles towards a hidden value. So any sheet can be rehearsed before it has
 * physics of its own.
 */
final class ChainRig implements SimulatedRig {
    /** Mistakes that a signal can show: two leads exchanged, the second channel turned round, the first one open. */
    static final List<String> FAULTS = List.of("swapped", "reversed", "open");

    private final Sheet sheet;
    private final RigPlan plan;
    private final World world;
    private final Draws draws;
    private final Set<String> faults;
    private final List<String> names;
    private final Leads leads;
    private final Map<String, Probe> probes = new LinkedHashMap<>();
    private final Map<String, Quantity> outputs = new LinkedHashMap<>();
    private double[][] circles = {};
    private Course course;
    private @Nullable Course probe;
    private boolean runs;
    private boolean begun;
    private int arranged;
    private final boolean handled;

    /**
     * @param plan what happens in runs; one that knows nothing lets channels settle
     * @param once what is the same in several sessions
     * @param faults of any bench, among others
     */
    ChainRig(Sheet sheet, RigPlan plan, long seed, Once once, Set<String> faults) {
        this(sheet, plan, new World(sheet, plan, seed, once, false), faults);
    }

    private ChainRig(Sheet sheet, RigPlan plan, World world, Set<String> faults) {
        this.sheet = sheet;
        this.plan = plan;
        this.world = world;
        this.draws = world.draws();
        this.faults = faults;
        this.names = List.copyOf(sheet.channels().keySet());
        this.leads = Leads.of(sheet, faults.contains("swapped"));
        sheet.channels().forEach((name, channel) -> {
            Probe p = new Probe(world, plan, name, channel);
            probes.put(name, p);
            if (channel.calibration() != null && channel.calibration().divisions() != null) {
                circles = Nature.circles(world, name, channel, p.needed[1] - p.needed[0]);
            }
        });
        calibrations();
        course = world.points();
        handled = probes.values().stream().anyMatch(Probe::isHandled);
        if (handled) {
            hands();
        }
    }

    /** A bench whose instruments show the truth. */
    static ChainRig ideal(Sheet sheet, RigPlan plan, long seed, Once once) {
        return new ChainRig(sheet, plan, new World(sheet, plan, seed, once, true), Set.of());
    }

    ChainRig(Sheet sheet, long seed, Set<String> faults) {
        this(sheet, RigPlan.NONE, seed, Once.of(seed), faults);
    }

    /** What a perfect calibration would find of a chain that is not adjusted: the line through two points of it. */
    private void calibrations() {
        probes.forEach((name, p) -> {
            if (p.channel.calibration() == null
                    || Hands.hasTrims(p.channel)
                    || circles.length > 0 && p.channel.calibration().divisions() != null) {
                return;
            }
            double[] needed = p.needed;
            Chain nominal = p.channel.toChain();
            double a = nominal.indication(p.hidden.exactCounts(shown(name, p, needed[0])));
            double b = nominal.indication(p.hidden.exactCounts(shown(name, p, needed[1])));
            double slope = (needed[1] - needed[0]) / (b - a);
            world.is(name + ".slope", Quantity.number(slope));
            LabUnit unit = p.channel.labUnit().difference();
            world.is(name + ".intercept", Quantity.exact(needed[0] - slope * a, unit));
        });
    }

    /** What a channel is shown of a reference. */
    private double shown(String name, Probe p, double reference) {
        Course at = world.points();
        at.stands("reference", Quantity.exact(reference, p.channel.labUnit()));
        return at.shows(name) ? at.signal(name, p.channel.labUnit()) : reference;
    }

    @Override
    public List<String> channels() {
        return sheet.channels().entrySet().stream()
                .map(e -> e.getValue().inputOr(e.getKey()))
                .toList();
    }

    @Override
    public void arrange(Map<String, String> bench) {
        Map<String, Quantity> turned = Turned.of(sheet, bench);
        String channel = bench.getOrDefault("channel", "");
        Probe p = probes.get(channel);
        if (bench.containsKey("touch")) {
            probes.values().stream()
                    .filter(q -> bench.get("touch").equals(q.place().replace(' ', '_'))
                            || bench.get("touch").equals(q.place()))
                    .forEach(q -> q.touched = 0);
        } else if (p != null && bench.containsKey("turn")) {
            double turns = Double.parseDouble(bench.get("turn"));
            if ("0".equals(bench.get("trim"))) {
                p.zeroTurns += turns;
            } else {
                p.spanTurns += turns;
            }
        } else if (p != null && bench.containsKey("lower")) {
            circles(channel, p, Integer.parseInt(bench.get("lower")), Integer.parseInt(bench.get("upper")));
        } else if (p != null && bench.containsKey("point")) {
            set(channel, p, reference(channel, p.channel, bench));
            if (p.channel.calibrationPlan().together()) {
                standBeside(channel, bench);
            }
        } else if (bench.containsKey("reference")) {
            Reading r = Reading.parse(bench.get("reference").replace('_', ' '));
            String path = "reference/" + bench.get("reference") + "/" + arranged;
            probes.forEach((name, q) -> {
                if ((channel.isEmpty() || channel.equals(name)) && r.unit().fits(q.channel.labUnit())) {
                    set(name, q, world.reference(bench.get("reference").replace('_', ' '), path));
                }
            });
        } else if (bench.containsKey("capture")) {
            running(bench.getOrDefault("capture", ""), bench.getOrDefault("level", ""), turned);
            if (handled) {
                hands();
            }
            return;
        }
        outputs.putAll(turned);
        turned.forEach(course::stands);
        if (handled) {
            hands();
        }
    }

    /** What hands have done, for the physics of a sheet that follows from it. */
    private void hands() {
        probes.forEach((name, p) -> {
            if (!p.feels) {
                course.stands(
                        name + Hands.TOUCHED,
                        Double.isNaN(p.touched) ? Hands.NEVER : Quantity.exact(p.touched, LabUnit.SECOND));
            }
            if (Hands.hasTrims(p.channel) && !p.turns) {
                course.stands(name + Hands.ZERO_TURNS, Quantity.number(p.zeroTurns));
                course.stands(name + Hands.SPAN_TURNS, Quantity.number(p.spanTurns));
            }
            if (!runs && p.isHandled() && course.shows(name)) {
                course.stands("reference", Quantity.exact(p.standing, p.channel.labUnit()));
                p.value = course.signal(name, p.channel.labUnit());
            }
        });
    }

    /** Ends what goes on; what comes next has noise of its own. */
    private void next(Course now) {
        course = now;
        probe = null;
        arranged++;
        probes.forEach((name, p) -> p.stream = draws.stream("noise/" + name + "/" + arranged));
    }

    private void set(String channel, Probe p, Quantity reference) {
        course.end();
        next(world.points());
        runs = false;
        course.stands("reference", reference);
        stand(channel, p, reference);
    }

    private void stand(String channel, Probe p, Quantity reference) {
        p.standing = reference.in(p.channel.labUnit());
        p.settling = Double.NaN;
        p.value = course.shows(channel) ? course.signal(channel, p.channel.labUnit()) : p.standing;
    }

    /** All others that are calibrated together stand in their own reference of that point. */
    private void standBeside(String channel, Map<String, String> bench) {
        probes.forEach((name, q) -> {
            Channel.CalibrationPlan c = q.channel.calibration();
            if (!name.equals(channel)
                    && c != null
                    && c.together()
                    && !c.part(bench.getOrDefault("part", "points")).isEmpty()) {
                Quantity reference = reference(name, q.channel, bench);
                course.stands("reference", reference);
                stand(name, q, reference);
            }
        });
    }

    private void circles(String channel, Probe p, int lower, int upper) {
        int n = circles[0].length;
        course.end();
        next(world.points());
        runs = false;
        p.settling = Double.NaN;
        p.value = circles[0][lower] - circles[1][upper];
        if (course.shows(channel)) {
            int series = Math.floorMod(upper - lower, n);
            course.stands("lower", Quantity.exact(circles[0][lower], p.channel.labUnit()));
            course.stands("upper", Quantity.exact(circles[1][upper], p.channel.labUnit()));
            course.stands(
                    "upper_backwards",
                    Quantity.exact(circles[1][Math.floorMod(series - lower, n)], p.channel.labUnit()));
            course.stands("interval", Quantity.number(lower + 1.0));
            course.stands("series", Quantity.number(series));
            p.value = course.signal(channel, p.channel.labUnit());
        }
    }

    /** The true value that stands at a point of a calibration. */
    private Quantity reference(String name, Channel channel, Map<String, String> bench) {
        List<Channel.PointPlan> list = channel.calibrationPlan().part(bench.getOrDefault("part", "points"));
        // Points that are gone through again are the same references.
        String text =
                list.get(Integer.parseInt(bench.get("point")) % list.size()).reference();
        return world.referenceOf(name, text);
    }

    private void running(String capture, String level, Map<String, Quantity> turned) {
        course.end();
        Map<String, Quantity> now = new LinkedHashMap<>(outputs);
        Map<String, Quantity> fixed = new LinkedHashMap<>(turned);
        Capture taken = sheet.captures().get(capture);
        if (taken != null
                && taken.seek() != null
                && fixed.containsKey(taken.seek().output())) {
            // What is sought is turned on from there.
            now.put(taken.seek().output(), fixed.remove(taken.seek().output()));
        }
        next(world.run(capture, level, now, fixed));
        runs = plan.tells(capture, sheet.capture(capture));
        // A row is waited for, so that its physics goes on from where the level was set.
        begun = runs && sheet.capture(capture).mode().equals("hold");
        probes.values().forEach(q -> q.settling = 0);
    }

    @Override
    public void begin() {
        begun = true;
    }

    @Override
    public void advance(double seconds) {
        if (begun || !runs) {
            course.advance(seconds);
        }
        probes.values().forEach(p -> {
            p.settles(seconds);
            p.touchedSince(seconds);
        });
        if (handled) {
            hands();
        }
    }

    @Override
    public double[] read() {
        double[] counts = new double[names.size()];
        for (int i = 0; i < counts.length; i++) {
            counts[i] = counts(names.get(leads.on(i)), i);
        }
        return counts;
    }

    private double counts(String name, int input) {
        Probe p = Objects.requireNonNull(probes.get(name));
        double value = runs && course.shows(name) ? course.signal(name, p.channel.labUnit()) : runs ? p.from : p.value;
        if (runs && course.isStuck(name) && p.isRead()) {
            return p.last;
        }
        value = p.handled(value);
        if (faults.contains("reversed") && input == Math.min(1, names.size() - 1)) {
            value = p.turnedRound(value);
        }
        return world.isIdeal() ? p.exactly(value) : p.counts(value, faults.contains("open") && input == 0);
    }

    @Override
    public Optional<Clocks> clocks() {
        return world.isIdeal() || sheet.devices().size() < 2 ? Optional.empty() : Optional.of(new Clocks(sheet, draws));
    }

    @Override
    public boolean isGate() {
        return !plan.edges().isEmpty()
                || plan.parts().values().stream().anyMatch(c -> !c.edges().isEmpty());
    }

    @Override
    public List<double[]> edges() {
        List<String> gates = course.gates();
        List<double[]> out = new ArrayList<>();
        for (double[] e : course.edges()) {
            double[] row = new double[names.size() + 1];
            row[0] = e[0];
            for (int g = 0; g < gates.size(); g++) {
                row[1 + names.indexOf(gates.get(g))] = e[1 + g];
            }
            out.add(row);
        }
        return out;
    }

    @Override
    public boolean calibrates(String channel) {
        return !plan.uncalibrated().contains(channel);
    }

    @Override
    public double duration() {
        if (!runs) {
            return 14 * Probe.SETTLES;
        }
        return course.lastsKnown().orElseGet(() -> ahead().time());
    }

    /** The same run looked at to its end. */
    private Course ahead() {
        if (probe == null) {
            Course c = course.again();
            c.toTheEnd();
            probe = c;
        }
        return probe;
    }

    @Override
    public Map<String, String> byEye() {
        Map<String, String> out = new LinkedHashMap<>();
        if (runs) {
            out.putAll(course.seen(false));
            if (course.isSeenAtEnd()) {
                out.putAll(ahead().seen(true));
            }
        }
        return out;
    }

    @Override
    public Map<String, Quantity> truth() {
        return world.truths();
    }

    /** Interval errors of the lower and of the upper circle, in the channel's unit; empty without circles. */
    double[][] circles() {
        return circles;
    }

    @Override
    public Map<String, String> readings() {
        return world.readings();
    }
}

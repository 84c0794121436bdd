package eagerneedle.core.physics;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.physics.Code.Part;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * One run of a rig, or what goes on between runs: the formulas of its session, its capture and its level compiled
 * together and carried forwards in time. Not thread-safe.
 */
public final class Course implements Names {
    private static final LabUnit SECOND = LabUnit.SECOND;
    /** How often it is looked whether a run is over, s. */
    private static final double LOOK = 0.05;

    private final World world;
    private final @Nullable Capture capture;
    private final String captureName;
    private final String level;
    private final int run;
    private final RigPlan plan;
    private final Map<String, Expr> hidden = new LinkedHashMap<>();
    private final Map<String, Integer> states = new LinkedHashMap<>();
    private final List<LabUnit> units = new ArrayList<>();
    private final Map<String, Integer> events = new LinkedHashMap<>();
    private final Map<String, Part> parts = new LinkedHashMap<>();
    /** The same as rates use them, whose comparisons are looked for between steps. */
    private final Map<String, Part> partsOfRates = new LinkedHashMap<>();

    private final Map<String, Quantity> bench = new LinkedHashMap<>();
    private final Set<String> open = new LinkedHashSet<>();
    private final Map<String, Part> signals = new LinkedHashMap<>();
    private final Map<String, Part> stuck = new LinkedHashMap<>();
    private final List<GateEdges> gates = new ArrayList<>();
    private @Nullable List<Switch> locating;
    private @Nullable Part lasts;
    private final Moment m;
    private final Motion motion;

    Course(World world, String captureName, String level, int run) {
        this.world = world;
        this.captureName = captureName;
        this.capture = world.sheet().captures().get(captureName);
        this.level = level;
        this.run = run;
        this.plan = Merged.of(world.plan(), captureName, level);
        world.plan().state().keySet().forEach(n -> states.put(n, states.size()));
        plan.state().keySet().forEach(n -> states.putIfAbsent(n, states.size()));
        plan.when().keySet().forEach(n -> events.put(n, events.size()));
        m = new Moment(states.size(), events.size());
        m.clock = world.clock();
        start();
        List<Switch> switches = new ArrayList<>();
        motion = new Motion(m, rates(switches), switches, happenings(), 1 / fastest());
        plan.edges().forEach((channel, e) -> gates.add(GateEdges.of(this, channel, e)));
        motion.begin();
        gates.forEach(g -> g.start(m));
    }

    /** Samples a second of the fastest channel: between two of them nothing may happen twice. */
    private double fastest() {
        return world.sheet().channels().entrySet().stream()
                .filter(c -> capture == null || capture.channels().contains(c.getKey()))
                .mapToDouble(c -> c.getValue().rate())
                .max()
                .orElse(1);
    }

    private void start() {
        states.keySet().forEach(n -> units.add(LabUnit.ONE));
        states.forEach((name, at) -> {
            String path = path("state/" + name);
            Part p = compiler(path, null, null).compile(world.drawn(given(plan.state(), name), path));
            units.set(at, p.unit());
            Double kept =
                    world.plan().state().containsKey(name) ? world.states().get(name) : null;
            m.y[at] = kept == null ? p.code().at(m) : kept;
        });
        // What was compiled while states had no unit yet is compiled again.
        parts.clear();
        hidden.clear();
    }

    private @Nullable Code[] rates(List<Switch> switches) {
        plan.rates().keySet().stream()
                .filter(n -> !states.containsKey(n))
                .findFirst()
                .ifPresent(n -> {
                    throw at(
                            "rates/" + n,
                            new FormulaException(1, "There is no state " + n + " that could have a rate."));
                });
        @Nullable Code[] rates = new Code[states.size()];
        locating = switches;
        states.forEach((name, at) -> {
            String text = plan.rates().get(name);
            if (text != null) {
                Part p = compiled("rates/" + name, text, null, switches);
                LabUnit wanted = units.get(at).per(SECOND);
                if (!p.fits(wanted)) {
                    throw at(
                            "rates/" + name,
                            new FormulaException(
                                    1,
                                    "The rate of " + name + ", in "
                                            + units.get(at).named() + ", is in "
                                            + (p.isTruth()
                                                    ? "no unit"
                                                    : p.unit().named()) + " where "
                                            + wanted.named() + " is wanted."));
                }
                rates[at] = p.code();
            }
        });
        locating = null;
        return rates;
    }

    private List<Motion.Happening> happenings() {
        List<Motion.Happening> out = new ArrayList<>();
        plan.when().forEach((name, e) -> {
            String entry = "when/" + name;
            double time = Double.NaN;
            Code passes = null;
            if (e.at() != null) {
                Part p = compiled(entry + "/at", e.at(), null, null);
                time = inSeconds(entry + "/at", p).at(m);
            } else if (e.passes() != null) {
                passes = compiled(entry + "/passes", e.passes(), null, null).code();
            }
            int[] which = new int[e.set().size()];
            Code[] values = new Code[which.length];
            int i = 0;
            for (Map.Entry<String, String> set : e.set().entrySet()) {
                String at = entry + "/set/" + set.getKey();
                Integer state = states.get(set.getKey());
                if (state == null) {
                    throw at(at, new FormulaException(1, "There is no state " + set.getKey() + " to be set."));
                }
                Part p = compiled(at, set.getValue(), world.draws().stream(path(at)), null);
                if (!p.fits(units.get(state))) {
                    throw at(
                            at,
                            new FormulaException(
                                    1,
                                    set.getKey() + " is in " + units.get(state).named() + " and cannot be set to "
                                            + p.said()
                                            + "."));
                }
                which[i] = state;
                values[i++] = p.code();
            }
            out.add(new Motion.Happening(given(events, name), time, passes, which, values, e.once()));
        });
        return out;
    }

    private Code inSeconds(String entry, Part p) {
        if (!p.fits(SECOND)) {
            throw at(entry, new FormulaException(1, "A time is needed here, in seconds."));
        }
        return p.code();
    }

    /** A formula of the plan, compiled; {@code stream} where it is drawn anew each time. */
    Part compiled(String entry, String text, Draws.@Nullable Stream stream, @Nullable List<Switch> switches) {
        try {
            return compiler(path(entry), stream, switches)
                    .compile(Formula.parse(text).expression());
        } catch (FormulaException e) {
            throw at(entry, e);
        }
    }

    /** A formula whose draws are made once a run. */
    Part drawnOnce(String entry, String text) {
        try {
            return compiler(path(entry), null, locating).compile(world.drawn(text, path(entry)));
        } catch (FormulaException e) {
            throw at(entry, e);
        }
    }

    private Compiler compiler(String path, Draws.@Nullable Stream stream, @Nullable List<Switch> switches) {
        return new Compiler(this, m, world.draws(), path.replace(RigChange.UNCHANGED, ""), stream, switches);
    }

    private static <T> T given(Map<String, T> map, String name) {
        return java.util.Objects.requireNonNull(map.get(name));
    }

    private RigException at(String entry, FormulaException e) {
        return e instanceof RigException known ? known : new RigException(captureName, level, entry, e);
    }

    /** Key of draws: where a formula stands, and in which run. */
    String path(String entry) {
        return captureName + "/" + entry + "@" + run;
    }

    World world() {
        return world;
    }

    @Override
    public Optional<Part> of(String name) {
        Map<String, Part> parts = locating == null ? this.parts : partsOfRates;
        Part known = parts.get(name);
        if (known != null) {
            return Optional.of(known);
        }
        if (!open.add(name)) {
            throw new FormulaException(1, name + " depends on itself.");
        }
        try {
            Optional<Part> p = found(name);
            p.ifPresent(v -> parts.put(name, v));
            return p;
        } finally {
            open.remove(name);
        }
    }

    private Optional<Part> found(String name) {
        switch (name) {
            case "t":
                return Optional.of(new Part(now -> now.t, SECOND, false));
            case "clock":
                return Optional.of(new Part(now -> now.clock, SECOND, false));
            case "run":
                return Optional.of(Part.fixed(run, LabUnit.ONE));
            default:
        }
        if (states.containsKey(name)) {
            int at = given(states, name);
            return Optional.of(new Part(new Compiler.State(at), units.get(at), false));
        }
        if (events.containsKey(name)) {
            int at = given(events, name);
            return Optional.of(new Part(now -> now.happened[at], SECOND, false));
        }
        if (bench.containsKey(name)) {
            return Optional.of(new Part(
                    now -> coherent(given(bench, name)),
                    given(bench, name).unit().coherent(),
                    false));
        }
        String ofRun = ofRun(name);
        if (ofRun != null) {
            return Optional.of(drawnOnce("hidden/" + name, ofRun));
        }
        if (plan.signals().containsKey(name)) {
            return Optional.of(compiled(
                    "signals/" + name,
                    given(plan.signals(), name),
                    world.draws().stream(path("signals/" + name).replace(RigChange.UNCHANGED, "")),
                    null));
        }
        Optional<Quantity> fixed = set(name).or(() -> world.quantity(name));
        if (fixed.isPresent()) {
            return fixed.map(Compiler::constant);
        }
        // What is hidden in the session may change with its states.
        String session = world.plan().hidden().get(name);
        if (session != null) {
            String path = "hidden/" + name;
            return Optional.of(compiler(path, null, locating).compile(world.drawn(session, path)));
        }
        Sheet.Derived d = world.sheet().results().get(name);
        return d == null || !names(d.formula()).stream().allMatch(this::isKnown)
                ? Optional.empty()
                : Optional.of(compiler(name, null, null)
                        .compile(Formula.parse(d.formula()).expression()));
    }

    private boolean isKnown(String name) {
        return !open.contains(name) && of(name).isPresent();
    }

    private static Set<String> names(String formula) {
        return Formula.parse(formula).names();
    }

    /** A hidden entry of the capture or the level; those of the session are the world's. */
    private @Nullable String ofRun(String name) {
        return Merged.ofRun(world.plan(), captureName, level).hidden().get(name);
    }

    /** What the level sets, and quantities of the run that rest on no samples. */
    private Optional<Quantity> set(String name) {
        if (capture == null) {
            return Optional.empty();
        }
        Capture.Level l = capture.levels().get(level);
        String text = l == null ? null : l.set().get(name);
        if (text == null && capture.quantities().containsKey(name) && !capture.restsOnSamples(name)) {
            text = capture.quantities().get(name).formula();
        }
        if (text == null) {
            return Optional.empty();
        }
        Map<String, Quantity> own = new LinkedHashMap<>();
        Formula f = Formula.parse(text);
        f.names().stream().filter(n -> !n.equals(name)).forEach(n -> set(n).ifPresent(q -> own.put(n, q)));
        return world.evaluated(f.expression(), own);
    }

    @Override
    public Collection<String> all() {
        Set<String> out = new LinkedHashSet<>(List.of("t", "clock", "run"));
        out.addAll(states.keySet());
        out.addAll(events.keySet());
        out.addAll(plan.hidden().keySet());
        out.addAll(world.names());
        if (capture != null) {
            capture.levels().values().forEach(l -> out.addAll(l.set().keySet()));
            out.addAll(capture.quantities().keySet());
        }
        out.removeIf(n -> n.endsWith(RigChange.UNCHANGED));
        return out;
    }

    /** Says what stands at the bench now, by a name for formulas: the reference of a point, for instance. */
    public void stands(String name, Quantity value) {
        bench.put(name, value);
    }

    private static double coherent(Quantity q) {
        return q.unit().convert(q.value(), q.unit().coherent());
    }

    /** Lets time pass, s. */
    public void advance(double seconds) {
        motion.until(m.t + seconds, (moving, from, to) -> gates.forEach(g -> g.look(moving, from, to)));
    }

    /** True when the sheet says what a channel is shown. */
    public boolean shows(String channel) {
        return plan.signals().containsKey(channel);
    }

    /** What a channel is shown now, in a unit. */
    public double signal(String channel, LabUnit unit) {
        Part p = signals.computeIfAbsent(channel, c -> of(c).orElseThrow());
        if (!p.fits(unit)) {
            throw at(
                    "signals/" + channel,
                    new FormulaException(
                            1, channel + " is shown " + p.said() + " where " + unit.named() + " is wanted."));
        }
        return p.unit().convert(p.code().at(m), unit);
    }

    /** True while the counts of a channel stand still. */
    public boolean isStuck(String channel) {
        String when = plan.stuck().get(channel);
        return when != null
                && stuck.computeIfAbsent(channel, c -> compiled("stuck/" + c, when, null, null))
                                .code()
                                .at(m)
                        == 1;
    }

    /** Channels whose edges a gate timer keeps. */
    public List<String> gates() {
        return List.copyOf(plan.edges().keySet());
    }

    /** 1 for each gate that is dark now. */
    public double[] darkness() {
        return gates.stream().mapToDouble(g -> g.isDark() ? 1 : 0).toArray();
    }

    /** What gates did since the last call: moments in s, each followed by the state of every gate after it. */
    public List<double[]> edges() {
        return GateEdges.together(gates);
    }

    /** The capture whose run it is. */
    public String capture() {
        return captureName;
    }

    /** The same run once more, from its start. */
    public Course again() {
        return new Course(world, captureName, level, run);
    }

    /** Time of the run, s. */
    public double time() {
        return m.t;
    }

    /** True when the sheet says how long a run lasts. */
    public boolean saysHowLong() {
        return plan.lasts() != null;
    }

    /** When the run is over; empty as long as it is not known, or where the sheet does not say. */
    public OptionalDouble lasts() {
        if (plan.lasts() == null) {
            return OptionalDouble.empty();
        }
        if (lasts == null) {
            lasts = drawnOnce("lasts", plan.lasts());
            inSeconds("lasts", lasts);
        }
        double v = lasts.code().at(m);
        return Double.isFinite(v) ? OptionalDouble.of(v) : OptionalDouble.empty();
    }

    /** How long the run lasts, where that is known from its start. */
    public OptionalDouble lastsKnown() {
        OptionalDouble now = lasts();
        return lasts != null && lasts.fixed() ? now : OptionalDouble.empty();
    }

    /** True when an eye reads something at the end of the run. */
    public boolean isSeenAtEnd() {
        return plan.readings().values().stream().anyMatch(e -> "end".equals(e.at()));
    }

    /** Lets time pass until the run is over, at most until a time, s. */
    public void toTheEnd(double longest) {
        boolean known = lasts().isPresent() && lasts != null && lasts.fixed();
        double step = known ? longest : LOOK;
        double end = known ? Math.min(longest, lasts().getAsDouble()) : longest;
        while (m.t < end && !(lasts().isPresent() && m.t >= lasts().getAsDouble())) {
            advance(Math.min(step, end - m.t));
        }
    }

    /** What an eye reads once in this run, as written; at the start, or at the end of the run. */
    public Map<String, String> seen(boolean atEnd) {
        Map<String, String> out = new LinkedHashMap<>();
        if (capture == null) {
            return out;
        }
        Merged.ofRun(world.plan(), captureName, level).readings().forEach((name, eye) -> {
            Sheet.Input input = capture.byEye().get(name);
            if (input != null && atEnd == "end".equals(eye.at())) {
                Part p = drawnOnce("readings/" + name, eye.formula());
                Quantity q = Quantity.exact(p.code().at(m), p.unit());
                out.put(name, world.seen(input, eye, q, path("read/" + name)));
            }
        });
        return out;
    }

    /** Ends the run: states of the session go on from here. */
    public void end() {
        Map<String, Double> kept = new LinkedHashMap<>();
        world.plan().state().keySet().forEach(n -> kept.put(n, m.y[given(states, n)]));
        world.leave(m.clock, kept);
    }

    /** The value of a state, in its coherent unit. */
    public double state(String name) {
        return m.y[given(states, name)];
    }

    /** When an event happened last, s; not a number before. */
    public double happened(String event) {
        return m.happened[given(events, event)];
    }
}

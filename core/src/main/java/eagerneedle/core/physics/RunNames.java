package eagerneedle.core.physics;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.physics.Code.Part;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.RigPlan;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What names stand for in one run, and the formulas of the run compiled with them: times, states, events, what is
 * hidden, what a level sets, what is shown to channels, and truths of the session. Not thread-safe.
 */
final class RunNames implements Names {
    private final World world;
    private final @Nullable Capture capture;
    private final String captureName;
    private final String level;
    private final int run;
    private final RigPlan plan;
    private final Map<String, Integer> states = new LinkedHashMap<>();
    private final List<LabUnit> units = new ArrayList<>();
    private final Map<String, Integer> events = new LinkedHashMap<>();
    private final Map<String, Part> parts = new LinkedHashMap<>();
    /** The same as rates use them, whose comparisons are looked for between steps. */
    private final Map<String, Part> partsOfRates = new LinkedHashMap<>();

    private final Map<String, Quantity> bench = new LinkedHashMap<>();
    private final Map<String, Quantity> fixed;
    private final Set<String> open = new LinkedHashSet<>();
    private @Nullable List<Switch> locating;
    private final Moment m;

    RunNames(
            World world,
            RigPlan plan,
            String captureName,
            String level,
            int run,
            Map<String, Quantity> turned,
            Map<String, Quantity> fixed) {
        this.world = world;
        this.capture = world.sheet().captures().get(captureName);
        this.captureName = captureName;
        this.level = level;
        this.run = run;
        this.plan = plan;
        outputs();
        hands();
        bench.putAll(turned);
        this.fixed = fixed;
        world.plan().state().keySet().forEach(n -> states.put(n, states.size()));
        plan.state().keySet().forEach(n -> states.putIfAbsent(n, states.size()));
        plan.when().keySet().forEach(n -> events.put(n, events.size()));
        m = new Moment(states.size(), events.size());
        m.clock = world.clock();
        start();
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
    }

    Moment moment() {
        return m;
    }

    World world() {
        return world;
    }

    @Nullable
    Capture capture() {
        return capture;
    }

    /** Index of a state or an event by name. */
    Map<String, Integer> states() {
        return states;
    }

    Map<String, Integer> events() {
        return events;
    }

    LabUnit unit(int state) {
        return units.get(state);
    }

    /** From now on comparisons are collected, as rates need them; null for no longer. */
    void locate(@Nullable List<Switch> switches) {
        locating = switches;
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

    PhysicsCompiler compiler(String path, Draws.@Nullable Stream stream, @Nullable List<Switch> switches) {
        return new PhysicsCompiler(this, m, world.draws(), path.replace(RigChange.UNCHANGED, ""), stream, switches);
    }

    static <T> T given(Map<String, T> map, String name) {
        return Objects.requireNonNull(map.get(name));
    }

    RigException at(String entry, FormulaException e) {
        return e instanceof RigException known ? known : new RigException(captureName, level, entry, e);
    }

    /** Key of draws: where a formula stands, and in which run. */
    String path(String entry) {
        return captureName + "/" + entry + "@" + run;
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
                return Optional.of(new Part(now -> now.t, LabUnit.SECOND, false));
            case "clock":
                return Optional.of(new Part(now -> now.clock, LabUnit.SECOND, false));
            case "run":
                return Optional.of(Part.fixed(run, LabUnit.ONE));
            default:
        }
        if (states.containsKey(name)) {
            int at = given(states, name);
            return Optional.of(new Part(new PhysicsCompiler.State(at), units.get(at), false));
        }
        if (events.containsKey(name)) {
            int at = given(events, name);
            return Optional.of(new Part(now -> now.happened[at], LabUnit.SECOND, false));
        }
        if (fixed.containsKey(name)) {
            return Optional.of(PhysicsCompiler.constant(given(fixed, name)));
        }
        if (bench.containsKey(name)) {
            return Optional.of(new Part(
                    now -> coherent(given(bench, name)),
                    given(bench, name).unit().coherent(),
                    false));
        }
        Optional<String> member = member(name);
        if (member.isPresent()) {
            return of(member.get());
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
            return fixed.map(PhysicsCompiler::constant);
        }
        // What is hidden in the session may change with its states.
        String session = world.plan().hidden().get(name);
        if (session != null) {
            String path = "hidden/" + name;
            try {
                return Optional.of(compiler(path, null, locating).compile(world.drawn(session, path)));
            } catch (FormulaException e) {
                throw at(path, e);
            }
        }
        Derived d = world.sheet().results().get(name);
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

    /** Of what is hidden or changes for each member of a set, the one that the level of the run chooses. */
    private Optional<String> member(String name) {
        if (capture == null || !capture.levels().containsKey(level) || isHidden(name)) {
            return Optional.empty();
        }
        List<String> of = new ArrayList<>(List.of(name));
        for (String chosen : given(capture.levels(), level).at().values()) {
            List.copyOf(of).forEach(n -> of.add(n + "." + chosen));
        }
        return of.stream().skip(1).filter(this::isHidden).findFirst();
    }

    private boolean isHidden(String name) {
        return states.containsKey(name)
                || ofRun(name) != null
                || world.plan().hidden().containsKey(name)
                || world.plan().nature().containsKey(name);
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
            return Optional.ofNullable(l)
                    .map(Capture.Level::outputs)
                    .map(o -> o.get(name))
                    .flatMap(v -> output(name, v, l));
        }
        Map<String, Quantity> own = new LinkedHashMap<>();
        Formula f = Formula.parse(text);
        f.names().stream().filter(n -> !n.equals(name)).forEach(n -> set(n).ifPresent(q -> own.put(n, q)));
        return world.evaluated(f.expression(), own);
    }

    /** Outputs that the level does not set are off until somebody turns them. */
    private void outputs() {
        Capture.Level l = capture == null ? null : capture.levels().get(level);
        world.sheet()
                .devices()
                .values()
                .forEach(d -> d.outputs().forEach((name, o) -> {
                    if (l == null || !l.outputs().containsKey(name)) {
                        bench.put(name, Quantity.exact(o.safe(), LabUnit.parse(o.unit())));
                    }
                }));
    }

    /** Nothing has been touched for a long time, and no trim turned, until somebody does. */
    private void hands() {
        world.sheet().channels().forEach((name, channel) -> {
            bench.put(name + Hands.TOUCHED, Hands.NEVER);
            if (Hands.hasTrims(channel)) {
                bench.put(name + Hands.ZERO_TURNS, Quantity.number(0));
                bench.put(name + Hands.SPAN_TURNS, Quantity.number(0));
            }
        });
    }

    /** What an output is set to at the level: a number in its own unit, or a formula. */
    private Optional<Quantity> output(String name, String text, Capture.@Nullable Level l) {
        Optional<LabUnit> unit = world.sheet().devices().values().stream()
                .map(d -> d.outputs().get(name))
                .filter(Objects::nonNull)
                .findFirst()
                .map(o -> LabUnit.parse(o.unit()));
        Map<String, Quantity> own = new LinkedHashMap<>();
        Formula f = Formula.parse(text);
        f.names().stream()
                .filter(n -> l != null && l.set().containsKey(n))
                .forEach(n -> set(n).ifPresent(q -> own.put(n, q)));
        return unit.flatMap(u -> world.evaluated(f.expression(), own)
                .map(q -> q.unit().isDimensionless() ? Quantity.exact(q.value(), u) : q));
    }

    @Override
    public Collection<String> all() {
        Set<String> out = new LinkedHashSet<>(List.of("t", "clock", "run"));
        out.addAll(bench.keySet());
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

    void stands(String name, Quantity value) {
        bench.put(name, value);
    }

    private static double coherent(Quantity q) {
        return q.unit().convert(q.value(), q.unit().coherent());
    }
}

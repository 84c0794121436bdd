package eagerneedle.core.physics;

import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.physics.Code.Part;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.RigPlan;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;

/**
 * One run of a rig, or what goes on between runs: the formulas of its session, its capture and its level compiled
 * together and carried forwards in time. Not thread-safe.
 */
public final class Course {
    private static final LabUnit SECOND = LabUnit.SECOND;
    /** How often it is looked whether a run is over, s. */
    private static final double LOOK = 0.05;
    /** How long a held value is left alone where the sheet does not say, s. */
    private static final double HELD = 3;

    private final World world;
    private final String captureName;
    private final String level;
    private final int run;
    private final RigPlan plan;
    private final Map<String, Quantity> turned;
    private final Map<String, Quantity> fixed;
    private final RunNames names;
    private final Map<String, Part> signals = new LinkedHashMap<>();
    private final Map<String, Part> stuck = new LinkedHashMap<>();
    private final List<GateEdges> gates = new ArrayList<>();
    private @Nullable Part lasts;
    private final Moment m;
    private final Motion motion;

    Course(
            World world,
            String captureName,
            String level,
            int run,
            Map<String, Quantity> turned,
            Map<String, Quantity> fixed) {
        this.turned = turned;
        this.fixed = fixed;
        this.world = world;
        this.captureName = captureName;
        this.level = level;
        this.run = run;
        this.plan = Merged.of(world.plan(), captureName, level);
        this.names = new RunNames(world, plan, captureName, level, run, turned, fixed);
        this.m = names.moment();
        List<Switch> switches = new ArrayList<>();
        motion = new Motion(m, rates(switches), switches, happenings(), 1 / fastest());
        plan.edges().forEach((channel, e) -> gates.add(GateEdges.of(names, gates.size(), channel, e)));
        motion.begin();
        gates.forEach(g -> g.start(m));
    }

    /** Samples a second of the fastest channel: between two of them nothing may happen twice. */
    private double fastest() {
        return world.sheet().channels().entrySet().stream()
                .filter(c ->
                        names.capture() == null || names.capture().channels().contains(c.getKey()))
                .mapToDouble(c -> c.getValue().rate())
                .max()
                .orElse(1);
    }

    private @Nullable Code[] rates(List<Switch> switches) {
        plan.rates().keySet().stream()
                .filter(n -> !names.states().containsKey(n) && !isOfAnother(n))
                .findFirst()
                .ifPresent(n -> {
                    throw names.at(
                            "rates/" + n,
                            new FormulaException(1, "There is no state " + n + " that could have a rate."));
                });
        @Nullable Code[] rates = new Code[names.states().size()];
        names.locate(switches);
        names.states().forEach((name, at) -> {
            String text = plan.rates().get(name);
            if (text != null) {
                Part p = names.compiled("rates/" + name, text, null, switches);
                LabUnit wanted = names.unit(at).per(SECOND);
                if (!p.fits(wanted)) {
                    throw names.at(
                            "rates/" + name,
                            new FormulaException(
                                    1,
                                    "The rate of " + name + ", in "
                                            + names.unit(at).named() + ", is in "
                                            + (p.isTruth()
                                                    ? "no unit"
                                                    : p.unit().named()) + " where "
                                            + wanted.named() + " is wanted."));
                }
                rates[at] = p.code();
            }
        });
        names.locate(null);
        return rates;
    }

    /** A rate of the whole rig may be that of a state which another capture has. */
    private boolean isOfAnother(String state) {
        return world.plan().rates().containsKey(state)
                && world.plan().parts().values().stream()
                        .anyMatch(p -> p.state().containsKey(state)
                                || p.parts().values().stream()
                                        .anyMatch(l -> l.state().containsKey(state)));
    }

    private List<Motion.Happening> happenings() {
        List<Motion.Happening> out = new ArrayList<>();
        plan.when().forEach((name, e) -> {
            String entry = "when/" + name;
            double time = Double.NaN;
            Code passes = null;
            if (e.at() != null) {
                Part p = names.compiled(entry + "/at", e.at(), null, null);
                time = inSeconds(entry + "/at", p).at(m);
            } else if (e.passes() != null) {
                passes = names.compiled(entry + "/passes", e.passes(), null, null)
                        .code();
            }
            int[] which = new int[e.set().size()];
            Code[] values = new Code[which.length];
            int i = 0;
            for (Map.Entry<String, String> set : e.set().entrySet()) {
                String at = entry + "/set/" + set.getKey();
                Integer state = names.states().get(set.getKey());
                if (state == null) {
                    throw names.at(at, new FormulaException(1, "There is no state " + set.getKey() + " to be set."));
                }
                Part p = names.compiled(at, set.getValue(), world.draws().stream(names.path(at)), null);
                if (!p.fits(names.unit(state))) {
                    throw names.at(
                            at,
                            new FormulaException(
                                    1,
                                    set.getKey() + " is in " + names.unit(state).named() + " and cannot be set to "
                                            + p.said()
                                            + "."));
                }
                which[i] = state;
                values[i++] = p.code();
            }
            out.add(new Motion.Happening(RunNames.given(names.events(), name), time, passes, which, values, e.once()));
        });
        return out;
    }

    private Code inSeconds(String entry, Part p) {
        if (!p.fits(SECOND)) {
            throw names.at(entry, new FormulaException(1, "A time is needed here, in seconds."));
        }
        return p.code();
    }

    /** Says what stands at the bench now, by a name for formulas: the reference of a point, for instance. */
    public void stands(String name, Quantity value) {
        names.stands(name, value);
    }

    /** Lets time pass, s. */
    public void advance(double seconds) {
        try {
            motion.until(m.t + seconds, (moving, from, to) -> gates.forEach(g -> g.look(moving, from, to)));
        } catch (FormulaException e) {
            throw names.at("rates", e);
        }
    }

    /** True when the sheet says what a channel is shown. */
    public boolean shows(String channel) {
        return plan.signals().containsKey(channel);
    }

    /** What a channel is shown now, in a unit. */
    public double signal(String channel, LabUnit unit) {
        Part p = signals.computeIfAbsent(channel, c -> names.of(c).orElseThrow());
        if (!p.fits(unit)) {
            throw names.at(
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
                && stuck.computeIfAbsent(channel, c -> names.compiled("stuck/" + c, when, null, null))
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
        return new Course(world, captureName, level, run, turned, fixed);
    }

    /** Time of the run, s. */
    public double time() {
        return m.t;
    }

    /** When the run is over; empty as long as it is not known, or where the sheet does not say. */
    public OptionalDouble lasts() {
        if (plan.lasts() == null) {
            return OptionalDouble.empty();
        }
        if (lasts == null) {
            lasts = names.drawnOnce("lasts", plan.lasts());
            inSeconds("lasts", lasts);
        }
        double v = lasts.code().at(m);
        if (v <= 0) {
            throw names.at(
                    "lasts", new FormulaException(1, "A run lasts longer than no time; this gives " + v + " s."));
        }
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

    /** Lets time pass until the run is over, however long its capture may take. */
    public void toTheEnd() {
        toTheEnd(longest(world.sheet().capture(captureName)));
    }

    /** A row is waited for as long as the sheet says, however short what is kept of it. */
    private double longest(Capture of) {
        if (!of.mode().equals("hold")) {
            return of.longest();
        }
        return plan.lasts() == null
                ? Math.min(HELD, of.longest())
                : Math.max(of.longest(), of.holdPlan().patience());
    }

    private void toTheEnd(double longest) {
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
        Capture capture = names.capture();
        if (capture == null) {
            return out;
        }
        Merged.ofRun(world.plan(), captureName, level).readings().forEach((name, eye) -> {
            Sheet.Input input = capture.byEye().get(name);
            if (input != null && atEnd == "end".equals(eye.at())) {
                Part p = names.drawnOnce("readings/" + name, eye.formula());
                Quantity q = Quantity.exact(p.code().at(m), p.unit());
                String as = eye.value() == null ? capture.expected(level, name) : eye.value();
                out.put(name, world.seen(input, as, q, names.path("read/" + name), world.draws()));
            }
        });
        return out;
    }

    /** Ends the run: states of the session go on from here. */
    public void end() {
        Map<String, Double> kept = new LinkedHashMap<>();
        world.plan().state().keySet().forEach(n -> kept.put(n, m.y[RunNames.given(names.states(), n)]));
        world.leave(m.clock, kept);
    }

    /** The value of a state, in its coherent unit. */
    public double state(String name) {
        return m.y[RunNames.given(names.states(), name)];
    }

    /** When an event happened last, s; not a number before. */
    public double happened(String event) {
        return m.happened[RunNames.given(names.events(), event)];
    }
}

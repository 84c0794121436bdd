package eagerneedle.core.reduce;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.chain.TiedChain;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Value;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.PromptPlan;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.WindowPlan;
import eagerneedle.core.stockroom.Correction;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowProposal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** What formulas find of a run itself: its traces, its windows and what was read by eye. */
final class RunNodes {
    /** Step of a gate timer's clock, s. */
    private static final double GATE_CLOCK = 1e-6;

    private final SampleSource source;
    private final Session session;
    private final Sheet sheet;
    private final boolean planning;
    private final long most;
    private final Map<Key, Graph.Node> nodes;
    private final Measurand measurand = new Measurand();
    private final Map<Integer, List<Key.WindowOf>> windows = new HashMap<>();
    /** By capture and channel: asked once, not once a run. */
    private final Map<String, Map<String, Boolean>> used = new HashMap<>();

    /** @param nodes the graph that is being built */
    RunNodes(
            SampleSource source,
            Session session,
            Sheet sheet,
            boolean planning,
            long most,
            Map<Key, Graph.Node> nodes) {
        this.source = source;
        this.session = session;
        this.sheet = sheet;
        this.planning = planning;
        this.most = most;
        this.nodes = nodes;
    }

    /**
     * What was read by eye with a run; in a plan what the sheet expects. A reading that serves all runs at a level is
     * one influence in all of them.
     */
    void byEye(Run run, String name, Sheet.Input input) {
        Capture capture = sheet.capture(run.capture());
        String text = planning ? capture.expected(run.level(), name) : read(run, name, input);
        String id = input.isOncePerLevel()
                ? run.capture() + "." + run.level() + "." + name + ": " + text
                : Key.of(run, name).toString();
        String by = input.by() == null ? "reading" : session.bench().named(input.by(), run.started());
        String label = input.by() == null ? input.label() : input.label() + " by " + by;
        List<Correction> corrections = planning ? List.of() : Corrections.of(session, by);
        nodes.put(Key.of(run, name), new Graph.Node(List.of(), Arrays.asList(text, label, id, corrections), look -> {
            if (text == null) {
                return Outcome.problem(run.name() + ": " + input.label() + " was not read.");
            }
            try {
                Quantity q = Written.quantity(text, id, label, by);
                return Outcome.of(planning ? repeated(q, input, id) : Corrections.of(q, corrections));
            } catch (IllegalArgumentException e) {
                return Outcome.problem(String.valueOf(e.getMessage()));
            }
        }));
    }

    /**
     * As written with the run, or with the first run at its level where one reading serves them all; null for neither.
     */
    private @Nullable String read(Run run, String name, Sheet.Input input) {
        String own = run.entries().byEye().get(name);
        return own != null || !input.isOncePerLevel()
                ? own
                : session.keptRuns().stream()
                        .filter(r -> r.capture().equals(run.capture())
                                && r.level().equals(run.level())
                                && r.entries().byEye().containsKey(name))
                        .findFirst()
                        .map(r -> r.entries().byEye().get(name))
                        .orElse(null);
    }

    /** The mean of as many readings as are planned, each as uncertain as the one that is written. */
    private static Quantity repeated(Quantity one, Sheet.Input input, String id) {
        int n = input.times();
        return n == 1 || one.isExact()
                ? one
                : Quantity.of(
                        one.value(),
                        one.u() / Math.sqrt(n),
                        one.unit(),
                        Leaf.typeA(id + "#repeats", input.leafLabel() + ": repeats", "repeated readings", n - 1));
    }

    /** What an output stood at while a run was taken. */
    void turned(Run run, String name, boolean planned) {
        String text = run.entries().outputs().get(name);
        nodes.put(
                Key.of(run, name),
                new Graph.Node(
                        List.of(),
                        text == null ? "nothing" : text,
                        look -> text == null
                                ? Outcome.problem(
                                        planned
                                                ? name + " has no rows yet: it shows when the target is held."
                                                : run.name() + ": nobody kept what " + name + " stood at.")
                                : Outcome.of(
                                        Written.quantity(text, Key.of(run, name).toString(), name, "output"))));
    }

    /** True when a quantity or a window of the run's capture looks at the channel. */
    private boolean isUsed(Run run, String channelName) {
        return used.computeIfAbsent(run.capture(), c -> new HashMap<>())
                .computeIfAbsent(channelName, n -> isUsed(sheet.capture(run.capture()), n));
    }

    private static boolean isUsed(Capture capture, String channelName) {
        return capture.windows().values().stream().anyMatch(w -> channelName.equals(w.on()))
                || capture.quantities().values().stream()
                        .anyMatch(d -> Formula.parse(d.formula()).names().contains(channelName));
    }

    void trace(Run run, String channelName) {
        if (!isKnown(run.rawUnit(channelName))) {
            nodes.put(
                    Key.of(run, channelName),
                    new Graph.Node(
                            List.of(),
                            run.rawUnit(channelName),
                            look -> Outcome.problem(run.name() + " holds samples of " + channelName + " in '"
                                    + run.rawUnit(channelName)
                                    + "', which is not a unit known here; they are kept, and can be exported.")));
            return;
        }
        Calibration calibration = Measurand.calibrationOf(session, run, channelName, sheet.channel(channelName))
                .orElse(null);
        List<Object> stamp = new ArrayList<>();
        stamp.add(run.rawUnit(channelName));
        stamp.add(calibration == null ? "none" : calibration);
        stamp.add(run.setups());
        stamp.add(run.entries());
        stamp.add(run.clocks());
        PromptPlan prompt = sheet.capture(run.capture()).prompt();
        boolean used = isUsed(run, channelName);
        if (source.count(run.id(), channelName) > (used ? most : Reducer.LONG)) {
            stamp.add("too long");
            nodes.put(
                    Key.of(run, channelName),
                    new Graph.Node(
                            List.of(),
                            stamp,
                            look -> Outcome.problem(run.name() + " holds " + source.count(run.id(), channelName)
                                    + " samples of "
                                    + channelName
                                    + (used
                                            ? ", too many to be worked out without being asked; say " + "so at Reduce."
                                            : ", which nothing of this sheet uses; its outline is "
                                                    + "shown at Capture."))));
            return;
        }
        Channel channel = run.channel(sheet, channelName);
        List<Key> needs = TiedChain.inputs(channel.chain()).stream()
                .map(n -> (Key) new Key.Global(n))
                .toList();
        nodes.put(Key.of(run, channelName), new Graph.Node(needs, stamp, look -> {
            RawSamples raw = source.samples(run.id(), channelName);
            if (raw.size() == 0) {
                return Outcome.problem(run.name() + " holds no samples of " + channelName + ".");
            }
            for (Key need : needs) {
                if (look.apply(need).quantity().isEmpty()) {
                    return Outcome.problem(String.valueOf(look.apply(need).problem()));
                }
            }
            try {
                TiedChain tied = TiedChain.of(
                        channel.chain(),
                        n -> look.apply(new Key.Global(n)).quantity().orElseThrow());
                RawSamples counting = CountedSamples.of(
                        run,
                        channelName,
                        run.clock(sheet, channelName).map(c -> c.aligned(raw)).orElse(raw),
                        run.rawUnit(channelName),
                        channel.with(tied.links()),
                        prompt == null ? 0 : prompt.seconds());
                Trace trace = measurand.toTrace(
                        channelName, channel, tied, run, run.rawUnit(channelName), counting, calibration);
                return Outcome.of(new Value.Signal(
                        clocked(run, channelName, isGate(channelName) ? trace.stairs(GATE_CLOCK) : trace)));
            } catch (IllegalArgumentException e) {
                return Outcome.problem(run.name() + ": " + e.getMessage());
            }
        }));
    }

    private Key lies(Run run, WindowPlan plan) {
        return Key.of(run, Objects.requireNonNull(plan.on()));
    }

    /** With what the clock of its instrument is uncertain by, where several recorded together. */
    private Trace clocked(Run run, String channelName, Trace trace) {
        String device = sheet.channel(channelName).device();
        return run.clock(sheet, channelName)
                .map(c -> c.on(
                        trace,
                        "run " + run.id(),
                        Objects.requireNonNull(device),
                        sheet.device(device).label(),
                        isGate(channelName)))
                .orElse(trace);
    }

    private static boolean isKnown(String unit) {
        try {
            if (!unit.equals(Run.COUNTS)) {
                LabUnit.parse(unit);
            }
            return true;
        } catch (UnitException e) {
            return false;
        }
    }

    private boolean isGate(String channelName) {
        String device = sheet.channel(channelName).device();
        return device != null
                && sheet.devices().containsKey(device)
                && "gate".equals(sheet.devices().get(device).driver());
    }

    void window(Run run, String name, WindowPlan plan) {
        windows.computeIfAbsent(run.id(), id -> new ArrayList<>()).add(Key.window(run, name));
        Window byHand = run.windows().get(name);
        if (byHand == null && plan.isByMoments()) {
            betweenMoments(run, name, plan);
            return;
        }
        nodes.put(
                Key.window(run, name),
                new Graph.Node(List.of(lies(run, plan)), List.of(plan, byHand == null ? "proposed" : byHand), look -> {
                    Outcome trace = look.apply(lies(run, plan));
                    if (trace.problem() != null) {
                        return trace;
                    }
                    if (byHand != null) {
                        return Outcome.of(new Value.Span(byHand));
                    }
                    return WindowProposal.named(plan.propose())
                            .of(((Value.Signal) trace.there()).trace())
                            .map(w -> Outcome.of(new Value.Span(w)))
                            .orElse(Outcome.problem(run.name() + ": no window '" + name
                                    + "' could be proposed; set one by hand at "
                                    + "Reduce, or leave the run out there."));
                }));
    }

    /** A moment that was set by hand, anywhere within a sample. */
    void moment(Run run, String name, Derived d, Window span) {
        String label = d.label() == null ? name : d.label();
        Quantity q = Quantity.of(
                (span.from() + span.to()) / 2,
                span.length() / Math.sqrt(12),
                LabUnit.SECOND,
                Leaf.typeB(Key.of(run, name) + "/hand", label + " set by hand", "hand", Distribution.RECTANGULAR));
        LabUnit unit = d.unit() == null ? LabUnit.SECOND : LabUnit.parse(d.unit());
        nodes.put(
                Key.of(run, name),
                new Graph.Node(List.of(), List.of("moment", span, label), look -> Outcome.of(q.to(unit))));
    }

    private void betweenMoments(Run run, String name, WindowPlan plan) {
        Key from = Key.end(run, name, "from");
        Key to = Key.end(run, name, "to");
        nodes.put(
                Key.window(run, name),
                new Graph.Node(List.of(lies(run, plan), from, to), List.of(plan, "moments"), look -> {
                    for (Key end : List.of(from, to)) {
                        Outcome o = look.apply(end);
                        if (o.problem() != null) {
                            return o;
                        }
                        if (o.quantity().isEmpty()) {
                            return Outcome.problem(run.name() + ": the window '" + name + "' has no "
                                    + (end.equals(from) ? "beginning" : "end") + ", since that is "
                                    + o.there().described() + ".");
                        }
                    }
                    Quantity a = look.apply(from).quantity().orElseThrow();
                    Quantity b = look.apply(to).quantity().orElseThrow();
                    return b.value() > a.value()
                            ? Outcome.of(new Value.Span(
                                    new Window(a.value(), b.value(), plan.from() + " to " + plan.to()), a, b))
                            : Outcome.problem(run.name() + ": the window '" + name + "' ends before it begins.");
                }));
    }

    /** The windows of a run that are in the graph. */
    List<Key.WindowOf> windowsOf(int run) {
        return windows.getOrDefault(run, List.of());
    }
}

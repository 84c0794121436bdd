package eagerneedle.core.reduce;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Value;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Correlated;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import eagerneedle.core.trace.WindowProposal;
import eagerneedle.core.watch.SampleWatch;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Builds the graph of a session and evaluates it, reusing whatever the last evaluation already knows.
 *
 * <p>What its nodes are about is a {@link Key}. The same graph, with runs that are only scheduled and readings that are
 * only planned, gives the predicted budget.
 */
public final class Reducer {
    private final SheetReader.Located located;
    private final SampleSource source;
    private final Map<String, Formula> parsed = new LinkedHashMap<>();
    private Graph last;
    private Graph lastPlan;
    private volatile long most = LONG;

    public Reducer(SheetReader.Located located, SampleSource source) {
        this.located = located;
        this.source = source;
    }

    public SheetReader.Located located() {
        return located;
    }

    /** The sheet with the quantities that a session adds to it. */
    public Sheet sheetOf(Session session) {
        return located.sheet().adding(session.own());
    }

    /** Reduces what has been captured. */
    public Reduction reduce(Session session) {
        last = Graph.evaluate(new Builder(session, false).build(), last);
        return new Reduction(sheetOf(session), session, source, last.outcomes(), session.runs(), false);
    }

    /** Reduces a session that is only tried out; what is remembered of the real one stays. */
    public Reduction whatIf(Session session) {
        Graph tried = Graph.evaluate(new Builder(session, false).build(), last);
        return new Reduction(sheetOf(session), session, source, tried.outcomes(), session.runs(), false);
    }

    /**
     * What a mistake would have made of the session; what is remembered of the real one stays. Windows moved by hand
     * stay where they are, unless the mistake is about them.
     */
    public Reduction mistaken(Session session, Sheet.Mistake mistake) {
        Session with = session;
        for (Map.Entry<String, String> e : mistake.change().entrySet()) {
            if (located.sheet().inputs().containsKey(e.getKey())) {
                with = new Command.SetMeasured(e.getKey(), e.getKey(), e.getValue()).apply(with);
            }
        }
        for (Run run : session.runs()) {
            for (String w : run.windows().keySet()) {
                if (mistake.change().containsKey(run.capture() + "." + w)) {
                    with = new Command.SetWindow(run.id(), w, null).apply(with);
                }
            }
        }
        Graph tried = Graph.evaluate(new Builder(with, false, sheetOf(session).mistaken(mistake)).build(), last);
        return new Reduction(sheetOf(with), with, source, tried.outcomes(), with.runs(), false);
    }

    /** Predicts the results from planned readings and the scheduled runs. */
    public Reduction plan(Session session) {
        Builder builder = new Builder(session, true);
        lastPlan = Graph.evaluate(builder.build(), lastPlan);
        return new Reduction(sheetOf(session), session, source, lastPlan.outcomes(), builder.runs, true);
    }

    /** Predicts the results of a session that is only tried out; what is remembered of the real one stays. */
    public Reduction planIf(Session session) {
        Builder builder = new Builder(session, true);
        return new Reduction(
                sheetOf(session),
                session,
                source,
                Graph.evaluate(builder.build(), lastPlan).outcomes(),
                builder.runs,
                true);
    }

    /** Lets traces beyond {@link #LONG} samples be worked out from now on, however long that takes. */
    public void takeLong() {
        most = Long.MAX_VALUE;
    }

    /** True when a run of the session waits to be worked out because it is long. */
    public boolean hasLong(Session session) {
        return most == LONG
                && session.runs().stream()
                        .filter(Run::takesPart)
                        .anyMatch(r -> located.sheet().captures().containsKey(r.capture())
                                && located.sheet().captures().get(r.capture()).channels().stream()
                                        .anyMatch(c -> source.count(r.id(), c) > LONG));
    }

    /** How many nodes the last reduction had to compute; for tests and benchmarks. */
    public int computedLast() {
        return last == null ? 0 : last.computed();
    }

    /** Samples beyond which a trace is only worked out when something asks for it, so that a long run opens at once. */
    static final long LONG = 2_000_000;

    /** Step of a gate timer's clock, s. */
    private static final double GATE_CLOCK = 1e-6;

    private final class Builder {
        private final Session session;
        private final boolean planning;
        private final Sheet sheet;
        private final List<Run> runs;
        private final Map<Key, Graph.Node> nodes = new LinkedHashMap<>();

        Builder(Session session, boolean planning) {
            this(session, planning, sheetOf(session));
        }

        Builder(Session session, boolean planning, Sheet sheet) {
            this.sheet = sheet;
            this.session = session;
            this.planning = planning;
            this.runs = planning ? scheduled() : session.runs();
        }

        Map<Key, Graph.Node> build() {
            sheet.inputs().forEach((name, input) -> {
                String planned = session.planned().getOrDefault(name, input.value());
                String text = planning ? planned : session.measured().getOrDefault(name, planned);
                reading(name, text, input);
            });
            sheet.channels().forEach(this::calibration);
            if (planning) {
                sheet.planned()
                        .forEach((name, input) ->
                                reading(name, session.planned().getOrDefault(name, input.value()), input));
            }
            sheet.captures().forEach(this::capture);
            sheet.results()
                    .forEach((name, d) -> formula(
                            new Key.Global(name), d.formula(), d.unit(), Map.of(), "/results/" + name + "/formula"));
            return nodes;
        }

        private void reading(String key, String text, Sheet.Input input) {
            List<String> together = correlatedWith(key);
            Instrument tied = session.tied().get(key);
            boolean byTheSheet = planning && !session.planned().containsKey(key);
            nodes.put(
                    together.isEmpty() ? new Key.Global(key) : new Key.Alone(key),
                    new Graph.Node(List.of(), Arrays.asList(text, input.leafLabel(), tied, byTheSheet), look -> {
                        try {
                            Quantity q = Written.quantity(
                                    text,
                                    "input:" + key,
                                    input.leafLabel(),
                                    input.by() == null ? "reading" : input.by());
                            return Outcome.of(
                                    tied != null && (byTheSheet || q.isExact())
                                            ? tied.reading(
                                                    Quantity.exact(q.value(), q.unit()), "input:" + key, input.label())
                                            : q);
                        } catch (IllegalArgumentException e) {
                            return Outcome.problem(e.getMessage());
                        }
                    }));
            if (!together.isEmpty()) {
                nodes.put(
                        new Key.Global(key),
                        new Graph.Node(
                                together.stream()
                                        .map(n -> (Key) new Key.Alone(n))
                                        .toList(),
                                List.of(sheet.correlations()),
                                look -> correlated(key, together, look)));
            }
        }

        /**
         * What a calibration gives to formulas: slope and intercept of its relation, or the interval errors of both
         * circles. In a plan the relation is one to one.
         */
        private void calibration(String name, Sheet.Channel channel) {
            if (channel.calibration() == null) {
                return;
            }
            Calibration c = planning ? null : session.calibrationOf(name).orElse(null);
            boolean closure = channel.calibration().toRelation() == Relation.CLOSURE;
            if (closure) {
                nodes.put(
                        new Key.Global(name + ".scatter"),
                        new Graph.Node(List.of(), Arrays.asList(c, planning), look -> {
                            try {
                                return c == null && !planning
                                        ? Outcome.problem(channel.label() + " is not calibrated yet.")
                                        : Outcome.of(Quantity.exact(
                                                c == null
                                                        ? 0
                                                        : c.closure()
                                                                .solve(c.id())
                                                                .sd(),
                                                channel.labUnit()));
                            } catch (FitException e) {
                                return Outcome.problem(e.getMessage());
                            }
                        }));
            }
            for (int i = 0; i < 2; i++) {
                boolean first = i == 0;
                nodes.put(
                        new Key.Global(
                                name + (closure ? first ? ".lower" : ".upper" : first ? ".slope" : ".intercept")),
                        new Graph.Node(List.of(), Arrays.asList(c, planning), look -> {
                            if (c == null && !planning) {
                                return Outcome.problem(channel.label() + " is not calibrated yet.");
                            }
                            try {
                                if (closure) {
                                    return Outcome.of(new Value.Column(
                                            c == null
                                                    ? java.util.Collections.nCopies(
                                                            channel.calibration()
                                                                    .divisions(),
                                                            Quantity.exact(0, channel.labUnit()))
                                                    : first
                                                            ? c.closure()
                                                                    .solve(c.id())
                                                                    .lower()
                                                            : c.closure()
                                                                    .solve(c.id())
                                                                    .upper()));
                                }
                                return Outcome.of(
                                        c == null
                                                ? first ? Quantity.number(1) : Quantity.exact(0, channel.labUnit())
                                                : c.coefficients().get(first ? 1 : 0));
                            } catch (FitException e) {
                                return Outcome.problem(e.getMessage());
                            }
                        }));
            }
        }

        /**
         * All inputs bound to this one by declared correlations, itself included, in the order of the sheet; empty for
         * one that stands alone.
         */
        private List<String> correlatedWith(String key) {
            Set<String> group = new LinkedHashSet<>(Set.of(key));
            for (int before = 0; before != group.size(); ) {
                before = group.size();
                sheet.correlations().stream()
                        .filter(c -> c.between().stream().anyMatch(group::contains))
                        .forEach(c -> group.addAll(c.between()));
            }
            return group.size() == 1
                    ? List.of()
                    : sheet.inputs().keySet().stream().filter(group::contains).toList();
        }

        private Outcome correlated(String key, List<String> together, java.util.function.Function<Key, Outcome> look) {
            int n = together.size();
            List<Quantity> alone = new ArrayList<>();
            for (String name : together) {
                Outcome o = look.apply(new Key.Alone(name));
                if (o.quantity().isEmpty()) {
                    return o;
                }
                alone.add(o.quantity().get());
            }
            double[][] r = new double[n][n];
            for (int i = 0; i < n; i++) {
                r[i][i] = 1;
            }
            for (Sheet.Correlation c : sheet.correlations()) {
                int i = together.indexOf(c.between().get(0));
                int j = together.indexOf(c.between().get(1));
                if (i >= 0 && j >= 0) {
                    r[i][j] = r[j][i] = c.r();
                }
            }
            try {
                List<String> ids =
                        together.stream().map(name -> "input:" + name).toList();
                List<String> labels = together.stream()
                        .map(name -> sheet.inputs().get(name).leafLabel())
                        .toList();
                return Outcome.of(Correlated.of(alone, r, ids, labels).get(together.indexOf(key)));
            } catch (IllegalArgumentException e) {
                return Outcome.problem(e.getMessage());
            }
        }

        private void capture(String captureName, Sheet.Capture capture) {
            List<Run> ofCapture =
                    runs.stream().filter(r -> r.capture().equals(captureName)).toList();
            Set<String> columns = new LinkedHashSet<>();
            capture.levels().values().forEach(l -> columns.addAll(l.set().keySet()));
            columns.addAll(capture.byEye().keySet());
            columns.addAll(capture.quantities().keySet());
            for (Run run : ofCapture) {
                run(run, captureName, capture);
            }
            List<Run> taking = ofCapture.stream().filter(Run::takesPart).toList();
            for (String column : columns) {
                List<Run> having = taking.stream()
                        .filter(r -> nodes.containsKey(Key.of(r, column)))
                        .toList();
                List<Key> rows =
                        having.stream().map(r -> (Key) Key.of(r, column)).toList();
                RowLabels labels = new RowLabels(
                        captureName,
                        having.stream()
                                .map(r -> new RowLabels.Row("run " + r.id(), r.level()))
                                .toList(),
                        List.copyOf(capture.levels().keySet()));
                nodes.put(
                        new Key.Column(captureName, column),
                        new Graph.Node(rows, List.of(rows, labels), look -> column(rows, labels, look)));
            }
        }

        /** What was read by eye with a run; in a plan what the sheet expects. */
        private void byEye(Run run, String name, Sheet.Input input) {
            String text = planning ? input.value() : run.entries().byEye().get(name);
            nodes.put(Key.of(run, name), new Graph.Node(List.of(), Arrays.asList(text, input.leafLabel()), look -> {
                if (text == null) {
                    return Outcome.problem(run.name() + ": " + input.label() + " was not read.");
                }
                try {
                    return Outcome.of(Written.quantity(
                            text,
                            Key.of(run, name).toString(),
                            input.leafLabel(),
                            input.by() == null ? "reading" : input.by()));
                } catch (IllegalArgumentException e) {
                    return Outcome.problem(e.getMessage());
                }
            }));
        }

        private static Outcome column(
                List<Key> rows, RowLabels labels, java.util.function.Function<Key, Outcome> look) {
            List<Quantity> values = new ArrayList<>();
            for (Key row : rows) {
                Outcome o = look.apply(row);
                if (o.problem() != null) {
                    return Outcome.problem(
                            o.problem().startsWith("Run")
                                    ? o.problem()
                                    : row.toString().replace("run ", "Run ") + ": " + o.problem());
                }
                o.quantity().ifPresent(values::add);
            }
            return Outcome.of(new Value.Column(values, values.size() == rows.size() ? labels : null));
        }

        private void run(Run run, String captureName, Sheet.Capture capture) {
            Map<String, Key> local = new LinkedHashMap<>();
            Sheet.Level level = capture.levels().get(run.level());
            Map<String, String> set = level == null ? Map.of() : level.set();
            set.keySet().forEach(n -> local.put(n, Key.of(run, n)));
            capture.byEye().forEach((n, input) -> byEye(run, n, input));
            capture.byEye().keySet().forEach(n -> local.put(n, Key.of(run, n)));
            capture.quantities().keySet().forEach(n -> local.put(n, Key.of(run, n)));
            if (!planning) {
                capture.channels().forEach(c -> local.put(c, Key.of(run, c)));
                capture.channels().forEach(c -> trace(run, c));
                capture.windows().forEach((w, plan) -> window(run, w, plan));
            }
            set.forEach((n, f) -> formula(
                    Key.of(run, n),
                    f,
                    null,
                    Map.of(),
                    "/captures/" + captureName + "/levels/" + run.level() + "/set/" + n));
            capture.quantities().forEach((n, d) -> {
                String f = planning ? d.planned() : d.formula();
                if (planning && f == null && !usesChannels(d, capture)) {
                    f = d.formula();
                }
                if (f != null) {
                    formula(
                            Key.of(run, n),
                            f,
                            d.unit(),
                            local,
                            "/captures/" + captureName + "/quantities/" + n
                                    + (f.equals(d.formula()) ? "/formula" : "/planned"));
                }
            });
        }

        /**
         * True when a quantity rests on samples, directly or through others of its run, and so has no value in a plan.
         */
        private boolean usesChannels(Sheet.Derived d, Sheet.Capture capture) {
            return parse(d.formula()).names().stream()
                    .anyMatch(n -> capture.channels().contains(n)
                            || capture.quantities().containsKey(n)
                                    && capture.quantities().get(n).planned() == null
                                    && usesChannels(capture.quantities().get(n), capture));
        }

        /** True when a quantity or a window of the run's capture looks at the channel. */
        private boolean isUsed(Run run, String channelName) {
            Sheet.Capture capture = sheet.captures().get(run.capture());
            return capture.windows().values().stream().anyMatch(w -> w.on().equals(channelName))
                    || capture.quantities().values().stream()
                            .anyMatch(d -> parse(d.formula()).names().contains(channelName));
        }

        private void trace(Run run, String channelName) {
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
            Calibration calibration = calibrationOf(
                            session, run, channelName, sheet.channels().get(channelName))
                    .orElse(null);
            List<Object> stamp = new ArrayList<>();
            stamp.add(run.rawUnit(channelName));
            stamp.add(calibration == null ? "none" : calibration);
            stamp.add(run.setups());
            stamp.add(run.entries());
            Sheet.PromptPlan prompt = sheet.captures().get(run.capture()).prompt();
            boolean used = isUsed(run, channelName);
            if (source.count(run.id(), channelName) > (used ? most : LONG)) {
                stamp.add("too long");
                nodes.put(
                        Key.of(run, channelName),
                        new Graph.Node(
                                List.of(),
                                stamp,
                                look -> Outcome.problem(
                                        run.name() + " holds " + source.count(run.id(), channelName) + " samples of "
                                                + channelName
                                                + (used
                                                        ? ", too many to be worked out without being asked; say "
                                                                + "so at Reduce."
                                                        : ", which nothing of this sheet uses; its outline is "
                                                                + "shown at Capture."))));
                return;
            }
            nodes.put(Key.of(run, channelName), new Graph.Node(List.of(), stamp, look -> {
                RawSamples raw = source.samples(run.id(), channelName);
                if (raw.size() == 0) {
                    return Outcome.problem(run.name() + " holds no samples of " + channelName + ".");
                }
                try {
                    RawSamples counting = CountedSamples.of(
                            run,
                            channelName,
                            raw,
                            run.rawUnit(channelName),
                            run.channel(sheet, channelName),
                            prompt == null ? 0 : prompt.seconds());
                    Trace trace = toTrace(
                            channelName,
                            run.channel(sheet, channelName),
                            run,
                            run.rawUnit(channelName),
                            counting,
                            calibration);
                    return Outcome.of(new Value.Signal(isGate(channelName) ? trace.stairs(GATE_CLOCK) : trace));
                } catch (IllegalArgumentException e) {
                    return Outcome.problem(run.name() + ": " + e.getMessage());
                }
            }));
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
            String device = sheet.channels().get(channelName).device();
            return device != null
                    && sheet.devices().containsKey(device)
                    && "gate".equals(sheet.devices().get(device).driver());
        }

        private void window(Run run, String name, Sheet.WindowPlan plan) {
            Window byHand = run.windows().get(name);
            nodes.put(
                    Key.window(run, name),
                    new Graph.Node(
                            List.of(Key.of(run, plan.on())),
                            List.of(plan, byHand == null ? "proposed" : byHand),
                            look -> {
                                Outcome trace = look.apply(Key.of(run, plan.on()));
                                if (trace.problem() != null) {
                                    return trace;
                                }
                                if (byHand != null) {
                                    return Outcome.of(new Value.Span(byHand));
                                }
                                return WindowProposal.named(plan.propose())
                                        .of(((Value.Signal) trace.value()).trace())
                                        .map(w -> Outcome.of(new Value.Span(w)))
                                        .orElse(Outcome.problem(run.name() + ": no window '" + name
                                                + "' could be proposed; set one by hand at "
                                                + "Reduce, or leave the run out there."));
                            }));
        }

        private void formula(Key key, String text, String unit, Map<String, Key> local, String pointer) {
            Formula formula = parse(text);
            List<Key> needs = new ArrayList<>();
            for (String n : formula.names()) {
                Key k = local.containsKey(n) ? local.get(n) : Key.named(n, sheet);
                if (nodes.containsKey(k)
                        || local.containsKey(n)
                        || sheet.results().containsKey(n)
                        || n.contains(".")) {
                    needs.add(k);
                }
            }
            if (key instanceof Key.OfRun of) {
                nodes.keySet().forEach(k -> {
                    if (k instanceof Key.WindowOf w && w.run() == of.run() && text.contains('"' + w.window() + '"')) {
                        needs.add(w);
                    }
                });
            }
            nodes.put(key, new Graph.Node(List.copyOf(needs), List.of(text, unit == null ? "" : unit, local), look -> {
                NodeScope scope = new NodeScope(key, local, n -> Key.named(n, sheet), look, planning);
                try {
                    Value v = formula.evaluate(scope);
                    if (unit != null && v instanceof Value.Scalar s) {
                        v = new Value.Scalar(wanted(s.quantity(), LabUnit.parse(unit)));
                    }
                    return Outcome.of(v).with(scope.remarks());
                } catch (NodeScope.Missing m) {
                    return Outcome.problem(m.getMessage());
                } catch (FormulaException e) {
                    return Outcome.problem(wrong(pointer, e.column(), e.getMessage()));
                } catch (IllegalArgumentException e) {
                    return Outcome.problem(wrong(pointer, 1, e.getMessage()));
                }
            }));
        }

        /** What is wrong with a formula and where: in the sheet, or in one that was added to it. */
        private String wrong(String pointer, int column, String message) {
            return located.places().containsKey(pointer)
                    ? located.problem(pointer, column, message).getMessage()
                    : "In the formula that was added, column " + column + ": " + message;
        }

        /**
         * The quantity in the unit the sheet wants; where only its reciprocal would fit, a fit was probably made the
         * wrong way round.
         */
        private static Quantity wanted(Quantity q, LabUnit unit) {
            if (!q.unit().fits(unit) && LabUnit.ONE.per(q.unit()).fits(unit)) {
                throw new IllegalArgumentException("this gives " + q.unit().named() + " where " + unit.named()
                        + " is wanted; its reciprocal would fit, so perhaps the two columns of the fit are exchanged.");
            }
            return q.to(unit);
        }

        private List<Run> scheduled() {
            List<Run> out = new ArrayList<>();
            sheet.captures()
                    .forEach((c, capture) -> capture.levels().keySet().forEach(l -> {
                        for (int i = 0; i < session.repeats(sheet, c); i++) {
                            out.add(Run.captured(out.size() + 1, c, l, session.created(), "planned", Run.COUNTS));
                        }
                    }));
            return out;
        }
    }

    private Formula parse(String text) {
        return parsed.computeIfAbsent(text, Formula::parse);
    }

    /**
     * Raw samples turned into the measurand: chain backwards, then the calibration in force; samples beyond reach are
     * left out.
     */
    /** The calibration that samples of a run go through: none when they came in the measurand's own unit. */
    private static Optional<Calibration> calibrationOf(Session session, Run run, String name, Sheet.Channel channel) {
        String rawUnit = run.rawUnit(name);
        return rawUnit.equals(Run.COUNTS) || !LabUnit.parse(rawUnit).fits(channel.labUnit())
                ? session.calibrationOf(name)
                : Optional.empty();
    }

    /**
     * The measurand at every sample, whether it counts in the results or not.
     *
     * @throws IllegalArgumentException with one sentence when no sample has one
     */
    static Trace measurand(Session session, Run run, String name, Sheet.Channel channel, RawSamples raw) {
        return toTrace(
                name,
                channel,
                run,
                run.rawUnit(name),
                raw,
                calibrationOf(session, run, name, channel).orElse(null));
    }

    static Trace toTrace(
            String name, Sheet.Channel channel, Run run, String rawUnit, RawSamples raw, Calibration calibration) {
        LabUnit unit = channel.labUnit();
        boolean counts = rawUnit.equals(Run.COUNTS);
        LabUnit imported = counts ? null : LabUnit.parse(rawUnit);
        // Samples in the unit that arrives at the converter come from a meter in its place, unless they are the
        // measurand's already.
        boolean signal = !counts
                && !imported.fits(unit)
                && imported.fits(channel.toChain().converter().input());
        Chain chain = counts || signal ? channel.toChain() : null;
        SampleWatch watch = chain != null ? new SampleWatch(channel.label(), chain, 0) : null;
        Map<Double, Double> known = new HashMap<>();
        double[] t = new double[raw.size()];
        double[] v = new double[raw.size()];
        int n = 0;
        for (int i = 0; i < raw.size(); i++) {
            double x = signal
                    ? chain.converter()
                            .exactCount(imported.convert(
                                    raw.values()[i], chain.converter().input()))
                    : raw.values()[i];
            if (chain != null && watch.beyondReach(x)) {
                continue;
            }
            t[n] = raw.time()[i];
            v[n++] = chain != null ? known.computeIfAbsent(x, chain::indication) : imported.convert(x, unit);
        }
        if (n == 0) {
            throw new IllegalArgumentException("every sample of " + channel.label() + " is out of range.");
        }
        v = java.util.Arrays.copyOf(v, n);
        double step = chain != null ? chain.stepAt(median(v)) : 0;
        List<Trace.Shared> shared = chain != null && calibration == null ? chain.shared(name) : List.of();
        Trace trace = new Trace(channel.label(), java.util.Arrays.copyOf(t, n), v, unit, step, shared);
        return calibration == null ? trace : calibration.apply(trace, chain, run.started());
    }

    private static double median(double[] v) {
        double[] sorted = v.clone();
        java.util.Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }
}

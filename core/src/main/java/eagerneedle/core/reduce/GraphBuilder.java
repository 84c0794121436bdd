package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.RowLabels;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The graph of a session: what everything in it is computed from, and how. */
final class GraphBuilder {
    private final SheetReader.Located located;
    private final Session session;
    private final boolean planning;
    /** True for a plan that is carried out to tell what its runs will give. */
    private final boolean isRehearsed;

    private final Sheet sheet;
    private final List<Run> runs;
    private final Map<Key, Graph.Node> nodes = new LinkedHashMap<>();
    private final InputNodes inputs;
    private final RunNodes samples;
    /** Of formulas met before: those of a sheet are looked at once, not once a run. */
    private final Map<String, Mentioned> mentioned = new HashMap<>();

    /** What a formula speaks of. */
    private record Mentioned(Formula formula, Set<String> names, Set<String> texts) {
        static Mentioned in(String text) {
            Formula formula = Formula.parse(text);
            return new Mentioned(formula, formula.names(), formula.texts());
        }
    }

    /**
     * Of a session and the sheet it follows.
     *
     * @param planning true for runs that are only scheduled and readings that are only planned
     * @param most how many samples a trace may have to be worked out without being asked
     */
    GraphBuilder(
            SheetReader.Located located,
            SampleSource source,
            Session session,
            boolean planning,
            Sheet sheet,
            long most) {
        this.located = located;
        this.sheet = sheet;
        this.session = session;
        this.planning = planning;
        this.isRehearsed = planning && sheet.hasPhysics();
        this.runs = planning ? scheduled() : session.runs();
        this.inputs = new InputNodes(session, sheet, planning, nodes);
        this.samples = new RunNodes(source, session, sheet, planning, most, nodes);
    }

    List<Run> runs() {
        return runs;
    }

    Map<Key, Graph.Node> build() {
        sheet.inputs().forEach((name, input) -> {
            String planned = session.planned().getOrDefault(name, input.value());
            String text = planning ? planned : session.measured().getOrDefault(name, planned);
            inputs.reading(name, text, input);
        });
        sheet.channels().forEach(inputs::calibration);
        if (planning) {
            sheet.planned()
                    .forEach((name, input) ->
                            inputs.reading(name, session.planned().getOrDefault(name, input.value()), input));
        }
        sheet.captures().forEach(this::capture);
        new PoolNodes(session, sheet, planning).into(nodes);
        sheet.results()
                .forEach((name, d) -> formula(
                        new Key.Global(name), d.formula(), d.unit(), Map.of(), "/results/" + name + "/formula"));
        return nodes;
    }

    private void capture(String captureName, Capture capture) {
        List<Run> ofCapture =
                runs.stream().filter(r -> r.capture().equals(captureName)).toList();
        Set<String> columns = new LinkedHashSet<>();
        capture.levels().values().forEach(l -> columns.addAll(l.set().keySet()));
        columns.addAll(capture.byEye().keySet());
        columns.addAll(capture.turned());
        columns.addAll(capture.quantities().keySet());
        for (Run run : ofCapture) {
            run(run, captureName, capture);
        }
        List<Run> taking = ofCapture.stream().filter(Run::takesPart).toList();
        RowLabels all = new RowLabels(
                captureName,
                taking.stream()
                        .map(r -> new RowLabels.Row("run " + r.id(), r.level(), at(capture, r)))
                        .toList(),
                List.copyOf(capture.levels().keySet()));
        List<List<Key>> ruling =
                taking.stream().map(r -> leavingOut(r, capture)).toList();
        for (String column : columns) {
            List<Integer> having = new ArrayList<>();
            List<Key> rows = new ArrayList<>();
            for (int i = 0;
                    i < taking.size() && !(isRehearsed && capture.byEye().containsKey(column));
                    i++) {
                Key row = Key.of(taking.get(i), column);
                if (nodes.containsKey(row)) {
                    having.add(i);
                    rows.add(row);
                }
            }
            boolean whole = having.size() == taking.size();
            RowLabels labels = whole ? all : all.only(having);
            List<List<Key>> rules =
                    whole ? ruling : having.stream().map(ruling::get).toList();
            List<Key> needs = new ArrayList<>(rows);
            rules.forEach(needs::addAll);
            nodes.put(
                    new Key.Column(captureName, column),
                    new Graph.Node(needs, List.of(rows, labels, rules), look -> column(rows, rules, labels, look)));
        }
    }

    /** The rules that leave a run out when they do not hold; none for one that was taken in all the same. */
    private List<Key> leavingOut(Run run, Capture capture) {
        return planning || run.entries().insisted()
                ? List.of()
                : capture.rules().entrySet().stream()
                        .filter(e -> e.getValue().leavesOut())
                        .map(e -> (Key) Key.rule(run, e.getKey()))
                        .toList();
    }

    private static boolean isBroken(Outcome rule) {
        return rule.value() instanceof Value.Truth t && !t.holds();
    }

    private static Outcome column(
            List<Key> rows, List<List<Key>> rules, RowLabels labels, java.util.function.Function<Key, Outcome> look) {
        List<Quantity> values = new ArrayList<>();
        List<RowLabels.Row> named = new ArrayList<>();
        int absent = 0;
        for (int i = 0; i < rows.size(); i++) {
            if (rules.get(i).stream().map(look).anyMatch(GraphBuilder::isBroken)) {
                continue;
            }
            Outcome o = look.apply(rows.get(i));
            if (o.problem() != null) {
                return Outcome.problem(
                        o.problem().startsWith("Run")
                                ? o.problem()
                                : rows.get(i).toString().replace("run ", "Run ") + ": " + o.problem());
            }
            RowLabels.Row row = labels.rows().get(i);
            if (o.quantity().isPresent()) {
                values.add(o.quantity().get());
                named.add(row);
            } else if (o.value() instanceof Value.Column c && c.labels() != null) {
                // Several rows of one run, told apart by the members of a set.
                values.addAll(c.rows());
                c.labels().rows().forEach(r -> named.add(row.with(r)));
            } else if (o.value() instanceof Value.None) {
                absent++;
            }
        }
        // What is absent in every row is absent: so is what is reckoned from it.
        Outcome column = Outcome.of(
                values.isEmpty() && absent > 0
                        ? new Value.None()
                        : new Value.Column(values, new RowLabels(labels.capture(), named, labels.levels())));
        return absent == 0
                ? column
                : column.with(List.of(absent + " of " + rows.size() + " rows " + (absent == 1 ? "is" : "are")
                        + " none and take no part."));
    }

    /** The members of sets that the level of a run is. */
    private static Map<String, String> at(Capture capture, Run run) {
        Capture.Level level = capture.levels().get(run.level());
        return level == null ? Map.of() : level.at();
    }

    private void run(Run run, String captureName, Capture capture) {
        Map<String, Key> local = new LinkedHashMap<>();
        Capture.Level level = capture.levels().get(run.level());
        Map<String, String> set = level == null ? Map.of() : level.set();
        set.keySet().forEach(n -> local.put(n, Key.of(run, n)));
        capture.byEye().forEach((n, input) -> samples.byEye(run, n, input));
        capture.byEye().keySet().forEach(n -> local.put(n, Key.of(run, n)));
        capture.turned().forEach(n -> samples.turned(run, n, planning));
        capture.turned().forEach(n -> local.put(n, Key.of(run, n)));
        capture.quantities().keySet().forEach(n -> local.put(n, Key.of(run, n)));
        if (!planning) {
            capture.channels().forEach(c -> local.put(c, Key.of(run, c)));
            capture.channels().forEach(c -> samples.trace(run, c));
            capture.windows().forEach((w, plan) -> samples.window(run, w, plan));
        }
        if (!planning) {
            capture.windows()
                    .forEach((w, plan) -> plan.ends().ifPresent(e -> {
                        String at = "/captures/" + captureName + "/windows/" + w;
                        end(run, w, "from", e.from(), local, at);
                        end(run, w, "to", e.to(), local, at);
                    }));
        }
        set.forEach((n, f) -> formula(
                Key.of(run, n),
                f,
                null,
                Map.of(),
                "/captures/" + captureName + "/levels/" + run.level() + "/set/" + n));
        if (!planning) {
            capture.rules()
                    .forEach((n, rule) -> formula(
                            Key.rule(run, n),
                            rule.must(),
                            null,
                            local,
                            "/captures/" + captureName + "/rules/" + n + "/must"));
        }
        capture.quantities().forEach((n, d) -> {
            if (run.windows().containsKey(n) && !capture.windows().containsKey(n)) {
                samples.moment(run, n, d, run.windows().get(n));
                return;
            }
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

    private void end(Run run, String window, String end, String text, Map<String, Key> local, String at) {
        formula(Key.end(run, window, end), text, "s", local, at + "/" + end);
    }

    /**
     * True when a quantity rests on samples, directly or through others of its run, and so has no value in a plan; or
     * on what is read by eye, where carrying the plan out tells how that scatters.
     */
    private boolean usesChannels(Derived d, Capture capture) {
        return Formula.parse(d.formula()).names().stream()
                .map(capture::whole)
                .anyMatch(n -> capture.channels().contains(n)
                        || isRehearsed && capture.byEye().containsKey(n)
                        || capture.quantities().containsKey(n)
                                && capture.quantities().get(n).planned() == null
                                && usesChannels(capture.quantities().get(n), capture));
    }

    /** What a part would be of, if a name is that of a part of a fit. */
    private static String ofFit(String name) {
        return name.substring(0, Math.max(0, name.lastIndexOf('.')));
    }

    private void formula(Key key, String text, @Nullable String unit, Map<String, Key> local, String pointer) {
        Mentioned in = mentioned.computeIfAbsent(text, Mentioned::in);
        Formula formula = in.formula();
        List<Key> needs = new ArrayList<>();
        for (String n : in.names()) {
            Key mine = local.get(n);
            boolean own = mine != null || sheet.results().containsKey(n);
            Key k = mine != null ? mine : Key.named(n, sheet);
            if (own || n.contains(".") || nodes.containsKey(k)) {
                needs.add(k);
            }
            String whole = own ? "" : ofFit(n);
            if (local.containsKey(whole) || sheet.results().containsKey(whole)) {
                needs.add(local.containsKey(whole) ? local.get(whole) : new Key.Global(whole));
            }
        }
        if (key instanceof Key.OfRun of) {
            for (Key.WindowOf w : samples.windowsOf(of.run())) {
                if (in.texts().contains(w.window())) {
                    needs.add(w);
                }
            }
        }
        nodes.put(
                key,
                new Graph.Node(
                        List.copyOf(needs),
                        List.of(text, unit == null ? "" : unit, List.copyOf(local.keySet())),
                        look -> {
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
                                return Outcome.problem(wrong(pointer, 1, String.valueOf(e.getMessage())));
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
     * The quantity in the unit the sheet wants; where only its reciprocal would fit, a fit was probably made the wrong
     * way round.
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

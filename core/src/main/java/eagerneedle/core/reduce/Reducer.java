package eagerneedle.core.reduce;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Builds the graph of a session and evaluates it, reusing whatever the last evaluation already knows.
 *
 * <p>What its nodes are about is a {@link Key}. The same graph, with runs that are only scheduled and readings that are
 * only planned, gives the predicted budget.
 */
public final class Reducer {
    private final SheetReader.Located located;
    private final SampleSource source;
    private @Nullable Graph last;
    private @Nullable Graph lastPlan;
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
        return located.sheet().picking(session.picked()).adding(session.own());
    }

    /**
     * Reduces what has been captured.
     *
     * @throws IllegalArgumentException with one sentence for a run of a capture that the sheet does not have
     */
    public Reduction reduce(Session session) {
        for (Run run : session.runs()) {
            if (!located.sheet().captures().containsKey(run.capture())) {
                throw new IllegalArgumentException(run.name() + " is of the capture '" + run.capture()
                        + "', which the session's sheet does not have; repair it with the sheet it was made with.");
            }
        }
        last = Graph.evaluate(builder(session, false, sheetOf(session)).build(), last);
        return new Reduction(
                sheetOf(session),
                session,
                source,
                last.outcomes(),
                RowRules.applied(sheetOf(session), session.runs(), last.outcomes()),
                false);
    }

    /** Reduces a session that is only tried out; what is remembered of the real one stays. */
    public Reduction whatIf(Session session) {
        return tried(session, builder(session, false, sheetOf(session)).build());
    }

    /**
     * The rules of the sheet that do not hold of a run of a session that is only tried out. Nothing but what these
     * rules look at is worked out.
     *
     * @param which of the rules are asked for
     */
    public List<Capture.RowRule> broken(Session session, Run run, Predicate<Capture.RowRule> which) {
        Sheet sheet = sheetOf(session);
        List<Key> rules = RowRules.keys(sheet, run, which);
        if (rules.isEmpty()) {
            return List.of();
        }
        Map<Key, Graph.Node> nodes =
                Graph.under(rules, builder(session, false, sheet).build());
        return RowRules.broken(sheet, run, Graph.evaluate(nodes, last).outcomes());
    }

    private Reduction tried(Session session, Map<Key, Graph.Node> nodes) {
        Graph tried = Graph.evaluate(nodes, last);
        return new Reduction(
                sheetOf(session),
                session,
                source,
                tried.outcomes(),
                RowRules.applied(sheetOf(session), session.runs(), tried.outcomes()),
                false);
    }

    /**
     * What a mistake would have made of the session; what is remembered of the real one stays. Windows moved by hand
     * stay where they are, unless the mistake is about them.
     */
    public Reduction mistaken(Session session, Sheet.Mistake mistake) {
        Session with = session;
        for (Map.Entry<String, String> e : mistake.change().entrySet()) {
            if (located.sheet().inputs().containsKey(e.getKey())) {
                // Another input's name means its reading: two masses exchanged.
                String reading = located.sheet().inputs().containsKey(e.getValue())
                        ? reading(session, e.getValue())
                        : e.getValue();
                with = new PlanningCommand.SetMeasured(e.getKey(), e.getKey(), reading).apply(with);
            }
        }
        for (Run run : session.runs()) {
            for (String w : run.windows().keySet()) {
                if (mistake.change().containsKey(run.capture() + "." + w)) {
                    with = new ReducingCommand.SetWindow(run.id(), w, null).apply(with);
                }
            }
        }
        Graph tried = Graph.evaluate(
                builder(with, false, sheetOf(session).mistaken(mistake)).build(), last);
        return new Reduction(
                sheetOf(with),
                with,
                source,
                tried.outcomes(),
                RowRules.applied(sheetOf(with).mistaken(mistake), with.runs(), tried.outcomes()),
                false);
    }

    /**
     * As if quantities were what is put in their place; what is remembered of the real session stays.
     *
     * @param put by key, of the kind that stands there; a key that the session does not have is passed over
     */
    public Reduction asIf(Session session, Map<Key, Quantity> put) {
        Map<Key, Graph.Node> nodes =
                new LinkedHashMap<>(builder(session, false, sheetOf(session)).build());
        put.forEach((key, q) -> nodes.computeIfPresent(
                key,
                (k, node) -> new Graph.Node(node.needs(), List.of(node.stamp(), q.toString()), f -> Outcome.of(q))));
        return tried(session, nodes);
    }

    /** What each quantity of a session is worked out from, one step back. */
    public Map<Key, List<Key>> needs(Session session) {
        Map<Key, List<Key>> out = new LinkedHashMap<>();
        builder(session, false, sheetOf(session)).build().forEach((key, node) -> out.put(key, node.needs()));
        return out;
    }

    private String reading(Session session, String input) {
        String planned = session.planned()
                .getOrDefault(input, located.sheet().input(input).value());
        return session.measured().getOrDefault(input, planned);
    }

    /** Predicts the results from planned readings and the scheduled runs. */
    public Reduction plan(Session session) {
        GraphBuilder builder = builder(session, true, sheetOf(session));
        lastPlan = Graph.evaluate(builder.build(), lastPlan);
        return new Reduction(sheetOf(session), session, source, lastPlan.outcomes(), builder.runs(), true);
    }

    /** Predicts the results of a session that is only tried out; what is remembered of the real one stays. */
    public Reduction planIf(Session session) {
        GraphBuilder builder = builder(session, true, sheetOf(session));
        return new Reduction(
                sheetOf(session),
                session,
                source,
                Graph.evaluate(builder.build(), lastPlan).outcomes(),
                builder.runs(),
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
                                && located.sheet().capture(r.capture()).channels().stream()
                                        .anyMatch(c -> source.count(r.id(), c) > LONG));
    }

    /** How many nodes the last reduction had to compute; for tests and benchmarks. */
    public int computedLast() {
        return last == null ? 0 : last.computed();
    }

    /** Samples beyond which a trace is only worked out when something asks for it, so that a long run opens at once. */
    static final long LONG = 2_000_000;

    private GraphBuilder builder(Session session, boolean planning, Sheet sheet) {
        return new GraphBuilder(located, source, session, planning, sheet, most);
    }
}

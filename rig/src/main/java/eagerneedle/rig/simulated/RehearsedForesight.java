package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Foresight;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.RescaledPlan;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.Session;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * What results will be where the sheet plans nothing by hand: from rehearsals of the plan, rescaled where only the
 * uncertainty of inputs is another, and carried out again for everything else, such as more runs.
 */
public final class RehearsedForesight implements Foresight {
    private final Reducer reducer;
    private final Map<Object, Known> rehearsed = new ConcurrentHashMap<>();
    private final Map<Object, Map<String, Double>> looked = new ConcurrentHashMap<>();

    public RehearsedForesight(Reducer reducer) {
        this.reducer = reducer;
    }

    /** With what rehearsals of a session have found already. */
    public RehearsedForesight knowing(Session session, Map<String, Quantity> found) {
        rehearsed.put(bench(session), new Known(session, found));
        return this;
    }

    /** What rehearsals of a session found. */
    private record Known(Session session, Map<String, Quantity> found) {}

    /** What a rehearsal of a session depends on beside the uncertainties of its inputs. */
    private static Object bench(Session s) {
        return List.of(s.repeats(), s.setups(), s.picked());
    }

    /**
     * A session whose inputs are read as planned, with no instrument of the stockroom: what a rehearsal carries out.
     */
    public static Session untied(Session s) {
        Session out = s;
        for (String input : s.tied().keySet()) {
            out = new PlanningCommand.TieInput(input, input, null).apply(out);
        }
        return out;
    }

    @Override
    public boolean takesLong(Session session, String result) {
        return reducer.planIf(session).quantity(result).isEmpty();
    }

    /** By what a change does to every influence in a few rehearsals in which the same is drawn with and without it. */
    @Override
    public Optional<Quantity> roughly(Session before, Session after, String result) {
        if (!takesLong(before, result)) {
            return of(after, result);
        }
        Map<String, Double> was = few(before, result);
        Map<String, Double> is = few(after, result);
        return is.isEmpty() ? Optional.empty() : of(before, result).map(q -> scaled(q, was, is));
    }

    private static Quantity scaled(Quantity q, Map<String, Double> was, Map<String, Double> is) {
        Quantity out = Quantity.exact(q.value(), q.unit());
        for (Map.Entry<Leaf, Double> c : q.contributions().entrySet()) {
            String label = c.getKey().label();
            double w = was.getOrDefault(label, 0.0);
            double factor = w > 0 ? Math.sqrt(is.getOrDefault(label, 0.0) / w) : 1;
            out = factor > 0 ? out.with(c.getKey(), factor * c.getValue()) : out;
        }
        for (Map.Entry<String, Double> more : is.entrySet()) {
            if (!was.containsKey(more.getKey()) && more.getValue() > 0) {
                Leaf leaf = Leaf.typeB("roughly:" + more.getKey(), more.getKey(), "rehearsal", Distribution.NORMAL);
                out = out.with(leaf, Math.sqrt(more.getValue()));
            }
        }
        return out;
    }

    private Map<String, Double> few(Session session, String result) {
        Session plain = untied(session);
        return looked.computeIfAbsent(
                List.of(bench(plain), result), k -> RehearsedPlan.variances(reducer.located(), plain, result));
    }

    @Override
    public Optional<Quantity> of(Session session, String result) {
        Optional<Quantity> planned = reducer.planIf(session).quantity(result);
        if (planned.isPresent()) {
            return planned;
        }
        Known known = rehearsed.computeIfAbsent(bench(session), k -> {
            Session plain = untied(session);
            return new Known(plain, RehearsedPlan.of(reducer.located(), plain, () -> false));
        });
        return Optional.ofNullable(known.found.get(result))
                .flatMap(q -> RescaledPlan.of(q, reducer.planIf(known.session), reducer.planIf(session)));
    }
}

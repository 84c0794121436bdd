package eagerneedle.rig.simulated;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Foresight;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.RescaledPlan;
import eagerneedle.core.session.PlanCommand;
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
    /** A share of the uncertainty that a few rehearsals with the same draws tell from nothing. */
    private static final double PROMISING = 0.98;

    private final Reducer reducer;
    private final Map<Object, Known> rehearsed = new ConcurrentHashMap<>();
    private final Map<Object, Optional<Double>> looked = new ConcurrentHashMap<>();

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
            out = new PlanCommand.TieInput(input, input, null).apply(out);
        }
        return out;
    }

    @Override
    public boolean promises(Session before, Session after, String result) {
        if (reducer.planIf(before).quantity(result).isPresent()) {
            return false;
        }
        return quick(before, result)
                .flatMap(b -> quick(after, result).map(a -> a < PROMISING * b))
                .orElse(true);
    }

    private Optional<Double> quick(Session session, String result) {
        Session plain = untied(session);
        return looked.computeIfAbsent(
                List.of(bench(plain), plain.planned(), result),
                k -> RehearsedPlan.once(reducer.located(), plain, result));
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

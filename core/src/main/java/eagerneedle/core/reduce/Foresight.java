package eagerneedle.core.reduce;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Session;
import java.util.Optional;

/** What a result will be, by the plan of a session; empty where nobody can tell. */
@FunctionalInterface
public interface Foresight {
    Optional<Quantity> of(Session session, String result);

    /** What it will be when the bench is changed, as nearly as is needed to choose a change by. */
    default Optional<Quantity> roughly(Session before, Session after, String result) {
        return of(after, result);
    }

    /** True where telling exactly what a result will be takes seconds. */
    default boolean takesLong(Session session, String result) {
        return false;
    }

    /** By what the sheet itself plans. */
    static Foresight ofPlan(Reducer reducer) {
        return (session, result) -> reducer.planIf(session).quantity(result);
    }
}

package eagerneedle.core.reduce;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Session;
import java.util.Optional;

/** What a result will be, by the plan of a session; empty where nobody can tell. */
@FunctionalInterface
public interface Foresight {
    Optional<Quantity> of(Session session, String result);

    /** By what the sheet itself plans. */
    static Foresight ofPlan(Reducer reducer) {
        return (session, result) -> reducer.planIf(session).quantity(result);
    }
}

package eagerneedle.core.reduce;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Session;
import java.util.Optional;

/** What a result will be, by the plan of a session; empty where nobody can tell. */
@FunctionalInterface
public interface Foresight {
    Optional<Quantity> of(Session session, String result);

    /** False where a quick look says that a change of the bench does nothing for a result; true when in doubt. */
    default boolean promises(Session before, Session after, String result) {
        return true;
    }

    /** By what the sheet itself plans. */
    static Foresight ofPlan(Reducer reducer) {
        return (session, result) -> reducer.planIf(session).quantity(result);
    }
}

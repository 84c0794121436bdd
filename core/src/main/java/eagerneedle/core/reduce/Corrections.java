package eagerneedle.core.reduce;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Session;
import eagerneedle.core.stockroom.Correction;
import java.util.List;

/** Readings put right by what the instruments they were read with turned out to be wrong by. */
final class Corrections {
    private Corrections() {}

    /** Those of a session that concern what somebody read with an instrument that is called so. */
    static List<Correction> of(Session session, String by) {
        return session.corrections().stream().filter(c -> c.concerns(by)).toList();
    }

    /** @throws IllegalArgumentException with one sentence where a correction does not fit the unit */
    static Quantity of(Quantity read, List<Correction> corrections) {
        Quantity q = read;
        for (Correction c : corrections) {
            q = c.of(q);
        }
        return q;
    }
}

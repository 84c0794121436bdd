package eagerneedle.app.workbench;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Quantities that changed and have not been looked at since, and what they were before. */
final class Moved {
    private final Set<Key> changed = new HashSet<>();
    private final Map<Key, Quantity> were = new HashMap<>();

    /** Notes what is new or other in a ledger than in the one before. */
    void between(Ledger before, Ledger now) {
        Map<Key, Optional<Quantity>> old = new HashMap<>();
        before.entries().forEach(e -> old.putIfAbsent(e.key(), e.quantity()));
        for (Ledger.Entry e : now.entries()) {
            Optional<Quantity> was = old.getOrDefault(e.key(), Optional.empty());
            if (e.quantity().isPresent()
                    && (was.isEmpty() || !was.get().sameAs(e.quantity().get()))) {
                changed.add(e.key());
                was.ifPresent(q -> were.putIfAbsent(e.key(), q));
            }
        }
    }

    Set<Key> keys() {
        return changed;
    }

    Optional<Quantity> before(Key key) {
        return Optional.ofNullable(were.get(key));
    }

    /** True where it had changed. */
    boolean lookedAt(Key key) {
        were.remove(key);
        return changed.remove(key);
    }
}

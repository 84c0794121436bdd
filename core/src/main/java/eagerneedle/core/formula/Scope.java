package eagerneedle.core.formula;

import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/** What a formula can see while it is evaluated. */
public interface Scope {
    /** The value of a name, or empty if the name is not known. */
    Optional<Value> lookup(String name);

    /** All names, for suggestions. */
    Collection<String> names();

    /** Identity of the formula within the session; leaves it creates are named after it. */
    String origin();

    /** What the origin is called in budgets, for instance "run 12". */
    String label();

    /** True while the predicted budget is computed: fits then carry stated uncertainties instead of residual scatter. */
    boolean planning();

    /** The window of that name on a trace, or empty if there is none. */
    Optional<Window> window(String name, Trace trace);

    /** A scope with no names in it, for formulas that stand alone. */
    static Scope empty(String origin) {
        return new Scope() {
            @Override
            public Optional<Value> lookup(String name) {
                return Optional.empty();
            }

            @Override
            public Collection<String> names() {
                return List.of();
            }

            @Override
            public String origin() {
                return origin;
            }

            @Override
            public String label() {
                return origin;
            }

            @Override
            public boolean planning() {
                return false;
            }

            @Override
            public Optional<Window> window(String name, Trace trace) {
                return Optional.empty();
            }
        };
    }
}

package eagerneedle.core.formula;

import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;

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

    /**
     * True while the predicted budget is computed: fits then carry stated uncertainties instead of residual scatter.
     */
    boolean planning();

    /** The window of that name on a trace, or empty if there is none. */
    Optional<Window> window(String name, Trace trace);

    /** The ends of that window on a trace, where these are uncertain; empty where they are not. */
    default Optional<Value.Ends> ends(String name, Trace trace) {
        return Optional.empty();
    }

    /** Takes what a careful reader should know of a value on the way, one sentence; nobody need listen. */
    default void remark(String sentence) {}

    /** A scope with no names in it, for formulas that stand alone. */
    static Scope empty(String origin) {
        return over(origin, Map.of());
    }

    /** A scope with no names in it; what a careful reader should know is handed on. */
    static Scope empty(String origin, Consumer<String> remarks) {
        return over(origin, origin, java.util.List.of(), name -> Optional.empty(), remarks);
    }

    /** A scope with no names in it whose leaves are called by a label. */
    static Scope labelled(String origin, String label) {
        return over(origin, label, java.util.List.of(), name -> Optional.empty(), remark -> {});
    }

    /** A scope over names that are looked up, whose leaves are called by a label. */
    static Scope labelled(
            String origin, String label, Collection<String> names, Function<String, Optional<Value>> lookup) {
        return over(origin, label, names, lookup, remark -> {});
    }

    /** A scope over these values. */
    static Scope over(String origin, Map<String, Value> values) {
        return over(origin, values.keySet(), name -> Optional.ofNullable(values.get(name)));
    }

    /** A scope without windows over names that are looked up. */
    static Scope over(String origin, Collection<String> names, Function<String, Optional<Value>> lookup) {
        return over(origin, origin, names, lookup, remark -> {});
    }

    private static Scope over(
            String origin,
            String label,
            Collection<String> names,
            Function<String, Optional<Value>> lookup,
            Consumer<String> remarks) {
        return new Scope() {
            @Override
            public void remark(String sentence) {
                remarks.accept(sentence);
            }

            @Override
            public Optional<Value> lookup(String name) {
                return lookup.apply(name);
            }

            @Override
            public Collection<String> names() {
                return names;
            }

            @Override
            public String origin() {
                return origin;
            }

            @Override
            public String label() {
                return label;
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

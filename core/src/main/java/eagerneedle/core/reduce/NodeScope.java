package eagerneedle.core.reduce;

import eagerneedle.core.formula.Constants;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;

/** What the formula of one graph node sees: names of its run first, then those of the session. */
final class NodeScope implements Scope {
    /**
     * Something the formula needs has no value; the message is that thing's own reason. It is caught where the formula
     * is worked out, and thrown so often that it does without a trace of where.
     */
    static final class Missing extends RuntimeException {
        private static final long serialVersionUID = 1;

        Missing(String reason) {
            super(reason, null, false, false);
        }

        @Override
        public String getMessage() {
            return Objects.requireNonNull(super.getMessage());
        }
    }

    private final Key key;
    private final Map<String, Key> local;
    private final Function<String, Key> global;
    private final Function<Key, Outcome> look;
    private final boolean planning;
    private final List<String> remarks = new ArrayList<>();

    NodeScope(
            Key key,
            Map<String, Key> local,
            Function<String, Key> global,
            Function<Key, Outcome> look,
            boolean planning) {
        this.key = key;
        this.local = local;
        this.global = global;
        this.look = look;
        this.planning = planning;
    }

    @Override
    public Optional<Value> lookup(String name) {
        Outcome o = look.apply(keyOf(name));
        // A name of the sheet goes before a constant of nature.
        if (o.problem() != null && isUnknown(o) && Constants.has(name)) {
            return Optional.empty();
        }
        if (o.problem() != null) {
            Optional<Value> part = isUnknown(o) ? part(name) : Optional.empty();
            return Optional.of(part.orElseThrow(() -> new Missing(o.why())));
        }
        return Optional.of(o.there());
    }

    private Key keyOf(String name) {
        return local.containsKey(name) ? local.get(name) : global.apply(name);
    }

    /** Part of a fit: {@code fall_line.slope}. */
    private Optional<Value> part(String name) {
        int dot = name.lastIndexOf('.');
        if (dot < 0) {
            return Optional.empty();
        }
        Outcome whole = look.apply(keyOf(name.substring(0, dot)));
        if (!(whole.value() instanceof Value.Fitted f)) {
            if (whole.problem() == null) {
                throw new FormulaException(
                        0,
                        name.substring(0, dot) + " is " + whole.there().described() + " and has no "
                                + name.substring(dot + 1) + ".");
            }
            return isUnknown(whole) ? Optional.empty() : missing(whole);
        }
        String part = name.substring(dot + 1);
        int k = f.fit().names().indexOf(part);
        if (k < 0) {
            throw new FormulaException(
                    0,
                    "The fit " + name.substring(0, dot) + " has no " + part
                            + NearName.hint(part, f.fit().names()) + " It has "
                            + String.join(", ", f.fit().names()) + ".");
        }
        return Optional.of(new Value.Scalar(f.fit().parameters().get(k)));
    }

    private static boolean isUnknown(Outcome o) {
        return o.why().startsWith("There is no ");
    }

    private static Optional<Value> missing(Outcome o) {
        throw new Missing(o.why());
    }

    @Override
    public Collection<String> names() {
        return local.keySet();
    }

    @Override
    public String origin() {
        return key.toString();
    }

    @Override
    public String label() {
        return key instanceof Key.OfRun r ? "Run " + r.run() : key.toString();
    }

    @Override
    public void remark(String sentence) {
        if (!remarks.contains(sentence)) {
            remarks.add(sentence);
        }
    }

    List<String> remarks() {
        return remarks;
    }

    @Override
    public boolean planning() {
        return planning;
    }

    @Override
    public Optional<Value.Ends> ends(String name, Trace trace) {
        if (!(key instanceof Key.OfRun r)) {
            return Optional.empty();
        }
        return look.apply(new Key.WindowOf(r.run(), name)).value() instanceof Value.Span s
                        && s.from() != null
                        && s.to() != null
                        && !(s.from().isExact() && s.to().isExact())
                ? Optional.of(new Value.Ends(trace, s.from(), s.to()))
                : Optional.empty();
    }

    @Override
    public Optional<Window> window(String name, Trace trace) {
        if (!(key instanceof Key.OfRun r)) {
            return Optional.empty();
        }
        Outcome o = look.apply(new Key.WindowOf(r.run(), name));
        if (o.problem() != null) {
            throw new Missing(o.problem());
        }
        return Optional.of(((Value.Span) o.there()).window());
    }
}

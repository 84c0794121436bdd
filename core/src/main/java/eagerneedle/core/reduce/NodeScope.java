package eagerneedle.core.reduce;

import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** What the formula of one graph node sees: names of its run first, then those of the session. */
final class NodeScope implements Scope {
    /** Something the formula needs has no value; the message is that thing's own reason. */
    static final class Missing extends RuntimeException {
        private static final long serialVersionUID = 1;

        Missing(String reason) {
            super(reason);
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
        if (name.equals("pi") || name.equals("e")) {
            return Optional.empty();
        }
        Outcome o = look.apply(local.containsKey(name) ? local.get(name) : global.apply(name));
        if (o.problem() != null) {
            throw new Missing(o.problem());
        }
        return Optional.of(o.value());
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
    public Optional<Window> window(String name, Trace trace) {
        if (!(key instanceof Key.OfRun r)) {
            return Optional.empty();
        }
        Outcome o = look.apply(new Key.WindowOf(r.run(), name));
        if (o.problem() != null) {
            throw new Missing(o.problem());
        }
        return Optional.of(((Value.Span) o.value()).window());
    }
}

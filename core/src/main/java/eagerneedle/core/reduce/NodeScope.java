package eagerneedle.core.reduce;

import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** What the formula of one graph node sees: names of its run first, then those of the session. */
final class NodeScope implements Scope {
    /** Something the formula needs has no value; the message is that thing's own reason. */
    static final class Missing extends RuntimeException {
        Missing(String reason) {
            super(reason);
        }
    }

    private final String key;
    private final Map<String, String> local;
    private final Function<String, Outcome> look;
    private final boolean planning;
    private final String runKey;

    NodeScope(String key, Map<String, String> local, Function<String, Outcome> look, boolean planning, String runKey) {
        this.key = key;
        this.local = local;
        this.look = look;
        this.planning = planning;
        this.runKey = runKey;
    }

    @Override
    public Optional<Value> lookup(String name) {
        if (name.equals("pi") || name.equals("e")) {
            return Optional.empty();
        }
        Outcome o = look.apply(local.getOrDefault(name, name));
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
        return key;
    }

    @Override
    public String label() {
        return runKey == null ? key : runKey.replace("run ", "Run ");
    }

    @Override
    public boolean planning() {
        return planning;
    }

    @Override
    public Optional<Window> window(String name, Trace trace) {
        Outcome o = look.apply(runKey + ".window " + name);
        if (o.problem() != null) {
            throw new Missing(o.problem());
        }
        return Optional.of(((Value.Span) o.value()).window());
    }
}

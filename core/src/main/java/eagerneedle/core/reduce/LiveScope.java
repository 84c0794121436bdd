package eagerneedle.core.reduce;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;

/**
 * What a formula sees while a run is captured: a channel's name is its newest value; where a function takes a trace it
 * is all samples so far. {@code t} is the time of the run.
 */
final class LiveScope {
    private static final double GATE_CLOCK = 1e-6;

    private final Sheet sheet;
    private final Capture capture;
    private final Map<String, Value> more;
    private final Set<String> traces = new LinkedHashSet<>();
    /** A condition is looked at many times a second: each chain is made once. */
    private final Map<String, Chain> chains = new ConcurrentHashMap<>();

    /** @param more what else has a name, such as inputs and what the level sets */
    LiveScope(Sheet sheet, Capture capture, Formula formula, Map<String, Value> more) {
        this.sheet = sheet;
        this.capture = capture;
        this.more = Map.copyOf(more);
        traces(formula.expression());
    }

    /** Channels that stand alone in a call are traces to it. */
    private void traces(Expr e) {
        if (e instanceof Expr.Call c) {
            for (Expr.Argument a : c.arguments()) {
                if (a.value() instanceof Expr.Name n && capture.channels().contains(n.name()) && !isPlain(c)) {
                    traces.add(n.name());
                }
                traces(a.value());
            }
        } else if (e instanceof Expr.Infix i) {
            traces(i.left());
            traces(i.right());
        } else if (e instanceof Expr.Prefix p) {
            traces(p.operand());
        }
    }

    private static boolean isPlain(Expr.Call c) {
        return List.of("abs", "sqrt", "ln", "exp", "if", "value", "round", "floor", "ceil", "to")
                .contains(c.function());
    }

    /**
     * Over samples.
     *
     * @param newest the last samples of a channel, one or more
     * @param all everything of a channel so far
     */
    Scope over(Function<String, RawSamples> newest, Function<String, RawSamples> all) {
        return Scope.over("live", capture.channels(), n -> value(n, newest, all));
    }

    private Optional<Value> value(String name, Function<String, RawSamples> newest, Function<String, RawSamples> all) {
        if (name.equals("t")) {
            RawSamples first = newest.apply(capture.channels().get(0));
            return first.size() == 0
                    ? Optional.empty()
                    : Optional.of(new Value.Scalar(Quantity.exact(first.time()[first.size() - 1], LabUnit.SECOND)));
        }
        if (!capture.channels().contains(name)) {
            return Optional.ofNullable(more.get(name));
        }
        Channel channel = sheet.channel(name);
        if (traces.contains(name)) {
            RawSamples raw = all.apply(name);
            Trace trace = new Trace(name, raw.time(), indicated(name, raw), channel.labUnit(), 0, List.of());
            return Optional.of(new Value.Signal(isGate(channel) ? trace.stairs(GATE_CLOCK) : trace));
        }
        RawSamples raw = newest.apply(name);
        return raw.size() == 0
                ? Optional.empty()
                : Optional.of(new Value.Scalar(
                        Quantity.exact(chain(name).indication(raw.values()[raw.size() - 1]), channel.labUnit())));
    }

    private Chain chain(String channel) {
        return chains.computeIfAbsent(channel, c -> sheet.channel(c).toChain());
    }

    private double[] indicated(String channel, RawSamples raw) {
        Chain chain = chain(channel);
        double[] out = new double[raw.size()];
        for (int i = 0; i < out.length; i++) {
            out[i] = chain.indication(raw.values()[i]);
        }
        return out;
    }

    private boolean isGate(Channel channel) {
        return channel.device() != null
                && sheet.devices().containsKey(channel.device())
                && "gate".equals(sheet.devices().get(channel.device()).driver());
    }
}

package eagerneedle.core.reduce;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
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
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * A comparison that is looked at while a run is captured, such as {@code until: "x > 1.5 m"}. A channel's name is its
 * newest value; where a function takes a trace it is all samples so far. {@code t} is the time of the run.
 */
public final class LiveCondition {
    private static final double GATE_CLOCK = 1e-6;

    private final Sheet sheet;
    private final Capture capture;
    private final Formula formula;
    private final Set<String> traces = new LinkedHashSet<>();

    private LiveCondition(Sheet sheet, Capture capture, String text) {
        this.sheet = sheet;
        this.capture = capture;
        this.formula = Formula.parse(text);
        traces(formula.expression());
    }

    /** When a capture is over; empty where its sheet does not say. */
    public static Optional<LiveCondition> until(Sheet sheet, Capture capture) {
        return Optional.ofNullable(capture.until()).map(text -> new LiveCondition(sheet, capture, text));
    }

    /** The condition as the sheet writes it. */
    public String text() {
        return formula.text();
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
     * Whether it holds now.
     *
     * @param newest the last samples of a channel, one or more
     * @param all everything of a channel so far
     * @return false also while it cannot be told yet
     */
    public boolean holds(Function<String, RawSamples> newest, Function<String, RawSamples> all) {
        try {
            Value v = formula.evaluate(Scope.over("live", capture.channels(), n -> value(n, newest, all)));
            return v instanceof Value.Truth t && t.holds();
        } catch (FormulaException | IllegalArgumentException notYet) {
            return false;
        }
    }

    private Optional<Value> value(String name, Function<String, RawSamples> newest, Function<String, RawSamples> all) {
        if (name.equals("t")) {
            RawSamples first = newest.apply(capture.channels().get(0));
            return first.size() == 0
                    ? Optional.empty()
                    : Optional.of(new Value.Scalar(Quantity.exact(first.time()[first.size() - 1], LabUnit.SECOND)));
        }
        if (!capture.channels().contains(name)) {
            return Optional.empty();
        }
        Channel channel = sheet.channels().get(name);
        if (traces.contains(name)) {
            RawSamples raw = all.apply(name);
            Trace trace = new Trace(name, raw.time(), indicated(channel, raw), channel.labUnit(), 0, List.of());
            return Optional.of(new Value.Signal(isGate(channel) ? trace.stairs(GATE_CLOCK) : trace));
        }
        RawSamples raw = newest.apply(name);
        return raw.size() == 0
                ? Optional.empty()
                : Optional.of(new Value.Scalar(
                        Quantity.exact(channel.toChain().indication(raw.values()[raw.size() - 1]), channel.labUnit())));
    }

    private static double[] indicated(Channel channel, RawSamples raw) {
        var chain = channel.toChain();
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

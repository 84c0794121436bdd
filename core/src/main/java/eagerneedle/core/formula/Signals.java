package eagerneedle.core.formula;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Pointwise;
import eagerneedle.core.trace.Trace;
import java.util.function.BinaryOperator;

/** Operators between traces, and between a trace and a quantity. */
final class Signals {
    private Signals() {}

    /** The trace of a value, which must not have been cut at uncertain moments. */
    static Trace whole(Value.Signal s, Expr at) {
        if (s.ends() != null) {
            throw new FormulaException(
                    at.column(),
                    "A trace that was cut at uncertain moments cannot be reckoned with; reckon first, then cut.");
        }
        return s.trace();
    }

    static Value of(Evaluator evaluator, Value a, Value b, Expr.Infix at, BinaryOperator<Quantity> op) {
        String name = Spelling.of(at);
        if (a instanceof Value.Signal x && b instanceof Value.Signal y) {
            Trace first = whole(x, at.left());
            Trace second = whole(y, at.right());
            if (!Pointwise.share(first, second)) {
                evaluator
                        .scope()
                        .remark(second.name() + " was read between its samples, on the clock of " + first.name() + ".");
            }
            return new Value.Signal(Pointwise.of(name, first, second, op));
        }
        return a instanceof Value.Signal x
                ? new Value.Signal(Pointwise.of(name, whole(x, at.left()), Evaluator.scalar(b, at.right()), false, op))
                : new Value.Signal(Pointwise.of(
                        name, whole((Value.Signal) b, at.right()), Evaluator.scalar(a, at.left()), true, op));
    }
}

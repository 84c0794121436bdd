package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.Optional;

/**
 * What became of one node of the graph: a value, or one sentence that says why there is none.
 *
 * @param value   null if there is a problem
 * @param problem null if there is a value
 */
public record Outcome(Value value, String problem) {
    public static Outcome of(Value value) {
        return new Outcome(value, null);
    }

    public static Outcome of(Quantity q) {
        return of(new Value.Scalar(q));
    }

    public static Outcome problem(String sentence) {
        return new Outcome(null, sentence);
    }

    public Optional<Quantity> quantity() {
        return value instanceof Value.Scalar s ? Optional.of(s.quantity()) : Optional.empty();
    }
}

package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Optional;

/**
 * What became of one node of the graph: a value, or one sentence that says why there is none.
 *
 * @param value null if there is a problem
 * @param problem null if there is a value
 * @param remarks what a careful reader should know of it, one sentence each
 */
public record Outcome(Value value, String problem, List<String> remarks) {
    public Outcome {
        remarks = List.copyOf(remarks);
    }

    public static Outcome of(Value value) {
        return new Outcome(value, null, List.of());
    }

    public static Outcome of(Quantity q) {
        return of(new Value.Scalar(q));
    }

    public static Outcome problem(String sentence) {
        return new Outcome(null, sentence, List.of());
    }

    Outcome with(List<String> said) {
        return said.isEmpty() ? this : new Outcome(value, problem, said);
    }

    public Optional<Quantity> quantity() {
        return value instanceof Value.Scalar s ? Optional.of(s.quantity()) : Optional.empty();
    }
}

package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What became of one node of the graph: a value, or one sentence that says why there is none.
 *
 * @param value null if there is a problem
 * @param problem null if there is a value
 * @param remarks what a careful reader should know of it, one sentence each
 */
public record Outcome(@Nullable Value value, @Nullable String problem, List<String> remarks) {
    public Outcome {
        remarks = List.copyOf(remarks);
    }

    /** The value, where it is known that there is one. */
    Value there() {
        return Objects.requireNonNull(value, problem);
    }

    /** The problem, where it is known that there is one. */
    String why() {
        return Objects.requireNonNull(problem);
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

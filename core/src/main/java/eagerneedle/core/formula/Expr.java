package eagerneedle.core.formula;

import eagerneedle.core.quantity.Reading;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The syntax tree of a formula. Every node knows the 1-based column of its first character. */
public sealed interface Expr {
    int column();

    /** A written quantity, such as {@code 9.8123(4) m/s^2}. */
    record Literal(Reading reading, String text, int column) implements Expr {}

    record Text(String text, int column) implements Expr {}

    /** A name; a dotted name such as {@code slopes.a} stands for a column over runs. */
    record Name(String name, int column) implements Expr {}

    /** A prefix {@code -}, {@code +} or {@code not}. */
    record Prefix(String op, Expr operand, int column) implements Expr {}

    /** One of {@code + - * / ^ < <= > >= and or}. */
    record Infix(String op, Expr left, Expr right, int column) implements Expr {}

    record Call(String function, List<Argument> arguments, int column) implements Expr {}

    /** An argument; {@code name} is null for one given by position. */
    record Argument(@Nullable String name, Expr value) {}
}

package eagerneedle.core.arithmetic;

import eagerneedle.core.formula.Elementary;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One value of a program.
 *
 * @param kind where it comes from
 * @param number the value of a constant
 * @param input index of the scalar or column it is
 * @param op what it is computed by
 * @param function the function of {@link Op#FUNCTION} and {@link Op#SLOPE}
 * @param a index of its first operand among the nodes
 * @param b index of its second operand
 * @param rows true when it differs from row to row
 */
record Node(
        Kind kind,
        double number,
        int input,
        @Nullable Op op,
        @Nullable Elementary function,
        int a,
        int b,
        boolean rows) {
    /** Where a value comes from. */
    enum Kind {
        CONSTANT,
        SCALAR,
        COLUMN,
        STEP
    }

    static Node constant(double value) {
        return new Node(Kind.CONSTANT, value, -1, null, null, -1, -1, false);
    }

    static Node scalar(int index) {
        return new Node(Kind.SCALAR, 0, index, null, null, -1, -1, false);
    }

    static Node column(int index) {
        return new Node(Kind.COLUMN, 0, index, null, null, -1, -1, true);
    }

    static Node step(Op op, @Nullable Elementary function, int a, int b, boolean rows) {
        return new Node(Kind.STEP, 0, -1, op, function, a, b, rows);
    }

    /** What a step does. */
    Op does() {
        return Objects.requireNonNull(op);
    }

    /** The function that a step works out, or whose slope. */
    Elementary of() {
        return Objects.requireNonNull(function);
    }

    boolean isConstant(double value) {
        return kind == Kind.CONSTANT && number == value;
    }
}

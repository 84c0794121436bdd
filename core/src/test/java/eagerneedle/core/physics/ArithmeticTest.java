package eagerneedle.core.physics;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.function.BinaryOperator;
import java.util.function.DoubleBinaryOperator;
import org.junit.jupiter.api.Test;

/** Compiled operations are the operations themselves, whichever side never changes. */
class ArithmeticTest {
    private static final double[] NUMBERS = {0.1, -3, 1e-7, 0, 7.5};

    private static void isThe(DoubleBinaryOperator plain, BinaryOperator<Code> compiled) {
        // A moment is looked at by what changes only, and these do not look at it.
        Moment any = null;
        for (double x : NUMBERS) {
            for (double y : NUMBERS) {
                double wanted = plain.applyAsDouble(x, y);
                Code[] left = {new Arithmetic.Constant(x), m -> x};
                Code[] right = {new Arithmetic.Constant(y), m -> y};
                for (Code a : left) {
                    for (Code b : right) {
                        assertThat(compiled.apply(a, b).at(any)).isEqualTo(Double.valueOf(wanted));
                    }
                }
            }
        }
    }

    @Test
    void eachIsThePlainOne() {
        isThe((x, y) -> x + y, Arithmetic::sum);
        isThe((x, y) -> x - y, Arithmetic::difference);
        isThe((x, y) -> x * y, Arithmetic::product);
        isThe((x, y) -> x / y, Arithmetic::quotient);
    }
}

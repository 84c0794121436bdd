package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

/** Influences of one pool count together, one that is alone in its pool by itself. */
class PoolsTest {
    @Test
    void theLargestBelievableErrorTakesEachPoolOnce() {
        Leaf alone = Leaf.typeB("a", "a", "test", Distribution.RECTANGULAR);
        Leaf one = Leaf.typeA("b", "b", "test", 4).inPool("p");
        Leaf two = Leaf.typeA("c", "c", "test", 4).inPool("p");
        Quantity q =
                Quantity.exact(5, LabUnit.ONE).with(alone, -0.3).with(one, 0.1).with(two, 0.2);
        assertThat(q.limit())
                .isCloseTo(0.3 * alone.limitFactor() + one.limitFactor() * Math.sqrt(0.01 + 0.04), within(1e-14));
    }
}

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

    @Test
    void whatWasSeenTogetherCountsTogetherInDegreesOfFreedom() {
        String[] readings = {"1", "2"};
        double[] residuals = {1, 0};
        // Directions whose product is 0.6.
        Leaf one = Leaf.typeA("b", "b", "test", 4)
                .inPool("p")
                .seenIn(new Seen("g", readings, new double[] {1, 0}, residuals));
        Leaf two = Leaf.typeA("c", "c", "test", 4)
                .inPool("p")
                .seenIn(new Seen("g", readings, new double[] {0.6, 0.8}, residuals));
        Leaf other = Leaf.typeA("d", "d", "test", 10);
        Quantity q =
                Quantity.exact(5, LabUnit.ONE).with(one, 0.1).with(two, 0.2).with(other, 0.15);
        double pool = 0.01 + 0.04 + 2 * 0.6 * 0.1 * 0.2;
        double rest = 0.0225;
        assertThat(q.u() * q.u()).isCloseTo(pool + rest, within(1e-14));
        // Welch and Satterthwaite, of two independent variances with 4 and 10 degrees of freedom.
        assertThat(q.dof())
                .isCloseTo((pool + rest) * (pool + rest) / (pool * pool / 4 + rest * rest / 10), within(1e-9));
        assertThat(q.limit())
                .isCloseTo(one.limitFactor() * Math.sqrt(pool) + 0.15 * other.limitFactor(), within(1e-12));
    }
}

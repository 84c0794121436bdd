package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** What is called straight needs no draws: then the draws must say the same as first order. */
class StraightnessTest {
    private static Quantity input(String id, double value, double u, Distribution shape) {
        return Quantity.of(value, u, LabUnit.ONE, Leaf.typeB(id, id, "test", shape));
    }

    @Test
    void aSumIsStraightAndASmallUncertaintyBendsNothing() {
        Quantity a = input("a", 2, 0.02, Distribution.NORMAL);
        Quantity b = input("b", 3, 0.01, Distribution.NORMAL);
        assertThat(Straightness.of(a.plus(b))).isTrue();
        assertThat(Straightness.of(input("a", 2, 0.002, Distribution.NORMAL).times(b.power(2))))
                .isTrue();
    }

    @Test
    void whatBendsWithinItsUncertaintyIsNotStraight() {
        Quantity a = input("a", 2, 0.6, Distribution.NORMAL);
        assertThat(Straightness.of(a.power(2))).isFalse();
        assertThat(Straightness.of(Quantity.number(1).dividedBy(a))).isFalse();
        assertThat(Straightness.of(a.times(input("b", 3, 0.9, Distribution.NORMAL))))
                .isFalse();
        assertThat(Straightness.of(input("zero", 0, 0.1, Distribution.NORMAL).power(2)))
                .as("flat where it stands")
                .isFalse();
    }

    @Test
    void aFewReadingsReachFar() {
        Leaf three = Leaf.typeA("three", "three readings", "test", 2);
        Quantity few = Quantity.of(2, 0.02, LabUnit.ONE, three);
        assertThat(Straightness.of(few.power(2)))
                .as("Student's t with 2 degrees of freedom")
                .isFalse();
    }

    /** The check of JCGM 101 finds first order good enough wherever this says so. */
    @Test
    void noneThatIsCalledStraightWouldFailTheCheck() {
        SplittableRandom random = new SplittableRandom(11);
        int straight = 0;
        int bent = 0;
        for (int trial = 0; trial < 60; trial++) {
            double share = Math.pow(10, -3 + 2.7 * random.nextDouble());
            Quantity a = input("a" + trial, 1 + random.nextDouble(), share, Distribution.NORMAL);
            Quantity b = input("b" + trial, 2 + random.nextDouble(), 2 * share, Distribution.NORMAL);
            Quantity q = switch (trial % 3) {
                case 0 -> a.power(2).dividedBy(b);
                case 1 -> a.times(b);
                default -> Quantity.number(1).dividedBy(a).plus(b.power(3));
            };
            if (Straightness.of(q)) {
                straight++;
                assertThat(MonteCarlo.of(q, Coverage.DEFAULT, MonteCarlo.Settings.QUICK)
                                .firstOrderIsGoodEnough())
                        .as("share %s", share)
                        .isTrue();
            } else {
                bent++;
            }
        }
        assertThat(straight).isGreaterThan(10);
        assertThat(bent).isGreaterThan(10);
    }
}

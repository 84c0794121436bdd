package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

/** Budgets: lines by label, largest first, and what halving one does. */
class BudgetTest {
    private static final LabUnit MM = LabUnit.parse("mm");

    private static Quantity part(String id, String label, double u) {
        return Quantity.of(0, u, MM, Leaf.typeB(id, label, "test", Distribution.NORMAL));
    }

    @Test
    void leavesOfOneLabelStandInOneLine() {
        Quantity q = part("a1", "rule", 0.3).plus(part("a2", "rule", 0.4)).plus(part("b", "parallax", 0.2));
        Budget b = Budget.of(q);
        assertThat(b.lines()).extracting(Budget.Line::label).containsExactly("rule", "parallax");
        assertThat(b.lines().get(0).contribution()).isCloseTo(0.5, within(1e-12));
        assertThat(b.lines().get(0).share()).isCloseTo(0.25 / 0.29, within(1e-12));
        assertThat(b.lines().stream().mapToDouble(Budget.Line::share).sum()).isCloseTo(1, within(1e-12));
    }

    @Test
    void halvingALineIsWhatComputingItAgainGives() {
        Quantity rest = part("b", "parallax", 0.2);
        Budget.Line line = Budget.of(part("a", "rule", 0.5).plus(rest)).lines().get(0);
        assertThat(line.combinedIfHalved(Math.hypot(0.5, 0.2)))
                .isCloseTo(part("a", "rule", 0.25).plus(rest).u(), within(1e-12));
        assertThat(Budget.of(part("a", "rule", 0.5).plus(rest)).halveLargest())
                .isEqualTo("Halve rule and u falls from 0.54 mm to 0.32 mm.");
        assertThat(Budget.of(Quantity.exact(1, MM)).halveLargest()).isEqualTo("Nothing about it is uncertain.");
    }

    @Test
    void aLineOfRepeatsIsTypeAWithItsDegreesOfFreedom() {
        Quantity q = part("b", "rule", 0.1).with(Leaf.typeA("r", "repeats", "test", 4), 0.3);
        Budget.Line top = Budget.of(q).lines().get(0);
        assertThat(top.type()).isEqualTo(Leaf.Type.A);
        assertThat(top.dof()).isCloseTo(4, within(1e-9));
        assertThat(q.dof()).isCloseTo(4 * 0.01 / 0.0081, within(1e-9));
    }

    @Test
    void shapesAndIntervalsRefuseWhatTheyCannotBe() {
        assertThatThrownBy(() -> Shape.trapezoidal(1.5)).hasMessageContaining("between 0 and 1");
        assertThatThrownBy(() -> Shape.inexactLimits(-1)).hasMessageContaining("between 0 and 1");
        assertThatThrownBy(() -> Shape.count(-1)).hasMessageContaining("cannot be");
        assertThatThrownBy(() -> new Interval(2, 1)).hasMessageContaining("upwards");
        assertThatThrownBy(() -> new MonteCarlo.Settings(1, 10, 20, 1)).hasMessageContaining("draws");
        assertThat(Shape.of(Distribution.RECTANGULAR).withLimitFactor(2).limitFactor())
                .isEqualTo(2);
    }
}

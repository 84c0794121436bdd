package eagerneedle.core.judge;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class RepeatedTest {
    private static final LabUnit METRE = LabUnit.parse("m");

    /** A value with noise of its own and a scale factor that all share. */
    private static Quantity value(int i, double v, double own, double scale) {
        Quantity q = Quantity.exact(v, METRE).with(Leaf.typeA("own" + i, "own", "run " + i, 20), own);
        return scale == 0 ? q : q.with(Leaf.typeA("scale", "scale", "ruler", Double.POSITIVE_INFINITY), scale * v);
    }

    @Test
    void valuesAreWeightedByWhatEachHasOfItsOwnAndWhatTheyShareStays() {
        Repeated r = Repeated.of(List.of(value(1, 1.000, 0.010, 0.05), value(2, 1.012, 0.020, 0.05)), "r");
        double mean = (1.000 / 1e-4 + 1.012 / 4e-4) / (1 / 1e-4 + 1 / 4e-4);
        assertThat(r.mean().value()).isCloseTo(mean, within(1e-12));
        assertThat(r.mean().u()).isCloseTo(Math.hypot(1 / Math.sqrt(1 / 1e-4 + 1 / 4e-4), 0.05 * mean), within(1e-12));
        assertThat(r.overdispersed()).isFalse();
        assertThat(r.birge()).isCloseTo(0.012 / Math.hypot(0.01, 0.02), within(1e-9));
    }

    /** Peelle's puzzle: 1.5 and 1.0 with a common scale of a fifth must not give a mean below both. */
    @Test
    void aCommonScaleDoesNotPullTheMeanOutOfItsValues() {
        Repeated r = Repeated.of(List.of(value(1, 1.5, 0.15, 0.2), value(2, 1.0, 0.10, 0.2)), "r");
        assertThat(r.mean().value()).isBetween(1.0, 1.5);
        assertThat(Routes.of(List.of("a", "b"), List.of(value(1, 1.5, 0.15, 0.2), value(2, 1.0, 0.10, 0.2)))
                        .mean()
                        .value())
                .as("as the whole covariance would have it")
                .isLessThan(1.0);
    }

    @Test
    void valuesThatDifferByMoreThanTheySayHaveThePlainMeanWithTheirScatter() {
        Repeated r = Repeated.of(
                List.of(value(1, 1.0, 0.001, 0.01), value(2, 1.2, 0.002, 0.01), value(3, 1.1, 0.001, 0.01)), "r");
        assertThat(r.overdispersed()).isTrue();
        assertThat(r.birge()).isGreaterThan(20);
        assertThat(r.mean().value()).isCloseTo(1.1, within(1e-12));
        assertThat(r.mean().u()).isCloseTo(Math.hypot(0.1 / Math.sqrt(3), 0.011), within(1e-9));
        assertThat(r.mean().dof()).isBetween(2.0, 2.2);
    }

    @Test
    void theStatedIntervalCoversTheTruthWhetherRunsScatterOrNot() {
        Random random = new Random(8);
        for (double between : new double[] {0, 0.05}) {
            int inside = 0;
            for (int k = 0; k < 2000; k++) {
                double scale = 1 + 0.003 * random.nextGaussian();
                List<Quantity> runs = new ArrayList<>();
                for (int i = 0; i < 4; i++) {
                    runs.add(value(
                            i,
                            scale * (2 + between * random.nextGaussian()) + 0.004 * random.nextGaussian(),
                            0.004,
                            0.003));
                }
                Quantity m = Repeated.of(runs, "r").mean();
                inside += Math.abs(m.value() - 2) <= eagerneedle.core.quantity.Coverage.DEFAULT.expanded(m) ? 1 : 0;
            }
            assertThat(inside / 2000.0).as("runs that differ by " + between).isBetween(0.93, 0.97);
        }
    }

    @Test
    void oneValueAloneIsNotTakenTogetherAndOneWithoutItsOwnUncertaintyIsNotPreferred() {
        assertThatThrownBy(() -> Repeated.of(List.of(value(1, 1, 0.1, 0)), "r"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("At least two");
        Repeated r = Repeated.of(List.of(Quantity.exact(1.0, METRE), Quantity.exact(1.2, METRE)), "r");
        assertThat(r.mean().value()).isCloseTo(1.1, within(1e-12));
        assertThat(r.birge()).isNaN();
        assertThat(r.mean().u()).isCloseTo(0.1, within(1e-12));
    }
}

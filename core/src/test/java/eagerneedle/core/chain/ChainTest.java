package eagerneedle.core.chain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import java.util.List;
import org.junit.jupiter.api.Test;

class ChainTest {
    private static final LabUnit M = LabUnit.parse("m");
    private static final LabUnit MS = LabUnit.parse("ms");
    private static final LabUnit V = LabUnit.parse("V");
    private static final LabUnit DEG = LabUnit.parse("degC");

    private final Chain ranger = new Chain(List.of(new Stage("sensor", "echo", M, MS, 5.831, 0, 0.15, 4)), new Converter("timer", MS, 0.004, 14));
    private final Chain amplified = new Chain(List.of(new Stage("sensor", "pair", DEG, V, 40e-6, -0.0002, -200, 1200), new Stage("conditioner", "amplifier", V, V, -200, 0.01, -0.02, 0.02)),
            new Converter("converter", V, 0.0002, 13));

    @Test
    void countsAndBackAgreeToHalfAStep() {
        for (double x = 0.2; x < 4; x += 0.0137) {
            assertThat(ranger.indication(ranger.counts(x))).isCloseTo(x, within(ranger.step() / 2 + 1e-12));
        }
    }

    @Test
    void backwardsUndoesForwardsThroughAllStages() {
        for (double count = 0; count < 8191; count += 97) {
            double t = amplified.indication(count);
            double v = t;
            for (Stage s : amplified.stages()) {
                v = s.forward(v);
            }
            assertThat(v).isCloseTo(count * 0.0002, within(1e-12));
        }
    }

    @Test
    void theStepShownIsTheStepFoundBySweeping() {
        double last = ranger.counts(1.0);
        double first = Double.NaN;
        double second = Double.NaN;
        for (double x = 1.0; Double.isNaN(second); x += 1e-6) {
            double c = ranger.counts(x);
            if (c != last) {
                second = Double.isNaN(first) ? Double.NaN : x;
                first = Double.isNaN(first) ? x : first;
                last = c;
            }
        }
        assertThat(second - first).isCloseTo(ranger.step(), within(3e-6));
    }

    @Test
    void reachIsTheNarrowerOfRailsAndLimits() {
        assertThat(ranger.reach()).containsExactly(new double[] {0.15, 4}, within(1e-12));
        double[] reach = amplified.reach();
        assertThat(reach[0]).isBetween(-200.0, 1200.0);
        assertThat(reach[1]).isGreaterThan(reach[0]);
        double top = amplified.indication(8191);
        double bottom = amplified.indication(0);
        assertThat(reach[0]).isCloseTo(Math.max(-200, Math.max(Math.min(top, bottom), (-0.02 + 0.0002) / 40e-6)), within(1e-9));
        assertThat(reach[1]).isCloseTo(Math.min(Math.max(top, bottom), (0.02 + 0.0002) / 40e-6), within(1e-9));
    }

    @Test
    void theConverterHoldsAtItsRails() {
        assertThat(ranger.counts(-5)).isZero();
        assertThat(ranger.counts(1e6)).isEqualTo(16383);
        assertThat(ranger.converter().highestCount()).isEqualTo(16383);
    }

    @Test
    void impossibleStagesAreRefused() {
        assertThatThrownBy(() -> new Stage("sensor", "dead", M, V, 0, 0, 0, 1)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Stage("sensor", "narrow", M, V, 1, 0, 1, 1)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Converter("c", V, 0, 12)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Converter("c", V, 1, 64)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Chain(List.of(), new Converter("c", V, 1, 8))).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void transfersAreWrittenWithTheirUnits() {
        assertThat(ranger.stages().get(0).transfer()).isEqualTo("5.831 ms/m");
        assertThat(ranger.converter().transfer()).isEqualTo("0.004 ms a step, 14 bit");
        assertThat(amplified.stages().get(1).transfer()).contains("−200").contains("+ 0.01 V");
    }
}

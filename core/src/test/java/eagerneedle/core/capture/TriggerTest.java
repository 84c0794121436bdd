package eagerneedle.core.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.junit.jupiter.api.Test;

class TriggerTest {
    private static int first(Trigger t, double... v) {
        for (int i = 0; i < v.length; i++) {
            if (t.fires(i * 0.1, v[i])) {
                return i;
            }
        }
        return -1;
    }

    @Test
    void aLevelFiresWhenItIsPassedTheRightWay() {
        assertThat(first(Trigger.level(1, Trigger.Way.UP, 0.1), 0, 0.5, 1.2, 2)).isEqualTo(2);
        assertThat(first(Trigger.level(1, Trigger.Way.UP, 0.1), 3, 2, 0.5, 0, 1.5))
                .isEqualTo(4);
        assertThat(first(Trigger.level(1, Trigger.Way.DOWN, 0.1), 0, 3, 2, 0.5)).isEqualTo(3);
        assertThat(first(Trigger.level(1, Trigger.Way.EITHER, 0.1), 3, 2, 0.5)).isEqualTo(2);
        assertThat(first(Trigger.level(1, Trigger.Way.UP, 0.1), 2, 3, 4))
                .as("it stood above from the start")
                .isEqualTo(-1);
        assertThat(first(Trigger.level(1, Trigger.Way.UP, 0.1), 0, Double.NaN, 2))
                .as("what is no number is passed over")
                .isEqualTo(2);
    }

    @Test
    void noiseAboutTheLevelDoesNotFire() {
        Random random = new Random(1);
        int early = 0;
        for (int trial = 0; trial < 200; trial++) {
            Trigger t = Trigger.level(1, Trigger.Way.UP, 0.5);
            boolean fired = false;
            for (int i = 0; i < 500; i++) {
                fired |= t.fires(i * 0.01, 1.05 + 0.05 * random.nextGaussian());
            }
            early += fired ? 1 : 0;
        }
        assertThat(early).isZero();
    }

    @Test
    void aSlopeFiresWhereItIsSteep() {
        double[] v = new double[100];
        for (int i = 0; i < 100; i++) {
            v[i] = i < 50 ? 0.01 * i : 0.5 - 0.3 * (i - 50);
        }
        assertThat(first(Trigger.slope(1, Trigger.Way.DOWN, 1), v)).isEqualTo(51);
        assertThat(first(Trigger.slope(1, Trigger.Way.UP, 1), v)).isEqualTo(-1);
        assertThat(first(Trigger.slope(0.05, Trigger.Way.UP, 5), v)).isEqualTo(5);
        assertThat(first(Trigger.slope(2.9, Trigger.Way.EITHER, 5), v))
                .as("over five samples the break is passed first")
                .isEqualTo(55);
        assertThatThrownBy(() -> Trigger.slope(-1, Trigger.Way.UP, 1)).hasMessageContaining("above 0");
    }
}

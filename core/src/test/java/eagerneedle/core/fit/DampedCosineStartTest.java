package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

/** Where a damped cosine starts: near the truth, whether its points are evenly spaced or not. */
class DampedCosineStartTest {
    private static double[] start(double uneven) {
        double[] x = new double[400];
        double[] y = new double[400];
        for (int i = 0; i < x.length; i++) {
            x[i] = 0.01 * (i + (i % 2 == 0 ? 0 : uneven));
            y[i] = 3 + 2 * Math.exp(-x[i] / 1.5) * Math.cos(2 * Math.PI * x[i] / 0.31 + 0.4);
        }
        return DampedCosineStart.of(x, y);
    }

    @Test
    void theStartIsNearTheTruthByEitherWay() {
        for (double uneven : new double[] {0, 1e-4}) {
            double[] s = start(uneven);
            assertThat(s[0]).as("level").isCloseTo(3, within(0.01));
            assertThat(s[1]).as("amplitude").isCloseTo(2, within(0.05));
            assertThat(s[2]).as("decay").isCloseTo(1.5, within(0.25));
            assertThat(s[3]).as("period").isCloseTo(0.31, within(0.001));
            assertThat(s[4]).as("phase").isCloseTo(0.4, within(0.05));
        }
    }
}

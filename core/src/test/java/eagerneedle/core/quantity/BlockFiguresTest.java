package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.SplittableRandom;
import java.util.function.DoubleUnaryOperator;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

/** The ends of a block are those of the block in order, whatever its draws look like. */
class BlockFiguresTest {
    private static final DoubleUnaryOperator[] SHAPES = {
        z -> z,
        z -> Math.tan(1.5 * Math.tanh(z)) + 1e6,
        z -> Math.exp(3 * z),
        z -> -Math.exp(3 * z),
        z -> Math.signum(z),
        z -> Math.sin(3 * z),
        z -> 7,
        z -> z > 2.2 ? 1e9 : 0,
        z -> Math.rint(2 * z),
    };

    @Test
    void endsAreThoseOfTheDrawsInOrder() {
        SplittableRandom random = new SplittableRandom(5);
        for (DoubleUnaryOperator shape : SHAPES) {
            for (int n : new int[] {2, 3, 19, 20, 40, 137, 10_000}) {
                for (double probability : new double[] {0.68, 0.95, 0.99}) {
                    double[] block = new double[n];
                    Arrays.setAll(block, i -> shape.applyAsDouble(random.nextGaussian()));
                    double[] before = block.clone();
                    BlockFigures figures = BlockFigures.of(block, new Coverage(probability), new double[n + 3]);
                    double[] sorted = block.clone();
                    Arrays.sort(sorted);
                    assertThat(figures.low()).isEqualTo(quantile(sorted, (1 - probability) / 2));
                    assertThat(figures.high()).isEqualTo(quantile(sorted, 1 - (1 - probability) / 2));
                    assertThat(block).isEqualTo(before);
                }
            }
        }
    }

    @Test
    void meanAndSpread() {
        BlockFigures figures = BlockFigures.of(new double[] {2, 4, 4, 4, 5, 5, 7, 9}, Coverage.DEFAULT, new double[8]);
        assertThat(figures.mean()).isEqualTo(5);
        assertThat(figures.sd()).isEqualTo(Math.sqrt(32.0 / 7), Offset.offset(1e-15));
        assertThat(BlockFigures.of(new double[] {3}, Coverage.DEFAULT, new double[1])
                        .mean())
                .isNaN();
    }

    private static double quantile(double[] sorted, double p) {
        double at = p * sorted.length - 0.5;
        if (at < 0) {
            return sorted[0];
        }
        int k = Math.min(sorted.length - 1, (int) at);
        return k + 1 == sorted.length ? sorted[k] : sorted[k] + (at - k) * (sorted[k + 1] - sorted[k]);
    }
}

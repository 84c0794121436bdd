package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import org.junit.jupiter.api.Test;

class ColumnsTest {
    /** The library's Householder decomposition finds the same, also for columns that are nearly alike. */
    @Test
    void findsWhatTheLibraryFinds() {
        SplittableRandom random = new SplittableRandom(4);
        int n = 60;
        double[][] design = new double[n][4];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            double t = i / 10.0;
            design[i] = new double[] {1, Math.cos(t), Math.cos(1.01 * t), t * t};
            y[i] = 3 - 2 * design[i][1] + 0.5 * design[i][2] + 0.1 * design[i][3] + 0.1 * random.nextGaussian();
        }
        double[] found = new QRDecomposition(new Array2DRowRealMatrix(design))
                .getSolver()
                .solve(new ArrayRealVector(y))
                .toArray();
        Columns columns = new Columns(y);
        for (int k = 0; k < 4; k++) {
            columns.add(new Array2DRowRealMatrix(design).getColumn(k));
        }
        for (int k = 0; k < 4; k++) {
            assertThat(columns.coefficients()[k]).isCloseTo(found[k], within(1e-9 * Math.max(1, Math.abs(found[k]))));
        }
    }

    @Test
    void aColumnThatIsTheSumOfOthersAddsNothing() {
        Columns columns = new Columns(new double[] {1, 2, 4});
        columns.add(new double[] {1, 1, 1});
        columns.add(new double[] {0, 1, 2});
        double[] before = columns.coefficients();
        columns.add(new double[] {2, 3, 4});
        assertThat(columns.coefficients()).containsExactly(before[0], before[1], 0);
    }
}

package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.LabUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The search that leaves out what cannot win, against one that leaves out nothing. */
class SegmentationTest {
    private static final int SHORTEST = 5;

    /** Pieces of constant, straight and bent motion, up to 300 samples, with noise; some with a coarse step. */
    private static Trace trace(Random random) {
        int n = 12 + random.nextInt(random.nextInt(10) == 0 ? 250 : 80);
        double noise = Math.pow(10, -3 + 2.5 * random.nextDouble());
        double step = random.nextInt(3) == 0 ? 0.01 : 0;
        double[] t = new double[n];
        double[] v = new double[n];
        double x = 0;
        double speed = 0;
        double bend = 0;
        int left = 0;
        for (int i = 0; i < n; i++) {
            if (left-- <= 0) {
                left = 6 + random.nextInt(60);
                bend = random.nextInt(2) * random.nextGaussian();
                speed = random.nextInt(3) == 0 ? random.nextGaussian() : speed;
                x += random.nextInt(4) == 0 ? random.nextGaussian() : 0;
            }
            speed += 0.05 * bend;
            x += 0.05 * speed;
            t[i] = 0.05 * i;
            double seen = x + noise * random.nextGaussian();
            v[i] = step > 0 ? Math.rint(seen / step) * step : seen;
        }
        return new Trace("x", t, v, LabUnit.parse("m"), step, List.of());
    }

    private static double residualSquares(double[] v, int from, int to, int degree) {
        double[][] rows = new double[to - from][degree + 1];
        for (int i = from; i < to; i++) {
            double z = (i - 0.5 * (from + to - 1)) / (to - from);
            for (int k = 0; k <= degree; k++) {
                rows[i - from][k] = Math.pow(z, k);
            }
        }
        Array2DRowRealMatrix x = new Array2DRowRealMatrix(rows, false);
        ArrayRealVector y = new ArrayRealVector(Arrays.copyOfRange(v, from, to));
        return Math.pow(
                y.subtract(x.operate(new QRDecomposition(x).getSolver().solve(y)))
                        .getNorm(),
                2);
    }

    /** Every way to end at every sample, one after another. */
    private static List<Integer> starts(Trace trace, int degree) {
        double[] v = trace.value();
        int n = v.length;
        double span = Arrays.stream(v).max().orElse(0) - Arrays.stream(v).min().orElse(0);
        double sigma = Math.max(Segmentation.noise(v), Math.max(trace.step() / Math.sqrt(12), 1e-12 * span));
        double penalty = 12 * sigma * sigma * Math.log(n);
        double[] best = new double[n + 1];
        int[] previous = new int[n + 1];
        Arrays.fill(best, Double.POSITIVE_INFINITY);
        best[0] = -penalty;
        for (int end = SHORTEST; end <= n; end++) {
            for (int start = 0; start <= end - SHORTEST; start++) {
                if (best[start] < Double.POSITIVE_INFINITY) {
                    double whole = best[start] + residualSquares(v, start, end, degree) + penalty;
                    if (whole < best[end]) {
                        best[end] = whole;
                        previous[end] = start;
                    }
                }
            }
        }
        List<Integer> starts = new ArrayList<>();
        for (int end = n; end > 0; end = previous[end]) {
            starts.add(previous[end]);
        }
        Collections.reverse(starts);
        return starts;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2})
    void thePiecesAreThoseOfAPlainSearch(int degree) {
        Random random = new Random(40 + degree);
        int several = 0;
        for (int i = 0; i < 30; i++) {
            Trace trace = trace(random);
            List<Segmentation.Piece> found =
                    degree == 1 ? Segmentation.linearPieces(trace) : Segmentation.quadraticPieces(trace);
            assertThat(found.stream().map(Segmentation.Piece::from))
                    .as("trace %d of %d samples", i, trace.size())
                    .isEqualTo(starts(trace, degree));
            several += found.size() > 1 ? 1 : 0;
        }
        assertThat(several).as("traces that have several pieces").isGreaterThan(8);
    }
}

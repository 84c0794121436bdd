package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.SplittableRandom;
import org.hipparchus.linear.MatrixUtils;
import org.junit.jupiter.api.Test;

/** Residuals in the measure of the points' own covariance, against brute force. */
class WeightedResidualsTest {
    private static final NumberedCurve PARABOLA = (i, x, p, g) -> {
        g[0] = 1;
        g[1] = x * x;
        g[2] = 2 * p[1] * x;
        return p[0] + p[1] * x * x;
    };
    private final SplittableRandom random = new SplittableRandom(51);

    private double[] numbers(int n, double from, double to) {
        double[] out = new double[n];
        for (int i = 0; i < n; i++) {
            out[i] = from + (to - from) * random.nextDouble();
        }
        return out;
    }

    /** Least squared distance of one point from the curve in the measure of its 2 by 2 covariance, by a fine search. */
    private static double bruteForce(double x, double y, double[] p, double ux, double uy, double cov) {
        double det = ux * ux * uy * uy - cov * cov;
        double best = Double.POSITIVE_INFINITY;
        for (double xi = x - 6 * ux; xi <= x + 6 * ux; xi += ux * 1e-4) {
            double dx = x - xi;
            double dy = y - p[0] - p[1] * xi * xi;
            best = Math.min(best, (uy * uy * dx * dx - 2 * cov * dx * dy + ux * ux * dy * dy) / det);
        }
        return best;
    }

    @Test
    void aPointIsMeasuredToTheNearestPlaceOfACurvedLaw() {
        double[] x = numbers(12, 0.5, 3);
        double[] p = {1, 0.7};
        double[] y = new double[12];
        double[] ux = numbers(12, 0.02, 0.1);
        double[] uy = numbers(12, 0.02, 0.2);
        double[] cov = new double[12];
        for (int i = 0; i < 12; i++) {
            y[i] = p[0] + p[1] * x[i] * x[i] + 0.1 * random.nextGaussian();
            cov[i] = (i % 3 - 1) * 0.6 * ux[i] * uy[i];
        }
        double[] e = new double[12];
        new WeightedResiduals(PARABOLA, x, y, new Regression.Weights(uy, ux, cov, null), 2)
                .rows(p, e, new double[2][12], null);
        for (int i = 0; i < 12; i++) {
            double least = bruteForce(x[i], y[i], p, ux[i], uy[i], cov[i]);
            assertThat(e[i] * e[i]).as("point " + i).isCloseTo(least, within(1e-4 * (1 + least) + 0.02 * least));
        }
    }

    @Test
    void theDesignGivesTheSlopeOfTheSumOfSquares() {
        double[] x = numbers(9, 0.5, 3);
        double[] y = numbers(9, 1, 6);
        double[] ux = numbers(9, 0.001, 0.02);
        double[] uy = numbers(9, 0.05, 0.2);
        WeightedResiduals w =
                new WeightedResiduals(PARABOLA, x, y, new Regression.Weights(uy, ux, new double[9], null), 2);
        double[] p = {1.3, 0.6};
        double[] e = new double[9];
        double[][] j = new double[2][9];
        w.rows(p, e, j, null);
        for (int k = 0; k < 2; k++) {
            double byDesign = 0;
            for (int i = 0; i < 9; i++) {
                byDesign -= 2 * j[k][i] * e[i];
            }
            double[] up = p.clone();
            double[] down = p.clone();
            up[k] += 1e-6;
            down[k] -= 1e-6;
            double numerical = (w.squares(up) - w.squares(down)) / 2e-6;
            assertThat(byDesign).isCloseTo(numerical, within(0.01 * Math.abs(numerical)));
        }
    }

    @Test
    void aWholeCovarianceMeasuresAllPointsTogether() {
        double[] x = {1, 2, 3};
        double[] y = {2, 3.5, 7.2};
        double[][] v = {{0.2, 0.1, 0.05}, {0.1, 0.3, 0.1}, {0.05, 0.1, 0.4}};
        double[] p = {1, 0.7};
        WeightedResiduals w =
                new WeightedResiduals(PARABOLA, x, y, new Regression.Weights(null, null, null, slopes -> v), 2);
        w.whiten(p);
        double[] r = new double[3];
        for (int i = 0; i < 3; i++) {
            r[i] = y[i] - p[0] - p[1] * x[i] * x[i];
        }
        double chi = MatrixUtils.createRealVector(r)
                .dotProduct(
                        MatrixUtils.inverse(MatrixUtils.createRealMatrix(v)).operate(MatrixUtils.createRealVector(r)));
        assertThat(w.squares(p)).isCloseTo(chi, within(1e-9 * chi));
        WeightedResiduals singular = new WeightedResiduals(
                PARABOLA,
                x,
                y,
                new Regression.Weights(null, null, null, slopes -> new double[][] {{1, 1, 1}, {1, 1, 1}, {1, 1, 1}}),
                2);
        assertThatThrownBy(() -> singular.whiten(p))
                .isInstanceOf(FitException.class)
                .hasMessageContaining("singular covariance");
    }

    @Test
    void aFitThatWasNotFoundIsNeverReported() {
        double[] x = {1, 2, 3, 4, 5};
        double[] y = {1, 2, 1, 2, 1};
        NumberedCurve nothing = (i, at, p, g) -> {
            g[0] = 0;
            g[1] = 0;
            return 3;
        };
        assertThatThrownBy(() -> new Regression("nothing", List.of("a"), nothing, x, y, Regression.Weights.NONE)
                        .from(new double[] {1}))
                .isInstanceOf(FitException.class);
        NumberedCurve undefined = (i, at, p, g) -> Double.NaN;
        assertThatThrownBy(() -> new Regression("undefined", List.of("a"), undefined, x, y, Regression.Weights.NONE)
                        .from(new double[] {1}))
                .isInstanceOf(FitException.class);
        assertThatThrownBy(() -> new Regression(
                                "two", List.of("a", "b", "c", "d", "e"), nothing, x, y, Regression.Weights.NONE)
                        .from(new double[5]))
                .isInstanceOfSatisfying(
                        FitException.class, e -> assertThat(e.isTooFew()).isTrue());
    }
}

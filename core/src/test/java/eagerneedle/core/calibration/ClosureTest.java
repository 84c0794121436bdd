package eagerneedle.core.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.fit.FitException;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ClosureTest {
    /** Interval errors of a circle in arcsec, adding up to nothing. */
    private static double[] circle(Random r, int n) {
        double[] e = new double[n];
        double mean = 0;
        for (int i = 0; i < n; i++) {
            e[i] = 2 * r.nextGaussian();
            mean += e[i] / n;
        }
        for (int i = 0; i < n; i++) {
            e[i] -= mean;
        }
        return e;
    }

    private static double[][] read(Random r, double[] a, double[] b, String mode, double noise) {
        int n = a.length;
        double[][] m = new double[n][n];
        for (int k = 0; k < n; k++) {
            double sum = -noise * r.nextGaussian();
            for (int i = 0; i < n; i++) {
                sum += a[i] - b[(i + k) % n];
                m[k][i] = (mode.equals("cumulative") ? sum : a[i] - b[(i + k) % n]) + noise * r.nextGaussian();
            }
        }
        return m;
    }

    @ParameterizedTest
    @CsvSource({"8, rezeroed", "8, cumulative", "3, rezeroed", "12, cumulative"})
    void theErrorsOfBothCirclesAreCoveredAsStated(int n, String mode) {
        int trials = Math.max(1500, 5 * Integer.getInteger("repeats", 300)) / n;
        long hits = IntStream.range(0, trials)
                .parallel()
                .mapToLong(seed -> covered(n, mode, seed))
                .sum();
        assertThat(hits / (2.0 * n * trials)).isBetween(0.935, 0.965);
    }

    /** How many of the 2 n errors of both circles lie in their stated intervals. */
    private static long covered(int n, String mode, int seed) {
        Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
        double[] a = circle(r, n);
        double[] b = circle(r, n);
        ClosureReadings.Solution s = new ClosureReadings("arcsec", mode, read(r, a, b, mode, 0.2)).solve("c");
        return IntStream.range(0, n)
                        .filter(i -> isCovered(s.lower().get(i), a[i]))
                        .count()
                + IntStream.range(0, n)
                        .filter(i -> isCovered(s.upper().get(i), b[i]))
                        .count();
    }

    private static boolean isCovered(Quantity q, double truth) {
        return Math.abs(q.value() - truth) <= Coverage.DEFAULT.expanded(q);
    }

    @Test
    void withoutNoiseTheTruthComesBackAndBothCirclesClose() {
        Random r = new Random(4);
        double[] a = circle(r, 8);
        double[] b = circle(r, 8);
        ClosureReadings.Solution s = new ClosureReadings("arcsec", "rezeroed", read(r, a, b, "rezeroed", 0)).solve("c");
        for (int i = 0; i < 8; i++) {
            assertThat(s.lower().get(i).value()).isCloseTo(a[i], within(1e-9));
            assertThat(s.upper().get(i).value()).isCloseTo(b[i], within(1e-9));
        }
        Quantity sum = s.lower().stream().reduce(Quantity::plus).orElseThrow();
        assertThat(sum.value()).isCloseTo(0, within(1e-12));
        // Closed by definition: the errors of all intervals together carry no uncertainty.
        ClosureReadings.Solution noisy =
                new ClosureReadings("arcsec", "rezeroed", read(r, a, b, "rezeroed", 0.2)).solve("c");
        assertThat(noisy.lower().stream().reduce(Quantity::plus).orElseThrow().u())
                .isCloseTo(0, within(1e-9));
        assertThat(ClosureReadings.Solution.cumulative(noisy.lower()).get(0).u())
                .isZero();
        assertThat(noisy.closures()).hasSize(8);
        assertThat(noisy.uClosure()).isCloseTo(noisy.sd() * Math.sqrt(8), within(1e-12));
    }

    @Test
    void rezeroedTablesHaveTheClosedSolutionOfRowAndColumnMeans() {
        // Every a_i meets every b_j once: a_i is its mean over the row of differences, less the grand mean.
        Random r = new Random(9);
        int n = 5;
        double[][] m = read(r, circle(r, n), circle(r, n), "rezeroed", 0.3);
        ClosureReadings.Solution s = new ClosureReadings("arcsec", "rezeroed", m).solve("c");
        double grand = 0;
        for (double[] row : m) {
            for (double v : row) {
                grand += v / n / n;
            }
        }
        for (int i = 0; i < n; i++) {
            double mean = 0;
            for (int k = 0; k < n; k++) {
                mean += m[k][i] / n;
            }
            assertThat(s.lower().get(i).value()).isCloseTo(mean, within(Math.abs(grand) + 1e-9));
        }
    }

    @Test
    void anIncompleteTableStillGivesEveryInterval() {
        Random r = new Random(2);
        double[] a = circle(r, 8);
        double[] b = circle(r, 8);
        double[][] m = read(r, a, b, "rezeroed", 0.05);
        for (int i = 0; i < 20; i++) {
            m[r.nextInt(8)][r.nextInt(8)] = Double.NaN;
        }
        ClosureReadings.Solution s = new ClosureReadings("arcsec", "rezeroed", m).solve("c");
        for (int i = 0; i < 8; i++) {
            assertThat(s.lower().get(i).value()).isCloseTo(a[i], within(0.2));
        }
        double[][] apart = read(r, a, b, "rezeroed", 0.05);
        for (double[] row : apart) {
            row[3] = Double.NaN;
            row[7] = Double.NaN;
        }
        assertThatThrownBy(() -> new ClosureReadings("arcsec", "rezeroed", apart).solve("c"))
                .as("48 readings, but two intervals that nothing tells apart")
                .isInstanceOf(FitException.class)
                .hasMessageContaining("missing");
        double[][] empty = new double[8][8];
        for (double[] row : empty) {
            java.util.Arrays.fill(row, Double.NaN);
        }
        assertThatThrownBy(() -> new ClosureReadings("arcsec", "rezeroed", empty).solve("c"))
                .isInstanceOf(FitException.class)
                .hasMessageContaining("missing");
    }

    @Test
    void aMisreadEntryAndTwoExchangedOnesAreNamed() {
        Random r = new Random(6);
        double[] a = circle(r, 8);
        double[] b = circle(r, 8);
        double[][] misread = read(r, a, b, "rezeroed", 0.1);
        misread[3][5] += 5;
        List<String> said =
                new ClosureReadings("arcsec", "rezeroed", misread).solve("c").remarks();
        assertThat(said).hasSize(1);
        assertThat(said.get(0)).startsWith("In series 4, reading 6 stands out");
        double[][] exchanged = read(r, a, b, "rezeroed", 0.1);
        double keep = exchanged[2][4];
        exchanged[2][4] = exchanged[2][5];
        exchanged[2][5] = keep;
        assertThat(new ClosureReadings("arcsec", "rezeroed", exchanged)
                        .solve("c")
                        .remarks()
                        .get(0))
                .startsWith("In series 3, readings 5 and 6 look exchanged");
        assertThat(new ClosureReadings("arcsec", "rezeroed", read(r, a, b, "rezeroed", 0.1))
                        .solve("c")
                        .remarks())
                .isEmpty();
        assertThatThrownBy(() -> new ClosureReadings("arcsec", "rezeroed", new double[2][2]))
                .hasMessageContaining("3 to 36");
        assertThatThrownBy(() -> new ClosureReadings("arcsec", "rezeroed", new double[4][3]))
                .hasMessageContaining("4 readings");
    }
}

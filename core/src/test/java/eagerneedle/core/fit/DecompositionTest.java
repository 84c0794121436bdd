package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** QR with twice the digits, against exactly known solutions and against the plain route. */
class DecompositionTest {
    private static double[][] hilbert(int n) {
        double[][] h = new double[n][n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                h[i][j] = 360360.0 / (i + j + 1);
            }
        }
        return h;
    }

    private static double[][] columns(double[][] rows) {
        double[][] out = new double[rows[0].length][rows.length];
        for (int i = 0; i < rows.length; i++) {
            for (int k = 0; k < out.length; k++) {
                out[k][i] = rows[i][k];
            }
        }
        return out;
    }

    @Test
    void aHilbertSystemIsSolvedToManyDigits() {
        // Entries are whole numbers, so that the matrix is exact; its condition number is about 1e10.
        int n = 8;
        double[][] h = hilbert(n);
        double[] truth = {1, -2, 3, -4, 5, -6, 7, -8};
        double[] target = new double[n];
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                target[i] += h[i][j] * truth[j];
            }
        }
        double[] got = Decomposition.of(columns(h), target).solution;
        for (int j = 0; j < n; j++) {
            assertThat(got[j]).isCloseTo(truth[j], within(1e-9));
        }
    }

    @Test
    void bothRoutesAgreeOnAnOrdinaryProblem() {
        SplittableRandom random = new SplittableRandom(3);
        int n = 120_000;
        double[][] a = new double[n][3];
        double[] y = new double[n];
        for (int i = 0; i < n; i++) {
            a[i] = new double[] {1, random.nextDouble(), 100 * random.nextDouble()};
            y[i] = 2 + 3 * a[i][1] - 0.5 * a[i][2] + random.nextGaussian();
        }
        Decomposition large = Decomposition.of(columns(a), y);
        double[][] few = java.util.Arrays.copyOf(a, 60_000);
        Decomposition first = Decomposition.of(columns(few), java.util.Arrays.copyOf(y, 60_000));
        for (int k = 0; k < 3; k++) {
            assertThat(large.solution[k]).isCloseTo(first.solution[k], within(0.05));
        }
        double[] normal = NormalEquations.solve(a, y);
        for (int k = 0; k < 3; k++) {
            assertThat(large.solution[k]).isCloseTo(normal[k], within(1e-9));
        }
        double dot = 0;
        for (int i = 0; i < n; i++) {
            dot += large.q()[0][i] * large.q()[2][i];
        }
        assertThat(dot).isCloseTo(0, within(1e-10));
    }

    @Test
    void aDependentColumnIsNamed() {
        double[][] a = {{1, 2, 3}, {1, 4, 5}, {1, 6, 7}, {1, 8, 9}};
        assertThat(Decomposition.of(columns(a), new double[] {1, 2, 3, 4}).dependent)
                .isEqualTo(2);
        assertThat(Decomposition.of(columns(new double[][] {{0, 1}, {0, 2}}), new double[2]).dependent)
                .isZero();
        assertThat(NormalEquations.solve(new double[][] {{1, 1}, {1, 1}}, new double[] {1, 1}))
                .isNull();
    }

    @Test
    void arithmeticWithTwoDoubles() {
        double[] third = TwoDoubles.over(new double[] {1, 0}, new double[] {3, 0});
        double[] one = TwoDoubles.times(third, new double[] {3, 0});
        assertThat(one[0]).isEqualTo(1);
        assertThat(one[1]).isCloseTo(0, within(1e-31));
        double[] root = TwoDoubles.sqrt(new double[] {2, 0});
        double[] rest = TwoDoubles.minus(TwoDoubles.times(root, root), new double[] {2, 0});
        assertThat(rest[0]).isCloseTo(0, within(1e-30));
        TwoDoubles v = new TwoDoubles(3);
        v.high[0] = 1e16;
        v.high[1] = 1;
        v.high[2] = -1e16;
        TwoDoubles ones = new TwoDoubles(3);
        java.util.Arrays.fill(ones.high, 1);
        assertThat(v.dot(ones)[0]).isEqualTo(1);
    }

    @Test
    void rootsAreAllFound() {
        assertThat(Roots.of(Math::sin, 0.5, 10))
                .hasSize(3)
                .satisfies(r -> assertThat(r[1]).isCloseTo(2 * Math.PI, within(1e-12)));
        assertThat(Roots.of(x -> x * x + 1, -2, 2)).isEmpty();
        assertThat(Roots.of(x -> x - 2, 2, 3)).containsExactly(2.0);
    }
}

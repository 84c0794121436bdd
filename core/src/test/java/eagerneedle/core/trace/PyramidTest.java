package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import org.junit.jupiter.api.Test;

class PyramidTest {
    private static final int N = 300_017;

    private static double[][] signal() {
        Random random = new Random(4);
        double[][] s = new double[2][N];
        for (int i = 0; i < N; i++) {
            s[0][i] = i * 1e-4;
            s[1][i] = 100 * Math.sin(i / 9000.0) + random.nextGaussian() + (i == 123_456 ? 5000 : 0);
        }
        return s;
    }

    /** Least and greatest value by brute force. */
    private static double[] extremes(double[][] s, double from, double to) {
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < N; i++) {
            if (s[0][i] >= from && s[0][i] <= to) {
                low = Math.min(low, s[1][i]);
                high = Math.max(high, s[1][i]);
            }
        }
        return new double[] {low, high};
    }

    private static void check(Pyramid p, double[][] s) {
        assertThat(p.samples()).isEqualTo(N);
        assertThat(p.end()).isEqualTo(s[0][N - 1]);
        assertThat(p.start()).isZero();
        Random random = new Random(9);
        for (int trial = 0; trial < 60; trial++) {
            double from = random.nextDouble() * 25;
            double to = from + Math.pow(10, -1 + 2.4 * random.nextDouble());
            int columns = 20 + random.nextInt(1500);
            Pyramid.Outline o = p.over(from, to, columns);
            assertThat(o.size()).as("bins for %d columns", columns).isLessThanOrEqualTo(10 * columns + 60);
            for (int i = 1; i < o.size(); i++) {
                assertThat(o.time()[i]).isGreaterThan(o.time()[i - 1]);
            }
            double low = Double.POSITIVE_INFINITY;
            double high = Double.NEGATIVE_INFINITY;
            for (int i = 0; i < o.size(); i++) {
                low = Math.min(low, o.low()[i]);
                high = Math.max(high, o.high()[i]);
            }
            double[] truth = extremes(s, from, to);
            assertThat(low).as("nothing inside the span is hidden").isLessThanOrEqualTo(truth[0]);
            assertThat(high).isGreaterThanOrEqualTo(truth[1]);
        }
    }

    @Test
    void nothingIsHiddenAtAnyWidth() {
        double[][] s = signal();
        Pyramid whole = new Pyramid();
        whole.add(s[0], s[1], N);
        check(whole, s);
        assertThat(whole.over(0, 30, 800).size()).isGreaterThanOrEqualTo(800);
    }

    @Test
    void growingSampleBySampleOrFromStoredBinsGivesTheSamePicture() {
        double[][] s = signal();
        Pyramid grown = new Pyramid();
        Pyramid stored = new Pyramid();
        Random random = new Random(2);
        for (int at = 0; at < N; ) {
            int n = Math.min(N - at, 1 + random.nextInt(5000));
            double[] t = java.util.Arrays.copyOfRange(s[0], at, at + n);
            double[] v = java.util.Arrays.copyOfRange(s[1], at, at + n);
            grown.add(t, v, n);
            stored.add(Pyramid.bins(t, v), n, t[n - 1]);
            at += n;
        }
        check(grown, s);
        check(stored, s);
    }

    @Test
    void aNarrowViewIsCloseAndAnEmptyOneIsEmpty() {
        assertThat(new Pyramid().over(0, 1, 100).size()).isZero();
        assertThat(new Pyramid().end()).isNaN();
        double[][] s = signal();
        Pyramid p = new Pyramid();
        p.add(s[0], s[1], N);
        Pyramid.Outline o = p.over(12.3, 12.4, 100);
        double[] truth = extremes(s, 12.3 - 0.0256, 12.4 + 0.0256);
        for (int i = 0; i < o.size(); i++) {
            assertThat((double) o.high()[i]).isLessThanOrEqualTo(truth[1] + 1e-3);
        }
    }
}

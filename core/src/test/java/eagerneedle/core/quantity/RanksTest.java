package eagerneedle.core.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.SplittableRandom;
import org.hipparchus.distribution.continuous.NormalDistribution;
import org.junit.jupiter.api.Test;

/** Normal draws against their distribution, and sorting against the library's. */
class RanksTest {
    private static final int N = 2_000_000;

    private static double[] draws(long seed) {
        double[] v = new double[N];
        Ziggurat.fill(seed, v, N);
        return v;
    }

    /**
     * Four moments, each within five of its standard deviations, and the largest distance to the distribution
     * (Kolmogorov).
     */
    @Test
    void drawsAreNormal() {
        double[] v = draws(20261127);
        double[] m = new double[5];
        for (double x : v) {
            for (int k = 1; k <= 4; k++) {
                m[k] += Math.pow(x, k) / N;
            }
        }
        assertThat(m[1]).isCloseTo(0, within(5 / Math.sqrt(N)));
        assertThat(m[2]).isCloseTo(1, within(5 * Math.sqrt(2.0 / N)));
        assertThat(m[3]).isCloseTo(0, within(5 * Math.sqrt(15.0 / N)));
        assertThat(m[4]).isCloseTo(3, within(5 * Math.sqrt(96.0 / N)));
        Arrays.sort(v);
        NormalDistribution normal = new NormalDistribution();
        double farthest = 0;
        for (int i = 0; i < N; i += 37) {
            farthest = Math.max(farthest, Math.abs(normal.cumulativeProbability(v[i]) - (i + 0.5) / N));
        }
        assertThat(farthest).isLessThan(1.95 / Math.sqrt(N));
    }

    /** The tail beyond the outermost layer has the share and the mean that the distribution gives it, on both sides. */
    @Test
    void theTailIsThere() {
        double[] v = draws(3);
        double edge = 3.6541528853610088;
        double share = new NormalDistribution().cumulativeProbability(-edge);
        for (int side : new int[] {-1, 1}) {
            double[] out =
                    Arrays.stream(v).map(x -> side * x).filter(x -> x > edge).toArray();
            assertThat((double) out.length).isCloseTo(share * N, within(5 * Math.sqrt(share * N)));
            double mean = Math.exp(-edge * edge / 2) / Math.sqrt(2 * Math.PI) / share;
            assertThat(Arrays.stream(out).average().orElseThrow())
                    .isCloseTo(mean, within(0.25 * 5 / Math.sqrt(share * N)));
        }
    }

    @Test
    void seedsGiveTheirOwnDraws() {
        double[] a = new double[1000];
        double[] b = new double[1000];
        Ziggurat.fill(1, a, 1000);
        Ziggurat.fill(1, b, 1000);
        assertThat(a).isEqualTo(b);
        Ziggurat.fill(2, b, 1000);
        double dot = 0;
        for (int i = 0; i < 1000; i++) {
            dot += a[i] * b[i] / 1000;
        }
        assertThat(dot).isCloseTo(0, within(5 / Math.sqrt(1000)));
    }

    @Test
    void anyNumbersAreSorted() {
        SplittableRandom random = new SplittableRandom(8);
        double[][] cases = {
            random.doubles(50_000).toArray(),
            random.doubles(50_001).map(x -> Math.tan(Math.PI * (x - 0.5))).toArray(),
            random.doubles(40_000).map(x -> Math.floor(3 * x)).toArray(),
            random.doubles(40_000).map(x -> x < 0.999 ? x : 1e300 * x).toArray(),
            new double[30_000],
            random.doubles(60_000).map(x -> -1e-310 * x).toArray(),
            random.doubles(100).toArray()
        };
        for (double[] v : cases) {
            double[] sorted = v.clone();
            Arrays.sort(sorted);
            Ranks.sort(v);
            assertThat(v).isEqualTo(sorted);
        }
    }

    @Test
    void anyRankIsFound() {
        SplittableRandom random = new SplittableRandom(9);
        double[] v = random.doubles(999).map(x -> Math.floor(50 * x)).toArray();
        double[] sorted = v.clone();
        Arrays.sort(sorted);
        for (int k : new int[] {0, 1, 24, 500, 974, 998}) {
            assertThat(Ranks.select(v.clone(), 0, v.length, k)).isEqualTo(sorted[k]);
        }
    }
}

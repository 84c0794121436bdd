package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import java.util.Arrays;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Statistics of very many samples, which are worked out in blocks, against the plain way. */
class ManySamplesTest {
    private static final int N = 300_001;

    private static double[] series(double phi, double offset, double drift) {
        SplittableRandom random = new SplittableRandom(11);
        double[] v = new double[N];
        double x = 0;
        for (int i = 0; i < N; i++) {
            x = phi * x + random.nextGaussian();
            v[i] = offset + x + drift * i;
        }
        return v;
    }

    @ParameterizedTest
    @ValueSource(doubles = {0, 0.5, 0.95, 0.999})
    void sumsAreThoseOfThePlainLoop(double phi) {
        double[] v = series(phi, 1e5, 0);
        double[] t = new double[N];
        for (int i = 0; i < N; i++) {
            t[i] = 3 + 1e-3 * i;
        }
        WindowStatistics s = WindowStatistics.of(new Trace("v", t, v, LabUnit.parse("V"), 0, List.of()));
        double mean = Arrays.stream(v).average().orElseThrow();
        double squares = 0;
        double stt = 0;
        double stv = 0;
        double tMean = Arrays.stream(t).average().orElseThrow();
        for (int i = 0; i < N; i++) {
            squares += (v[i] - mean) * (v[i] - mean);
            stt += (t[i] - tMean) * (t[i] - tMean);
            stv += (t[i] - tMean) * (v[i] - mean);
        }
        assertThat(s.mean()).isCloseTo(mean, within(1e-9));
        assertThat(s.sd()).isCloseTo(Math.sqrt(squares / (N - 1)), within(1e-9 * s.sd()));
        assertThat(s.slope()).isCloseTo(stv / stt, within(1e-8 * s.uSlope()));
        assertThat(s.min()).isEqualTo(Arrays.stream(v).min().orElseThrow());
        assertThat(s.max()).isEqualTo(Arrays.stream(v).max().orElseThrow());
        double[] sorted = v.clone();
        Arrays.sort(sorted);
        assertThat(s.median()).isEqualTo(sorted[N / 2]);
        // An autoregression of first order is worth n (1 - phi) / (1 + phi) independent samples.
        double expected = N * (1 - phi) / (1 + phi);
        assertThat(s.effectiveN()).isBetween(expected * (phi > 0.99 ? 0.4 : 0.8), expected * (phi > 0.99 ? 2.5 : 1.25));
    }

    /** The first lags come from the sums of one pass; they are the same as from deviations. */
    @Test
    void lagsOfOnePassAreThoseOfDeviations() {
        // Those that are looked at for a value near the mean lie far above it, so that what is taken off for it counts.
        double[] v = series(0.3, -40, 1e-5);
        for (int i = 0; i < N; i += N / 1024) {
            v[i] += 10;
        }
        Sums s = Sums.of(new double[N], v);
        assertThat(Math.abs(s.mean() - s.near())).isGreaterThan(9);
        for (int lag = 1; lag <= 3; lag += 2) {
            assertThat(s.pair(v, lag)).isCloseTo(pair(v, s.mean(), lag) / s.squaresAboutMean(), within(1e-9));
        }
    }

    /** Of few samples too, where the ends are most of them. */
    @Test
    void fewSamplesAreWorthWhatTheDefinitionSays() {
        SplittableRandom random = new SplittableRandom(11);
        for (int n = 2; n < 60; n++) {
            double[] v = new double[n];
            for (int i = 0; i < n; i++) {
                v[i] = 1000 + random.nextDouble() + (i > 0 ? 0.8 * (v[i - 1] - 1000) : 0);
            }
            double mean = Arrays.stream(v).average().orElseThrow();
            double squares = Arrays.stream(v).map(x -> (x - mean) * (x - mean)).sum();
            double sum = 0;
            for (int lag = 1; lag <= Math.max(n - 3, 1) && lag + 1 < n; lag += 2) {
                double pair = pair(v, mean, lag) / squares;
                if (pair <= 0) {
                    break;
                }
                sum += pair;
            }
            double worth = Math.max(1, Math.min(n, n / (1 + 2 * sum)));
            assertThat(WindowStatistics.effectiveN(v)).as("%d samples", n).isCloseTo(worth, within(1e-6 * worth));
        }
    }

    /** Products of deviations at a lag and the next one, added. */
    private static double pair(double[] v, double mean, int lag) {
        double pair = 0;
        for (int i = lag; i < v.length; i++) {
            pair += (v[i] - mean) * (v[i - lag] - mean);
            pair += i > lag ? (v[i] - mean) * (v[i - lag - 1] - mean) : 0;
        }
        return pair;
    }

    @Test
    void theMedianOfOddSpreadsIsTheMiddleOne() {
        SplittableRandom random = new SplittableRandom(5);
        double[][] cases = new double[6][];
        cases[0] = random.doubles(200_000).toArray();
        cases[1] = random.doubles(200_001).map(x -> Math.floor(4 * x)).toArray();
        cases[2] =
                random.doubles(150_000).map(x -> Math.tan(Math.PI * (x - 0.5))).toArray();
        cases[3] = random.doubles(150_000).map(x -> x < 0.5 ? -1e300 : 1e300).toArray();
        cases[4] = new double[120_000];
        // A period that the samples looked at fall in step with: the bounds miss, and the plain way is taken.
        cases[5] = new double[8_192 * 20];
        for (int i = 0; i < cases[5].length; i++) {
            cases[5][i] = i % 20 == 0 ? -5 + 1e-6 * i : i;
        }
        for (double[] v : cases) {
            double[] sorted = v.clone();
            Arrays.sort(sorted);
            int n = v.length;
            double before = v[17];
            assertThat(Median.of(v)).isEqualTo((sorted[(n - 1) / 2] + sorted[n / 2]) / 2);
            assertThat(v[17]).isEqualTo(before);
        }
    }
}

package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class TraceTest {
    private static Trace trace(double interval, double step, double... v) {
        double[] t = new double[v.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = i * interval;
        }
        return new Trace("x", t, v, LabUnit.parse("m"), step, List.of());
    }

    @Test
    void statisticsOfAKnownSeries() {
        WindowStatistics s = WindowStatistics.of(trace(1, 0, 2, 4, 4, 4, 5, 5, 7, 9));
        assertThat(s.mean()).isEqualTo(5);
        assertThat(s.median()).isEqualTo(4.5);
        assertThat(s.sd()).isCloseTo(Math.sqrt(32.0 / 7), within(1e-12));
        assertThat(s.min()).isEqualTo(2);
        assertThat(s.max()).isEqualTo(9);
        assertThat(s.n()).isEqualTo(8);
        assertThatThrownBy(() -> WindowStatistics.of(trace(1, 0, 3))).isInstanceOf(IllegalArgumentException.class);
    }

    /** An AR(1) series of correlation phi has (1 - phi) / (1 + phi) times as many independent samples. */
    @Test
    void autocorrelationWidensTheMean() {
        for (double phi : new double[] {0, 0.5, 0.9}) {
            Random r = new Random(7);
            double[] v = new double[20_000];
            double x = 0;
            for (int i = 0; i < v.length; i++) {
                x = phi * x + Math.sqrt(1 - phi * phi) * r.nextGaussian();
                v[i] = x;
            }
            double expected = v.length * (1 - phi) / (1 + phi);
            assertThat(WindowStatistics.effectiveN(v)).isBetween(0.8 * expected, 1.2 * expected);
        }
    }

    @Test
    void theMeanOfCorrelatedSamplesIsCoveredAsStated() {
        Random r = new Random(12);
        int covered = 0;
        int trials = 1000;
        for (int k = 0; k < trials; k++) {
            double[] v = new double[400];
            double x = r.nextGaussian();
            for (int i = 0; i < v.length; i++) {
                x = 0.7 * x + Math.sqrt(1 - 0.49) * r.nextGaussian();
                v[i] = x;
            }
            WindowStatistics s = WindowStatistics.of(trace(0.1, 0, v));
            covered += Math.abs(s.mean()) <= 1.98 * s.uMean() ? 1 : 0;
        }
        assertThat(covered / (double) trials).isBetween(0.91, 0.975);
    }

    @Test
    void aSignalWithinOneStepIsFlooredByTheConverter() {
        WindowStatistics s = WindowStatistics.of(trace(1, 0.2, 1.0, 1.0, 1.0, 1.0));
        assertThat(s.uMean()).isCloseTo(0.2 / Math.sqrt(12), within(1e-12));
        assertThat(s.steady(2)).isTrue();
    }

    @Test
    void driftIsJudgedAgainstItsOwnUncertainty() {
        Random r = new Random(3);
        double[] still = r.doubles(200, -1, 1).toArray();
        double[] drifting = still.clone();
        for (int i = 0; i < drifting.length; i++) {
            drifting[i] += 0.02 * i;
        }
        assertThat(WindowStatistics.of(trace(1, 0, still)).steady(3)).isTrue();
        WindowStatistics s = WindowStatistics.of(trace(1, 0, drifting));
        assertThat(s.steady(3)).isFalse();
        assertThat(s.slope()).isCloseTo(0.02, within(3 * s.uSlope()));
    }

    @Test
    void aWindowCutsWhatLiesInIt() {
        Trace t = trace(0.5, 0, 1, 2, 3, 4, 5).within(new Window(0.5, 1.5, "test"));
        assertThat(t.value()).containsExactly(2, 3, 4);
        assertThat(t.interval()).isEqualTo(0.5);
        assertThat(trace(1, 0, 1, 2).within(new Window(5, 6, "none")).size()).isZero();
        assertThatThrownBy(() -> new Window(2, 2, "empty")).isInstanceOf(IllegalArgumentException.class);
        Window grown = new Window(1, 3, "w").grown(0.1);
        assertThat(grown.from()).isCloseTo(0.8, within(1e-12));
        assertThat(grown.to()).isCloseTo(3.2, within(1e-12));
        assertThat(grown.contains(0.9)).isTrue();
    }

    private static double[] roll(Random r, double noise) {
        double[] v = new double[150];
        for (int i = 0; i < v.length; i++) {
            double t = 0.02 * i;
            double x = t < 0.5
                    ? 0.3
                    : t < 2.2 ? 0.3 + 0.4 * (t - 0.5) * (t - 0.5) : 0.3 + 0.4 * 1.7 * 1.7 - 0.3 * (t - 2.2);
            v[i] = x + noise * r.nextGaussian();
        }
        return v;
    }

    @Test
    void theRollIsFoundBetweenReleaseAndStop() {
        for (int seed = 0; seed < 40; seed++) {
            Trace t = trace(0.02, 0, roll(new Random(seed), 0.001));
            Window w = WindowProposal.LONGEST_TRAVEL.of(t).orElseThrow();
            assertThat(w.from()).as("seed " + seed).isBetween(0.45, 0.75);
            assertThat(w.to()).as("seed " + seed).isBetween(2.05, 2.2);
        }
    }

    @Test
    void piecesCoverTheTraceWithoutGaps() {
        Trace t = trace(0.02, 0, roll(new Random(1), 0.002));
        List<Segmentation.Piece> pieces = Segmentation.quadraticPieces(t);
        assertThat(pieces.get(0).from()).isZero();
        assertThat(pieces.get(pieces.size() - 1).to()).isEqualTo(t.size());
        for (int i = 1; i < pieces.size(); i++) {
            assertThat(pieces.get(i).from()).isEqualTo(pieces.get(i - 1).to());
        }
        assertThat(pieces).hasSizeBetween(3, 4);
    }

    @Test
    void oneParabolaIsOnePiece() {
        int split = 0;
        for (int seed = 0; seed < 100; seed++) {
            Random r = new Random(seed);
            double[] v = new double[120];
            for (int i = 0; i < v.length; i++) {
                v[i] = 1 + 0.01 * i - 0.0001 * i * i + 0.003 * r.nextGaussian();
            }
            split += Segmentation.quadraticPieces(trace(0.02, 0, v)).size() > 1 ? 1 : 0;
        }
        assertThat(split).isLessThanOrEqualTo(2);
    }

    @Test
    void noiseIsSeenThroughAParabola() {
        Random r = new Random(5);
        double[] v = new double[2000];
        for (int i = 0; i < v.length; i++) {
            v[i] = 1e-4 * i * i + 0.25 * r.nextGaussian();
        }
        assertThat(Segmentation.noise(v)).isBetween(0.22, 0.28);
        assertThat(Segmentation.noise(new double[] {1, 2})).isZero();
    }

    @Test
    void longAndShortTracesAreTakenToo() {
        Random r = new Random(8);
        double[] v = new double[30_000];
        for (int i = 0; i < v.length; i++) {
            v[i] = (i < 10_000 ? 0 : (i - 10_000) * 1e-3) + 0.01 * r.nextGaussian();
        }
        Window w = WindowProposal.LONGEST_TRAVEL.of(trace(0.001, 0, v)).orElseThrow();
        assertThat(w.from()).isBetween(9.5, 10.6);
        assertThat(WindowProposal.LONGEST_TRAVEL.of(trace(1, 0, 1, 2, 3))).isEmpty();
        assertThat(WindowProposal.named("whole")
                        .of(trace(1, 0, 1, 2, 3, 4, 5, 6, 7, 8, 9))
                        .orElseThrow()
                        .to())
                .isEqualTo(8);
        assertThat(WindowProposal.named("longest-travel")).isEqualTo(WindowProposal.LONGEST_TRAVEL);
    }

    @Test
    void rawSamplesJoin() {
        RawSamples a = new RawSamples(new double[] {0, 1}, new double[] {5, 6});
        RawSamples both = a.plus(new RawSamples(new double[] {2}, new double[] {7}));
        assertThat(both.time()).containsExactly(0, 1, 2);
        assertThat(both.values()).containsExactly(5, 6, 7);
        assertThat(both.lastUntil(1.5).values()).containsExactly(6);
        assertThat(both.lastUntil(2).time()).containsExactly(2);
        assertThat(both.lastUntil(-0.1).size()).isZero();
        assertThatThrownBy(() -> new RawSamples(new double[1], new double[2]))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Trace("x", new double[1], new double[2], LabUnit.ONE, 0, List.of()))
                .isInstanceOf(IllegalArgumentException.class);
    }
}

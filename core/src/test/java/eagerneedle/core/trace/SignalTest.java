package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.SplittableRandom;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;

/**
 * What is made of a trace: steadiness, changes, derivatives, spectra, crossings, outliers, cursors and the choice of
 * window.
 */
class SignalTest {
    private static final LabUnit V = LabUnit.parse("V");

    private static Trace trace(int n, double dt, DoubleUnaryOperator f, double noise, long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i * dt;
            v[i] = f.applyAsDouble(t[i]) + noise * random.nextGaussian();
        }
        return new Trace("u", t, v, V, 0, List.of());
    }

    @Test
    void theMeanOfAutocorrelatedNoiseIsCoveredAsStated() {
        SplittableRandom random = new SplittableRandom(31);
        for (double rho : new double[] {0, 0.6, 0.9}) {
            int covered = 0;
            for (int s = 0; s < 2000; s++) {
                double[] t = new double[1500];
                double[] v = new double[1500];
                double state = random.nextGaussian();
                for (int i = 0; i < v.length; i++) {
                    t[i] = i;
                    state = rho * state + Math.sqrt(1 - rho * rho) * random.nextGaussian();
                    v[i] = 5 + state;
                }
                WindowStatistics w = WindowStatistics.of(new Trace("n", t, v, V, 0, List.of()));
                covered += Math.abs(w.mean() - 5) <= Coverage.DEFAULT.factor(w.effectiveN() - 1) * w.uMean() ? 1 : 0;
            }
            System.out.println("mean of noise with correlation " + rho + " covered in " + covered / 20.0 + " %");
            assertThat(covered / 2000.0).as("rho " + rho).isBetween(0.93, 0.97);
        }
    }

    @Test
    void longCorrelationIsSeenInManySamples() {
        SplittableRandom random = new SplittableRandom(32);
        double rho = 0.9995;
        double[] v = new double[400_000];
        double state = 0;
        for (int i = 0; i < v.length; i++) {
            state = rho * state + Math.sqrt(1 - rho * rho) * random.nextGaussian();
            v[i] = state;
        }
        double expected = v.length * (1 - rho) / (1 + rho);
        assertThat(WindowStatistics.effectiveN(v)).isBetween(0.6 * expected, 1.6 * expected);
    }

    @Test
    void theMedianBySelectionIsTheMedianBySorting() {
        SplittableRandom random = new SplittableRandom(33);
        for (int n = 1; n < 200; n++) {
            double[] v = new double[n];
            for (int i = 0; i < n; i++) {
                v[i] = random.nextInt(20);
            }
            double[] sorted = v.clone();
            Arrays.sort(sorted);
            assertThat(Median.of(v)).isEqualTo((sorted[(n - 1) / 2] + sorted[n / 2]) / 2);
        }
    }

    @Test
    void theMedianOfManyIsTheSameHoweverTheValuesLie() {
        SplittableRandom random = new SplittableRandom(34);
        for (int kind = 0; kind < 5; kind++) {
            for (int n : new int[] {5_001, 20_000}) {
                double[] t = new double[n];
                double[] v = new double[n];
                for (int i = 0; i < n; i++) {
                    t[i] = i;
                    v[i] = switch (kind) {
                        case 0 -> random.nextGaussian();
                        case 1 -> 1 / (random.nextDouble() - 0.5);
                        case 2 -> random.nextInt(3);
                        case 3 -> 7;
                        default -> i % 2 == 0 ? -1e6 - random.nextDouble() : 1e6 + random.nextDouble();
                    };
                }
                double[] sorted = v.clone();
                Arrays.sort(sorted);
                assertThat(WindowStatistics.of(new Trace("m", t, v, V, 0, List.of()))
                                .median())
                        .as("kind " + kind)
                        .isEqualTo((sorted[(n - 1) / 2] + sorted[n / 2]) / 2);
            }
        }
    }

    @Test
    void aSettlingSignalIsSteadyAfterSomeTimeConstants() {
        for (int seed = 0; seed < 20; seed++) {
            Trace t = trace(600, 0.1, x -> 20 + 5 * Math.exp(-x / 4), 0.05, seed);
            double since = Steadiness.of(t, 2).orElseThrow().since();
            assertThat(since).as("seed " + seed).isBetween(8.0, 40.0);
        }
        assertThat(Steadiness.of(trace(600, 0.1, x -> 0.5 * x, 0.05, 1), 2)).isEmpty();
        assertThat(Steadiness.of(trace(600, 0.1, x -> 3, 0.05, 1), 3)
                        .orElseThrow()
                        .since())
                .isLessThan(12);
    }

    /**
     * A rest of settling that is seen, but stays within what single samples scatter, is used and said; more than that
     * is not.
     */
    @Test
    void aDriftWithinTheScatterOfSamplesIsSteadyEnoughAndSaysSo() {
        int said = 0;
        for (int seed = 0; seed < 40; seed++) {
            Trace little = trace(600, 0.1, x -> 20 + 0.05 * 9 / 60 * x, 0.05, seed);
            Window w = WindowProposal.STEADY.of(little).orElseThrow();
            assertThat(w.to()).isCloseTo(59.9, within(1e-9));
            said += w.reason().contains("the drift") ? 1 : 0;
            assertThat(WindowProposal.STEADY.of(trace(600, 0.1, x -> 20 + 0.05 * 30 / 60 * x, 0.05, seed)))
                    .as("seed " + seed)
                    .isEmpty();
        }
        assertThat(said).isPositive();
    }

    @Test
    void aFreezingMeltFallsIntoThreePieces() {
        DoubleUnaryOperator melt = t -> t < 20 ? 90 - 1.5 * t : t < 50 ? 60 : 60 - 1.0 * (t - 50);
        for (int seed = 0; seed < 10; seed++) {
            Trace t = trace(160, 0.5, melt, 0.1, seed);
            List<Segmentation.Piece> pieces = Segmentation.linearPieces(t);
            assertThat(pieces).as("seed " + seed).hasSize(3);
            assertThat(t.time()[pieces.get(1).from()]).isCloseTo(20, within(1.0));
            assertThat(t.time()[pieces.get(2).from()]).isCloseTo(50, within(1.0));
            Window arrest = WindowProposal.PLATEAU.of(t).orElseThrow();
            assertThat(arrest.from()).isBetween(19.5, 23.0);
            assertThat(arrest.to()).isBetween(47.0, 50.5);
            assertThat(WindowProposal.named("longest-straight").of(t)).isPresent();
        }
        assertThat(WindowProposal.STEADY
                        .of(trace(600, 0.1, x -> 20 + 5 * Math.exp(-x / 4), 0.05, 3))
                        .orElseThrow()
                        .to())
                .isCloseTo(59.9, within(1e-9));
    }

    @Test
    void aSettlingIsNeverTakenForPartOfWhatIsSteady() {
        for (int seed = 0; seed < 60; seed++) {
            double lag = 1 + 0.02 * seed;
            Trace t = trace(200, 0.1, x -> 41 - 18 * Math.exp(-x / lag), 0.1, seed);
            Window w = WindowProposal.STEADY.of(t).orElseThrow();
            assertThat(w.from()).as("seed " + seed).isGreaterThan(2.5 * lag);
            assertThat(WindowStatistics.of(t.within(w)).mean()).isCloseTo(41, within(0.3));
        }
    }

    @Test
    void aChangeIsClaimedOnlyWhereTheDataDemandOne() {
        for (double memory : new double[] {0, 0.5, 0.8, 0.95}) {
            int claimed = 0;
            int missed = 0;
            for (int seed = 0; seed < 40; seed++) {
                Random random = new Random(seed);
                double[] wander = new double[300];
                for (int i = 1; i < wander.length; i++) {
                    wander[i] = memory * wander[i - 1] + 0.1 * Math.sqrt(1 - memory * memory) * random.nextGaussian();
                }
                DoubleUnaryOperator noise = t -> wander[(int) Math.round(t / 0.5)];
                Trace straight = trace(300, 0.5, t -> 90 - 0.2 * t + noise.applyAsDouble(t), 0, seed);
                claimed += Segmentation.demandedPieces(straight).size() > 1 ? 1 : 0;
                Trace bent = trace(300, 0.5, t -> 90 - 0.4 * Math.min(t, 70) + noise.applyAsDouble(t), 0, seed);
                missed += Segmentation.demandedPieces(bent).size() < 2 ? 1 : 0;
            }
            assertThat(claimed).as("claimed at a memory of " + memory).isLessThanOrEqualTo(2);
            assertThat(missed).as("missed at a memory of " + memory).isZero();
        }
    }

    @Test
    void theDerivativeOfACubicIsExactAndItsNoiseIsAsStated() {
        Trace cubic = trace(60, 0.05, x -> 1 + 2 * x - x * x + 0.3 * x * x * x, 0, 1);
        Derivative d = Derivative.of(cubic, 9, 4);
        for (int i = 0; i < d.trace().size(); i++) {
            double x = d.trace().time()[i];
            assertThat(d.trace().value()[i]).isCloseTo(2 - 2 * x + 0.9 * x * x, within(1e-9));
        }
        assertThat(d.trace().unit()).isEqualTo(V.per(LabUnit.SECOND));
        Derivative noisy = Derivative.of(trace(20_000, 0.05, x -> 0, 0.3, 2), 11, 2);
        assertThat(WindowStatistics.of(noisy.trace()).sd())
                .isCloseTo(0.3 * noisy.gain(), within(0.02 * 0.3 * noisy.gain()));
        Leaf scale = Leaf.typeB("scale", "scale", "", Distribution.NORMAL);
        Trace calibrated = new Trace(
                "u", cubic.time(), cubic.value(), V, 0, List.of(new Trace.Shared(scale, v -> 0.01 * v + 0.2)));
        assertThat(Derivative.of(calibrated, 9, 4)
                        .trace()
                        .shared()
                        .get(0)
                        .contribution()
                        .applyAsDouble(3))
                .isCloseTo(0.03, within(1e-12));
        assertThatThrownBy(() -> Derivative.of(cubic, 8, 2)).hasMessageContaining("odd number");
        assertThatThrownBy(() -> Derivative.of(cubic, 91, 2)).hasMessageContaining("as many samples");
    }

    @Test
    void theSpectrumFindsTheLine() {
        for (double f : new double[] {3.17, 7.5, 12.02}) {
            Spectrum s = Spectrum.of(trace(1000, 0.02, x -> 1 + 0.5 * Math.sin(2 * Math.PI * f * x + 0.3), 0.05, 5));
            assertThat(s.peak()).isCloseTo(f, within(0.005));
        }
        assertThat(Arrays.stream(Spectrum.of(trace(1024, 0.02, x -> 0.5 * Math.sin(2 * Math.PI * 6.25 * x), 0, 5))
                                .amplitude())
                        .max()
                        .orElseThrow())
                .isCloseTo(0.5, within(0.01));
        assertThatThrownBy(() -> Spectrum.of(trace(5, 0.1, x -> x, 0, 1))).hasMessageContaining("at least 8");
    }

    @Test
    void crossingsAreCountedOnceEvenWithNoise() {
        double[] c = Crossings.of(trace(2000, 0.005, x -> Math.sin(2 * Math.PI * 0.7 * x), 0.05, 6), 0, 0.2, true);
        assertThat(c).hasSize(6);
        for (int i = 0; i < c.length; i++) {
            assertThat(c[i]).isCloseTo((i + 1) / 0.7, within(0.02));
        }
        assertThat(Crossings.of(trace(100, 0.1, x -> 1, 0, 6), 0, 0.1, true)).isEmpty();
    }

    @Test
    void outliersAreFlaggedAndCleanNoiseHardlyEver() {
        Trace t = trace(2000, 0.1, x -> 0.05 * x, 0.1, 7);
        assertThat(Outliers.flagged(t.value(), 10, 5, 0)).hasSizeLessThan(4);
        t.value()[700] += 2;
        t.value()[1400] -= 2;
        assertThat(Outliers.flagged(t.value(), 10, 5, 0)).contains(700, 1400);
        assertThat(Outliers.flagged(new double[] {1, 1, 1, 1, 1.001, 1, 1}, 3, 4, 0.01))
                .isEmpty();
    }

    @Test
    void aCursorIsCoveredAsStated() {
        int covered = 0;
        SplittableRandom seeds = new SplittableRandom(8);
        for (int s = 0; s < 2000; s++) {
            Cursor c = Cursor.at(trace(40, 0.1, x -> 3 + 2 * x, 0.05, seeds.nextLong()), 1.73, "c");
            covered += Math.abs(c.value().value() - (3 + 2 * 1.73)) <= Coverage.DEFAULT.expanded(c.value()) ? 1 : 0;
        }
        assertThat(covered / 2000.0).isBetween(0.93, 0.97);
        Trace t = trace(40, 0.1, x -> x, 0, 1);
        assertThat(Cursor.at(t, 1.0, "a").moment().limit()).isCloseTo(0.05, within(1e-9));
        assertThatThrownBy(() -> Cursor.at(t, 99, "a")).hasMessageContaining("outside the trace");
    }

    @Test
    void aWindowOnAStraightStretchHardlyMattersAndOneAcrossABendDoes() {
        Trace bent = trace(400, 0.01, x -> x < 2 ? x : 2 + 0.3 * (x - 2), 0, 9);
        java.util.function.ToDoubleFunction<Trace> slope =
                w -> (w.value()[w.size() - 1] - w.value()[0]) / (w.time()[w.size() - 1] - w.time()[0]);
        assertThat(WindowSensitivity.of(bent, new Window(0.5, 1.5, ""), 0.2, slope)
                        .halfRange())
                .isCloseTo(0, within(1e-9));
        WindowSensitivity across = WindowSensitivity.of(bent, new Window(0.5, 2.2, ""), 0.2, slope);
        assertThat(across.halfRange()).isGreaterThan(0.05);
        assertThat(across.nominal()).isBetween(across.low(), across.high());
        assertThatThrownBy(() -> WindowSensitivity.of(bent, new Window(0.5, 1.5, ""), 0.9, slope))
                .hasMessageContaining("between 0 and 50 %");
    }

    @Test
    void sharedInfluencesReachACursor() {
        Leaf zero = Leaf.typeB("zero", "zero", "", Distribution.NORMAL);
        List<Trace.Shared> shared = new ArrayList<>(List.of(new Trace.Shared(zero, v -> 0.2)));
        Trace t = trace(40, 0.1, x -> 2 * x, 0, 1);
        Trace with = new Trace("u", t.time(), t.value(), V, 0.001, shared);
        Quantity a = Cursor.at(with, 1, "a").value();
        Quantity b = Cursor.at(with, 3, "b").value();
        assertThat(a.contribution(zero)).isEqualTo(0.2);
        assertThat(b.minus(a).contribution(zero)).isZero();
    }
}

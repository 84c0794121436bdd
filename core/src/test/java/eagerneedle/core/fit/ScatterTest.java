package eagerneedle.core.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * What scatter and stated uncertainties give together, held against simulated truth; noise of traces that is alike from
 * sample to sample.
 */
class ScatterTest {
    private static final LabUnit V = LabUnit.parse("V");
    private static final int REPEATS = Integer.getInteger("repeats", 300);

    private static double coverage(java.util.function.Function<Random, Quantity> result, double truth) {
        long hit = IntStream.range(0, REPEATS)
                .parallel()
                .filter(i -> {
                    Quantity q = result.apply(new Random(9000 + 31L * i));
                    return Math.abs(q.value() - truth) <= Coverage.DEFAULT.expanded(q);
                })
                .count();
        return hit / (double) REPEATS;
    }

    private static Quantity stated(double value, double u, String id) {
        return Quantity.of(value, u, V, Leaf.typeB(id, "stated", "test", Distribution.NORMAL));
    }

    /** n points about 3 + 2 x, each with a stated uncertainty, and a scatter between points that nothing states. */
    private static Fit line(Random random, int n, double u, double between) {
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            x.add(Quantity.number(i));
            y.add(stated(3 + 2 * i + u * random.nextGaussian() + between * random.nextGaussian(), u, "y" + i));
        }
        return PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_RESIDUALS, "f", "s");
    }

    @ParameterizedTest(name = "{0} points, stated {1}, between {2}")
    @CsvSource({
        "4, 0.1, 0",
        "4, 0.01, 0.3",
        "6, 0.1, 0",
        "6, 0.1, 0.07",
        "6, 0, 0.2",
        "15, 0.1, 0",
        "15, 0.1, 0.1",
        "15, 0.1, 0.3"
    })
    void whatIsStatedAndWhatIsSeenCoverTheTruth(int n, double u, double between) {
        assertThat(coverage(r -> line(r, n, u, between).parameter(1), 2))
                .as("slope")
                .isBetween(0.925, 0.985);
        assertThat(coverage(r -> line(r, n, u, between).parameter(0), 3))
                .as("intercept")
                .isBetween(0.925, 0.985);
    }

    /** The limit of the rule: among four points a scatter as large as what is stated can hide. */
    @Test
    void fourPointsCanHideAScatterAsLargeAsWhatIsStated() {
        assertThat(coverage(r -> line(r, 4, 0.1, 0.1).parameter(1), 2)).isBetween(0.86, 0.95);
    }

    @Test
    void neverLessThanWhatIsStated() {
        for (int i = 0; i < 200; i++) {
            Random random = new Random(i);
            List<Quantity> x = new ArrayList<>();
            List<Quantity> y = new ArrayList<>();
            for (int k = 0; k < 5; k++) {
                x.add(Quantity.number(k));
                double u = 0.05 + random.nextDouble();
                y.add(stated(k + u * random.nextGaussian(), u, "y" + k));
            }
            for (int degree = 0; degree < 3; degree++) {
                Fit both = PolynomialFit.ofPoints(x, y, degree, Scatter.FROM_RESIDUALS, "f", "s");
                for (int p = 0; p <= degree; p++) {
                    double own = both.parameter(p)
                            .keeping(l -> l.label().equals("stated"))
                            .u();
                    assertThat(both.parameter(p).u()).isGreaterThanOrEqualTo(own * (1 - 1e-12));
                    assertThat(own).isPositive();
                }
            }
            Quantity slope = Model.proportional()
                    .fit(Points.of(x.subList(1, 5), y.subList(1, 5)), new FitOptions(Scatter.FROM_RESIDUALS, "f", "s"))
                    .parameter(0);
            assertThat(slope.u())
                    .isGreaterThanOrEqualTo(
                            slope.keeping(l -> l.label().equals("stated")).u() * (1 - 1e-12))
                    .isPositive();
        }
    }

    @Test
    void pointsThatCarryNothingGiveTheClassicalCovariance() {
        Fit f = line(new Random(3), 8, 0, 0.2);
        double[] x = f.x();
        double sxx = 0;
        for (double v : x) {
            sxx += (v - 3.5) * (v - 3.5);
        }
        assertThat(f.parameter(1).u()).isCloseTo(f.residualSd() / Math.sqrt(sxx), within(1e-14));
        assertThat(f.parameter(1).dof()).isCloseTo(6, within(1e-12));
        assertThat(f.parameter(0).correlation(f.parameter(1)))
                .isCloseTo(-3.5 / Math.sqrt(sxx / 8 + 3.5 * 3.5), within(1e-12));
    }

    @Test
    void aContradictionIsSaid() {
        assertThat(line(new Random(1), 12, 0.1, 0).remarks()).noneMatch(r -> r.contains("own uncertainties"));
        assertThat(line(new Random(1), 12, 0.01, 0.3).remarks())
                .anyMatch(r -> r.contains("times as much as their own uncertainties explain"));
        List<Quantity> x = new ArrayList<>();
        List<Quantity> y = new ArrayList<>();
        for (int i = 0; i < 12; i++) {
            x.add(Quantity.number(i));
            y.add(stated(i + (i % 2) * 1e-3, 0.5, "y" + i));
        }
        assertThat(PolynomialFit.ofPoints(x, y, 1, Scatter.FROM_RESIDUALS, "f", "s")
                        .remarks())
                .anyMatch(r -> r.contains("less than their own uncertainties say"));
    }

    @Test
    void resultsOfTheSameReadingsShareTheirScatter() {
        Fit f = line(new Random(5), 7, 0, 0.2);
        Fit again = line(new Random(5), 7, 0, 0.2);
        assertThat(f.parameter(1).minus(again.parameter(1)).u()).isZero();
        Quantity there = f.parameter(0).plus(f.parameter(1).scaled(4.5));
        assertThat(there.u()).isCloseTo(f.at(4.5).u(), within(1e-12));
        assertThat(there.minus(again.at(4.5)).u()).isCloseTo(0, within(1e-12));
        Fit parabola = PolynomialFit.ofPoints(numbers(f.x()), numbers(f.y()), 2, Scatter.FROM_RESIDUALS, "g", "s");
        assertThat(parabola.at(3).correlation(f.at(3)))
                .as("a line and a parabola through the same points")
                .isGreaterThan(0.5);
        assertThat(line(new Random(6), 7, 0, 0.2).parameter(1).correlation(f.parameter(1)))
                .as("other readings")
                .isZero();
    }

    private static List<Quantity> numbers(double[] v) {
        return java.util.Arrays.stream(v).mapToObj(Quantity::number).toList();
    }

    /** Noise of which each sample keeps a share of the one before. */
    private static double[] noise(Random random, int n, double phi, double sd) {
        double[] v = new double[n];
        double e = random.nextGaussian() / Math.sqrt(1 - phi * phi);
        for (int i = 0; i < n; i++) {
            e = phi * e + random.nextGaussian();
            v[i] = sd * e;
        }
        return v;
    }

    private static Trace trace(double[] noise, java.util.function.DoubleUnaryOperator f) {
        double[] t = new double[noise.length];
        double[] v = new double[noise.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.01 * i;
            v[i] = f.applyAsDouble(t[i]) + noise[i];
        }
        return new Trace("x", t, v, V, 0, List.of());
    }

    @ParameterizedTest(name = "{0} samples, phi {1}")
    @CsvSource({
        "400, 0",
        "400, 0.5",
        "400, 0.8",
        "400, 0.9",
        "400, 0.95",
        "1000, 0.3",
        "1000, 0.9",
        "1000, 0.95",
        "2500, 0.95"
    })
    void fitsToTracesCoverTheTruthHoweverAlikeTheSamplesAre(int n, double phi) {
        assertThat(coverage(
                        r -> PolynomialFit.ofTrace(trace(noise(r, n, phi, 0.1), t -> 5), 0, "f", "s")
                                .parameter(0),
                        5))
                .as("mean")
                .isBetween(0.925, 0.98);
        assertThat(coverage(
                        r -> PolynomialFit.ofTrace(trace(noise(r, n, phi, 0.1), t -> 1 + 3 * t), 1, "f", "s")
                                .parameter(1),
                        3))
                .as("slope")
                .isBetween(0.925, 0.98);
        assertThat(coverage(
                        r -> PolynomialFit.ofTrace(trace(noise(r, n, phi, 0.1), t -> 1 + 3 * t + t * t), 2, "f", "s")
                                .parameter(2),
                        1))
                .as("half the acceleration")
                .isBetween(0.925, 0.98);
    }

    @ParameterizedTest(name = "phi {0}")
    @CsvSource({"0", "0.7", "0.95"})
    void aNamedModelCoversTheTruthHoweverAlikeTheSamplesAre(double phi) {
        assertThat(coverage(
                        r -> {
                            Trace t = trace(noise(r, 400, phi, 0.02), s -> 1 + 8 * Math.exp(-s / 0.8));
                            Fit f = NamedModel.DECAY.fit(
                                    Points.of(t),
                                    new FitOptions(Scatter.FROM_RESIDUALS, "f", "s").samplesOf(t, "decay"));
                            return f.parameter(f.names().indexOf("tau"));
                        },
                        0.8))
                .isBetween(0.925, 0.98);
    }

    @Test
    void aRecordTooShortToTellSaysSo() {
        assertThat(PolynomialFit.ofTrace(trace(noise(new Random(2), 120, 0.98, 0.1), t -> 5), 1, "f", "s")
                        .remarks())
                .anyMatch(r -> r.contains("independent piece"));
        assertThat(PolynomialFit.ofTrace(trace(noise(new Random(2), 4000, 0.5, 0.1), t -> 5), 1, "f", "s")
                        .remarks())
                .noneMatch(r -> r.contains("independent piece"));
    }

    @Test
    void aRippleOverWholeCyclesIsNoNoise() {
        int hit = 0;
        double largest = 0;
        for (int i = 0; i < REPEATS; i++) {
            Random random = new Random(i);
            double phase = 2 * Math.PI * random.nextDouble();
            Quantity mean = PolynomialFit.ofTrace(
                            trace(
                                    noise(random, 1000, 0, 0.005),
                                    t -> 1
                                            + 0.1 * Math.sin(2 * Math.PI * t / 0.5 + phase)
                                            + 0.03 * Math.sin(4 * Math.PI * t / 0.5)),
                            0,
                            "f",
                            "s")
                    .parameter(0);
            largest = Math.max(largest, mean.u());
            hit += Math.abs(mean.value() - 1) <= Coverage.DEFAULT.expanded(mean) ? 1 : 0;
        }
        assertThat(largest).as("of 1.000(13) by the ripple").isLessThan(0.0005);
        assertThat(hit / (double) REPEATS).isBetween(0.925, 0.99);
    }

    @Test
    void partOfACycleStaysInTheMean() {
        int hit = 0;
        for (int i = 0; i < REPEATS; i++) {
            Random random = new Random(i);
            double phase = 2 * Math.PI * random.nextDouble();
            Quantity mean = PolynomialFit.ofTrace(
                            trace(
                                    noise(random, 1000, 0, 0.002),
                                    t -> 1 + 0.1 * Math.sin(2 * Math.PI * t / 0.77 + phase)),
                            0,
                            "f",
                            "s")
                    .parameter(0);
            hit += Math.abs(mean.value() - 1) <= Coverage.DEFAULT.expanded(mean) ? 1 : 0;
        }
        assertThat(hit / (double) REPEATS).as("12.99 cycles").isGreaterThan(0.93);
    }

    @Test
    void roundingIsNoScatter() {
        double[] x = new double[26];
        double[] y = new double[26];
        for (int i = 0; i < 26; i++) {
            x[i] = i;
            y[i] = 2 + 2 * i;
        }
        Fit exact = PolynomialFit.ofPoints(numbers(x), numbers(y), 1, Scatter.FROM_RESIDUALS, "f", "s");
        assertThat(exact.at(25).isExact() || exact.at(25).u() == 0).isTrue();
        assertThat(exact.residualSd()).isZero();
        java.util.Arrays.fill(y, 52.1);
        Fit constant = PolynomialFit.ofPoints(numbers(x), numbers(y), 1, Scatter.FROM_RESIDUALS, "f", "s");
        assertThat(constant.parameter(1).value()).isZero();
        assertThat(constant.parameter(1).u()).isZero();
    }
}

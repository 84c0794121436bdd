package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Moments that are found in samples are no better known than the samples leave them: coverage against the true moments.
 */
class TimesInSamplesTest {
    private static final int REPEATS = 500;
    private static final LabUnit V = LabUnit.parse("V");

    private static Trace sampled(Random random, int n, double interval, double noise, DoubleUnaryOperator f) {
        double start = interval * random.nextDouble();
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = start + interval * i;
            v[i] = f.applyAsDouble(t[i]) + noise * random.nextGaussian();
        }
        return new Trace("gate", t, v, V, 0, List.of());
    }

    private static Value value(String formula, Trace t) {
        return Formula.parse(formula).evaluate(Scope.over("t", Map.of("x", new Value.Signal(t))));
    }

    private static Quantity q(String formula, Trace t) {
        return ((Value.Scalar) value(formula, t)).quantity();
    }

    /** The share of traces whose result holds the truth within its 95 % interval. */
    private static double coverage(String formula, java.util.function.Function<Random, Trace> trace, double truth) {
        int hit = 0;
        for (int i = 0; i < REPEATS; i++) {
            Quantity q = q(formula, trace.apply(new Random(77 + 13L * i)));
            hit += Math.abs(q.value() - truth) <= Coverage.DEFAULT.expanded(q) * (1 + 1e-9) ? 1 : 0;
        }
        return hit / (double) REPEATS;
    }

    private static double blocked(double t, double period) {
        return (t / period) % 1 < 0.4 ? 5 : 0;
    }

    @ParameterizedTest(name = "period {0} s")
    @CsvSource({"0.1037", "0.1371", "0.0903"})
    void thePeriodOfEdgesOfSamples(double period) {
        assertThat(coverage(
                        "period(edges(x))",
                        r -> sampled(r, 400, 0.005, 0, t -> blocked(t + 10 * period, period)),
                        period))
                .isGreaterThanOrEqualTo(0.93);
        Quantity p =
                q("period(edges(x))", sampled(new Random(1), 400, 0.005, 0, t -> blocked(t + 10 * period, period)));
        assertThat(p.u()).as("5 ms samples do not know a period to attoseconds").isBetween(2e-6, 4e-4);
    }

    @Test
    void anEdgeMayLieAnywhereBetweenTwoSamples() {
        assertThat(coverage("first(edges(x))", r -> sampled(r, 100, 0.01, 0, t -> t < 0.5 ? 0 : 5), 0.5))
                .isEqualTo(1);
        assertThat(q("first(edges(x))", sampled(new Random(2), 100, 0.01, 0, t -> t < 0.5 ? 0 : 5))
                        .u())
                .isCloseTo(0.01 / Math.sqrt(12), within(1e-12));
        assertThat(coverage(
                        "first(block_times(x))",
                        r -> sampled(r, 100, 0.01, 0, t -> t > 0.5 && t < 0.7033 ? 5 : 0),
                        0.2033))
                .isGreaterThan(0.93);
    }

    @ParameterizedTest(name = "noise {0}, interval {1}")
    @CsvSource({"0.02, 0.01", "0.005, 0.02", "0.05, 0.01"})
    void aCrossingOfAResolvedSignal(double noise, double interval) {
        assertThat(coverage(
                        "first(crossings(x, 0 V))",
                        r -> sampled(r, 90, interval, noise, t -> Math.sin(2 * Math.PI * (t - 0.4))),
                        0.4))
                .isBetween(0.92, 1.0);
        Quantity at = q(
                "first(crossings(x, 0 V))",
                sampled(new Random(3), 90, interval, noise, t -> Math.sin(2 * Math.PI * (t - 0.4))));
        assertThat(at.u()).isBetween(0.3 * noise / (2 * Math.PI), 3 * noise / (2 * Math.PI));
    }

    @Test
    void theSameEdgesAreTheSameMoments() {
        Trace t = sampled(new Random(4), 300, 0.005, 0, s -> blocked(s + 1, 0.1371));
        assertThat(q("first(edges(x)) - first(edges(x))", t).u()).isZero();
        assertThat(q("mean(x) - mean(x)", t).u()).isZero();
        assertThat(q("value_at(x, 0.5 s) - value_at(x, 0.5 s)", t).u()).isZero();
    }

    @Test
    void anUncertainMomentMakesTheValueThereUncertain() {
        Trace t = sampled(new Random(5), 100, 0.1, 0, s -> 2 * s);
        assertThat(q("value_at(x, 3.5(1) s)", t).u()).isCloseTo(0.2, within(1e-9));
        assertThat(q("value_at(x, 3.5 s)", t).u()).isCloseTo(0, within(1e-9));
    }

    @Test
    void uncertainEndsOfAWindowReachWhatIsTakenFromIt() {
        Trace t = sampled(new Random(6), 2000, 0.005, 0, s -> s * s);
        Quantity mean = q("mean(window(x, 2.0(1) s, 5 s))", t);
        double byHand = 0.1 * ((25 + 10 + 4) / 3.0 - 4) / 3;
        assertThat(mean.keeping(l -> l.label().contains("2.0(1)")).u())
                .as("(mean - first) / length, times u of the first end")
                .isCloseTo(byHand, within(0.02 * byHand));
        assertThat(q("slope(window(x, 2.0(1) s, 5.0(1) s))", t)
                        .keeping(l -> l.label().contains("(1)"))
                        .u())
                .as("slope at the middle moves by half of each end, twice")
                .isCloseTo(0.1 * Math.sqrt(2), within(0.01));
        FormulaException refused =
                Assertions.assertThrows(FormulaException.class, () -> value("sd(window(x, 2.0(1) s, 5 s))", t));
        assertThat(refused.getMessage()).contains("no window with uncertain ends");
    }
}

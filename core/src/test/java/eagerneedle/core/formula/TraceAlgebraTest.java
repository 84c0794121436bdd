package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Arithmetic on traces: values, units, clocks, and what all samples share. */
class TraceAlgebraTest {
    private static final Leaf ZERO = Leaf.typeB("zero", "zero", "certificate", Distribution.NORMAL);
    private static final Leaf GAIN = Leaf.typeB("gain", "gain", "certificate", Distribution.NORMAL);

    private static Trace trace(
            String name, String unit, int n, double step, DoubleUnaryOperator f, Trace.Shared... shared) {
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i * step;
            v[i] = f.applyAsDouble(t[i]);
        }
        return new Trace(name, t, v, LabUnit.parse(unit), 0, List.of(shared));
    }

    private static Value evaluated(String formula, Map<String, Value> names, List<String> remarks) {
        return Formula.parse(formula).evaluate(new Scope() {
            @Override
            public java.util.Optional<Value> lookup(String name) {
                return java.util.Optional.ofNullable(names.get(name));
            }

            @Override
            public java.util.Collection<String> names() {
                return names.keySet();
            }

            @Override
            public String origin() {
                return "test";
            }

            @Override
            public String label() {
                return "test";
            }

            @Override
            public boolean planning() {
                return false;
            }

            @Override
            public java.util.Optional<eagerneedle.core.trace.Window> window(String name, Trace t) {
                return java.util.Optional.empty();
            }

            @Override
            public void remark(String sentence) {
                remarks.add(sentence);
            }
        });
    }

    private static Trace of(String formula, Map<String, Value> names) {
        return ((Value.Signal) evaluated(formula, names, new ArrayList<>())).trace();
    }

    private static Quantity quantity(String formula, Map<String, Value> names) {
        return ((Value.Scalar) evaluated(formula, names, new ArrayList<>())).quantity();
    }

    private static Map<String, Value> two() {
        return Map.of(
                "a",
                new Value.Signal(trace(
                        "a",
                        "mV",
                        50,
                        0.1,
                        t -> 500 + 100 * t,
                        new Trace.Shared(ZERO, v -> 2.0),
                        new Trace.Shared(GAIN, v -> 0.01 * v))),
                "b",
                new Value.Signal(trace("b", "mA", 50, 0.1, t -> 20 - t, new Trace.Shared(GAIN, v -> 0.02 * v))));
    }

    /** A product of two traces, sample by sample, is that of two quantities that share their influences. */
    @Test
    void aProductGoesByTheChainRule() {
        Map<String, Value> names = two();
        Trace p = of("a * b", names);
        assertThat(p.unit().fits(LabUnit.parse("W"))).isTrue();
        Trace a = ((Value.Signal) names.get("a")).trace();
        Trace b = ((Value.Signal) names.get("b")).trace();
        for (int i : new int[] {0, 17, 49}) {
            Quantity expected = a.sample(i).times(b.sample(i)).to(p.unit());
            Quantity found = p.sample(i);
            assertThat(found.value()).isCloseTo(expected.value(), within(1e-12));
            assertThat(found.contribution(ZERO)).isCloseTo(expected.contribution(ZERO), within(1e-12));
            assertThat(found.contribution(GAIN)).isCloseTo(expected.contribution(GAIN), within(1e-12));
        }
    }

    @Test
    void aTraceLessItselfIsExactlyNothing() {
        Trace d = of("a - a", two());
        assertThat(d.value()).containsOnly(0.0);
        assertThat(d.shared()).isEmpty();
        assertThat(d.unit()).isEqualTo(LabUnit.parse("mV"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "mean(a + a)          | 2 * mean(a)",
                "mean(a * 3)          | 3 * mean(a)",
                "mean(2 V - a)        | 2 V - mean(a)",
                "mean(a / (5 mA))     | mean(a) / (5 mA)",
                "integral(a * 2)      | 2 * integral(a)",
                "slope(cumulative(a * 0 + 3 V)) | 3 V",
                "mean(abs(-a))        | mean(a)",
                "mean(sqrt(a^2))      | mean(a)",
                "mean(exp(ln(a / (1 V)))) | mean(a) / (1 V)",
            })
    void whatIsLinearMayBeDoneBeforeOrAfter(String first, String second) {
        Quantity x = quantity(first, two());
        Quantity y = quantity(second, two()).to(x.unit());
        assertThat(x.value()).isCloseTo(y.value(), within(1e-9 * Math.abs(y.value())));
        assertThat(x.contribution(ZERO)).isCloseTo(y.contribution(ZERO), within(1e-9));
        assertThat(x.contribution(GAIN)).isCloseTo(y.contribution(GAIN), within(1e-9));
    }

    /** Where clocks differ the second is read between its samples, over the time that both cover, and it is said. */
    @Test
    void clocksThatDifferAreSaid() {
        Map<String, Value> names = Map.of(
                "a", new Value.Signal(trace("a", "V", 101, 0.1, t -> t)),
                "b", new Value.Signal(trace("b", "V", 31, 0.25, t -> 2 * t)));
        List<String> remarks = new ArrayList<>();
        Trace s = ((Value.Signal) evaluated("a + b", names, remarks)).trace();
        assertThat(s.time()[s.size() - 1]).isEqualTo(7.5, within(1e-9));
        for (int i = 0; i < s.size(); i++) {
            assertThat(s.value()[i]).isCloseTo(3 * s.time()[i], within(1e-9));
        }
        assertThat(remarks).containsExactly("b was read between its samples, on the clock of a.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "a + 1 A       | cannot be expressed in",
                "a > 1 V       | A trace is not compared sample by sample",
                "ln(a)         | pure number",
                "a + column(1 V, 2 V) | One quantity is needed here",
                "window(a, 1.0(1) s, 2 s) * 2 | reckon first, then cut",
                "integral(window(a, 0 s, 0.05 s)) | 2 samples or more",
                "smoothed(a, points: 4) | odd number",
                "smoothed(a, points: 51) | needs as many samples",
                "crossings(a, 600 mV, way: \"sideways\") | up, down or both",
                "turns(a)      | no whole cycle",
            })
    void whatCannotBeIsSaid(String formula, String message) {
        assertThatThrownBy(() -> evaluated(formula, two(), new ArrayList<>())).hasMessageContaining(message);
    }

    /** The area under noise: over many traces it misses by what it states. */
    @Test
    void theNoiseOfAnAreaIsWhatItStates() {
        Random random = new Random(3);
        double squares = 0;
        double stated = 0;
        int n = 300;
        for (int k = 0; k < n; k++) {
            Quantity q = quantity(
                    "integral(x)",
                    Map.of(
                            "x",
                            new Value.Signal(trace("x", "V", 200, 0.05, t -> 3 + t + 0.1 * random.nextGaussian()))));
            double truth = 3 * 9.95 + 9.95 * 9.95 / 2;
            squares += Math.pow(q.value() - truth, 2) / n;
            stated += q.u() * q.u() / n;
        }
        assertThat(Math.sqrt(stated / squares)).isBetween(0.85, 1.15);
    }

    /** A ripple of whole cycles is no noise of their mean. */
    @Test
    void theMeanOverWholeTurnsKnowsNoRipple() {
        Map<String, Value> names = Map.of(
                "x", new Value.Signal(trace("x", "V", 2000, 0.01, t -> 5 + 0.3 * Math.sin(2 * Math.PI * t / 0.7))));
        Quantity m = quantity("mean(turns(x))", names);
        assertThat(m.value()).isCloseTo(5, within(2e-3));
        assertThat(m.u()).isLessThan(2e-3);
        assertThat(((Value.Column) evaluated("turns(x)", names, new ArrayList<>()))
                        .rows()
                        .size())
                .isBetween(26, 28);
        assertThat(((Value.Column) evaluated("crossings(x, 5 V, way: \"both\")", names, new ArrayList<>()))
                        .rows()
                        .size())
                .isBetween(55, 58);
    }

    /** What temperatures scatter by is a difference, not a temperature. */
    @Test
    void theScatterOfTemperaturesIsInKelvin() {
        Quantity sd =
                quantity("residual_sd(line(column(20.0 degC, 21.1 degC, 21.9 degC, 23.0 degC), index(4)))", Map.of());
        assertThat(sd.in(LabUnit.parse("K"))).isCloseTo(0.0949, within(1e-3));
        assertThat(sd.unit().isAffine()).isFalse();
    }

    /** Where a gate tells when a turn begins, a ripple that noise hides takes no part either. */
    @Test
    void turnsBeginWhereTheyAreSaidTo() {
        Random random = new Random(5);
        Map<String, Value> names = Map.of(
                "x",
                new Value.Signal(trace(
                        "x",
                        "V",
                        2000,
                        0.01,
                        t -> 5 + 0.3 * Math.sin(2 * Math.PI * t / 0.7) + 0.4 * random.nextGaussian())));
        Quantity m = quantity("mean(turns(x, begin: 0.25 s + index(28) * 0.7 s))", names);
        assertThat(m.value()).isCloseTo(5, within(0.05));
        assertThat(m.u()).isBetween(0.005, 0.015);
        assertThat(((Value.Column) evaluated("turns(x, begin: index(400) * 0.7 s)", names, new ArrayList<>())).rows())
                .as("moments after the record take no part")
                .hasSize(28);
    }

    @Test
    void theSlopeOfACurveAtAPlace() {
        Quantity v = quantity(
                "derivative_at(polynomial(column(0 m, 1 m, 4.1 m, 8.9 m, 16 m), index(5) * 1 s), 2.00(5) s)", Map.of());
        assertThat(v.value()).isCloseTo(4, within(0.05));
        // The place is uncertain by 0.05 s, and the slope changes by 2 m/s each second.
        assertThat(v.u()).isGreaterThan(0.09);
    }
}

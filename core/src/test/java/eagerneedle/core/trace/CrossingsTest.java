package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A moment found by a crossing is as uncertain as its samples, and as what they share, make it. */
class CrossingsTest {
    private static final LabUnit METRE = LabUnit.parse("m");
    private static final Leaf OFFSET = Leaf.typeB("offset", "offset", "ranger", Distribution.NORMAL);
    private static final Leaf LEVEL = Leaf.typeB("level", "mark", "tape", Distribution.NORMAL);

    private static Trace ramp(double rate, double speed, double noise, long seed, List<Trace.Shared> shared) {
        Random random = new Random(seed * 0x9E3779B97F4A7C15L);
        int n = (int) (4 * rate);
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i / rate + 0.3 / rate * Math.sin(seed);
            v[i] = speed * t[i] + noise * random.nextGaussian();
        }
        return new Trace("x", t, v, METRE, 0, shared);
    }

    /** Ramps that pass the level between two samples, and ramps that take twenty samples over it. */
    @ParameterizedTest
    @ValueSource(doubles = {10, 50, 400})
    void noiseShiftsAMomentByWhatIsStated(double rate) {
        double squares = 0;
        int inside = 0;
        int all = 600;
        for (int k = 0; k < all; k++) {
            Crossings.Crossing c = Crossings.found(ramp(rate, 0.4, 0.0005, k, List.of()), 0.8, 0.08, true)
                    .get(0);
            double z = (c.moment() - 2) / c.u();
            squares += z * z;
            inside += Math.abs(z) <= Coverage.DEFAULT.factor(c.dof()) ? 1 : 0;
        }
        assertThat(inside / (double) all).isGreaterThan(0.925);
        // Neither is it stated to be far more than it is.
        assertThat(Math.sqrt(squares / all)).isBetween(0.6, 1.6);
    }

    private static Quantity first(Trace t, Quantity level) {
        Value v = Formula.parse("first(crossings(x, mark))")
                .evaluate(Scope.over(
                        "test",
                        Set.of("x", "mark"),
                        n -> n.equals("x")
                                ? Optional.of(new Value.Signal(t))
                                : n.equals("mark") ? Optional.of(new Value.Scalar(level)) : Optional.empty()));
        return ((Value.Scalar) v).quantity();
    }

    /** A ranger that shows 2 mm too much passes a mark earlier: by 2 mm at 0.4 m/s, 5 ms. */
    @Test
    void whatAllSamplesShareShiftsEveryMoment() {
        Trace t = ramp(50, 0.4, 0.0001, 1, List.of(new Trace.Shared(OFFSET, v -> 0.002)));
        Quantity q = first(t, Quantity.exact(0.8, METRE));
        assertThat(q.contribution(OFFSET)).isCloseTo(-0.005, within(5e-5));
        // Two marks: what it shows too much shifts both alike, and the time between them not at all.
        Quantity later = first(t, Quantity.exact(1.2, METRE));
        assertThat(later.minus(q).contribution(OFFSET)).isCloseTo(0, within(1e-4));
    }

    /** A mark that is 1 mm further along is passed 2.5 ms later, also when it is passed downwards. */
    @Test
    void anUncertainLevelMakesItsMomentUncertain() {
        Quantity mark = Quantity.of(0.8, 0.001, METRE, LEVEL);
        assertThat(first(ramp(50, 0.4, 0.0001, 1, List.of()), mark).contribution(LEVEL))
                .isCloseTo(0.0025, within(2e-5));
    }
}

package eagerneedle.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Fits in which names of the sheet stand: their lineage, several columns, rates of change. */
class KnownFitTest {
    private static Quantity q(String text) {
        return ((Value.Scalar) Formula.parse(text).evaluate(Scope.labelled(text, text))).quantity();
    }

    private static Value.Column column(String unit, double... values) {
        List<Quantity> rows = new ArrayList<>();
        for (double v : values) {
            rows.add(Quantity.exact(v, LabUnit.parse(unit)));
        }
        return new Value.Column(rows, null);
    }

    private static Value evaluated(String formula, Map<String, Value> names) {
        return Formula.parse(formula).evaluate(Scope.over("test", names));
    }

    private static Fit fit(String formula, Map<String, Value> names) {
        return ((Value.Fitted) evaluated(formula, names)).fit();
    }

    /** A factor known with 5 % beside the slope is the slope divided by it: same value, same uncertainty. */
    @Test
    void aKnownFactorIsInherited() {
        Map<String, Value> names = Map.of(
                "y", column("V", 2.1, 3.9, 6.2, 7.9, 10.1),
                "x", column("A", 1, 2, 3, 4, 5),
                "k", new Value.Scalar(q("2.0(1)")));
        Quantity a = fit("fit(y, x, formula: 'k * a * x', find: 'a')", names).parameter(0);
        Quantity other = ((Value.Scalar) evaluated("proportional(y, x) / k", names)).quantity();
        assertThat(a.value()).isCloseTo(other.value(), within(1e-12));
        assertThat(a.u()).isCloseTo(other.u(), within(1e-9));
        assertThat(a.minus(other).u()).isLessThan(1e-6);
        assertThat(a.unit().fits(LabUnit.parse("ohm"))).isTrue();
    }

    /** A name that is sought hides one that is known; an input that is added later never holds a parameter. */
    @Test
    void whatIsSoughtHidesWhatIsKnown() {
        Map<String, Value> names =
                Map.of("y", column("V", 2, 4, 6), "x", column("s", 1, 2, 3), "a", new Value.Scalar(q("7 V/s")));
        assertThat(fit("fit(y, x, formula: 'a * x', find: 'a')", names)
                        .parameter(0)
                        .value())
                .isCloseTo(2, within(1e-12));
    }

    /** Six gauges about an axis: three terms in a column that is not the abscissa, linear, from no start. */
    @Test
    void columnsStandByTheirNames() {
        double[] angle = {0, 20, 40, 65, 90, 115};
        double[] strain = new double[6];
        for (int i = 0; i < 6; i++) {
            double w = 2 * Math.toRadians(angle[i]);
            strain[i] = 100 + 40 * Math.cos(w) - 25 * Math.sin(w);
        }
        Fit f = fit(
                "fit(strain, angle, formula: 'c + d*cos(2*angle) + s*sin(2*angle)', find: 'c, d, s')",
                Map.of("strain", column("um/m", strain), "angle", column("deg", angle)));
        assertThat(f.names()).containsExactly("c", "d", "s");
        assertThat(f.parameter(0).in(LabUnit.parse("um/m"))).isCloseTo(100, within(1e-9));
        assertThat(f.parameter(1).in(LabUnit.parse("um/m"))).isCloseTo(40, within(1e-9));
        assertThat(f.parameter(2).in(LabUnit.parse("um/m"))).isCloseTo(-25, within(1e-9));
    }

    /**
     * Two columns with uncertainties of their own: what both state reaches the parameter, by the law of propagation.
     */
    @Test
    void asManyPointsAsParametersIsSolvedAsStated() {
        Value.Column y = new Value.Column(List.of(q("10.0(2) V"), q("16.0(2) V")), null);
        Value.Column z = new Value.Column(List.of(q("2.00(2) s"), q("4.00(4) s")), null);
        Fit f = fit("fit(y, formula: 'a * z + b * w', find: 'a, b')", Map.of("y", y, "z", z, "w", column("A", 1, 1)));
        // a = (y2 - y1) / (z2 - z1) = 3, b = y1 - a z1 = 4.
        assertThat(f.parameter(0).value()).isCloseTo(3, within(1e-9));
        assertThat(f.parameter(1).value()).isCloseTo(4, within(1e-9));
        double slope = Math.sqrt(0.04 + 0.04 + 9 * (0.0004 + 0.0016)) / 2;
        assertThat(f.parameter(0).u()).isCloseTo(slope, within(1e-6));
    }

    /** A formula that no program knows goes through the language, with the same lineage. */
    @Test
    void whatNeedsTheLanguageIsFittedToo() {
        Map<String, Value> names = Map.of(
                "y", column("V", 2.0, 4.0, 6.1, 8.0),
                "x", column("s", 1, 2, 3, 4),
                "k", new Value.Scalar(q("3.0(3)")));
        Fit direct = fit("fit(y, x, formula: 'a * k * x', find: 'a = 1 V/s')", names);
        Fit roundabout = fit("fit(y, x, formula: 'if(k > 1, a * k * x, a * x)', find: 'a = 1 V/s')", names);
        assertThat(roundabout.parameter(0).value())
                .isCloseTo(direct.parameter(0).value(), within(1e-9));
        assertThat(roundabout.parameter(0).u()).isCloseTo(direct.parameter(0).u(), within(1e-9));
    }

    /** A body cools in a room that grows warmer: the rate is followed, and the law for a constant room would be off. */
    @Test
    void aRateIsFollowedInDriftingSurroundings() {
        double k = 4e-4;
        Trace room = trace("T_room", "degC", 600, 10, t -> 20 + t / 1000);
        // T' = -k (T - 20 - t/1000): T = 20 + t/1000 - 1/(1000 k) + C e^-kt.
        double c = 60 - 20 + 1 / (1000 * k);
        Trace body = trace("T_body", "degC", 600, 10, t -> 20 + t / 1000 - 1 / (1000 * k) + c * Math.exp(-k * t));
        Map<String, Value> names = new HashMap<>();
        names.put("T_room", new Value.Signal(room));
        names.put("T_body", new Value.Signal(body));
        Fit f = fit("fit(T_body, rate: '-k * (T_body - T_room)', find: 'k = 1e-3 1/s')", names);
        assertThat(f.parameter(0).in(LabUnit.parse("1/s"))).isCloseTo(k, within(1e-12));
        assertThat(f.names()).containsExactly("k", "T_body_0");
        assertThat(f.parameter(1).value()).isCloseTo(60, within(1e-7));
        assertThat(f.parameter(1).unit()).isEqualTo(LabUnit.parse("degC"));
    }

    /** The zero of the room's thermometer acts on the rate: as a second fit with a room that is moved says. */
    @Test
    void whatAllSamplesOfADriverShareIsInherited() {
        double k = 4e-4;
        DoubleUnaryOperator cooling = t -> 20 + 40 * Math.exp(-k * t);
        Leaf zero = Leaf.typeB(
                "zero", "zero of the thermometer", "certificate", eagerneedle.core.quantity.Distribution.NORMAL);
        Trace plain = trace("T_room", "degC", 300, 10, t -> 20);
        Trace shared = new Trace(
                "T_room", plain.time(), plain.value(), plain.unit(), 0, List.of(new Trace.Shared(zero, v -> 0.2)));
        Trace moved = trace("T_room", "degC", 300, 10, t -> 20.2);
        Trace body = trace("T", "degC", 300, 10, cooling);
        String law = "fit(T, rate: '-k * (T - T_room)', find: 'k = 1e-3 1/s')";
        Quantity found = fit(law, Map.of("T", new Value.Signal(body), "T_room", new Value.Signal(shared)))
                .parameter(0);
        Quantity other = fit(law, Map.of("T", new Value.Signal(body), "T_room", new Value.Signal(moved)))
                .parameter(0);
        double per = LabUnit.parse("1/s").factor() / found.unit().factor();
        assertThat(found.contribution(zero))
                .isCloseTo((other.value() - found.value()), within(0.02 * Math.abs(found.contribution(zero)) * per));
        assertThat(found.contribution(zero)).isGreaterThan(0);
    }

    /** Over many draws of the known factor and of the noise the stated interval holds the truth as often as it says. */
    @Test
    void coverageIsThatOfAnIntervalOfTwoStandardUncertainties() {
        Random random = new Random(5);
        int inside = 0;
        int n = 400;
        for (int s = 0; s < n; s++) {
            double known = 2 + 0.05 * random.nextGaussian();
            double[] y = new double[8];
            double[] x = new double[8];
            for (int i = 0; i < y.length; i++) {
                x[i] = i + 1;
                y[i] = 3 * Math.exp(-known * x[i] / 7) + 0.01 * random.nextGaussian();
            }
            Quantity a = fit(
                            "fit(y, x, formula: 'a * exp(-k * x / tau)', find: 'a = 2 V, tau = 5 s')",
                            Map.of(
                                    "y", column("V", y),
                                    "x", column("s", x),
                                    "k", new Value.Scalar(q("2.00(5)"))))
                    .parameter(1);
            inside += Math.abs(a.value() - 7) < 2.2 * a.u() ? 1 : 0;
        }
        assertThat(inside / (double) n).isBetween(0.92, 0.99);
    }

    @Test
    void boundsChangeNothingUntilTheDataGoBeyondThem() {
        Map<String, Value> names = Map.of("y", column("V", 1.0, 2.1, 2.9, 4.2, 5.0), "x", column("s", 1, 2, 3, 4, 5));
        String model = "fit(y, x, formula: 'a + b * x', find: 'a, b'";
        Fit free = fit(model + ")", names);
        Fit within = fit(model + ", bounds: 'a > -1 V, b >= 0 V/s, b < 2 V/s')", names);
        for (int k = 0; k < 2; k++) {
            assertThat(within.parameter(k).value()).isEqualTo(free.parameter(k).value());
            assertThat(within.parameter(k).u()).isEqualTo(free.parameter(k).u());
        }
        assertThat(within.remarks()).isEqualTo(free.remarks());
        Fit bound = fit(model + ", bounds: 'a >= 200 mV')", names);
        Quantity a = bound.parameters().get(0);
        assertThat(a.in(LabUnit.parse("V"))).isCloseTo(0.2, within(1e-12));
        assertThat(a.u())
                .as("no better known for being bounded")
                .isEqualTo(free.parameters().get(0).u());
        // Least squares of b alone through 0.2 V, by hand: sum x (y - 0.2) / sum x^2.
        double b = (0.8 + 2 * 1.9 + 3 * 2.7 + 4 * 4.0 + 5 * 4.8) / 55;
        assertThat(bound.parameters().get(1).value()).isCloseTo(b, within(1e-12));
        assertThat(bound.parameters().get(1).u())
                .as("what the bounded one leaves open is inherited")
                .isGreaterThan(15.0 / 55 * a.u());
        assertThat(bound.remarks()).anyMatch(r -> r.startsWith("a stands at its bound; the points alone give "));
        assertThat(bound.names()).containsExactly("a", "b");
        assertThat(bound.at(2).value()).isCloseTo(0.2 + 2 * b, within(1e-12));
        assertThatThrownBy(() -> fit("fit(y, x, formula: 'b * x', find: 'b', bounds: 'b < 0 V/s')", names))
                .hasMessageContaining("no such curve fits");
    }

    private static Trace trace(String name, String unit, int n, double step, DoubleUnaryOperator f) {
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i * step;
            v[i] = f.applyAsDouble(t[i]);
        }
        return new Trace(name, t, v, LabUnit.parse(unit), 0, List.of());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "fit(y, x, formula: 'a * q * x', find: 'a')                 | The name q in the model is not known",
                "fit(y, x, formula: 'a * x', find: 'a, b')                  | The model has no b that could be found",
                "fit(y, x, formula: 'exp(a * x)', find: 'a')                | not linear in a; give it a value",
                "fit(y, x, formula: 'a * x', find: 'a = ')                  | What is to be found is written",
                "fit(y, x, formula: 'a * x', find: 'a, a')                  | a is to be found twice",
                "fit(y, x, formula: 'a * x', rate: '-a * y', find: 'a')     | a formula or a rate, not both",
                "fit(y, x, find: 'a')                                       | needs a formula or a rate",
                "fit(y, x, formula: 'a * x + b + c * x^2 + d * x^3', find: 'a, b, c, d') | needs as many points, not 3",
                "fit(y, x, formula: 'a * x + 1 A', find: 'a')               | a value in A cannot be expressed in V",
                "fit(y, x, formula: 'a * x', find: 'a', bounds: 'b > 0 V')  | The fit is not to find b",
                "fit(y, x, formula: 'a * x', find: 'a', bounds: 'a > 0 A')  | a in V/s cannot be bounded by 0 A",
                "fit(y, x, formula: 'a * x', find: 'a', bounds: 'a > 2 V/s, a < 1 V/s') | The bounds of a leave nothing",
                "fit(y, x, formula: 'a * x', find: 'a', bounds: '0 V < a')  | a parameter first, then a value",
                "fit(y, x, formula: 'a * x', find: 'a', bounds: 'a > ')     | a parameter first, then a value",
                "fit(y, z, rate: '-k * y', find: 'k = 1 1/s')               | an abscissa that rises",
            })
    void whatCannotBeFittedIsSaid(String formula, String message) {
        Map<String, Value> names =
                Map.of("y", column("V", 3, 2, 1), "x", column("s", 1, 2, 3), "z", column("s", 1, 3, 2));
        assertThatThrownBy(() -> evaluated(formula, names)).hasMessageContaining(message);
    }
}

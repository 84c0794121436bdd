package eagerneedle.core.formula;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Quantity;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Functions of the language: results by a second route, and what is said of bad arguments. */
class FunctionsTest {
    private static Value value(String text) {
        return Formula.parse(text).evaluate(Scope.empty("t"));
    }

    private static Quantity q(String text) {
        return ((Value.Scalar) value(text)).quantity();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "tc_voltage(\"Q\", 20 degC) | no thermocouple type Q",
                "tc_voltage(\"T\", 900 degC) | lies outside",
                "tc_temperature(\"K\", 3 s) | cannot be expressed",
                "tc_voltage(20 degC) | argument 2 is missing",
                "rtd_temperature(3 ohm) | check which thermometer",
                "rtd_resistance(20 degC, at_zero: 3 V) | is given in Ω",
                "absorbance(-1 V, 10 V) | no value",
                "absorbance(1 V, 0 V) | not brighter",
                "air_density(101325 Pa, 50 degC, 50 %) | holds from",
                "fit(index(5), index(5), model: \"decay2\") | did you mean decay",
                "fit(index(5), index(5)) | needs a model, a formula or a rate",
                "fit(index(5), index(5), formula: \"a * x\") | needs a starting value",
                "fit(index(5), index(5), formula: \"a * x\", start: \"3\") | written",
                "fit(index(5), index(5), model: \"power_law\") | above zero",
                "slope(index(3), index(3), scatter: \"guess\") | is told by",
                "parameter(line(index(3), index(3)), \"slpe\") | did you mean slope",
                "chi_square(line(index(3), index(3))) | needs stated",
                "window(index(5), 1 s, 2 s) | trace is needed",
                "window(trace(index(5) * 1 s, index(5)), 3 s, 1 s) | must end after",
                "trace(column(1 s, 1 s), column(1, 2)) | row 2 does not",
                "trace(column(1 s, 2 s), index(3)) | as many times",
                "period(column(1 s, 2 s)) | at least 3 edges",
                "period(column(1 s, 2 s, 1.5 s)) | must rise",
                "derivative(trace(index(5) * 1 s, index(5)), points: 4) | odd",
                "derivative(trace(index(5) * 1 s, index(5)), points: 2.5) | whole number",
                "rate(10, 1 s, dead_time: 1 s) | dead all the time",
                "poisson(-3) | 0 or more",
                "reading(3 mm, judged: 3) | between 1/20 and 1",
                "vernier(3 mm, 99) | between 0 and 20",
                "wander(5 V, 4 V) | below the lowest",
                "repeats(3 V) | column",
                "weighted_mean(1 V, 2 V) | no uncertainty",
                "normalised_difference(1 V, 2 V) | Neither value",
                "routes(1.0(1) V) | column",
                "nearest(1.0(1) V) | argument 2 is missing",
                "target(1.0(1) V, 0 V) | above zero",
                "limit(3 V, 1 V, shape: \"round\") | rectangular",
                "correlated(1.0(1), 2.0(1), 2) | between -1 and 1",
                "expanded(1.0(1), coverage: 120 %) | between 0 % and 100 %",
                "row(column(1, 2), 3) | from 1 to 2",
                "index(0) | from 1 to",
                "compare(line(index(4), index(4))) | at least two",
                "sum(column(20 degC, 30 degC)) | cannot be summed",
                "percent_error(3 V, 0 V) | zero",
                "uncertain(3 V, 0.1 V, dof: -1) | above zero",
                "robust(line(index(4), index(4)), 3) | text in quotes",
                "inverse(line(index(4), index(4)), 99) | does not reach"
            })
    void badArgumentsAreToldInOneSentence(String text, String says) {
        FormulaException e = Assertions.assertThrows(FormulaException.class, () -> value(text), text);
        assertThat(e.getMessage()).contains(says).doesNotContain("\n").doesNotContain("Exception");
        assertThat(e.column()).isBetween(1, text.length());
    }

    /** Arguments are taken in their order or refused; none is ever passed over. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "tc_temperature(\"K\", 4.096(8) mV, 22.0(5) degC) | tc_temperature(\"K\", 4.096(8) mV, "
                        + "reference: 22.0(5) degC)",
                "expanded(9.81(2), 99 %) | expanded(9.81(2), coverage: 99 %)",
                "u(limit(5 mm, 0.3 mm, \"triangular\")) | u(limit(5 mm, 0.3 mm, shape: \"triangular\"))",
                "slope(column(1.0(1), 2.1(1), 3.0(1)), index(3), \"stated\") | slope(column(1.0(1), 2.1(1), "
                        + "3.0(1)), index(3), scatter: \"stated\")",
                "rate(1000, 10 s, 25 us) | rate(1000, 10 s, dead_time: 25 us)",
                "u(limit(x: 5 mm, a: 0.3 mm)) | u(limit(5 mm, 0.3 mm))",
                "vernier(23 mm, 7, 1 mm, 50) | vernier(23 mm, 7, marks: 50)",
                "absorbance(2 V, 10 V, 1 V) | absorbance(2 V, 10 V, dark: 1 V)",
                "u(reading(84 mm, 1 mm, 0.2, 1)) | u(reading(84 mm, division: 1 mm, judged: 0.2, edges: 1))"
            })
    void argumentsAreTakenInTheirOrder(String byOrder, String byName) {
        assertThat(q(byOrder).value()).isEqualTo(q(byName).value());
        assertThat(q(byOrder).u()).isEqualTo(q(byName).u());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "sin(1, 2) | takes at most 1 argument",
                "expanded(9.81(2), 99 %, 3) | takes at most 2",
                "expanded(9.81(2), 99 %, coverage: 95 %) | is given twice",
                "limit(5 mm, 1 mm, shape: \"triangular\", shape: \"arcsine\") | is given twice",
                "mean(column(1, 2, 3), window: \"w\") | has no meaning beside a column",
                "slope(line(index(4), index(4)), window: \"w\") | has no meaning beside a fit",
                "slope(trace(index(5) * 1 s, index(5)), index(5)) | has no meaning beside the trace",
                "mean(trace(index(5) * 1 s, index(5)), \"rolling\") | given by name",
                "fit(index(5), index(5), model: \"decay\", formula: \"a * x\", start: \"a = 1\") | has no meaning",
                "tc_voltage(\"K\", 20 degC, reference: 3 V) | is given in °C",
                "period(column(0 s, 1 s, 2.01 s), window: \"w\") | has no meaning",
                "cosine(3) | no function cosine",
                "uncertain(5 V, -0.1 V) | cannot be negative",
                "limit(5 V, -0.1 V) | cannot be negative"
            })
    void noArgumentIsPassedOver(String text, String says) {
        FormulaException e = Assertions.assertThrows(FormulaException.class, () -> value(text), text);
        assertThat(e.getMessage()).contains(says).doesNotContain("\n").doesNotContain("Exception");
    }

    @Test
    void whatIsAskedOfALineIsRefusedOfAnotherCurve() {
        String decay = "fit(exp(-index(9) / 3) * 2 V + 1 V, index(9) * 1 s, model: \"decay\")";
        for (String f : new String[] {"slope", "intercept"}) {
            Assertions.assertTrue(Assertions.assertThrows(FormulaException.class, () -> value(f + "(" + decay + ")"))
                    .getMessage()
                    .contains("has no " + f));
        }
        Assertions.assertTrue(Assertions.assertThrows(FormulaException.class, () -> value("rate_at_end(" + decay + ")"))
                .getMessage()
                .contains("polynomial"));
        assertThat(q("travel(" + decay + ")").value()).isCloseTo(2 * (Math.exp(-8 / 3.0) - 1), within(1e-9));
        assertThat(q("rate_at_end(polynomial(column(8, 0, 2), column(2, 0, 1), scatter: \"stated\"))")
                        .value())
                .as("at the largest abscissa, in whatever order")
                .isCloseTo(8, within(1e-9));
        assertThat(q("travel(line(column(5, 1, 3), column(2, 0, 1)))").value()).isCloseTo(4, within(1e-12));
    }

    @Test
    void andBindsTighterThanOr() {
        for (String a : new String[] {"1 < 2", "2 < 1"}) {
            for (String b : new String[] {"1 < 2", "2 < 1"}) {
                for (String c : new String[] {"1 < 2", "2 < 1"}) {
                    boolean x = a.startsWith("1");
                    boolean y = b.startsWith("1");
                    boolean z = c.startsWith("1");
                    assertThat(value(a + " or " + b + " and " + c)).isEqualTo(new Value.Truth(x || y && z));
                    assertThat(value(a + " and " + b + " or " + c)).isEqualTo(new Value.Truth(x && y || z));
                    assertThat(value("not " + a + " and " + b)).isEqualTo(new Value.Truth(!x && y));
                    String spelled = Spelling.of(
                            Formula.parse("(" + a + " or " + b + ") and " + c).expression());
                    assertThat(value(spelled)).isEqualTo(new Value.Truth((x || y) && z));
                }
            }
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "10 degC * 4186 J/kg/K",
                "2 * 20 degC",
                "percent_error(21 degC, 20 degC)",
                "percent_difference(21 degC, 20 degC)",
                "20 degC / 10 degC",
                "sqrt(20 degC)",
                "abs(-5 degC)"
            })
    void aTemperatureIsNoFactor(String text) {
        FormulaException e = Assertions.assertThrows(FormulaException.class, () -> value(text), text);
        assertThat(e.getMessage()).contains("in K");
    }

    @Test
    void builtReadingsShareTheirInstrument() {
        Quantity a = q("accuracy(5 V, instrument: \"TH-DM-2\", of_reading: 1 %) / accuracy(2 V, instrument: "
                + "\"TH-DM-2\", of_reading: 1 %)");
        assertThat(a.u()).isCloseTo(0, within(1e-15));
        Quantity b = q("accuracy(5 V, instrument: \"TH-DM-2\", of_reading: 1 %) / accuracy(2 V, instrument: "
                + "\"TH-DM-3\", of_reading: 1 %)");
        assertThat(b.u()).isCloseTo(2.5 * 0.01 * Math.sqrt(2.0 / 3), within(1e-12));
    }

    @Test
    void theChoiceOfWindowWidensASlope() {
        String bent = "trace(index(60) * 0.1 s, (index(60) * 0.1)^2 * 1 m)";
        Quantity plain = q("slope(" + bent + ")");
        Quantity wide = q("slope(" + bent + ", choice: 10 %)");
        assertThat(wide.value()).isEqualTo(plain.value());
        assertThat(wide.contributions().keySet()).anyMatch(l -> l.label().equals("choice of window"));
        assertThat(wide.u()).isGreaterThan(plain.u());
    }

    @Test
    void columnsGoThroughSensorFunctionsElementByElement() {
        Value.Column c =
                (Value.Column) value("tc_temperature(\"K\", tc_voltage(\"K\", column(20 degC, 100 degC, 700 degC)))");
        assertThat(c.rows())
                .extracting(Quantity::value)
                .satisfiesExactly(
                        v -> assertThat(v).isCloseTo(20, within(1e-7)),
                        v -> assertThat(v).isCloseTo(100, within(1e-7)),
                        v -> assertThat(v).isCloseTo(700, within(1e-7)));
        assertThat(q("absorbance(1 %)").value()).isCloseTo(2, within(1e-12));
        assertThat(q("rtd_temperature(rtd_resistance(250 degC))").value()).isCloseTo(250, within(1e-8));
    }

    @Test
    void fitsOfTracesKeepTheirUnits() {
        Quantity tau = q("parameter(fit(trace(index(40) * 50 ms, exp(-index(40) / 12) * 3 V + 1 V), model: \"decay\"), "
                + "\"tau\")");
        assertThat(tau.in(eagerneedle.core.quantity.LabUnit.parse("ms"))).isCloseTo(600, within(1e-3));
        Quantity before = q("parameter(fit(column(0 V, 1 V, 2 V, 3 V, 3.5 V, 4 V, 4.5 V, 5 V), index(8) * 1 ms, model: "
                + "\"broken_line\"), \"before\")");
        assertThat(before.toString()).contains("V/s").startsWith("1000");
        assertThat(q("proportional(column(1 mV, 2 mV, 3.1 mV), column(1 mA, 2 mA, 3 mA))")
                        .value())
                .isCloseTo((1 + 4 + 9.3) / 14, within(1e-12));
    }

    @Test
    void aFreeFormulaMayLeaveItsDomainOnTheWay() {
        Quantity b = q("parameter(fit(column(1.0, 2.1, 3.9, 8.2), column(1, 2, 3, 4), formula: \"a*exp(b*x)\", start: "
                + "\"a=1,b=0.5\"), \"b\")");
        assertThat(b.value()).isBetween(0.65, 0.80);
        assertThat(Assertions.assertThrows(FormulaException.class, () -> value("1e400"))
                        .getMessage())
                .contains("too large");
        assertThat(Assertions.assertThrows(FormulaException.class, () -> value("1e300 * 1e300"))
                        .getMessage())
                .contains("no finite value");
    }

    @Test
    void periodsOfOscillationsAndOfEdgesAgree() {
        Quantity wave =
                q("period(trace(index(200) * 20 ms, exp(-index(200) / 150) * cos(2 * pi * index(200) / 31.7) * 2 V))");
        assertThat(wave.value()).isCloseTo(31.7 * 0.02, within(1e-6));
        Quantity crossed =
                q("period(crossings(trace(index(200) * 20 ms, exp(-index(200) / 150) * cos(2 * pi * index(200) / "
                        + "31.7) * 2 V), 0 V))");
        assertThat(crossed.value()).isCloseTo(31.7 * 0.02, within(0.004));
    }

    @Test
    void theChoiceOfWindowReachesPolynomialsAndMeans() {
        String bent = "trace(index(60) * 0.1 s, (index(60) * 0.1)^3 * 1 m)";
        Quantity plain = q("coefficient(polynomial(" + bent + ", degree: 2), 2)");
        Quantity wide = q("coefficient(polynomial(" + bent + ", degree: 2, choice: 10 %), 2)");
        assertThat(wide.value()).isEqualTo(plain.value());
        assertThat(wide.contributions().keySet()).anyMatch(l -> l.label().equals("choice of window"));
        Quantity exact =
                q("coefficient(polynomial(trace(index(60) * 0.1 s, (index(60) * 0.1)^2 * 1 m), degree: 2, choice: "
                        + "10 %), 2)");
        assertThat(exact.u()).as("a parabola is the same in every window").isCloseTo(0, within(1e-9));
        assertThat(q("mean(" + bent + ", choice: 10 %)").u())
                .isGreaterThan(q("mean(" + bent + ")").u());
        assertThat(Assertions.assertThrows(FormulaException.class, () -> value("mean(" + bent + ", choice: 80 %)"))
                        .getMessage())
                .contains("between 0 and 50 %");
    }

    @Test
    void averagingGainsAsMuchAsTheNoiseIsWhite() {
        StringBuilder white = new StringBuilder("column(");
        StringBuilder slow = new StringBuilder("column(");
        java.util.SplittableRandom random = new java.util.SplittableRandom(61);
        double state = 0;
        for (int i = 0; i < 2000; i++) {
            double x = random.nextGaussian();
            state = 0.97 * state + x;
            white.append(i == 0 ? "" : ", ").append(String.format(java.util.Locale.ROOT, "%.5f", x));
            slow.append(i == 0 ? "" : ", ").append(String.format(java.util.Locale.ROOT, "%.5f", state));
        }
        assertThat(q("averaging_gain(trace(index(2000) * 1 s, " + white + ")), 16)")
                        .value())
                .isBetween(3.3, 4.8);
        assertThat(q("averaging_gain(trace(index(2000) * 1 s, " + slow + ")), 16)")
                        .value())
                .isBetween(0.9, 1.5);
    }

    @Test
    void outliersOfATraceAreItsSamples() {
        Value.Column c = (Value.Column)
                value("outliers(trace(index(40) * 1 s, sin(index(40) * 2) * 10 mV + if(3 < 2, 1, 0) * 1 V))");
        assertThat(c.rows().get(0).value()).isZero();
        Value.Column one =
                (Value.Column) value("outliers(column(5.1, 5.0, 5.2, 5.1, 5.0, 5.2, 5.1, 1.0), threshold: 6)");
        assertThat(one.rows()).extracting(Quantity::value).containsExactly(8.0);
    }

    @Test
    void lawsOfSeveralKindsKeepCorrelationBetweenTheirParameters() {
        Quantity r =
                q("correlation(slope(line(column(1.0, 3.1, 4.9, 7.2), index(4))), slope(line(column(1.0, 3.1, 4.9, "
                        + "7.2), index(4))))");
        assertThat(r.value()).as("two fits of the same readings are the same").isCloseTo(1, within(1e-12));
        assertThat(q("correlation(slope(line(column(1.0, 3.1, 4.9, 7.2), index(4))), slope(line(column(1.0, "
                                + "3.1, 4.9, 7.3), index(4))))")
                        .value())
                .as("of other readings not")
                .isZero();
        assertThat(q("drawn_u(uncertain(2 V, 0.1 V))").value()).isCloseTo(0.1, within(0.002));
        assertThat(q("covariance(column_of(1), 2)".replace("column_of(1)", "uncertain(1 V, 0.1 V)"))
                        .value())
                .isZero();
    }
}

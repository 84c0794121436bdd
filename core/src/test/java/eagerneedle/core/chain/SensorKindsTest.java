package eagerneedle.core.chain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Every kind of sensor in a whole chain: there and back, and the step and reach shown against those found by sweeping.
 */
class SensorKindsTest {
    static Stream<Arguments> kinds() {
        List<Arguments> kinds = new ArrayList<>();
        for (String pair : List.of("E", "J", "K", "N", "R", "S", "T")) {
            kinds.add(kind(
                    "thermocouple " + pair,
                    15,
                    350,
                    Link.sensor("pair", "degC", "mV", "thermocouple", Map.of("pair", pair, "reference", "0.02 degC")),
                    Link.linear("conditioner", "amplifier", "mV", "V", "0.2", null),
                    Link.converter("logger", "V", -10, 10, 14, "signed")));
        }
        kinds.add(kind(
                "thermocouple B",
                200,
                1700,
                Link.sensor("pair", "degC", "mV", "thermocouple", Map.of("pair", "B")),
                Link.linear("conditioner", "amplifier", "mV", "V", "0.2", null),
                Link.converter("logger", "V", -4, 4, 14, "signed")));
        kinds.add(kind(
                "platinum in a divider",
                -50,
                200,
                Link.sensor("Pt100", "degC", "ohm", "platinum", Map.of("at_zero", "100.00(3) ohm")),
                Link.sensor(
                        "divider",
                        "ohm",
                        "V",
                        "divider",
                        Map.of("supply", "5 V", "known", "1 kohm", "balance", "0.05")),
                Link.converter("logger", "V", 0, 1, 16, null)));
        kinds.add(kind(
                "platinum with a current",
                -50,
                200,
                Link.sensor("Pt100", "degC", "ohm", "platinum", Map.of()),
                Link.linear("conditioner", "1 mA source", "ohm", "V", "0.001", null),
                Link.converter("logger", "V", 0, 1, 16, null)));
        kinds.add(kind(
                "thermistor",
                273.15,
                373.15,
                Link.sensor(
                        "bead",
                        "K",
                        "ohm",
                        "steinhart-hart",
                        Map.of("a", "1.1292e-3", "b", "2.3411e-4", "c", "8.7755e-8")),
                Link.sensor(
                        "divider",
                        "ohm",
                        "V",
                        "divider",
                        Map.of("supply", "5 V", "known", "10 kohm", "sensor", "upper")),
                Link.converter("logger", "V", 0, 5, 16, null)));
        kinds.add(kind(
                "thermistor by beta",
                0,
                100,
                Link.sensor(
                        "bead",
                        "degC",
                        "ohm",
                        "beta",
                        Map.of("resistance", "10 kohm", "at", "25 degC", "beta", "3950 K")),
                Link.sensor("divider", "ohm", "V", "divider", Map.of("supply", "5 V", "known", "10 kohm")),
                Link.converter("logger", "V", 0, 5, 16, null)));
        for (String arms : List.of("quarter", "half", "half-poisson", "full", "full-poisson")) {
            kinds.add(kind(
                    "gauge, " + arms,
                    -0.002,
                    0.002,
                    Link.sensor(
                            "gauge",
                            "",
                            "V",
                            "bridge",
                            Map.of("gauge_factor", "2.08", "excitation", "5 V", "arms", arms, "poisson", "0.29")),
                    Link.linear("conditioner", "amplifier", "V", "V", "100", "0.01"),
                    Link.converter("logger", "V", -5, 5, 16, "signed")));
        }
        kinds.add(kind(
                "load cell",
                0,
                200,
                Link.linear("sensor", "cell, 2 mV/V at 10 V", "N", "mV", "0.1", null),
                Link.linear("conditioner", "amplifier", "mV", "V", "0.2", null),
                Link.converter("logger", "V", 0, 5, 12, null)));
        kinds.add(kind(
                "force sensor",
                -49,
                49,
                Link.linear("sensor", "hook", "N", "V", "-0.05", "2.5").within(-50, 50),
                Link.converter("logger", "V", 0, 5, 12, null)));
        kinds.add(kind(
                "pressure in a current loop",
                0,
                9.9,
                Link.linear("sensor", "transmitter", "bar", "mA", "1.6", "4"),
                Link.linear("conditioner", "sense resistor 250 ohm", "mA", "V", "0.25", null),
                Link.converter("logger", "V", 0, 5, 12, null)));
        kinds.add(kind(
                "linear position",
                0,
                0.1,
                Link.linear("sensor", "slide", "m", "V", "48", null),
                Link.converter("logger", "V", 0, 5, 12, null)));
        kinds.add(kind(
                "rotary position",
                0,
                6,
                Link.linear("sensor", "potentiometer", "rad", "V", "0.8", null),
                Link.converter("logger", "V", 0, 5, 10, null)));
        kinds.add(kind(
                "ultrasonic ranger",
                0.2,
                3.9,
                Link.linear("sensor", "echo", "m", "ms", "5.831", null).within(0.15, 4),
                Link.counter("timer", "ms", 0.004, 14)));
        kinds.add(kind(
                "wheel encoder",
                -2,
                2,
                Link.linear("sensor", "wheel", "m", "count", "7200", null),
                new Link(
                        "converter",
                        "counter",
                        null,
                        "count",
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        1.0,
                        null,
                        16,
                        "signed",
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null,
                        null)));
        kinds.add(kind(
                "light gate with a flag",
                0.1,
                3,
                Link.sensor("flag of 20 mm", "m/s", "s", "power", Map.of("coefficient", "0.020", "exponent", "-1"))
                        .within(0.05, 20),
                Link.counter("timer", "s", 1e-6, 20)));
        kinds.add(kind(
                "light gate with spokes",
                2,
                50,
                Link.sensor("ten spokes", "rad/s", "s", "power", Map.of("coefficient", "0.6283185", "exponent", "-1"))
                        .within(1, 200),
                Link.counter("timer", "s", 1e-6, 20)));
        kinds.add(kind(
                "photometer, transmittance",
                0,
                1,
                Link.linear("sensor", "photodiode", "", "V", "2.2", "0.02"),
                Link.converter("logger", "V", 0, 2.5, 12, null)));
        kinds.add(kind(
                "photometer, absorbance",
                0,
                1.5,
                Link.sensor("photodiode", "", "V", "absorbance", Map.of("full", "2.2")),
                Link.converter("logger", "V", 0, 2.5, 16, null)));
        kinds.add(kind(
                "voltage",
                -9,
                9,
                Link.linear("sensor", "leads", "V", "V", "1", null),
                Link.converter("logger", "V", -10, 10, 12, "signed")));
        kinds.add(kind(
                "current by a sense resistor",
                -0.4,
                0.4,
                Link.linear("sensor", "sense resistor 10 ohm", "A", "V", "10.02(1)", null),
                Link.converter("logger", "V", -5, 5, 12, "signed")));
        kinds.add(kind(
                "voltage by a divider",
                0,
                49,
                Link.linear("sensor", "divider 9:1", "V", "V", "0.1", null),
                Link.converter("logger", "V", 0, 5, 12, null)));
        kinds.add(kind(
                "anemometer by cups",
                0.5,
                20,
                Link.linear("sensor", "cups", "m/s", "Hz", "8.2", "-1.5").within(0.3, 30),
                Link.counter("counter", "Hz", 0.1, 12)));
        kinds.add(kind(
                "anemometer by pressure",
                2,
                25,
                Link.sensor("tube", "m/s", "Pa", "power", Map.of("coefficient", "0.6", "exponent", "2")),
                Link.linear("conditioner", "cell", "Pa", "V", "0.01", "0.25"),
                Link.converter("logger", "V", 0, 5, 16, null)));
        kinds.add(kind(
                "humidity",
                5,
                95,
                Link.linear("sensor", "film", "%", "V", "0.031", "0.8"),
                Link.converter("logger", "V", 0, 5, 12, null)));
        kinds.add(kind(
                "hall",
                -0.05,
                0.05,
                Link.linear("sensor", "hall", "T", "V", "40", "2.5"),
                Link.converter("logger", "V", 0, 5, 12, null)));
        kinds.add(kind(
                "microphone",
                -1,
                1,
                Link.linear("sensor", "capsule", "Pa", "mV", "50", null),
                Link.linear("conditioner", "preamplifier", "mV", "V", "0.02", null),
                Link.converter("card", "V", -2, 2, 16, "signed")));
        kinds.add(kind(
                "a measured curve",
                0,
                10,
                Link.sensor(
                        "curve",
                        "mm",
                        "V",
                        "polynomial",
                        Map.of("c0", "0.1", "c1", "0.4", "c2", "0.004", "from", "0", "to", "10")),
                Link.converter("logger", "V", 0, 5, 12, null)));
        return kinds.stream();
    }

    private static Arguments kind(String name, double low, double high, Link... links) {
        return Arguments.of(name, low, high, Chain.of(List.of(links)));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void thereAndBackBeforeRounding(String name, double low, double high, Chain chain) {
        for (int i = 0; i <= 500; i++) {
            double x = low + (high - low) * i / 500;
            assertThat(chain.indication(chain.exactCounts(x)))
                    .as("%s at %s", name, x)
                    .isCloseTo(x, within(1e-9 * (high - low)));
        }
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void theStepShownIsTheStepFoundBySweeping(String name, double low, double high, Chain chain) {
        double start = low + 0.4 * (high - low);
        double step = chain.stepAt(start);
        double fine = step / 2000;
        double last = chain.counts(start);
        List<Double> changes = new ArrayList<>();
        for (double x = start; changes.size() < 2 && x < start + 4 * step; x += fine) {
            if (chain.counts(x) != last) {
                changes.add(x);
                last = chain.counts(x);
            }
        }
        assertThat(changes).as("two changes of the count").hasSize(2);
        assertThat(changes.get(1) - changes.get(0))
                .isCloseTo(chain.stepAt((changes.get(0) + changes.get(1)) / 2), within(3 * fine + 1e-3 * step));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("kinds")
    void theReachShownIsTheReachFoundBySweeping(String name, double low, double high, Chain chain) {
        double[] reach = chain.reach();
        assertThat(reach[0]).isLessThanOrEqualTo(low + 1e-9 * (high - low));
        assertThat(reach[1]).isGreaterThanOrEqualTo(high - 1e-9 * (high - low));
        // Bisect for the last value that is told apart from one a little further in: beyond it the chain is at a rail
        // or a limit.
        double seenHigh = edge(chain, low + 0.5 * (high - low), reach[1] + 0.5 * (reach[1] - low));
        double seenLow = edge(chain, low + 0.5 * (high - low), reach[0] - 0.5 * (high - reach[0]));
        assertThat(chain.exactCounts(seenHigh))
                .as("upper end, in steps")
                .isCloseTo(chain.exactCounts(reach[1]), within(1.01));
        assertThat(chain.exactCounts(seenLow))
                .as("lower end, in steps")
                .isCloseTo(chain.exactCounts(reach[0]), within(1.01));
    }

    private static double edge(Chain chain, double inside, double outside) {
        double a = inside;
        double b = outside;
        for (int i = 0; i < 80; i++) {
            double mid = (a + b) / 2;
            if (reached(chain, mid)) {
                a = mid;
            } else {
                b = mid;
            }
        }
        return a;
    }

    /**
     * True when the chain takes the value without a limit or a rail holding it: every stage within its limits, the
     * count not at an end.
     */
    private static boolean reached(Chain chain, double x) {
        double v = x;
        for (Stage s : chain.stages()) {
            if (!(v >= s.lowest() && v <= s.highest())) {
                return false;
            }
            v = s.forward(v);
        }
        double exact = chain.converter().exactCount(v);
        return exact >= chain.converter().lowestCount()
                && exact <= chain.converter().highestCount();
    }
}

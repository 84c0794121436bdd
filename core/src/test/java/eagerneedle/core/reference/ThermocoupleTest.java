package eagerneedle.core.reference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ThermocoupleTest {
    private static final LabUnit C = LabUnit.parse("degC");
    private static final LabUnit MV = LabUnit.parse("mV");

    @Test
    void everyTenthDegreeOfThePublishedTablesToTheirRounding() throws Exception {
        Map<String, Integer> checked = new HashMap<>();
        try (BufferedReader in = new BufferedReader(new InputStreamReader(
                ThermocoupleTest.class.getResourceAsStream("thermocouple-tables.csv"), StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                if (line.startsWith("#")) {
                    continue;
                }
                String[] f = line.split(",");
                assertThat(Thermocouple.ofType(f[0]).voltage(Double.parseDouble(f[1])))
                        .as(line)
                        .isCloseTo(Double.parseDouble(f[2]), within(0.00051));
                checked.merge(f[0], 1, Integer::sum);
            }
        }
        assertThat(checked.keySet()).containsExactlyInAnyOrderElementsOf(Thermocouple.types());
        assertThat(checked.values()).allMatch(n -> n > 60);
    }

    @ParameterizedTest
    @ValueSource(strings = {"B", "E", "J", "K", "N", "R", "S", "T"})
    void theInverseReturnsTheTemperatureOverTheWholeRange(String type) {
        Thermocouple t = Thermocouple.ofType(type);
        double from = type.equals("B") ? 43 : t.from();
        for (double celsius = from; celsius <= t.to(); celsius += (t.to() - from) / 4000) {
            assertThat(t.temperature(t.voltage(celsius)))
                    .as(type + " at " + celsius)
                    .isCloseTo(celsius, within(1e-7));
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"B", "E", "J", "K", "N", "R", "S", "T"})
    void thePiecesMeetAndTheSlopeIsTheDerivative(String type) {
        Thermocouple t = Thermocouple.ofType(type);
        for (double join : new double[] {0, 630.615, 760, 1064.18, 1664.5}) {
            if (join > t.from() && join < t.to()) {
                assertThat(t.voltage(join + 1e-9))
                        .as(type + " at " + join)
                        .isCloseTo(t.voltage(join - 1e-9), within(2e-6));
            }
        }
        for (double c = t.from() + 1; c < t.to() - 1; c += 7.3) {
            assertThat(t.slope(c)).isCloseTo((t.voltage(c + 1e-4) - t.voltage(c - 1e-4)) / 2e-4, within(1e-6));
        }
    }

    @Test
    void uncertaintiesAndTheReferenceJunctionGoThrough() {
        Thermocouple k = Thermocouple.ofType("k");
        Quantity junction = Quantity.of(22, 0.5, C, Leaf.typeB("cj", "reference junction", "", Distribution.NORMAL));
        Quantity hot = k.temperature(Quantity.exact(3.0, MV), junction);
        assertThat(hot.value()).isCloseTo(k.temperature(3.0 + k.voltage(22)), within(1e-9));
        assertThat(hot.u()).isCloseTo(0.5 * k.slope(22) / k.slope(hot.value()), within(1e-9));
        assertThat(k.voltage(Quantity.exact(22, C), junction).u()).isCloseTo(0.5 * k.slope(22), within(1e-12));
        assertThat(k.voltage(junction, junction).u()).isZero();
    }

    @Test
    void whatHasNoAnswerIsRefused() {
        assertThatThrownBy(() -> Thermocouple.ofType("X")).hasMessageContaining("no thermocouple type X");
        assertThatThrownBy(() -> Thermocouple.ofType("T").voltage(Quantity.exact(500, C), Quantity.exact(0, C)))
                .hasMessageContaining("-270 °C to 400 °C".replace('-', '−'))
                .hasMessageContaining("500");
        assertThatThrownBy(() -> Thermocouple.ofType("K").temperature(Quantity.exact(-8, MV), Quantity.exact(0, C)))
                .hasMessageContaining("polarity");
        assertThatThrownBy(() -> Thermocouple.ofType("B").temperature(Quantity.exact(-0.001, MV), Quantity.exact(0, C)))
                .hasMessageContaining("two temperatures");
    }

    @Test
    void platinumAgainstTheStandardsTable() {
        double[][] table = {
            {-200, 18.52},
            {-100, 60.26},
            {-50, 80.31},
            {0, 100},
            {50, 119.40},
            {100, 138.51},
            {200, 175.86},
            {400, 247.09},
            {600, 313.71},
            {850, 390.48}
        };
        for (double[] row : table) {
            assertThat(100 * PlatinumThermometer.ratio(row[0])).isCloseTo(row[1], within(0.0051));
        }
        for (double t = -200; t <= 850; t += 0.7) {
            assertThat(PlatinumThermometer.temperature(PlatinumThermometer.ratio(t)))
                    .isCloseTo(t, within(1e-9));
        }
        Quantity zero = Quantity.of(100, 0.02, LabUnit.parse("ohm"), Leaf.typeB("r0", "r0", "", Distribution.NORMAL));
        Quantity there = PlatinumThermometer.resistance(Quantity.exact(-40, C), zero);
        Quantity back = PlatinumThermometer.temperature(there, zero);
        assertThat(back.value()).isCloseTo(-40, within(1e-9));
        assertThat(back.u()).as("one resistance at zero in both directions").isCloseTo(0, within(1e-12));
        assertThatThrownBy(() -> PlatinumThermometer.temperature(Quantity.exact(5, LabUnit.parse("ohm")), zero))
                .hasMessageContaining("check which thermometer");
    }

    @Test
    void airDensityAndItsDerivatives() {
        LabUnit pa = LabUnit.parse("Pa");
        Quantity p = Quantity.of(101325, 30, pa, Leaf.typeB("p", "p", "", Distribution.NORMAL));
        Quantity t = Quantity.of(20, 0.1, C, Leaf.typeB("t", "t", "", Distribution.NORMAL));
        Quantity h = Quantity.of(0.5, 0.02, LabUnit.ONE, Leaf.typeB("h", "h", "", Distribution.NORMAL));
        Quantity rho = MoistAir.density(p, t, h);
        // A second route: the ideal-gas law with the vapour pressure of Magnus, good to about a part in a thousand.
        double vapour = 0.5 * 611.2 * Math.exp(17.62 * 20 / (243.12 + 20));
        double ideal = (101325 - vapour) / (287.05 * 293.15) + vapour / (461.5 * 293.15);
        assertThat(rho.value()).isCloseTo(ideal, within(0.0012));
        // Sensitivities published with the formula: about 1e-5 /Pa, -4e-3 /K, -9e-3 per unit of humidity, relative.
        assertThat(rho.contribution(Leaf.typeB("p", "p", "", Distribution.NORMAL)) / 30 / rho.value())
                .isCloseTo(1e-5, within(2e-7));
        assertThat(rho.contribution(Leaf.typeB("t", "t", "", Distribution.NORMAL)) / 0.1 / rho.value())
                .isCloseTo(-4e-3, within(4e-4));
        assertThat(rho.contribution(Leaf.typeB("h", "h", "", Distribution.NORMAL)) / 0.02 / rho.value())
                .isCloseTo(-9e-3, within(4e-4));
        assertThatThrownBy(() -> MoistAir.density(p, Quantity.exact(40, C), h)).hasMessageContaining("15 °C to 27 °C");
    }

    @Test
    void thermistors() {
        LabUnit ohm = LabUnit.parse("ohm");
        Quantity t = Thermistor.betaTemperature(
                Quantity.exact(10_000, ohm),
                Quantity.exact(10_000, ohm),
                Quantity.exact(25, C),
                Quantity.exact(3950, LabUnit.KELVIN));
        assertThat(t.in(C)).isCloseTo(25, within(1e-9));
        assertThatThrownBy(() -> Thermistor.temperature(
                        Quantity.exact(-1, ohm), Quantity.number(1e-3), Quantity.number(2e-4), Quantity.number(1e-7)))
                .hasMessageContaining("above zero");
    }
}

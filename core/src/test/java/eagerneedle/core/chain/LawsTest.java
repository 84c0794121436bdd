package eagerneedle.core.chain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Map;
import org.junit.jupiter.api.Test;

/** Laws against values worked out by hand, in whatever units a link is written. */
class LawsTest {
    private static Stage stage(String from, String to, String law, Map<String, String> of) {
        return Stage.of(Link.sensor(law, from, to, law, of));
    }

    @Test
    void unitsOfALinkAreConvertedToThoseOfItsLaw() {
        // 4.096 mV at 100 °C, in microvolts and from kelvin.
        Stage pair = stage("K", "µV", "thermocouple", Map.of("pair", "K"));
        assertThat(pair.forward(373.15)).isCloseTo(4096.23, within(0.01));
        assertThat(pair.backward(4096.23)).isCloseTo(373.15, within(1e-3));
        // A thousand microstrain at G = 2 and 5 V: quarter bridge 2.4975 mV.
        Stage gauge = stage("microstrain", "mV", "bridge", Map.of("gauge_factor", "2", "excitation", "5000 mV"));
        assertThat(gauge.forward(1000)).isCloseTo(5000 * 0.002 / 4.004, within(1e-9));
        assertThat(gauge.backward(gauge.forward(-1000))).isCloseTo(-1000, within(1e-9));
    }

    @Test
    void thermistorAndDividerAgreeWithTheirEquations() {
        Stage bead = stage("degC", "kohm", "beta", Map.of("resistance", "10 kohm", "at", "25 degC", "beta", "3950 K"));
        assertThat(bead.forward(25)).isCloseTo(10, within(1e-12));
        assertThat(bead.forward(50)).isCloseTo(10 * Math.exp(3950 * (1 / 323.15 - 1 / 298.15)), within(1e-9));
        Stage lower = stage("ohm", "V", "divider", Map.of("supply", "5 V", "known", "10 kohm"));
        Stage upper = stage("ohm", "V", "divider", Map.of("supply", "5 V", "known", "10 kohm", "sensor", "upper"));
        assertThat(lower.forward(2500)).isCloseTo(1, within(1e-12));
        assertThat(upper.forward(2500)).isCloseTo(4, within(1e-12));
        assertThat(lower.backward(6)).as("more than the supply").isNaN();
        assertThat(upper.backward(0)).isNaN();
    }

    @Test
    void gatesTubesAndPhotometersFollowPowersAndExponents() {
        assertThat(stage("m/s", "s", "power", Map.of("coefficient", "0.02", "exponent", "-1"))
                        .forward(0.5))
                .isCloseTo(0.04, within(1e-12));
        assertThat(stage("m/s", "Pa", "power", Map.of("coefficient", "0.6", "exponent", "2"))
                        .backward(60))
                .isCloseTo(10, within(1e-12));
        Stage light = stage("", "V", "absorbance", Map.of("full", "2"));
        assertThat(light.forward(1)).isCloseTo(0.2, within(1e-12));
        assertThat(light.backward(0)).as("no light is no absorbance").isNaN();
        assertThatThrownBy(() -> stage("m/s", "s", "power", Map.of("coefficient", "0", "exponent", "1")))
                .hasMessageContaining("other than 0");
        assertThatThrownBy(() -> stage("m/s", "s", "power", Map.of())).hasMessageContaining("needs 'exponent'");
    }

    /** A slip of the pen in a constant never becomes its usual value. */
    @Test
    void constantsThatAreUnknownOrWrongAreRefused() {
        assertThatThrownBy(
                        () -> stage("microstrain", "mV", "bridge", Map.of("gauge_facto", "2.2", "excitation", "5 V")))
                .hasMessageContaining("no constant gauge_facto")
                .hasMessageContaining("did you mean gauge_factor");
        assertThatThrownBy(() ->
                        stage("microstrain", "mV", "bridge", Map.of("gauge_factor", "banana", "excitation", "5 V")))
                .hasMessageContaining("is a number")
                .hasMessageContaining("banana");
        assertThatThrownBy(() -> stage("microstrain", "mV", "bridge", Map.of("excitation", "5 A")))
                .isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> stage("microstrain", "mV", "bridge", Map.of("excitation", "5 V", "arms", "third")))
                .hasMessageContaining("quarter");
        assertThatThrownBy(() -> stage("degC", "mV", "thermocouple", Map.of("pear", "T")))
                .hasMessageContaining("it knows pair, reference");
        assertThatThrownBy(() -> stage("degC", "mV", "thermocouple", Map.of("pair", "Q")))
                .hasMessageContaining("not Q");
        assertThatThrownBy(() -> stage("degC", "mV", "thermocouple", Map.of("pair", "3")))
                .hasMessageContaining("not 3");
        assertThatThrownBy(() ->
                        stage("ohm", "V", "divider", Map.of("supply", "5 V", "known", "10 kohm", "sensor", "middle")))
                .hasMessageContaining("lower, upper");
        assertThatThrownBy(() -> stage("degC", "mV", "thermocupple", Map.of()))
                .hasMessageContaining("did you mean thermocouple");
        assertThatThrownBy(() -> stage("N", "V", "linear", Map.of("sensitivity", "0.1")))
                .hasMessageContaining("no constant sensitivity");
        assertThatThrownBy(() -> Stage.of(
                        Link.sensor("k", "degC", "mV", "thermocouple", Map.of()).withGain("2")))
                .hasMessageContaining("no 'gain'");
    }

    @Test
    void aConstantTakesItsUnitOrNone() {
        assertThat(ChainReading.of("5000(10) mV", "V").value()).isCloseTo(5, within(1e-12));
        assertThat(ChainReading.of("5000(10) mV", "V").u()).isCloseTo(0.01, within(1e-12));
        assertThat(ChainReading.of("5", "V").value()).isEqualTo(5);
        assertThat(ChainReading.of("273.15 K", "degC").value()).isCloseTo(0, within(1e-9));
        assertThatThrownBy(() -> ChainReading.of("5 V", "")).hasMessageContaining("plain number");
        assertThatThrownBy(() -> ChainReading.of("5 A", "V")).isInstanceOf(IllegalArgumentException.class);
        assertThat(ChainReading.isNumber("quarter")).isFalse();
        assertThat(ChainReading.isNumber("-0.3")).isTrue();
    }

    @Test
    void noiseIsReferredToTheMeasurand() {
        Chain chain = Chain.of(java.util.List.of(
                Link.linear("sensor", "hook", "N", "V", "0.1", null).withNoise(0.002),
                Link.linear("conditioner", "amplifier", "V", "V", "10", null).withNoise(0.03),
                Link.converter("logger", "V", -10, 10, 16, "signed").withNoise(0.01)));
        // 2 mV over 0.1 V/N; 30 mV over ten times that; 10 mV likewise.
        assertThat(chain.noiseAt(3)).isCloseTo(Math.sqrt(0.02 * 0.02 + 0.03 * 0.03 + 0.01 * 0.01), within(1e-9));
    }
}

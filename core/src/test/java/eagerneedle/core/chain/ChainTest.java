package eagerneedle.core.chain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class ChainTest {
    private final Chain ranger = Chain.of(List.of(
            Link.linear("sensor", "echo", "m", "ms", "5.831", null).within(0.15, 4),
            Link.counter("timer", "ms", 0.004, 14)));
    private final Chain amplified = Chain.of(List.of(
            Link.linear("sensor", "pair", "degC", "V", "40e-6", "-0.0002").within(-200, 1200),
            Link.linear("conditioner", "amplifier", "V", "V", "-200", "0.01").within(-0.02, 0.02),
            Link.counter("converter", "V", 0.0002, 13)));

    @Test
    void countsAndBackAgreeToHalfAStep() {
        for (double x = 0.2; x < 4; x += 0.0137) {
            assertThat(ranger.indication(ranger.counts(x))).isCloseTo(x, within(ranger.step() / 2 + 1e-12));
        }
    }

    @Test
    void backwardsUndoesForwardsThroughAllStages() {
        for (double count = 0; count < 8191; count += 97) {
            assertThat(amplified.signal(amplified.indication(count))).isCloseTo(count * 0.0002, within(1e-12));
        }
    }

    @Test
    void reachIsTheNarrowerOfRailsAndLimits() {
        assertThat(ranger.reach()).containsExactly(new double[] {0.15, 4}, within(1e-12));
        double[] reach = amplified.reach();
        double top = amplified.indication(8191);
        double bottom = amplified.indication(0);
        assertThat(reach[0])
                .isCloseTo(Math.max(-200, Math.max(Math.min(top, bottom), (-0.02 + 0.0002) / 40e-6)), within(1e-9));
        assertThat(reach[1]).isCloseTo(Math.min(Math.max(top, bottom), (0.02 + 0.0002) / 40e-6), within(1e-9));
    }

    @Test
    void theConverterHoldsAtItsRails() {
        assertThat(ranger.counts(-5)).isZero();
        assertThat(ranger.counts(1e6)).isEqualTo(16383);
        Converter signed = Converter.of(Link.converter("c", "V", -10, 10, 12, "signed"));
        assertThat(signed.lowestCount()).isEqualTo(-2048);
        assertThat(signed.count(-11)).isEqualTo(-2048);
        assertThat(signed.count(0)).isZero();
        assertThat(signed.count(11)).isEqualTo(2047);
        assertThat(signed.step()).isEqualTo(20.0 / 4096);
    }

    @Test
    void fullScaleMayBeOneCountLess() {
        Link c = new Link(
                "converter",
                "c",
                null,
                "V",
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                List.of(0.0, 5.0),
                12,
                null,
                "2^n - 1",
                null,
                null,
                null,
                null,
                null,
                null,
                null);
        assertThat(Converter.of(c).input(4095)).isCloseTo(5, within(1e-12));
        assertThat(Converter.of(Link.converter("c", "V", 0, 5, 12, null)).input(4095))
                .isCloseTo(5 - 5.0 / 4096, within(1e-12));
    }

    @Test
    void aMeterThatShowsTheMeasurandIsAConverterAlone() {
        Chain meter = Chain.of(List.of(Link.converter("meter", "V", -10, 10, 12, null)));
        assertThat(meter.unit().symbol()).isEqualTo("V");
        assertThat(meter.step()).isCloseTo(20.0 / 4096, within(1e-12));
        assertThat(meter.reach()).containsExactly(-10, meter.indication(4095));
        assertThat(meter.indication(meter.exactCounts(1.234))).isCloseTo(1.234, within(1e-12));
        assertThat(meter.noiseAt(1)).isZero();
    }

    @Test
    void impossibleLinksAreRefusedWithASentence() {
        Link timer = Link.counter("timer", "ms", 0.004, 14);
        assertThatThrownBy(() -> Stage.of(Link.linear("sensor", "dead", "m", "V", "0", null)))
                .hasMessageContaining("gain");
        assertThatThrownBy(() -> Stage.of(
                        Link.linear("sensor", "narrow", "m", "V", "1", null).within(1, 1)))
                .hasMessageContaining("narrow");
        assertThatThrownBy(() -> Converter.of(Link.counter("c", "V", 0, 12))).hasMessageContaining("step");
        assertThatThrownBy(() -> Converter.of(Link.counter("c", "V", 1, 64))).hasMessageContaining("32 bits");
        assertThatThrownBy(() -> Chain.of(List.of())).hasMessageContaining("converter");
        assertThatThrownBy(() -> Chain.of(List.of(timer, timer))).hasMessageContaining("converter");
        assertThatThrownBy(() -> Chain.of(List.of(Link.linear("sensor", "echo", "m", "V", "1", null), timer)))
                .hasMessage("echo gives V, but timer takes ms.");
        assertThatThrownBy(() -> Stage.of(Link.sensor("pair", "degC", "ohm", "thermocouple", Map.of("pair", "K"))))
                .hasMessageContaining("gives mV");
        assertThatThrownBy(() -> Stage.of(Link.sensor("gauge", "", "V", "brigde", Map.of())))
                .hasMessageContaining("did you mean bridge");
        assertThatThrownBy(() -> Stage.of(Link.sensor("gauge", "", "V", "bridge", Map.of("gauge_factor", "2"))))
                .hasMessageContaining("excitation");
        assertThatThrownBy(() -> Stage.of(Link.sensor(
                        "curve", "V", "V", "polynomial", Map.of("c1", "1", "c2", "-1", "from", "0", "to", "2"))))
                .hasMessageContaining("turns round");
    }

    @Test
    void transfersAreWrittenWithTheirUnits() {
        assertThat(ranger.stages().get(0).transfer(1)).isEqualTo("5.831 ms/m");
        assertThat(ranger.converter().transfer()).isEqualTo("0.004 ms a step, 14 bit");
        assertThat(amplified.stages().get(1).transfer(0)).contains("−200").contains("+ 0.01 V");
        assertThat(Stage.of(Link.linear("conditioner", "amplifier", "V", "V", "200.0(4)", null))
                        .transfer(0))
                .isEqualTo("× 200.00(40)");
        assertThat(Stage.of(Link.linear("conditioner", "amplifier", "mV", "V", "0.2000(4)", null))
                        .transfer(0))
                .isEqualTo("× 200.00(40)");
        assertThat(Stage.of(Link.sensor("pair", "degC", "mV", "thermocouple", Map.of("pair", "K")))
                        .transfer(20))
                .isEqualTo("40.33 µV/K");
    }

    @Test
    void theQuarterBridgeBendsAndTheOthersDoNot() {
        Stage quarter =
                Stage.of(Link.sensor("g", "", "V", "bridge", Map.of("gauge_factor", "2.00", "excitation", "5 V")));
        // Written out: 5 V (2 × 0.002) / (4 + 2 × 2 × 0.002) against 5 V × 0.004 / 4.
        assertThat(quarter.forward(0.002)).isCloseTo(5 * 0.004 / 4.008, within(1e-15));
        Stage half = Stage.of(Link.sensor(
                "g", "", "V", "bridge", Map.of("gauge_factor", "2.00", "excitation", "5 V", "arms", "half")));
        assertThat(half.forward(0.002)).isCloseTo(5 * 0.004 / 2, within(1e-15));
        Stage full = Stage.of(Link.sensor(
                "g", "", "V", "bridge", Map.of("gauge_factor", "2.00", "excitation", "5 V", "arms", "full")));
        assertThat(full.forward(0.002)).isCloseTo(5 * 0.004, within(1e-15));
        // A quarter bridge by its own resistances: R(1 + G ε) over 120 ohm against two equal arms.
        double r = 120 * (1 + 2.00 * 0.002);
        assertThat(quarter.forward(0.002)).isCloseTo(5 * (r / (r + 120) - 0.5), within(1e-14));
    }

    @Test
    void uncertainConstantsBecomeInfluencesOfTheSize() {
        Chain chain = Chain.of(List.of(
                Link.sensor("pair", "degC", "mV", "thermocouple", Map.of("pair", "K", "reference", "0.0(1) degC")),
                Link.linear("conditioner", "amplifier", "mV", "V", "0.2000(4)", "0.0000(2)")
                        .withNonlinearity(0.001)
                        .within(-5, 5),
                Link.converter("logger", "V", -1, 1, 16, "signed")));
        assertThat(chain.shared("left").get(0).leaf())
                .as("two channels of one chain have two errors")
                .isNotEqualTo(chain.shared("right").get(0).leaf());
        List<Trace.Shared> shared = chain.shared();
        assertThat(shared)
                .extracting(s -> s.leaf().label())
                .containsExactly(
                        "pair: reference", "amplifier: gain", "amplifier: offset", "amplifier: departure from its law");
        // At 100 °C: 0.1 K of the junction by the ratio of sensitivities, 0.2 % of 4.096 mV, 0.2 mV at the output over
        // 200.
        assertThat(shared.get(0).contribution().applyAsDouble(100)).isCloseTo(0.1 * 39.45 / 41.37, within(0.001));
        assertThat(Math.abs(shared.get(1).contribution().applyAsDouble(100)))
                .isCloseTo(0.002 * 4.0962 / 0.04137, within(0.002));
        assertThat(Math.abs(shared.get(2).contribution().applyAsDouble(100))).isCloseTo(0.001 / 0.04137, within(1e-4));
        Quantity known = chain.known(100, "x");
        assertThat(known.u()).isGreaterThan(0.2).isLessThan(0.35);
    }
}

package eagerneedle.core.chain;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.SheetReader;
import java.util.Map;
import org.junit.jupiter.api.Test;

/**
 * Numbers that stand on the Rig and Calibrate screens of the shipped sheets, worked out with pencil, paper and the
 * published tables.
 */
class ByHandTest {
    private static Channel channel(String sheet, String name) {
        return SheetReader.read(SheetReader.shippedText(sheet), sheet)
                .sheet()
                .channels()
                .get(name);
    }

    @Test
    void oneStepOfTheCabinetsChainInKelvin() {
        Chain chain = channel("drying-cabinet", "cabinet").toChain();
        // Type K: 1.900 mV at 47 °C, 1.941 mV at 48 °C. One step 1.6 V / 2^13 = 195.3 µV, a two-hundredth of it at the
        // input.
        double sensitivity = 1.941 - 1.900;
        double step = 1.6 / 8192 / 200 * 1000;
        assertThat(chain.stepAt(47.5)).isCloseTo(step / sensitivity, within(0.0004));
    }

    @Test
    void whatTheAmplifierLeavesUncertain() {
        Chain chain = channel("drying-cabinet", "cabinet").toChain();
        // 0.2 % of 1.921 mV and 1 mV over 200, in quadrature, over 41.2 µV/K.
        double byHand = Math.hypot(0.002 * 1921, 5.0) / 41.2;
        double sum = chain.shared().stream()
                .filter(s -> s.leaf().source().equals("difference amplifier"))
                .mapToDouble(s -> Math.pow(s.contribution().applyAsDouble(47.5), 2))
                .sum();
        assertThat(Math.sqrt(sum)).isCloseTo(byHand, within(0.002));
    }

    @Test
    void oneStepOfTheReferenceBath() {
        Chain chain = channel("drying-cabinet", "bath").toChain();
        // 5 V / 4096 over 1 mA is 1.2207 ohm; 0.3894 ohm/K at 12 °C: 103.90 ohm at 10 °C less 104.68 ohm at 12 °C over
        // 2 K is 0.390.
        assertThat(chain.stepAt(12)).isCloseTo(1.2207 / 0.3895, within(0.01));
    }

    @Test
    void theStrainThatAShuntLooksLike() {
        Chain chain = channel("calibration-day", "strain").toChain();
        // 350 ohm beside 200 kohm at G = 2.08: minus 350 / 200350 / 2.08 = minus 839.9 microstrain.
        double strain = -350.0 / 200350 / 2.08;
        assertThat(strain * 1e6).isCloseTo(-839.87, within(0.01));
        // Quarter bridge of 5 V, gain 0.5 V/mV: 5000 mV × G ε / (4 + 2 G ε) × 0.5, over a step of 10 V / 65536.
        double ge = 2.08 * strain;
        double counts = 0.5 * 5000 * ge / (4 + 2 * ge) / (10.0 / 65536);
        assertThat(chain.exactCounts(strain * 1e6)).isCloseTo(counts, within(1e-6 * Math.abs(counts)));
        assertThat(chain.indication(counts)).isCloseTo(-839.87, within(0.01));
    }

    @Test
    void theShuntRepeatsWhatAResistorDoesToTheArm() {
        // The arm itself: 350 ohm and 200 kohm in parallel against three arms of 350 ohm, 5 V across.
        double arm = 350.0 * 200000 / 200350;
        double bridge = 5 * (arm / (arm + 350) - 0.5);
        Stage gauge =
                Stage.of(Link.sensor("gauge", "", "V", "bridge", Map.of("gauge_factor", "2.08", "excitation", "5 V")));
        assertThat(gauge.forward(-350.0 / 200350 / 2.08)).isCloseTo(bridge, within(1e-12));
    }
}

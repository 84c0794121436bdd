package eagerneedle.core.function;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import org.junit.jupiter.api.Test;

/** Of a curve of temperatures the level is a temperature, and what it falls by is a difference. */
class TemperatureFitTest {
    /** 20 °C + 60 K exp(-t / 30 s), without noise, at eight moments. */
    private static final String FIT = "fit(column(80 degC, 62.99200 degC, 50.80503 degC, 42.07277 degC, 35.81583 degC, "
            + "31.33253 degC, 28.12012 degC, 25.81832 degC), index(8) * 10 s, model: \"decay\")";

    private static Quantity of(String formula) {
        return ((Value.Scalar) Formula.parse(formula).evaluate(Scope.empty("test"))).quantity();
    }

    @Test
    void theAmplitudeIsADifference() {
        assertThat(of("parameter(" + FIT + ", \"amplitude\") / (1 K)").value()).isCloseTo(60, within(1e-3));
        assertThat(of("parameter(" + FIT + ", \"amplitude\")").unit().symbol()).isEqualTo("K");
        Quantity start = of("parameter(" + FIT + ", \"level\") + parameter(" + FIT + ", \"amplitude\")");
        assertThat(start.unit().symbol()).isEqualTo("degC");
        assertThat(start.value()).isCloseTo(80, within(1e-3));
        assertThat(of("parameter(" + FIT + ", \"tau\")").value()).isCloseTo(30, within(1e-2));
    }
}

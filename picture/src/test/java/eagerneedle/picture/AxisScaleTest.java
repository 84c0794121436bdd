package eagerneedle.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class AxisScaleTest {
    @ParameterizedTest
    @CsvSource({
        "us², 0, 3.4e8, ms², 1e-6",
        "us², 0, 900, us², 1",
        "m, -0.0004, 0.0002, µm, 1e6",
        "mm, 0, 250000, m, 1e-3",
        "Pa, 0, 2.1e11, GPa, 1e-9",
        "°C, 0, 0.0001, °C, 1",
        "%, 0, 0.0001, %, 1",
        "'', 0, 1e9, '', 1",
        "things, 0, 1e9, things, 1"
    })
    void prefixesKeepPowersOffTheAxis(String unit, double from, double to, String shown, double factor) {
        Plot.Axis axis = new Plot.Axis("quantity", unit);
        AxisScale s = AxisScale.of(axis, from, to);
        assertThat(s.unit()).isEqualTo(shown);
        assertThat(s.factor()).isCloseTo(factor, within(1e-12 * factor));
        assertThat(s.label(axis)).isEqualTo(shown.isEmpty() ? "quantity" : "quantity, " + shown);
    }
}

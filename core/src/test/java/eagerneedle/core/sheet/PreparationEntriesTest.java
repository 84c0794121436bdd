package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.calibration.Relation;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.reduce.SheetTrial;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Entries of a sheet about chains, calibrations, devices and planning: what they mean, and what is said about mistakes
 * in them.
 */
class PreparationEntriesTest {
    private static final String DAY = SheetReader.shippedText("calibration-day");
    private static final String CABINET = SheetReader.shippedText("drying-cabinet");

    private static SheetReader.Located read(String text) {
        return SheetTrial.read(text, "sheet.yaml");
    }

    @Test
    void aCalibrationIsReadWithItsPointsAndItsUsualValues() {
        Sheet sheet = read(DAY).sheet();
        Channel.CalibrationPlan shunt = sheet.channels().get("strain").calibration();
        assertThat(shunt.toRelation()).isEqualTo(Relation.LINE);
        assertThat(shunt.points()).hasSize(4);
        assertThat(shunt.points().get(1).words()).isEqualTo("1000 kΩ across the gauge");
        assertThat(shunt.points().get(1).reference()).startsWith("-R_g /");
        assertThat(shunt.after())
                .as("the first point is checked after use when the sheet does not say")
                .containsExactly(shunt.points().get(0));
        assertThat(shunt.seconds()).isEqualTo(2);
        Channel.CalibrationPlan gate = sheet.channels().get("gate").calibration();
        assertThat(gate.points().get(0).words())
                .as("a point may be a reading alone")
                .isEqualTo("10.00(2) mm");
        Channel.CalibrationPlan scale = sheet.channels().get("scale").calibration();
        assertThat(scale.trims()).containsExactly("ZERO", "SPAN");
        assertThat(scale.verify()).extracting(Channel.PointPlan::way).containsExactly("up", "up", "up", "down", "down");
        assertThat(sheet.channels().get("charge").calibration().typed()).isTrue();
        assertThat(sheet.inputs().get("R_sense").actual()).isEqualTo("resistance");
    }

    @Test
    void devicesOutputsTimesAndMaterialsAreRead() {
        Sheet sheet = read(CABINET).sheet();
        Output heater = sheet.devices().get("logger").outputs().get("heater");
        assertThat(heater.highest()).isEqualTo(24);
        assertThat(heater.ramp()).isEqualTo(6);
        assertThat(heater.dwellAbove()).isEqualTo(20);
        assertThat(sheet.prepare().get(0).minutes()).isEqualTo(20);
        assertThat(sheet.materials().get(0).unit()).isEqualTo("kg");
        TimeLine line =
                TimeLine.of(sheet.timeline().stream().map(Sheet.Task::toTask).toList());
        assertThat(line.total())
                .as("shorter than one after another")
                .isLessThan(sheet.timeline().stream()
                        .mapToDouble(Sheet.Task::minutes)
                        .sum());
        assertThat(sheet.timeline().get(0).id()).as("a word, not a truth").isEqualTo("on");
        assertThat(sheet.channels().get("cabinet").stepWanted()).isEqualTo(0.1);
        assertThat(sheet.channels().get("cabinet").needed().orElseThrow()).containsExactly(15, 80);
        assertThat(sheet.channels().get("cabinet").with(null, 20.0, 4, "bath").inputOr("cabinet"))
                .isEqualTo("bath");
    }

    static Stream<Arguments> mistakes() {
        return Stream.of(
                Arguments.of(DAY, "law: bridge", "law: brigde", List.of("line 57", "law")),
                Arguments.of(DAY, "arms: quarter", "arms: three", List.of("'arms' of a bridge")),
                Arguments.of(
                        DAY,
                        "\"-R_g / (R_g + R_1) / G\"",
                        "\"-R_g / (R_g + R_9) / G\"",
                        List.of("R_9 is not known here")),
                Arguments.of(DAY, "\"-R_g / (R_g + R_1) / G\"", "\"R_g\"", List.of("channels", "")),
                Arguments.of(DAY, "band: 0.5 g", "band: 0.5 mm", List.of("sheet.yaml")),
                Arguments.of(DAY, "      divisions: 8\n", "", List.of("needs its 'divisions'")),
                Arguments.of(DAY, "      band: 0.5 g\n", "", List.of("needs its 'band'")),
                Arguments.of(
                        DAY,
                        "[\"10.00(2) mm\", \"20.00(2) mm\", \"40.00(2) mm\"]",
                        "[]",
                        List.of("needs at least 1 point")),
                Arguments.of(DAY, "actual: resistance", "actual: resistence", List.of("did you mean resistance")),
                Arguments.of(DAY, "strain.slope", "strain.slop", List.of("strain.slop is not known")),
                Arguments.of(DAY, "tolerance: 1.5 g", "tolerance: 1.5 V", List.of("sheet.yaml")),
                Arguments.of(
                        CABINET,
                        "from: mV, to: V, gain: \"0.2000(4)\"",
                        "from: mV, to: V, gain: \"0\"",
                        List.of("gain")),
                Arguments.of(
                        CABINET,
                        "{pair: K, reference: \"0.00(5) degC\"}",
                        "{pair: Q, reference: \"0.00(5) degC\"}",
                        List.of("sheet.yaml")),
                Arguments.of(CABINET, "to: ohm, law: platinum", "to: V, law: platinum", List.of("gives Ω")),
                Arguments.of(CABINET, "range: [-0.8, 0.8]", "range: [0.8, -0.8]", List.of("lowest, highest")),
                Arguments.of(CABINET, "after: [on]}", "after: [off]}", List.of("waits for off")),
                Arguments.of(CABINET, "2 * 0.6 L", "2 * volume", List.of("volume is not known here")),
                Arguments.of(CABINET, "wants_step: 0.1 K", "wants_step: 0.1 V", List.of("sheet.yaml")),
                Arguments.of(CABINET, "fastest: 5 s", "fastest: 5 K", List.of("sheet.yaml")),
                Arguments.of(CABINET, "driver: line", "driver: telepathy", List.of("driver")),
                Arguments.of(CABINET, "unit: degC\n    needs: [15", "unit: K\n    needs: [15", List.of("sheet.yaml")));
    }

    @ParameterizedTest(name = "{1}")
    @MethodSource("mistakes")
    void mistakesAreToldInPlaceInOneSentence(String good, String was, String is, List<String> said) {
        assertThat(good).contains(was);
        assertThatThrownBy(() -> read(good.replaceFirst(
                        java.util.regex.Pattern.quote(was), java.util.regex.Matcher.quoteReplacement(is))))
                .isInstanceOf(SheetException.class)
                .satisfies(e -> {
                    assertThat(e.getMessage())
                            .startsWith("sheet.yaml, line ")
                            .matches(".*[.?]$")
                            .doesNotContain("\n")
                            .doesNotContain("Exception");
                    said.stream()
                            .filter(w -> !w.isEmpty() && !w.equals("channels") && !w.startsWith("line"))
                            .forEach(w -> assertThat(e.getMessage()).contains(w));
                });
    }
}

package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.reduce.SheetTrial;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SheetReaderTest {
    private static final String GOOD = """
            sheet: 1
            id: rod
            title: A rod
            subject: Trial
            inputs:
              length: {label: length, value: "842.3(6) mm", by: tape}
              mass: {label: mass, value: "1.20(1) kg"}
            channels:
              x:
                label: position
                unit: m
                chain:
                  - {kind: sensor, label: echo, from: m, to: ms, gain: 5.8}
                  - {kind: converter, label: timer, from: ms, step: 0.004, bits: 14}
            captures:
              roll:
                label: Roll
                channels: [x]
                levels:
                  A: {label: block A, set: {rise: length / 10}}
                windows:
                  rolling: {on: x, propose: longest-travel}
                quantities:
                  a: {label: acceleration, formula: "2 * coefficient(polynomial(x, window: \\"rolling\\"), 2)", planned: "1 m/s^2"}
            results:
              density: {label: density, formula: "mass / length", unit: kg/m}
              twice: {label: twice, formula: "2 * density"}
              mean_a: {label: mean a, formula: "mean(roll.a)"}
            comparisons:
              - {id: c, label: compare, result: twice, reference: density}
            checks:
              - {label: heavy, formula: "density > 1 kg/m"}
            """;

    private static SheetException reading(String text) {
        return Assertions.assertThrows(SheetException.class, () -> SheetTrial.read(text, "rod.yaml"));
    }

    @Test
    void aGoodSheetIsReadWithItsPlaces() {
        SheetReader.Located s = SheetTrial.read(GOOD, "rod.yaml");
        assertThat(s.sheet().inputs().get("length").leafLabel()).isEqualTo("length by tape");
        assertThat(s.sheet().channels().get("x").toChain().step())
                .isCloseTo(0.004 / 5.8, org.assertj.core.api.Assertions.within(1e-12));
        assertThat(s.places().get("/results/density/formula")).containsExactly(26, 39);
        assertThat(s.sheet().mainComparison().id()).isEqualTo("c");
        assertThat(s.sheet().captures().get("roll").repeats()).isEqualTo(1);
    }

    /** Each mistake gets one sentence with file, line and column. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "mass / length     | mass + length       | 26 | cannot be expressed",
                "mass / length     | mass / lenght       | 26 | lenght is not known here; did you mean length?",
                "2 * density       | 2 * twice           | 27 | twice needs twice",
                "unit: kg/m        | unit: kg/wombat     | 26 | 'wombat' is not a unit",
                "unit: kg/m        | unit: kg            | 26 | cannot be expressed in kg",
                "mass / length     | mass / (length      | 26 | something is missing",
                "1.20(1) kg        | 1,20(1) kg          | 7  | decimal comma",
                "1.20(1) kg        | heavy               | 7  | not a number",
                "on: x             | on: y               | 22 | no channel y",
                "channels: [x]     | channels: [z]       | 18 | no channel z",
                "propose: longest-travel | propose: nearest | 22 | longest-travel",
                "bits: 14          | bits: 64            | 14 | 32",
                "kind: converter   | kind: sensor        | 14 | ends with its converter",
                "title: A rod      | titel: A rod        | 3  | titel",
                "result: twice     | result: thrice      | 30 | thrice is not known",
                "reference: density | reference: mass    | 30 | cannot be compared",
                "density > 1 kg/m  | density > 1 s       | 32 | cannot be expressed",
                "mean(roll.a)      | mean(roll.b)        | 28 | roll.b is not known",
                "length / 10       | width / 10          | 20 | width is not known",
                "id: rod           | id: Rod one         | 2  | no name that can be used",
                "sheet: 1          | sheet: 9            | 1  | 1",
            })
    void mistakesAreToldWithTheirLine(String good, String bad, int line, String says) {
        assertThat(GOOD).contains(good);
        SheetException e = reading(GOOD.replaceFirst(java.util.regex.Pattern.quote(good), bad.replace("$", "\\$")));
        assertThat(e.getMessage())
                .startsWith("rod.yaml, line " + line + ",")
                .contains(says)
                .doesNotContain("\n");
    }

    @Test
    void circlesAreReportedByName() {
        String circular = GOOD.replace("mass / length\"", "twice / 2\"");
        assertThat(reading(circular).getMessage())
                .contains("goes round in a circle")
                .contains("density needs twice needs density");
    }

    @Test
    void circlesThroughColumnsAreFoundToo() {
        String circular = GOOD.replace("set: {rise: length / 10}", "set: {rise: mean_a}")
                .replace("\"2 * coefficient", "\"rise * coefficient")
                .replace("planned: \"1 m/s^2\"", "planned: \"rise\"");
        SheetException e = reading(circular);
        assertThat(e.getMessage()).contains("goes round in a circle").contains("mean_a");
    }

    @Test
    void slipsOfYamlAreToldWithTheirLine() {
        assertThat(reading("sheet: 1\nid: rod\n  title: A: rod\n").getMessage())
                .startsWith("rod.yaml, line 3,")
                .contains("indentation");
        assertThat(reading("sheet: 1\ninputs: {a: [1, 2\nresults: {}\n").getMessage())
                .contains("line");
        assertThat(reading("sheet: 1\nid: rod\nid: again\n").getMessage()).contains("id");
        assertThat(reading("- just\n- a list\n").getMessage()).contains("not a method sheet");
        assertThat(reading("").getMessage()).contains("not a method sheet");
        assertThat(reading("a: &x [*x]\n").getMessage()).doesNotContain("\n");
        assertThat(reading("sheet: 1\n").getMessage()).contains("line 1");
    }

    @Test
    void aTreeWithoutEndIsRefused() {
        StringBuilder deep = new StringBuilder("sheet: ");
        deep.append("[".repeat(3000)).append("]".repeat(3000));
        assertThat(reading(deep.toString()).getMessage()).doesNotContain("\n");
    }

    /** Whatever is broken in the text, there is a sentence, never a crash. */
    @Test
    void randomDamageNeverCrashes() {
        Random r = new Random(11);
        for (int i = 0; i < 400; i++) {
            byte[] bytes = GOOD.getBytes(StandardCharsets.UTF_8);
            for (int k = 0; k < 1 + r.nextInt(4); k++) {
                bytes[r.nextInt(bytes.length)] = (byte) (32 + r.nextInt(95));
            }
            try {
                SheetTrial.read(new String(bytes, StandardCharsets.UTF_8), "rod.yaml");
            } catch (SheetException e) {
                assertThat(e.getMessage())
                        .startsWith("rod.yaml")
                        .doesNotContain("\n")
                        .doesNotContain("Exception");
            }
        }
    }

    @Test
    void everyShippedSheetIsGood() {
        for (String id : SheetReader.shipped()) {
            SheetReader.Located s = SheetTrial.read(SheetReader.shippedText(id), id + ".yaml");
            assertThat(s.sheet().id()).isEqualTo(id);
            assertThat(s.sheet().cautions()).isNotEmpty();
            assertThat(s.sheet().finish()).isNotEmpty();
            assertThat(s.sheet().mainComparison()).isNotNull();
        }
        Assertions.assertThrows(SheetException.class, () -> SheetReader.shippedText("no-such-method"));
    }

    @Test
    void twoStepsDoNotShareASignature() {
        String twice = SheetReader.shippedText("baggage-chute")
                .replace("{id: ranger, text: Ranger switched off}", "{id: feet, text: Ranger switched off}");
        assertThatThrownBy(() -> SheetReader.read(twice, "twice.yaml"))
                .isInstanceOf(SheetException.class)
                .hasMessageContaining("there is a step feet already");
    }

    @Test
    void aResultIsCalledByItsLabelOrByItsName() {
        Sheet sheet = SheetReader.read(SheetReader.shippedText("baggage-chute"), "chute")
                .sheet();
        assertThat(sheet.called("a_zero")).isEqualTo("intercept of the line");
        assertThat(sheet.called("fall_line")).isEqualTo("fall_line");
        assertThat(sheet.called("nothing like it")).isEqualTo("nothing like it");
    }

    @Test
    void aViewShowsQuantitiesOfItsRun() {
        String dye = SheetReader.shippedText("fading-dye");
        assertThat(SheetReader.read(dye, "dye.yaml")
                        .sheet()
                        .captures()
                        .get("fade")
                        .views())
                .hasSize(3);
        assertThatThrownBy(() -> SheetReader.read(dye.replace("y: ln_A, y_label", "y: ln_B, y_label"), "dye.yaml"))
                .isInstanceOf(SheetException.class)
                .hasMessageContaining("ln_B")
                .hasMessageContaining("did you mean ln_");
    }
}

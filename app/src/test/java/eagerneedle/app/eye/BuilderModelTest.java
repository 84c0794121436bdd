package eagerneedle.app.eye;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reading.Face;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** A reading that is built: every face takes the value along, says what comes of it, and is taken apart again. */
class BuilderModelTest {
    private static Quantity read(String text) {
        return Written.quantity(text, "a", "a", "a");
    }

    /** Whatever it is read from, the value stays what it was, as far as the face can tell. */
    @ParameterizedTest
    @EnumSource(Face.class)
    void everyFaceTakesTheValueAlong(Face face) {
        for (String expected :
                new String[] {"310.5(3) mm", "23.5(1) deg", "12.42(10) s", "3.4(1) V", "120.00(2) g", "21.4(1) degC"}) {
            BuilderModel model = new BuilderModel("pointer", expected, "");
            if (!model.faces().contains(face)) {
                continue;
            }
            model.choose(face);
            assertThat(model.problem()).as(face + " of " + expected).isEmpty();
            Quantity q = read(model.written());
            Quantity was = read(expected);
            assertThat(q.in(was.unit())).as(face + " of " + expected).isCloseTo(was.value(), within(0.51));
            assertThat(model.says()).contains("u");
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "310.5(3) mm | | RULE",
                "23.5(1) deg | | ANGLE",
                "23.5(1) ml | | MENISCUS",
                "12.4(1) s | | STOPWATCH",
                "3.4(1) V | | METER",
                "3.4(1) g | | BALANCE",
                "21.4(1) degC | | RULE",
                "310.5(3) mm | vernier(310 mm, 7, division: 1 mm, marks: 20) | VERNIER",
                "12.4(1) s | 12.4; 12.5; 12.3 s | SEVERAL",
                "reading(23.4 ml, division: 0.1 ml, judged: 0.2, edges: 2, start: 0 ml) | | MENISCUS",
                "310.5(3) mm | about | RULE"
            })
    void theFaceThatOneThinksOfComesFirst(String expected, String text, Face face) {
        BuilderModel model = new BuilderModel("it", expected, text == null ? "" : text);
        assertThat(model.face()).isEqualTo(face);
        assertThat(model.problem()).isEmpty();
    }

    @Test
    void whatWasWrittenIsTakenUpAgain() {
        String text = "vernier(23 mm, 7, division: 1 mm, marks: 20)";
        BuilderModel model = new BuilderModel("wire", "23.4(1) mm", text);
        assertThat(model.written()).isEqualTo(text);
        model.say("mark", "8");
        assertThat(model.written()).isEqualTo("vernier(23 mm, 8, division: 1 mm, marks: 20)");
        assertThat(model.says()).startsWith("23.400(14) mm").contains("u² comes from: vernier 100 %");
        model.say("mark", "25");
        assertThat(model.problem()).contains("lies between 0 and 20");
        assertThat(model.says()).isEmpty();
        model.say("mark", "");
        assertThat(model.problem()).contains("Say what stands for");
    }

    @Test
    void aReadingOfAnotherKindIsTold() {
        BuilderModel model = new BuilderModel("wire", "23.4(1) mm", "");
        model.say("mark", "3 V");
        assertThat(model.problem()).isNotEmpty();
    }

    @Test
    void whatIsPickedStandsInTheText() {
        PickModel model = new PickModel("arm", "100(1) mm", "", 3, 800, 600);
        model.move(0, 100, 50);
        model.move(1, 512, 50);
        model.move(2, 100, 400);
        model.move(3, 900, 400);
        assertThat(model.spots().get(3).x()).as("as far as the picture reaches").isEqualTo(800);
        model.know("300 mm", "1", "0.5 %");
        assertThat(model.written())
                .isEqualTo("picked_length(100.0, 50.0, 512.0, 50.0, 100.0, 400.0, 800.0, 400.0, 300 mm, pick: 1, "
                        + "parallax: 0.5 %, picture: 3)");
        assertThat(read(model.written()).in(LabUnit.parse("mm"))).isCloseTo(300 * 412 / 700.0, within(1e-9));
        PickModel again = new PickModel("arm", "100(1) mm", model.written(), 3, 800, 600);
        assertThat(again.spots()).isEqualTo(model.spots());
        assertThat(again.length()).isEqualTo("300 mm");
        PickModel other = new PickModel("arm", "100(1) mm", model.written(), 4, 800, 600);
        assertThat(other.spots())
                .as("points of another picture mean nothing here")
                .isNotEqualTo(model.spots());
        model.know("300 mm", "-1", "0 %");
        assertThat(model.problem()).isNotEmpty();
        model.know("300 s", "1", "0 %");
        assertThat(model.problem()).contains("arm is in mm");
    }

    @Test
    void anAngleIsPickedForWhatIsReadInDegrees() {
        PickModel model = new PickModel("slope", "90(1) deg", "", 1, 800, 600);
        assertThat(model.kind()).isEqualTo(PickModel.Kind.ANGLE);
        model.move(0, 100, 100);
        model.move(1, 500, 100);
        model.move(2, 100, 400);
        assertThat(model.says()).isEqualTo("slope = 90.00(19) °");
        assertThat(new PickModel("slope", "90(1) deg", model.written(), 1, 800, 600).spots())
                .isEqualTo(model.spots());
        model.choose(PickModel.Kind.LENGTH);
        assertThat(model.problem()).contains("slope is in");
    }
}

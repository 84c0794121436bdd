package eagerneedle.core.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class PlainWordsTest {
    private final PlainWords words =
            PlainWords.of(SheetReader.read(SheetReader.shippedText("baggage-chute"), "baggage-chute.yaml")
                    .sheet());

    @Test
    void keysBecomeLabelsAndPlacesGo() {
        assertThat(words.say(
                        "the sheet in chute.needle, line 139, column 43: slopes.a has no rows yet: capture a run."))
                .isEqualTo("Acceleration has no rows yet: capture a run.");
        assertThat(words.say("baggage-chute.yaml, line 9, column 1: g_reference is missing."))
                .isEqualTo("Reference g is missing.");
    }

    @Test
    void wordsAndNumbersStayWhatTheyAre() {
        String said = "A cart took 2.5 s, 0.3 mm off; g is 9.81 m/s^2 (see key 4), e.g. at 1.5e3.";
        assertThat(words.say(said)).isEqualTo(said);
        assertThat(words.say("no_such_name is not known")).isEqualTo("no_such_name is not known");
        assertThat(words.say(null)).isEmpty();
    }

    @Test
    void whatHasNoLabelKeepsItsKey() {
        Sheet sheet = SheetReader.read(SheetReader.shippedText("riding-carriage"), "carriage.yaml")
                .sheet();
        assertThat(PlainWords.of(sheet).say("by_T2 and ride.r_outer"))
                .isEqualTo("by_T2 and radius found from outside in");
    }

    @Test
    void membersOfFamiliesAreIndicesInPrintAndColumnsKeepTheirNames() {
        PlainWords rotor = PlainWords.of(SheetReader.read(SheetReader.shippedText("mast-rotor"), "rotor.yaml")
                .sheet());
        assertThat(rotor.formula("eta.r10 = P_e.r10 / P_w + 2.5 * u(P_e.r10)"))
                .isEqualTo("eta_r10 = P_e_r10 / P_w + 2.5 * u(P_e_r10)");
        String column = rotor.formula("mean(" + sheetColumn() + ")");
        assertThat(column).isEqualTo("mean(" + sheetColumn() + ")");
        assertThat(words.formula("mean(slopes.a)")).isEqualTo("mean(slopes.a)");
    }

    private static String sheetColumn() {
        Sheet sheet = SheetReader.read(SheetReader.shippedText("mast-rotor"), "rotor.yaml")
                .sheet();
        String capture = sheet.captures().keySet().iterator().next();
        return capture + "."
                + sheet.captures().get(capture).quantities().keySet().iterator().next();
    }
}

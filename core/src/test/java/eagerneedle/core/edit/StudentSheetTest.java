package eagerneedle.core.edit;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

class StudentSheetTest {
    @Test
    void noMethodGivesAwayWhatIsHiddenAndEachCanStillBeReduced() {
        for (String id : SheetReader.shipped()) {
            String whole = SheetReader.shippedText(id);
            String text = StudentSheet.of(whole);
            Sheet is = SheetTrial.readOfSession(text, id).sheet();
            Sheet was = SheetTrial.read(whole, id).sheet();
            assertThat(is.mistakes()).isEmpty();
            assertThat(is.comparisons()).isEmpty();
            assertThat(is.hasPhysics() && !is.pool().isThere()).as(id).isFalse();
            assertThat(is.results().keySet()).as(id).isEqualTo(was.results().keySet());
            assertThat(is.captures().keySet()).isEqualTo(was.captures().keySet());
            assertThat(text).as(id).doesNotContain("mistakes:", "change: {");
            was.rig().hidden().forEach((name, value) -> {
                if (value.matches(".*\\d\\(\\d+\\).*")) {
                    assertThat(text).as(id).doesNotContainPattern("\\b" + name + ": \"?" + Pattern.quote(value));
                }
            });
        }
    }

    @Test
    void theMassOnTheBalanceIsAnAnswerAndLocalGIsNot() {
        Sheet is = SheetTrial.readOfSession(StudentSheet.of(SheetReader.shippedText("letter-scale")), "letter-scale")
                .sheet();
        assertThat(is.inputs()).containsKey("g").doesNotContainKey("M_bal");
    }

    @Test
    void remarksGoAndWhatOnlyLooksLikeOneStays() {
        String text = """
                sheet: 2 # the truth is 9.81
                # and so it is
                id: a
                title: "A # B"
                question: >-
                  What # is it?
                inputs:
                  g: {label: "g é 😀", value: "9.8 m/s^2"} # near 9.81
                rig: {hidden: {g: "9.81 m/s^2"}}
                """;
        String is = StudentSheet.of(text);
        assertThat(is).doesNotContain("9.81").contains("\"A # B\"", "What # is it?", "😀", "9.8 m/s^2");
    }
}

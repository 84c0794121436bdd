package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import org.junit.jupiter.api.Test;

/** After a dot stands a part of a fit. */
class PartsOfFitsTest {
    private static final String CHUTE = PlannedByHand.TEXT;

    private static Reduction planned(String text) {
        SheetReader.Located sheet = SheetReader.read(text, "chute.yaml");
        return new Reducer(sheet, (run, channel) -> RawSamples.NONE).plan(Session.start(text, "Chute", Instant.EPOCH));
    }

    @Test
    void aPartIsWhatItsFunctionGives() {
        Reduction one = planned(CHUTE);
        Reduction other = planned(CHUTE.replace("\"slope(fall_line)\"", "fall_line.slope")
                .replace("\"intercept(fall_line)\"", "fall_line.intercept"));
        for (String name : new String[] {"g", "g_eff", "a_zero"}) {
            assertThat(other.quantity(name).orElseThrow().value())
                    .isEqualTo(one.quantity(name).orElseThrow().value());
            assertThat(other.quantity(name).orElseThrow().u())
                    .isEqualTo(one.quantity(name).orElseThrow().u());
        }
    }

    @Test
    void aPartThatIsNotThereIsToldWithThoseThatAre() {
        String text = CHUTE.replace("\"slope(fall_line)\"", "fall_line.slop");
        assertThat(SheetTrial.look(text, "chute.yaml").problems())
                .first()
                .extracting(SheetException::getMessage)
                .asString()
                .contains("The fit fall_line has no slop; did you mean slope? It has intercept, slope.");
        assertThat(SheetTrial.look(CHUTE.replace("\"slope(fall_line)\"", "fal_line.slope"), "chute.yaml")
                        .problems())
                .first()
                .extracting(SheetException::getMessage)
                .asString()
                .contains("fal_line");
    }
}

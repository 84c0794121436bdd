package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** What only shows when a sheet is carried out is found there, at its line, with its cause. */
class RehearsalTrialTest {
    private static final String CHUTE = SheetReader.shippedText("baggage-chute");

    private static List<SheetException> tried(String text, int sessions) {
        SheetReader.Looked looked = SheetTrial.look(text, "trial.yaml");
        return looked.problems().isEmpty()
                ? RehearsalTrial.of(looked.located().orElseThrow(), sessions)
                : looked.problems();
    }

    /** Every kind of capture and of calibration is among them; the long profile tries all methods. */
    private static final List<String> SOME = List.of(
            "baggage-chute", "counted-charge", "dividing-tables", "logging-day", "potters-wheel", "trolley-two-gates");

    private static List<String> shipped() {
        return Boolean.getBoolean("everyMethod") ? SheetReader.shipped() : SOME;
    }

    @ParameterizedTest
    @MethodSource("shipped")
    void whatShipsIsGood(String id) {
        assertThat(tried(SheetReader.shippedText(id), 1)).isEmpty();
    }

    /** Each of these passed a look at the sheet alone. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            formula: "duration(position, window: \\"rolling\\")" | formula: "travel(motion)"          | cannot be expressed in s
            formula: "2 * D / t_roll^2"                          | formula: "2 * D / t_roll"          | in
            formula: "slope(v)"                                  | formula: "slope(v, v)"             | slope
            degree: 2, window: \\"rolling\\")"}\\n      a: {label: acceleration, symbol: a, unit: m/s^2, formula: "2 * coefficient(motion, 2)"}\\n | degree: 2, window: \\"rolling\\")"}\\n      a: {label: acceleration, symbol: a, unit: m/s^2, formula: "2 * coefficient(motion, 3)"}\\n | coefficient
            change: {g: "g_eff"}                                 | change: {g: "g_eff * (1 + k_w * m_w / m_c)"} | the mistake wheels changes nothing
            (a_west - a_east) / 2                                | (a_west - a_east) / spacing        | cannot be expressed in m/s
            fit: fall_line}                                      | fit: g_eff}                        | is drawn as a fit
            y_unit: m/s^2, fit                                   | y_unit: m/s, fit                   | cannot be drawn in
            reference: g_reference                               | reference: spacing                 | cannot be compared with
            abs(tilt) < 0.5 deg                                  | abs(tilt) < 0.5 m                  | a value in m
            "slope(fall_line)"                                   | fall_line.slop                     | has no slop; did you mean slope?
            {rig.stuck.position: "mod(run, 4) == 0 and t > 0.9 s"} | {rig.stuck.position: "t > 100 s"} | no watch, check or comparison notices asleep
            """)
    void whatALookCannotKnowShowsInARehearsal(String good, String bad, String said) {
        String from = good.replace("\\n", "\n");
        assertThat(CHUTE).contains(from);
        String text = CHUTE.replace(from, bad.replace("\\n", "\n"));
        assertThat(SheetTrial.look(text, "trial.yaml").problems())
                .as("a look alone finds nothing")
                .isEmpty();
        List<SheetException> found = tried(text, 1);
        assertThat(found).isNotEmpty();
        assertThat(found.get(0).getMessage()).contains(said);
        String wrong = bad.replace("\\n", "\n");
        int line = (int) text.substring(0, text.indexOf(wrong)).lines().count();
        assertThat(found.get(0).line())
                .isBetween(line, line + (int) wrong.lines().count());
    }

    /** A formula that is wrong by a factor misses the hidden truth, and is told. */
    @Test
    void aResultThatMissesItsTruthIsTold() {
        String text = CHUTE.replace("formula: \"g_eff * (1 + k_w * m_w / m_c)\"", "formula: \"g_eff * 1.1\"");
        assertThat(tried(text, RehearsalTrial.SESSIONS))
                .anySatisfy(p -> assertThat(p.getMessage()).contains("rehearsals, where 95 % are promised"));
    }
}

package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.sheet.SheetException;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** One edit to a good sheet, or several: each is found, where it stands, and nothing else is told. */
class SheetProblemsTest {
    private static final String GOOD = PlannedByHand.TEXT;

    private static List<SheetException> problems(String text) {
        return SheetTrial.look(text, "chute.yaml").problems();
    }

    private static String edited(String text, String from, String to) {
        assertThat(text).as("the sheet holds what is edited").contains(from);
        int at = text.indexOf(from);
        return text.substring(0, at) + to + text.substring(at + from.length());
    }

    private static Arguments edit(String from, String to, String says) {
        return Arguments.of(from, to, says);
    }

    static Stream<Arguments> edits() {
        return Stream.of(
                edit("842.3(6) mm", "842.3(6 mm", "'(6 mm' is not a unit"),
                edit("842.3(6) mm", "842.3(6) mmm", "mmm"),
                edit("needs: [0.2 m, 1.6 m]", "needs: [0.2 m, 1.6 s]", "s"),
                edit("wants_step: 2 mm", "wants_step: 2 ms", "ms"),
                edit("device: ranger", "device: rangr", "did you mean ranger?"),
                edit("from: m, to: ms", "from: m, to: msec", "msec"),
                edit("step: 0.004, bits: 14", "step: 0.004, bits: many", "bits"),
                edit("0.500(1) m", "0.500(1) kg", "kg"),
                edit("{id: aim,", "{id: feet,", "there is a step feet already"),
                edit("after: [set, ranger]", "after: [set, rangr]", "did you mean ranger?"),
                edit("channels: [position]", "channels: [positon]", "did you mean position?"),
                edit("{on: position, propose", "{on: speed, propose", "no channel speed"),
                edit("propose: longest-travel", "propose: longest-trap", "longest-trap is not one of longest-travel"),
                edit("2 * coefficient(motion, 2)", "2 * coeficient(motion, 2)", "did you mean coefficient?"),
                edit("2 * coefficient(motion, 2)", "2 * coefficient(motion, 2", "closing bracket"),
                edit("2 * coefficient(motion, 2)", "2 * coefficient(motio, 2)", "did you mean motion?"),
                edit("{rise: rise_C}", "{rise: rise_F}", "the name rise_F is not known here"),
                edit(
                        "spread: {set: rise, plotted: \"rise / spacing\"",
                        "spread: {set: rise, plotted: \"rise / spcing\"",
                        "did you mean spacing?"),
                edit("from: 20 mm, to: 100 mm", "from: 20 mm, to: 100 s", "s"),
                edit("mean(level_east.a)", "mean(level_est.a)", "did you mean level_east.a?"),
                edit("(a_west - a_east) / 2", "(a_west - a_east) / spacing", "m/s"),
                edit(
                        "formula: \"g_eff * (1 + k_w * m_w / m_c)\"}",
                        "formula: \"g * (1 + k_w * m_w / m_c)\"}",
                        "goes round in a circle"),
                edit("fit: fall_line}", "fit: fal_line}", "did you mean fall_line?"),
                edit("fit: fall_line}", "fit: g_eff}", "is drawn as a fit"),
                edit("y_unit: m/s^2, fit", "y_unit: m/s, fit", "cannot be drawn in"),
                edit("reference: g_reference", "reference: g_refrence", "did you mean g_reference?"),
                edit("reference: g_reference", "reference: spacing", "cannot be compared with"),
                edit("abs(tilt) < 0.5 deg", "abs(tilt) < 0.5 m", "m"),
                edit("change: {slopes.rolling: whole}", "change: {slopes.roling: whole}", "slopes.roling"),
                edit("change: {g: \"g_eff\"}", "change: {g: \"g_ef\"}", "did you mean g_eff?"),
                edit("hint: Push", "hnt: Push", "did you mean hint?"),
                edit("repeats: 4", "repeats: -4", "repeats"),
                edit("repeats: 4", "repeats: four", "repeats takes a whole number, not a text"),
                edit("repeats: 4", "repeats:", "repeats takes a whole number, not nothing"),
                edit("hands: false", "hands: maybe", "hands takes true or false, not a text"),
                edit("label: foot spacing, ", "", "spacing needs its 'label'"),
                edit("m_w: {label: all", "4w: {label: all", "'4w' is no name that can be used here"),
                edit("y_unit: m/s^2, fit", "y_unit: 1e400, fit", "'1e400' is not a unit"));
    }

    /**
     * After a dot stands a column of a capture, a member or a part of a fit; where it could be two of them it is
     * refused.
     */
    @Test
    void aNameThatCouldMeanTwoThingsIsRefused() {
        String sheet = """
                sheet: 2
                id: pull
                title: Pull
                subject: Mechanics
                sets: {sort: {names: [soft, hard]}}
                inputs:
                  m: {each: sort, label: mass, value: 1.00(1) kg}
                captures:
                  %s:
                    label: Pull
                    by_eye: {%s: {label: pointer, value: 1.0(1) mm}}
                    levels: {a: {label: a, set: {L: 1 m}}, b: {label: b, set: {L: 2 m}}, c: {label: c, set: {L: 3 m}}}
                    quantities: {q: {label: q, unit: mm, formula: "%s + L * 2 mm/m"}}
                results:
                  law: {label: line, formula: "line(%s.q, %s.L)"}
                """;
        assertThat(problems(sheet.formatted("pull", "x", "x", "pull", "pull"))).isEmpty();
        List<SheetException> member = problems(sheet.formatted("m", "soft", "soft", "m", "m"));
        assertThat(member).hasSize(1);
        assertThat(member.get(0).getMessage())
                .contains("m.soft could be the column soft of the capture m, or a member of the family m");
        assertThat(member.get(0).line()).isEqualTo(7);
        List<SheetException> part = problems(sheet.formatted("law", "slope", "slope", "law", "law"));
        assertThat(part).hasSize(1);
        assertThat(part.get(0).getMessage())
                .contains("law.slope could be the column slope of the capture law, or a part of law");
        assertThat(part.get(0).line()).isEqualTo(15);
    }

    @ParameterizedTest(name = "{0} to {1}")
    @MethodSource("edits")
    void oneEditIsFoundWhereItStands(String from, String to, String says) {
        String text = edited(GOOD, from, to);
        List<SheetException> found = problems(text);
        assertThat(found).as("one cause, told once").hasSize(1);
        SheetException p = found.get(0);
        assertThat(p.getMessage()).contains(says).startsWith("chute.yaml, line ");
        int line = (int) GOOD.substring(0, GOOD.indexOf(from) + 1).lines().count();
        assertThat(p.line()).as(p.getMessage()).isEqualTo(line);
    }

    @Test
    void theGoodSheetHasNoProblem() {
        assertThat(problems(GOOD)).isEmpty();
    }

    @Test
    void severalEditsAreAllToldInOrder() {
        String text = edited(GOOD, "842.3(6) mm", "842.3(6) mmm");
        text = edited(text, "device: ranger", "device: rangr");
        text = edited(text, "2 * coefficient(motion, 2)", "2 * coeficient(motion, 2)");
        text = edited(text, "mean(level_east.a)", "mean(level_est.a) + nothing");
        text = edited(text, "change: {g: \"g_eff\"}", "change: {g: \"g_ef\"}");
        List<SheetException> found = problems(text);
        assertThat(found).hasSize(6);
        assertThat(found).isSortedAccordingTo(java.util.Comparator.comparingInt(SheetException::line));
        assertThat(found.get(3).getMessage() + found.get(4).getMessage()).contains("level_est.a", "nothing");
    }

    @Test
    void twoThatDoNotBelongAreToldWithoutWhatIsMissing() {
        String text = edited(edited(GOOD, "hint: Push", "hnt: Push"), "title: \"Baggage", "titel: \"Baggage");
        assertThat(problems(text).stream().map(Throwable::getMessage))
                .hasSize(2)
                .anyMatch(m -> m.contains("hnt"))
                .anyMatch(m -> m.contains("titel") && m.contains("did you mean title?"));
    }
}

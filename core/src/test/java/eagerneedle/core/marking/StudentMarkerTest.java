package eagerneedle.core.marking;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class StudentMarkerTest {
    private static final String SHEET = """
            sheet: 2
            id: falling-tin
            title: A tin falls
            subject: Motion
            question: How fast does it fall?
            inputs:
              h: {label: height of fall, value: "1.200(2) m"}
              t: {label: time of fall, value: "0.4950(20) s"}
              d: {label: diameter of the tin, value: "84.0(2) mm"}
            results:
              a: {label: acceleration, unit: m/s^2, formula: "2 * h / t^2"}
              v: {label: speed at the ground, unit: m/s, formula: "a * t"}
              share: {label: share of the height, unit: "%", formula: "d / h"}
              tilt: {label: sine of the tilt, formula: "sin(0.3 * h / (1.2 m))"}
              decay: {label: logarithm, formula: "ln(h / d)"}
              warm: {label: warming, unit: K, formula: "21.5 degC - 17.3 degC"}
              room: {label: room, unit: K, formula: "21.5 degC"}
              A: {label: area, unit: cm^2, formula: "3.14159265 * d^2 / 4"}
            mistakes:
              - {id: no-square, label: Time not squared, change: {a: "2 * h / t * 1 s^-1"}, says: It is squared.}
            """;

    private final OwnData data;

    StudentMarkerTest() {
        SheetReader.Located sheet = SheetTrial.read(SHEET, "falling-tin");
        data = new OwnData(sheet, Session.start(SHEET, "A tin falls", Instant.EPOCH), (r, c) -> RawSamples.NONE);
    }

    private Marked mark(String quantity, String value, String u, String unit) {
        return all(new HandIn("one", quantity, value, u, unit)).get(0);
    }

    private List<Marked> all(HandIn... handIns) {
        return StudentMarker.mark(
                data, List.of(handIns), List.of(), new StudentMarker.Asked(true, true), q -> Map.of("bench 4", 9.1234));
    }

    @Test
    void aRightNumberIsRightInAnyUnitAndForm() {
        // 2 * 1.2 / 0.495^2 = 9.79492; u from u(t)/t twice, 0.0081, and u(h)/h, 0.0017: 0.081.
        assertThat(mark("a", "9.79", "0.08", "m/s^2").verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(mark("acceleration", "979", "8", "cm/s^2").verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(mark("a", "9,79", "0,08", "m/s²").verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(mark("a", "9.79(8) m/s^2", "", "").verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(mark("a", "9.8", "0.8 %", "m/s^2").verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(mark("a", "0.979 x 10^1", "0.08", "m/s^2").verdict()).isEqualTo(Verdict.RIGHT);
    }

    @Test
    void unitPowerDigitsAndUncertaintyAreToldApart() {
        assertThat(mark("a", "9.79", "0.08", "").verdict()).isEqualTo(Verdict.UNIT);
        assertThat(mark("a", "9.79", "0.08", "m/s").verdict()).isEqualTo(Verdict.UNIT);
        assertThat(mark("a", "9.79", "0.08", "cm/s^2").verdict()).isEqualTo(Verdict.UNIT);
        assertThat(mark("a", "979", "8", "m/s^2").verdict()).isEqualTo(Verdict.POWER);
        assertThat(mark("a", "9.79492", "0.081", "m/s^2").verdict()).isEqualTo(Verdict.DIGITS);
        assertThat(mark("a", "9.79", "", "m/s^2").verdict()).isEqualTo(Verdict.UNCERTAINTY);
        assertThat(mark("a", "9.79", "0.01", "m/s^2").verdict()).isEqualTo(Verdict.UNCERTAINTY);
        assertThat(mark("a", "9.79", "2", "m/s^2").verdict()).isEqualTo(Verdict.UNCERTAINTY);
        assertThat(mark("a", "", "", "").verdict()).isEqualTo(Verdict.MISSING);
        Marked words = mark("a", "about ten", "", "");
        assertThat(words.verdict()).isEqualTo(Verdict.UNEXPLAINED);
        assertThat(words.notes().get(0)).contains("cannot be read as a number");
        assertThat(mark("speed of light", "3e8", "", "m/s").notes()).contains("The method has no result of that name.");
    }

    @Test
    void slipsOfAnglesAndLogarithmsAreThoseOfAHandCalculation() {
        // sin 0.3 = 0.2955; of 0.3 * 180 / pi and of 0.3 * pi / 180; ln(1.2 / 0.084) = 2.659 against log10.
        assertThat(mark("tilt", "-0.996", "", "").explanations().get(0).id()).isEqualTo("degrees-in-radians");
        assertThat(mark("tilt", "0.005236", "", "").explanations().get(0).id()).isEqualTo("radians-in-degrees");
        assertThat(mark("decay", "1.155", "", "").explanations().get(0).id()).isEqualTo("other-logarithm");
    }

    @Test
    void ofTwoNumbersForOneQuantityTheLastCountsAndThatIsSaid() {
        List<Marked> m =
                all(new HandIn("one", "a", "7.313", "0.08", "m/s^2"), new HandIn("one", "a", "9.79", "0.08", "m/s^2"));
        assertThat(m).hasSize(1);
        assertThat(m.get(0).verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(m.get(0).notes()).contains("It was handed in more than once; the last one counts.");
    }

    @Test
    void percentAndDegreesAreReadAsPeopleMeanThem() {
        // 84.0 mm / 1.200 m = 7.00 %, u 0.020 %
        assertThat(mark("share", "7.00", "0.02", "%").verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(mark("share", "0.0700", "0.0002", "").verdict()).isEqualTo(Verdict.RIGHT);
        assertThat(mark("share", "7.00", "0.02", "").verdict()).isEqualTo(Verdict.UNIT);
        assertThat(mark("warm", "4.2", "0", "K").verdict()).isNotIn(Verdict.UNIT, Verdict.UNEXPLAINED);
        assertThat(mark("warm", "4.2", "0", "degC").verdict()).isNotIn(Verdict.UNIT, Verdict.UNEXPLAINED);
        assertThat(mark("room", "21.5", "0", "degC").verdict()).isNotIn(Verdict.UNIT, Verdict.UNEXPLAINED);
        assertThat(mark("room", "294.7", "0", "degC").verdict()).isEqualTo(Verdict.UNIT);
        assertThat(mark("a", "1e999", "", "").verdict()).isEqualTo(Verdict.UNEXPLAINED);
        assertThat(mark("a", "NaN", "", "").notes().get(0)).contains("cannot be read");
    }

    @Test
    void aMistakeASlipAndTheDataOfOthersAreNamed() {
        // 2.4 / 0.495 = 4.848
        Marked m = mark("a", "4.848", "0.03", "m/s^2");
        assertThat(m.verdict()).isEqualTo(Verdict.EXPLAINED);
        assertThat(m.explanations().get(0).id()).isEqualTo("no-square");
        assertThat(mark("a", "-9.795", "0.08", "m/s^2").explanations().get(0).id())
                .isEqualTo("sign");
        assertThat(mark("a", "9.123", "0.08", "m/s^2").explanations().get(0).id())
                .isEqualTo("data-bench 4");
        // pi d^2, the diameter for the radius: 221.67 cm^2
        assertThat(mark("A", "221.7", "1.1", "cm^2").explanations().get(0).id()).startsWith("diameter-d");
        Marked none = mark("a", "7.313", "0.08", "m/s^2");
        assertThat(none.verdict()).isEqualTo(Verdict.UNEXPLAINED);
        assertThat(none.explanations()).isEmpty();
    }

    @Test
    void withTwoDigitsItIsSaidThatItMayBeCoincidence() {
        Marked m = mark("a", "9.1", "0.1", "m/s^2");
        assertThat(m.verdict()).isEqualTo(Verdict.UNEXPLAINED);
        assertThat(String.join(" ", m.notes())).contains("With so few digits it may be coincidence", "bench 4");
    }

    @Test
    void aLaterNumberFollowsFromAnEarlierOneThatIsWrong() {
        // 7.313 * 0.495 = 3.6199
        List<Marked> both =
                all(new HandIn("one", "v", "3.62", "0.04", "m/s"), new HandIn("one", "a", "7.313", "0.08", "m/s^2"));
        assertThat(both.get(0).quantity()).isEqualTo("v");
        assertThat(both.get(0).verdict()).isEqualTo(Verdict.FOLLOWED);
        assertThat(both.get(0).followsFrom()).containsExactly("a");
        assertThat(both.get(1).verdict()).isEqualTo(Verdict.UNEXPLAINED);
        // The right one, though the earlier is wrong.
        assertThat(all(new HandIn("one", "v", "4.848", "0.04", "m/s"), new HandIn("one", "a", "7.313", "0.08", "m/s^2"))
                        .get(0)
                        .verdict())
                .isEqualTo(Verdict.RIGHT);
    }

    @Test
    void whatNobodyGaveWasNotAskedFor() {
        List<HandIn> bare = List.of(new HandIn("one", "a", "9.79", "", ""));
        assertThat(StudentMarker.mark(data, bare, List.of(), StudentMarker.Asked.of(bare), q -> Map.of())
                        .get(0)
                        .verdict())
                .isEqualTo(Verdict.RIGHT);
    }

    @Test
    void zerosAtTheEndOfAWholeNumberHoldThePlace() {
        assertThat(GivenNumber.of(new HandIn("one", "a", "1200", "", "")).step())
                .isEqualTo(100);
        assertThat(GivenNumber.of(new HandIn("one", "a", "1200", "3", "")).step())
                .isEqualTo(1);
        assertThat(GivenNumber.of(new HandIn("one", "a", "100", "", "")).step()).isEqualTo(10);
        assertThat(GivenNumber.of(new HandIn("one", "a", "1.20e3", "", "")).step())
                .isEqualTo(10);
        assertThat(GivenNumber.of(new HandIn("one", "a", "(1.60 ± 0.02)e-3 kg", "", ""))
                        .step())
                .isCloseTo(1e-5, org.assertj.core.data.Offset.offset(1e-15));
    }

    @Test
    void callsArePutOtherwiseWhereverTheyStand() {
        assertThat(Rewriting.changed(
                        "2 * sin(a + cos(b)) + 'sin(x)'", "sin|cos", a -> List.of("(" + a.get(0) + ") * 2")))
                .contains("2 * sin((a + cos((b) * 2)) * 2) + 'sin(x)'");
        assertThat(Rewriting.changed("arcsin(a)", "sin", a -> a)).isEmpty();
        assertThat(Rewriting.renamed("ln(x) + plan(x)", "ln", "log10")).contains("log10(x) + plan(x)");
    }
}

package eagerneedle.core.physics;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Every slip in a block of physics is found where it stands, and says what would be right. */
class PhysicsTrialTest {
    private static final String GOOD = """
            hidden: {grip: "0.05(1) m/s^2", start: "0.1 m"}
            roll:
              hidden: {push: "0.4(1) m/s"}
              state: {y: start, v: 0 m/s}
              rates: {y: v, v: "dry(v, 0 m/s^2, grip)"}
              when: {pushed: {at: 0.5 s, set: {v: push}}}
              signals: {x: y}
              lasts: 3 s
            truth: {whole: "half * 2"}
            """;

    private static List<SheetException> problems(String text) {
        SheetReader.Looked looked = SheetReader.look(text, "trial.yaml");
        return looked.problems().isEmpty() ? PhysicsTrial.of(looked.located().orElseThrow()) : looked.problems();
    }

    @Test
    void theGoodOneIsGood() {
        assertThat(problems(PhysicsTest.sheet(GOOD))).isEmpty();
    }

    @Test
    void aCaptureOfWhichNothingIsToldIsNotMadeUp() {
        List<SheetException> found = problems(PhysicsTest.sheet("hidden: {grip: 2 m}\n"));
        assertThat(found).hasSize(1);
        assertThat(found.get(0).getMessage())
                .contains("the rig says nothing of this capture: write what its channels are shown");
        assertThat(problems(PhysicsTest.sheet("signals: {x: 0.5 m + 0.1 m/s * t}\n")))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            signals: {x: y}          | signals: {x: yy}                 | The rig knows no yy
            signals: {x: y}          | signals: {x: v}                  | x is shown a value in m/s where m is wanted
            signals: {x: y}          | signals: {z: y}                  | there is no channel z
            signals: {x: y}          | readings: {mark: y}              | nothing says what x is shown in roll
            rates: {y: v,            | rates: {y: y,                    | The rate of y, in m, is in m where m/s is wanted
            rates: {y: v,            | rates: {q: v,                    | There is no state q that could have a rate
            dry(v, 0 m/s^2, grip)    | dry(v, 0 m/s, grip)              | must be of one kind
            dry(v, 0 m/s^2, grip)    | 0(1) m/s^2                       | Nothing is drawn here
            set: {v: push}           | set: {v: y}                      | v is in m/s and cannot be set to a value in m
            set: {v: push}           | set: {w: push}                   | There is no state w to be set
            at: 0.5 s                | at: 0.5 m                        | A time is needed here
            y: start                 | y: strat                         | did you mean start?
            push: "0.4(1) m/s"       | push: "push + 1 m/s"             | push depends on itself
            lasts: 3 s               | lasts: grip                      | A time is needed here
            whole: "half * 2"        | whole: "half * 2 s"              | this gives m·s, but whole is in m
            whole: "half * 2"        | whole: "y"                       | this needs y, which the rig does not know for a whole session
            whole: "half * 2"        | hole: "half * 2"                 | there is no result hole; did you mean whole?
            roll:\\n  hidden         | rol:\\n  hidden                  | there is no capture rol; did you mean roll?
            y: start                 | y: sqrt(start) - start           | do not go together
            hidden: {push: "0.4(1) m/s"} | hidden: {push: "0.4(1) m/s", t: 3 s} | t means something of its own
            at: 0.5 s                | at: 0.5 s, passes: y             | needs one of
            """)
    void aSlipIsFound(String good, String bad, String said) {
        String from = good.replace("\\n", "\n");
        String to = bad.replace("\\n", "\n");
        assertThat(GOOD).contains(from);
        List<SheetException> found = problems(PhysicsTest.sheet(GOOD.replace(from, to)));
        assertThat(found).as(bad).isNotEmpty();
        assertThat(found.get(0).getMessage().toLowerCase()).contains(said.toLowerCase());
        assertThat(found.get(0).line()).as("a line within the rig").isGreaterThan(28);
    }

    @Test
    void aMistakeAtTheBenchMustChangeSomething() {
        String mistake = "mistakes:\n  - {id: m, label: Mistake, change: {rig.%s: \"%s\"}, says: Why.}\n";
        assertThat(problems(PhysicsTest.sheet(GOOD) + mistake.formatted("grip", "3 * grip")))
                .isEmpty();
        assertThat(problems(PhysicsTest.sheet(GOOD) + mistake.formatted("gripp", "3 * grip")))
                .singleElement()
                .satisfies(
                        p -> assertThat(p.getMessage()).contains("the rig has no rig.gripp; did you mean rig.grip?"));
        assertThat(problems(PhysicsTest.sheet(GOOD) + mistake.formatted("roll.x", "x + 1 s")))
                .singleElement()
                .satisfies(p -> assertThat(p.getMessage()).contains("do not go together"));
        assertThat(problems(PhysicsTest.sheet(GOOD) + mistake.formatted("roll.edges.x.lost", "n == 3")))
                .singleElement()
                .satisfies(p -> assertThat(p.getMessage()).contains("no gate"));
    }
}

package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import eagerneedle.app.station.Progress;
import eagerneedle.app.station.Station;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Trace;
import java.time.Clock;
import java.util.Set;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Methods that have nothing in common, walked through all stations in the same window. */
class MethodsWindowTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    /** Every station of every method is walked in the long run; in the daily one those that are unlike the others. */
    private static void daily(String method) {
        assumeTrue(Boolean.getBoolean("everyMethod")
                || Set.of("potters-wheel", "weather-vane-reed").contains(method));
    }

    @ParameterizedTest
    @CsvSource({
        "potters-wheel, landing, off by",
        "weather-vane-reed, distance, would not agree",
        "fading-dye, celsius, would not agree",
        "dividing-tables, sign, would not agree",
        "drying-cabinet, room, would not agree",
        "colliding-wagons, late, would not agree",
        "trolley-two-gates, falling, would not agree",
        "riding-carriage, exchanged, would not agree",
        "whirling-bob, diameter, would not agree",
        "flask-jackets, water-alone, would not agree",
        "warmed-cord, celsius, would not agree",
        "cooling-alloys, mole, would not agree",
        "indicator-diode, celsius, would not agree",
        "letter-scale, no-zero, would not agree",
        "signpost-arm, straight-bridge, would not agree",
        "brake-reservoir, no-poisson, would not agree",
        "plank-footbridge, on-edge, would not agree",
        "rain-spillway, minutes, would not agree",
        "mast-rotor, diameter, would not agree",
        "counted-charge, no-prescale, would not agree"
    })
    void eachMethodIsJudgedAndAMistakeIsTriedOnIt(String method, String mistake, String says, FxRobot robot)
            throws Exception {
        daily(method);
        openRehearsed(robot, method);
        for (KeyCode key : new KeyCode[] {
            KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT4, KeyCode.DIGIT5, KeyCode.DIGIT6
        }) {
            robot.push(key);
            settle();
        }
        assertThat(text(robot, "verdict")).contains("agree");
        String before = window.bench()
                .reduction()
                .quantity(window.bench().sheet().mainComparison().result())
                .orElseThrow()
                .toString();
        act(() ->
                robot.lookup("#mistake-" + mistake).queryAs(ToggleButton.class).fire());
        VBox shown = robot.lookup("#mistake-shown").queryAs(VBox.class);
        assertThat(shown.lookupAll(".label").stream()
                        .map(n -> ((Label) n).getText())
                        .reduce("", (a, b) -> a + " " + b))
                .contains(says);
        assertThat(window.bench()
                        .reduction()
                        .quantity(window.bench().sheet().mainComparison().result())
                        .orElseThrow())
                .hasToString(before);
        assertThat(window.bench().canUndo()).as("nothing of a mistake is kept").isFalse();
        if (!window.bench().sheet().statements().isEmpty()) {
            assertThat(text(robot, "statement-0")).isNotBlank().doesNotContain("not known");
        }
        robot.push(KeyCode.DIGIT7);
        settle();
    }

    /** From the plan to the report, with a reading mistyped on the way and put right. */
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "baggage-chute; spacing; 432.6(6) mm; Local g",
                "potters-wheel; D_disc; 208.0 limit 0.1 mm; Disc",
                "weather-vane-reed; h; 1.020 limit 0.004 mm; Stiffness",
                "fading-dye; E_table; 25.0(8) kJ/mol; Activation",
                "dividing-tables; bar_length; 200.1000(2) mm; Interval",
                "drying-cabinet; T_dial; 14.0 limit 1.0 degC; Air",
                "colliding-wagons; m_bal.a; 0.2150(2) kg; Momentum",
                "trolley-two-gates; m_trolley; 0.5416(2) kg; Moving",
                "riding-carriage; m_hang; 100.00(2) g; Pull",
                "whirling-bob; m_bob; 500.0(2) g; Mass",
                "flask-jackets; m.foam; 520.0 limit 0.5 g; Foam",
                "warmed-cord; alpha; 0.00166(2) 1/K; Energetic",
                "cooling-alloys; m_sn.t3; 26.00(2) g; Eutectic",
                "indicator-diode; T; 121.5(3) degC; Ideality",
                "letter-scale; M_bal; 138.400(4) g; The unknown",
                "signpost-arm; d_o; 33.00 limit 0.03 mm; Load",
                "brake-reservoir; t; 2.500 limit 0.015 mm; Stress around",
                "plank-footbridge; h; 22.000 limit 0.012 mm; Modulus",
                "rain-spillway; theta; 80.00 limit 0.25 deg; Coefficient",
                "mast-rotor; D; 440.0 limit 0.6 mm; Efficiency",
                "counted-charge; share; 0.790(6); Counted"
            })
    void eachMethodIsWalkedThroughAllStationsAndAMistypedReadingIsPutRight(
            String method, String input, String mistyped, String about, FxRobot robot) throws Exception {
        daily(method);
        openRehearsed(robot, method);
        String right = session().measured().get(input);
        robot.push(KeyCode.DIGIT1);
        enter(robot, "read-" + input, "7.5(1) furlong");
        assertThat(text(robot, "watch-line")).contains("furlong");
        assertThat(session().measured().get(input)).isEqualTo(right);
        enter(robot, "read-" + input, mistyped);
        robot.push(KeyCode.DIGIT2);
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
        robot.push(KeyCode.DIGIT3);
        settle();
        robot.push(KeyCode.DIGIT4);
        if (robot.lookup("#start-stop").tryQuery().isPresent()) {
            fire(robot, "start-stop");
            // A shot may have fired and ended by itself before this looks.
            await(() -> window.rig().get().isRecording()
                    || robot.lookup("#discard-run")
                            .query()
                            .getParent()
                            .getParent()
                            .isVisible());
            fire(robot, "start-stop");
            settle();
            if (robot.lookup("#discard-run").query().getParent().getParent().isVisible()) {
                fire(robot, "discard-run");
            }
        }
        assertThat(session().keptRuns().stream().filter(r -> r.takesPart()).count())
                .as("a run that was voided takes no part")
                .isEqualTo(session().keptRuns().size());
        // A field of readings may have the focus, and takes figures for itself.
        act(() -> window.go(Station.REDUCE));
        settle();
        for (String sight : new String[] {"all", "table", "run"}) {
            if (robot.lookup("#sight-" + sight).tryQuery().isPresent()) {
                fire(robot, "sight-" + sight);
            }
        }
        robot.push(KeyCode.DIGIT6);
        assertThat(text(robot, "verdict")).as("with the mistyped reading").contains("does not agree");
        robot.push(KeyCode.DIGIT1);
        enter(robot, "read-" + input, right);
        robot.push(KeyCode.DIGIT6);
        assertThat(text(robot, "verdict")).doesNotContain("does not agree").contains("agree");
        assertThat(robot.lookup(".heading").queryAll())
                .anyMatch(n -> ((Label) n).getText().startsWith(about));
        robot.push(KeyCode.DIGIT7);
        for (var step : window.bench().sheet().finish()) {
            act(() -> robot.lookup("#step-" + step.id())
                    .queryAs(javafx.scene.control.CheckBox.class)
                    .fire());
        }
        assertThat(session().signOffs())
                .containsKeys(window.bench().sheet().finish().stream()
                        .map(s -> s.id())
                        .toArray(String[]::new));
        assertThat(Progress.of(window.bench(), Station.RECORD)).isEqualTo(Station.State.DONE);
        String report = new String(window.bench().report(false), java.nio.charset.StandardCharsets.UTF_8);
        assertThat(report).contains("Choices made", "signed off").doesNotContain("not signed off");
    }

    private static void enter(FxRobot robot, String id, String words) {
        act(() -> {
            javafx.scene.control.TextField f =
                    robot.lookup((Node n) -> id.equals(n.getId())).queryAs(javafx.scene.control.TextField.class);
            f.setText(words);
            f.getOnAction().handle(new javafx.event.ActionEvent());
        });
        settle();
    }

    @Test
    void drawsStandAgainstTheFirstOrderCurve(FxRobot robot) throws Exception {
        openRehearsed(robot, "weather-vane-reed");
        robot.push(KeyCode.DIGIT6);
        fire(robot, "draw");
        await(() -> text(robot, "draws-say").contains(" draws. "));
        assertThat(text(robot, "draw")).isEqualTo("Draw it again");
    }

    /**
     * A gate run on the simulated wheel, by keys: edges come while the mass falls, and the run gives its acceleration.
     */
    @Test
    void aFallingMassIsTimedByItsSpokes(FxRobot robot) throws Exception {
        openText(robot, SheetReader.shippedText("potters-wheel"), Clock.systemUTC());
        robot.push(KeyCode.CONTROL, KeyCode.K);
        robot.push(KeyCode.DIGIT2);
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
        robot.push(KeyCode.DIGIT4);
        act(() -> robot.lookup("#level-bare-m5").queryAs(ToggleButton.class).fire());
        settle();
        robot.push(KeyCode.SPACE);
        await(() -> window.rig().get().count("spokes") > 115);
        robot.push(KeyCode.SPACE);
        robot.push(KeyCode.K);
        await(() -> !session().keptRuns().isEmpty());
        var run = session().keptRuns().get(0);
        Trace t = window.bench().reduction().trace(run, "spokes").orElseThrow();
        assertThat(t.interval()).isLessThan(1e-5);
        var a = window.bench().reduction().ofRun(run, "a").quantity().orElseThrow();
        assertThat(a.value()).as("100 g on the bare wheel, mm/s²").isBetween(80.0, 200.0);
        assertThat(a.u() / a.value()).isLessThan(0.01);
        robot.push(KeyCode.DIGIT5);
        settle();
        assertThat(robot.lookup("#run-" + run.id()).tryQuery()).isPresent();
    }
}

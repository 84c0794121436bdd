package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.sheet.SheetReader;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.concurrent.Callable;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** Plan, Rig and Calibrate in the real window: from what is to be found to instruments that can be believed. */
class PrepareTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private final MovableClock clock = new MovableClock();

    /** A clock that a test can move on. */
    private static final class MovableClock extends Clock {
        private volatile Duration moved = Duration.ZERO;

        @Override
        public java.time.ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(java.time.ZoneId zone) {
            return this;
        }

        @Override
        public Instant instant() {
            return Instant.now().plus(moved);
        }
    }

    private void open(FxRobot robot, String method) {
        openText(robot, SheetReader.shippedText(method), clock);
    }

    /** Opens a method on instruments that hurry, for what takes many readings. */
    private void openHurried(String method) {
        openText(SheetReader.shippedText(method), clock, 32);
    }

    /** A drag by the robot's mouse, with the instruments and the inputs in sight. */
    private static void drag(FxRobot robot, String from, String to, Callable<Boolean> done) throws Exception {
        if (!robot.lookup("#at-hand").query().isVisible()) {
            fire(robot, "at-hand-show");
        }
        ScrollPane plan = robot.lookup(".plan-scroll").queryAs(ScrollPane.class);
        act(() -> plan.setVvalue(0.5));
        settle();
        robot.drag(from, MouseButton.PRIMARY).dropTo(to);
        await(done);
    }

    private void connect(FxRobot robot) throws Exception {
        robot.push(KeyCode.CONTROL, KeyCode.K);
        robot.push(KeyCode.DIGIT2);
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
    }

    @Test
    void aTargetUncertaintyIsReachedByTheCheapestWay(FxRobot robot) throws Exception {
        open(robot, "baggage-chute");
        await(() -> window.bench().plan().quantity("g").isPresent());
        double before = window.bench().plan().quantity("g").orElseThrow().u();
        robot.clickOn("#target").write("0.4 %");
        robot.push(KeyCode.ENTER);
        await(() -> !text(robot, "target-says").startsWith("Trying"));
        assertThat(text(robot, "target-says"))
                .startsWith("Cheapest: ")
                .contains("runs of slopes")
                .contains("min more");
        fire(robot, "target-apply");
        await(() -> window.bench().plan().quantity("g").isPresent());
        Quantity g = window.bench().plan().quantity("g").orElseThrow();
        assertThat(g.u()).isLessThan(before).isLessThanOrEqualTo(0.004 * g.value());
        await(() -> text(robot, "target-says").startsWith("The target is met"));
        fire(robot, "undo");
        await(() -> window.bench().plan().quantity("g").isPresent());
        assertThat(window.bench().plan().quantity("g").orElseThrow().u()).isEqualTo(before);
        act(() -> robot.lookup("#target").queryAs(TextField.class).setText("soon"));
        fire(robot, "target-work");
        await(() -> text(robot, "target-says").startsWith("Write the target as a share"));
    }

    @Test
    void anInputIsTiedToTheInstrumentThatReadsItBest(FxRobot robot) throws Exception {
        open(robot, "baggage-chute");
        act(() -> {
            stage.setWidth(1024);
            stage.setHeight(700);
        });
        await(() -> window.bench().plan().quantity("g").isPresent());
        double before = window.bench().plan().quantity("rise_A").orElseThrow().u();
        MenuButton ties = robot.lookup("#tie-rise_A").queryAs(MenuButton.class);
        act(() -> ties.getOnShowing().handle(null));
        assertThat(ties.getItems().get(0).getText())
                .as("best first")
                .startsWith("micrometer TH-MM-01")
                .contains("u = 0.0037")
                .contains("result u");
        assertThat(ties.getItems().stream().map(i -> i.getText() == null ? "" : i.getText()))
                .anyMatch(t -> t.contains("TH-CP-04") && t.contains("was due"));
        pick(robot, "tie-rise_A", "micrometer TH-MM-01");
        assertThat(window.bench().plan().quantity("rise_A").orElseThrow().u()).isLessThan(before);
        assertThat(text(robot, "tie-rise_A")).isEqualTo("micrometer TH-MM-01");
        drag(
                robot,
                "#chip-TH-CP-01",
                "#input-rise_A",
                () -> session().tied().get("rise_A").id().equals("TH-CP-01"));
        drag(
                robot,
                "#chip-TH-BA-03",
                "#input-rise_A",
                () -> text(robot, "watch-line").contains("does not read mm"));
        assertThat(session().tied().get("rise_A").id()).isEqualTo("TH-CP-01");
    }

    @Test
    void aColumnOfASpreadsheetRunsDownTheInputs(FxRobot robot) throws Exception {
        open(robot, "baggage-chute");
        act(() -> {
            javafx.scene.input.ClipboardContent c = new javafx.scene.input.ClipboardContent();
            c.putString("20.03\tcaliper\n40.00(2) mm\n60.05\n");
            javafx.scene.input.Clipboard.getSystemClipboard().setContent(c);
            robot.lookup("#read-rise_A").queryAs(TextField.class).requestFocus();
            robot.lookup("#read-rise_A").queryAs(TextField.class).paste();
        });
        assertThat(session().measured()).containsEntry("rise_B", "40.00(2) mm").doesNotContainKey("rise_D");
        assertThat(Reading.parse(session().measured().get("rise_A"))).isEqualTo(Reading.parse("20.03 limit 0.05 mm"));
        fire(robot, "undo");
        assertThat(session().measured()).as("one paste is one act").isEmpty();
        act(() -> robot.lookup("#read-g_reference").queryAs(TextField.class).paste());
        assertThat(text(robot, "watch-line")).contains("3 cells were pasted, but there are only 1 inputs");
    }

    @Test
    void aTimerRunsOnBesideTheRuns(FxRobot robot) throws Exception {
        open(robot, "drying-cabinet");
        robot.push(KeyCode.DIGIT4);
        fire(robot, "timer-warm");
        assertThat(session().timers()).containsKey("warm");
        assertThat(robot.lookup("#beside #left-warm").queryAs(Label.class).getText())
                .contains("min")
                .endsWith("left");
        clock.moved = Duration.ofMinutes(21);
        await(() -> robot.lookup("#beside #left-warm")
                .queryAs(Label.class)
                .getText()
                .equals("time is over: sign it off"));
        act(() -> robot.lookup("#beside #step-warm")
                .queryAs(javafx.scene.control.CheckBox.class)
                .fire());
        assertThat(session().signOffs()).containsKey("warm");
        assertThat(robot.lookup("#beside #left-warm").tryQuery()).isEmpty();
    }

    @Test
    void cautionsAreAcknowledgedAndTimersRunOut(FxRobot robot) throws Exception {
        open(robot, "drying-cabinet");
        robot.push(KeyCode.DIGIT2);
        fire(robot, "connect");
        settle();
        assertThat(text(robot, "watch-line")).contains("Read the cautions first");
        assertThat(window.rig()).as("nothing is connected before").isEmpty();
        robot.push(KeyCode.DIGIT4);
        assertThat(text(robot, "steps-left")).contains("steps are not signed off at Rig yet");
        robot.push(KeyCode.DIGIT1);
        for (int i = 1; i <= window.bench().sheet().cautions().size(); i++) {
            fire(robot, "caution-" + i);
        }
        assertThat(session().signOffs()).containsKey("caution-1");
        robot.push(KeyCode.DIGIT2);
        boolean[] asked = new boolean[1];
        act(() -> asked[0] = robot.lookup("#cautions-staff")
                .tryQuery()
                .filter(n -> n.getParent().getParent().isVisible())
                .isPresent());
        assertThat(asked[0]).as("nothing more is asked").isFalse();
        assertThat(text(robot, "left-warm")).isEqualTo("20 min to run");
        fire(robot, "timer-warm");
        await(() -> text(robot, "left-warm").contains("19 min"));
        clock.moved = Duration.ofMinutes(21);
        await(() -> text(robot, "left-warm").contains("time is over"));
        fire(robot, "step-warm");
        assertThat(text(robot, "left-warm")).startsWith("signed off");
    }

    /** However much there is to beware of, what it is about stays in a small window. */
    @Test
    void manyLongCautionsLeaveRoomForTheWork(FxRobot robot) {
        String text = SheetReader.shippedText("drying-cabinet");
        int at = text.indexOf("cautions:") + "cautions:".length() + 1;
        String many =
                "  - A caution that goes on and on about ice, mains, trays and hands until it needs a second line.\n"
                        .repeat(12);
        openText(robot, text.substring(0, at) + many + text.substring(at), clock);
        act(() -> {
            stage.setWidth(1024);
            stage.setHeight(700);
        });
        robot.push(KeyCode.DIGIT4);
        settle();
        Node start = robot.lookup("#start-stop").query();
        double[] bottom = new double[1];
        act(() -> bottom[0] = start.localToScene(start.getLayoutBounds()).getMaxY());
        assertThat(bottom[0]).isLessThan(stage.getScene().getHeight());
    }

    @Test
    void aSwappedLeadIsFoundByTouchAndTheTagsAreExchanged(FxRobot robot) throws Exception {
        open(robot, "drying-cabinet");
        robot.push(KeyCode.DIGIT2);
        act(() -> {
            @SuppressWarnings("unchecked")
            ChoiceBox<String> mistake = robot.lookup("#mistake").queryAs(ChoiceBox.class);
            mistake.setValue("swapped");
        });
        connect(robot);
        await(() -> window.rig().get().lastOfInput("bath", 2).size() > 15);
        fire(robot, "touch-now");
        await(() -> robot.lookup("#touch-accept").query().isVisible());
        assertThat(text(robot, "touch-says"))
                .contains("Input bath answered to the touch at cabinet")
                .contains("are exchanged");
        fire(robot, "touch-accept");
        assertThat(session().setup("cabinet").input()).isEqualTo("bath");
        assertThat(session().setup("bath").input()).isEqualTo("cabinet");
        // Twenty seconds of the instrument later the touch has died away: the same place again is right now.
        double touched = window.rig().get().clock("bath");
        await(() -> window.rig().get().clock("bath") > touched + 20);
        fire(robot, "touch-now");
        await(() -> text(robot, "touch-says").contains("the tag at cabinet is right"));
    }

    @Test
    void aCoarseStepIsCuredByOneClickAndKeptOutOfEarlierRuns(FxRobot robot) throws Exception {
        open(robot, "drying-cabinet");
        robot.push(KeyCode.DIGIT2);
        assertThat(text(robot, "fix-bath-step")).isEqualTo("Add gain 40");
        fire(robot, "fix-bath-step");
        assertThat(session().setup("bath").chain()).hasSize(4);
        assertThat(robot.lookup("#fix-bath-step").tryQuery()).isEmpty();
        fire(robot, "undo");
        assertThat(session().setups()).isEmpty();
    }

    @Test
    void aChannelIsTaggedWithItsPlaceAndSpecimen(FxRobot robot) {
        open(robot, "drying-cabinet");
        robot.push(KeyCode.DIGIT2);
        pick(robot, "change-room", "Tag: position");
        act(() -> {
            robot.lookup("#tag-position-room").queryAs(TextField.class).setText("window sill");
            robot.lookup("#tag-specimen-room").queryAs(TextField.class).setText("TH-SP-14");
        });
        fire(robot, "tag-keep-room");
        assertThat(session().setup("room").position()).isEqualTo("window sill");
        assertThat(robot.lookup(n -> n instanceof Label l && l.getText().contains("at window sill · on TH-SP-14"))
                        .tryQuery())
                .isPresent();
    }

    @Test
    void aCalibrationIsTakenOverFromAnotherSession(FxRobot robot) throws Exception {
        open(robot, "baggage-chute");
        Path other = folder.resolve("last-week.needle");
        eagerneedle.app.command.NeedleCommand.run(
                new String[] {"simulate", "baggage-chute", "--seed", "9", "-o", other.toString()},
                new java.io.PrintStream(java.io.PrintStream.nullOutputStream()),
                System.err);
        robot.push(KeyCode.DIGIT3);
        act(() -> ((eagerneedle.app.calibrate.CalibrateStation) window.view(eagerneedle.app.station.Station.CALIBRATE))
                .reuse("position", other));
        assertThat(session().latestCalibrationOf("position").orElseThrow().points())
                .hasSize(6);
        assertThat(text(robot, "watch-line")).startsWith("Taken over: calibrated 23 Nov 2026");
        act(() -> ((eagerneedle.app.calibrate.CalibrateStation) window.view(eagerneedle.app.station.Station.CALIBRATE))
                .reuse("position", folder.resolve("baggage-chute.needle.none")));
        assertThat(text(robot, "watch-line")).contains("is not there");
        assertThat(session().calibrations()).hasSize(1);
    }

    @Test
    void anOutputKeepsToItsLimitsAndGoesOffWhenTheInstrumentIsDisconnected(FxRobot robot) throws Exception {
        open(robot, "drying-cabinet");
        connect(robot);
        var standIn = window.rig().get().standIn();
        robot.clickOn("#output-heater").write("30");
        fire(robot, "output-set-heater");
        assertThat(text(robot, "watch-line")).contains("stays between 0 V and 24 V");
        act(() -> robot.lookup("#output-heater").queryAs(TextField.class).setText("6"));
        fire(robot, "output-set-heater");
        await(() -> standIn.output("heater") == 6);
        await(() -> text(robot, "output-now-heater").startsWith("6 V"));
        fire(robot, "connect");
        await(() -> standIn.output("heater") == 0);
    }

    /** No mouse and no direct calls: only keys, from the first point to the kept calibration. */
    @Test
    void aWholeCalibrationByKeyboardAlone(FxRobot robot) throws Exception {
        openHurried("baggage-chute");
        robot.push(KeyCode.DIGIT2);
        robot.push(KeyCode.CONTROL, KeyCode.K);
        tabTo(robot, "connect", false);
        robot.push(KeyCode.SPACE);
        await(() -> window.rig().isPresent());
        robot.push(KeyCode.DIGIT3);
        settle();
        for (int i = 0; i < 6; i++) {
            tabTo(robot, "reference", i > 0);
            robot.push(KeyCode.ENTER);
            await(() -> text(robot, "steadiness").startsWith("steady"));
            tabTo(robot, "take-point", false);
            robot.push(KeyCode.SPACE);
            settle();
        }
        tabTo(robot, "keep-calibration", false);
        robot.push(KeyCode.SPACE);
        await(() -> session().latestCalibrationOf("position").isPresent());
        Calibration c = session().latestCalibrationOf("position").orElseThrow();
        assertThat(c.points()).hasSize(6).allMatch(p -> p.steady());
        assertThat(c.coefficients().get(1).value()).isCloseTo(1, within(0.05));
        assertThat(c.due()).isAfter(c.taken().plus(Duration.ofDays(179)));
    }

    /** Moves the focus with the tabulator, forwards or back, until it is where it should be. */
    private void tabTo(FxRobot robot, String id, boolean back) {
        java.util.List<String> passed = new java.util.ArrayList<>();
        for (int i = 0; i < 200; i++) {
            Node focus = stage.getScene().getFocusOwner();
            if (focus != null && id.equals(focus.getId())) {
                return;
            }
            passed.add(
                    focus == null
                            ? "none"
                            : focus.getId() == null ? focus.getClass().getSimpleName() : focus.getId());
            if (back) {
                robot.push(KeyCode.SHIFT, KeyCode.TAB);
            } else {
                robot.push(KeyCode.TAB);
            }
            settle();
            // On a busy machine the key arrives later than the call returns; pressing on would step over the place.
            for (int wait = 0; wait < 250 && stage.getScene().getFocusOwner() == focus; wait++) {
                WaitForAsyncUtils.sleep(20, java.util.concurrent.TimeUnit.MILLISECONDS);
            }
        }
        Node wanted = stage.getScene().lookup("#" + id);
        throw new AssertionError("the focus never came to " + id
                + (wanted == null ? ", which is not there" : wanted.isDisabled() ? ", which is disabled" : "")
                + "; it passed " + passed.subList(0, 60));
    }

    @Test
    void zeroAndSpanAreAdjustedByDoingWhatIsSaid(FxRobot robot) throws Exception {
        openHurried("calibration-day");
        connect(robot);
        robot.push(KeyCode.DIGIT3);
        fire(robot, "calibrate-scale");
        assertThat(text(robot, "trim-says")).startsWith("Take all load off");
        boolean foretold = false;
        for (int act = 0; act < 400 && !text(robot, "trim-says").startsWith("Zero and span both hold"); act++) {
            if (!robot.lookup("#trim-load").queryAs(Button.class).isDisabled()) {
                fire(robot, "trim-load");
            }
            await(() -> !robot.lookup("#trim-take").queryAs(Button.class).isDisabled()
                    || !robot.lookup("#turn-on").queryAs(Button.class).isDisabled());
            if (!robot.lookup("#trim-take").queryAs(Button.class).isDisabled()) {
                fire(robot, "trim-take");
            } else {
                String hint = text(robot, "trim-hint");
                fire(robot, hint.contains("anticlockwise") ? "turn-back" : "turn-on");
            }
            foretold |= text(robot, "trim-foretold").contains("It will hold after pass 2");
        }
        assertThat(text(robot, "trim-foretold")).startsWith("Done in ");
        assertThat(foretold).isTrue();
        for (int i = 0; i < 5; i++) {
            await(() -> text(robot, "steadiness").startsWith("steady"));
            fire(robot, "take-point");
        }
        fire(robot, "keep-calibration");
        await(() -> session().latestCalibrationOf("scale").isPresent());
        Calibration c = session().latestCalibrationOf("scale").orElseThrow();
        assertThat(c.verification()).hasSize(5);
        assertThat(c.failure()).isEmpty();
        assertThat(c.points().get(1).indication()).isCloseTo(500, within(0.6));
    }

    @Test
    void anInstrumentWithoutAnOutputIsTypedAndAnActualValueReplacesTheNominalOne(FxRobot robot) throws Exception {
        openHurried("calibration-day");
        connect(robot);
        robot.push(KeyCode.DIGIT3);
        fire(robot, "calibrate-charge");
        for (String reading : new String[] {"352(1)", "731(1)", "1203(1)"}) {
            act(() -> robot.lookup("#typed-reading").queryAs(TextField.class).setText(reading));
            fire(robot, "take-point");
        }
        fire(robot, "keep-calibration");
        await(() -> session().latestCalibrationOf("charge").isPresent());
        assertThat(window.stockroom()
                        .find("TH-CI-01")
                        .orElseThrow()
                        .calibration()
                        .orElseThrow()
                        .what())
                .as("the instrument of the chain remembers it")
                .contains("absolute count in the chain of charge meter");
        assertThat(text(robot, "watch-line")).contains("Entered in the history of TH-CI-01");
        // 0.1204 g of copper is 365.6 C against a display of 352.
        assertThat(window.bench()
                        .reduction()
                        .quantity("meter_factor")
                        .orElseThrow()
                        .value())
                .isCloseTo(1.037, within(0.01));
        fire(robot, "calibrate-input-R_sense");
        fire(robot, "place-actual");
        await(() -> text(robot, "steadiness").startsWith("steady"));
        fire(robot, "take-actual");
        await(() -> session().measured().containsKey("R_sense"));
        Quantity r = window.bench().reduction().quantity("R_sense").orElseThrow();
        assertThat(r.value()).isCloseTo(100, within(0.5));
        assertThat(r.u()).isBetween(0.01, 0.1);
    }

    @Test
    void aCircleClosesAndACheckAfterUseFindsTheDrift(FxRobot robot) throws Exception {
        openHurried("calibration-day");
        connect(robot);
        robot.push(KeyCode.DIGIT3);
        fire(robot, "calibrate-tables");
        assertThat(text(robot, "closure-next")).startsWith("Series 1, reading 1");
        fire(robot, "closure-run");
        await(() -> text(robot, "closure-next").startsWith("Every interval"));
        fire(robot, "keep-calibration");
        await(() -> session().latestCalibrationOf("tables").isPresent());
        assertThat(window.bench().reduction().column("tables.lower")).hasSize(8);
        fire(robot, "calibrate-strain");
        type(robot, "reference", "-R_g / (R_g + 20 kohm) / G");
        fire(robot, "place");
        assertThat(text(robot, "watch-line"))
                .as("too low a resistor")
                .contains("is too far out")
                .contains("Take a larger resistor");
        type(robot, "reference", "0 microstrain");
        fire(robot, "place");
        for (int i = 0; i < 4; i++) {
            await(() -> text(robot, "steadiness").startsWith("steady"));
            fire(robot, "take-point");
        }
        fire(robot, "keep-calibration");
        await(() -> session().latestCalibrationOf("strain").isPresent());
        pick(robot, "after-use", "keep the drift");
        await(() -> text(robot, "steadiness").startsWith("steady"));
        fire(robot, "take-point");
        await(() -> session().latestCalibrationOf("strain").orElseThrow().after() != null);
        assertThat(session().latestCalibrationOf("strain").orElseThrow().after().use())
                .isEqualTo(AfterUse.Use.INFLUENCE);
        assertThat(session()
                        .latestCalibrationOf("strain")
                        .orElseThrow()
                        .driftFound()
                        .orElseThrow()
                        .value())
                .isCloseTo(0, within(1.0));
    }

    @Test
    void theStockroomIsSearchedCopiedChangedAndTakenBack(FxRobot robot) {
        open(robot, "baggage-chute");
        robot.push(KeyCode.CONTROL, KeyCode.I);
        robot.write("micrometer 25");
        assertThat(robot.lookup("#stock-TH-MM-02").tryQuery()).isPresent();
        assertThat(robot.lookup("#stock-TH-CP-01").tryQuery()).isEmpty();
        fire(robot, "stock-TH-MM-02");
        fire(robot, "stock-copy");
        assertThat(window.stockroom().find("TH-MM-03")).isPresent();
        act(() -> robot.lookup("#stock-field-accuracy").queryAs(TextField.class).setText("rather good"));
        fire(robot, "stock-save");
        assertThat(text(robot, "watch-line")).contains("The accuracy of TH-MM-03 cannot be read at 'rather good'");
        act(() -> robot.lookup("#stock-field-accuracy").queryAs(TextField.class).setText("0.002 mm"));
        fire(robot, "stock-save");
        assertThat(window.stockroom().find("TH-MM-03").orElseThrow().accuracy()).isEqualTo("0.002 mm");
        fire(robot, "stock-undo");
        assertThat(window.stockroom().find("TH-MM-03").orElseThrow().accuracy()).isEqualTo("0.004 mm");
        fire(robot, "stock-retire");
        assertThat(window.stockroom().find("TH-MM-03").orElseThrow().retired()).isTrue();
        act(() -> robot.lookup("#stock-event-what").queryAs(TextField.class).setText("jaws cleaned"));
        fire(robot, "stock-event-add");
        assertThat(window.stockroom().find("TH-MM-03").orElseThrow().history()).hasSize(1);
        fire(robot, "stock-leave");
        assertThat(robot.lookup("#predicted").tryQuery()).isPresent();
    }

    @Test
    void everyControlOfEveryPreparingStationHasAName(FxRobot robot) {
        open(robot, "calibration-day");
        for (KeyCode key : new KeyCode[] {KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3}) {
            robot.push(key);
            settle();
            robot
                    .lookup(n -> n instanceof TextInputControl
                            || n instanceof ChoiceBox
                            || n instanceof Button
                            || n instanceof CheckBox)
                    .queryAll()
                    .stream()
                    .filter(Node::isVisible)
                    .forEach(n -> assertThat(n.getAccessibleText() != null
                                    || n instanceof Labeled l
                                            && l.getText() != null
                                            && !l.getText().isBlank())
                            .as("%s has a name", n)
                            .isTrue());
        }
        assertThat(robot.lookup(n -> n instanceof Label l && l.getText().contains("NaN"))
                        .queryAll())
                .isEmpty();
    }
}

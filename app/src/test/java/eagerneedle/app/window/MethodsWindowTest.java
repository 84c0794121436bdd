package eagerneedle.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.bench.Workbench;
import eagerneedle.app.command.NeedleCommand;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Trace;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.Stockroom;
import java.io.PrintStream;
import java.nio.file.Path;
import java.time.Clock;
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
import org.testfx.util.WaitForAsyncUtils;

/** Methods that have nothing in common, walked through all stations in the same window. */
class MethodsWindowTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private void openRehearsed(FxRobot robot, String method) throws Exception {
        Path file = folder.resolve(method + ".needle");
        NeedleCommand.run(new String[] {"simulate", method, "--seed", "7", "-o", file.toString()}, new PrintStream(PrintStream.nullOutputStream()), System.err);
        robot.interact(() -> {
            window = new MainWindow(stage, new Workbench(BenchFile.open(file), Clock.systemUTC()), Clock.systemUTC(), 8, Stockroom.demonstration());
            stage.setX(0);
            stage.setY(0);
            stage.setWidth(1280);
            stage.setHeight(800);
            stage.show();
        });
        WaitForAsyncUtils.waitForFxEvents();
    }

    @ParameterizedTest
    @CsvSource({"potters-wheel, landing, off by", "weather-vane-reed, distance, would not agree", "fading-dye, celsius, would not agree", "dividing-tables, sign, would not agree", "drying-cabinet, room, would not agree"})
    void eachMethodIsJudgedAndAMistakeIsTriedOnIt(String method, String mistake, String says, FxRobot robot) throws Exception {
        openRehearsed(robot, method);
        for (KeyCode key : new KeyCode[] {KeyCode.DIGIT1, KeyCode.DIGIT2, KeyCode.DIGIT3, KeyCode.DIGIT4, KeyCode.DIGIT5, KeyCode.DIGIT6}) {
            robot.push(key);
            WaitForAsyncUtils.waitForFxEvents();
        }
        assertThat(text(robot, "verdict")).contains("agree");
        String before = window.bench().reduction().quantity(window.bench().sheet().mainComparison().result()).orElseThrow().toString();
        robot.interact(() -> robot.lookup("#mistake-" + mistake).queryAs(ToggleButton.class).fire());
        VBox shown = robot.lookup("#mistake-shown").queryAs(VBox.class);
        assertThat(shown.lookupAll(".label").stream().map(n -> ((Label) n).getText()).reduce("", (a, b) -> a + " " + b)).contains(says);
        assertThat(window.bench().reduction().quantity(window.bench().sheet().mainComparison().result()).orElseThrow()).hasToString(before);
        assertThat(window.bench().canUndo()).as("nothing of a mistake is kept").isFalse();
        if (!window.bench().sheet().statements().isEmpty()) {
            assertThat(text(robot, "statement-0")).isNotBlank().doesNotContain("not known");
        }
        robot.push(KeyCode.DIGIT7);
        WaitForAsyncUtils.waitForFxEvents();
    }

    @Test
    void drawsStandAgainstTheFirstOrderCurve(FxRobot robot) throws Exception {
        openRehearsed(robot, "weather-vane-reed");
        robot.push(KeyCode.DIGIT6);
        fire(robot, "draw");
        await(() -> text(robot, "draws-say").contains(" draws. "));
        assertThat(text(robot, "draw")).isEqualTo("Draw it again");
    }

    /** A gate run on the simulated wheel, by keys: edges come while the mass falls, and the run gives its acceleration. */
    @Test
    void aFallingMassIsTimedByItsSpokes(FxRobot robot) throws Exception {
        openText(robot, SheetReader.shippedText("potters-wheel"), Clock.systemUTC());
        robot.push(KeyCode.DIGIT2);
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
        robot.push(KeyCode.DIGIT4);
        robot.interact(() -> robot.lookup("#level-bare-m5").queryAs(ToggleButton.class).fire());
        WaitForAsyncUtils.waitForFxEvents();
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
        WaitForAsyncUtils.waitForFxEvents();
        assertThat(robot.lookup("#run-" + run.id()).tryQuery()).isPresent();
    }
}

package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.TimeUnit;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;
import org.testfx.util.WaitForAsyncUtils;

/** What two instruments show of each other is said in the window while the run lasts. */
class LiveWatchWindowTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @Test
    void exchangedThermometersOfTwoLoggersAreSaidWhileTheRunLasts(FxRobot robot) throws Exception {
        openConnected(
                robot,
                "two-ovens",
                testSheet("two-ovens")
                        .replace(
                                "T_warm: \"60(1) degC\", T_cold: \"20(1) degC\"",
                                "T_warm: \"20(1) degC\", T_cold: \"60(1) degC\""));
        assertThat(window.rig().orElseThrow().devices()).containsExactly("one", "other");
        Label[] says = new Label[1];
        act(() -> says[0] = robot.lookup("#live-watch").queryAs(Label.class));
        robot.push(KeyCode.SPACE);
        WaitForAsyncUtils.waitFor(
                20,
                TimeUnit.SECONDS,
                () -> says[0].getText().contains("Cold oven and warm oven show what is expected of each other"));
        assertThat(window.rig().orElseThrow().isRecording()).isTrue();
        robot.push(KeyCode.SPACE);
        settle();
    }
}

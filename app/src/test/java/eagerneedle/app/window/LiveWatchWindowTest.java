package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.session.Session;
import eagerneedle.store.bench.BenchFile;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
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
        String text;
        try (InputStream in = getClass().getResourceAsStream("/eagerneedle/app/workbench/two-ovens.yaml")) {
            text = new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .replace(
                            "T_warm: \"60(1) degC\", T_cold: \"20(1) degC\"",
                            "T_warm: \"20(1) degC\", T_cold: \"60(1) degC\"");
        }
        Path file = folder.resolve("ovens.needle");
        BenchFile.create(file, Session.start(text, "Ovens", Instant.parse("2026-11-28T10:00:00Z")))
                .close();
        open(file);
        robot.push(KeyCode.DIGIT2);
        settle();
        robot.clickOn("#connect");
        WaitForAsyncUtils.waitFor(20, TimeUnit.SECONDS, () -> window.rig().isPresent());
        settle();
        assertThat(window.rig().orElseThrow().devices()).containsExactly("one", "other");
        robot.push(KeyCode.DIGIT4);
        settle();
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

package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.SheetTrial;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A sheet with families, windows between moments and a choice, in the window: carried out, reduced in another way. */
class WaysWindowTest extends BenchWindow {
    private static final Path SHEET = Path.of("..", "docs", "examples", "buffer-wagons.yaml");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private void openWagons() throws Exception {
        Path file = folder.resolve("wagons.needle");
        Demonstration.simulate(SheetTrial.read(Files.readString(SHEET), "buffer-wagons.yaml"), 7, Set.of(), file);
        open(file);
    }

    @Test
    void anotherWayIsTakenAndTakenBack(FxRobot robot) throws Exception {
        openWagons();
        Quantity usual = window.bench().reduction().quantity("kept.springy").orElseThrow();
        robot.push(KeyCode.DIGIT5);
        fire(robot, "sight-ways");
        settle();
        Button taken = robot.lookup("#take-meet-v-extrapolated").queryButton();
        assertThat(taken.isDisabled()).isTrue();
        fire(robot, "take-meet-v-mean");
        Quantity mean = window.bench().reduction().quantity("kept.springy").orElseThrow();
        assertThat(mean.value()).as("friction slows the wagons on the way").isNotEqualTo(usual.value());
        assertThat(session().picked()).containsEntry("meet.v", "mean");
        assertThat(robot.lookup("#take-meet-v-mean").queryButton().isDisabled()).isTrue();
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        settle();
        assertThat(session().picked()).isEmpty();
        assertThat(window.bench()
                        .reduction()
                        .quantity("kept.springy")
                        .orElseThrow()
                        .value())
                .isEqualTo(usual.value());
    }
}

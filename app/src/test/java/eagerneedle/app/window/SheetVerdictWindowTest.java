package eagerneedle.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A sheet of one's own is carried out in the background, and what that finds stands at Plan. */
class SheetVerdictWindowTest extends BenchWindow {
    private static final Path SHEET = Path.of("..", "docs", "examples", "rc-discharge.yaml");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @Test
    void whatCarryingItOutFindsStandsAtPlan(FxRobot robot) throws Exception {
        openText(Files.readString(SHEET), Clock.systemUTC(), 8);
        robot.push(KeyCode.DIGIT1);
        await(() -> text(robot, "sheet-verdict").startsWith("Good: carried out 20 times"));
    }

    @Test
    void aFormulaThatMissesItsTruthIsToldWithItsPlace(FxRobot robot) throws Exception {
        String wrong = Files.readString(SHEET).replace("mean(run.tau) / R\"", "2 * mean(run.tau) / R\"");
        openText(wrong, Clock.systemUTC(), 8);
        robot.push(KeyCode.DIGIT1);
        await(() -> text(robot, "sheet-verdict").startsWith("Carried out 20 times"));
        assertThat(text(robot, "sheet-verdict")).contains("line ").contains("holds its hidden truth in 0 of 20");
    }

    @Test
    void aSheetThatShipsIsNotCarriedOutAgain(FxRobot robot) throws Exception {
        openText(eagerneedle.core.sheet.SheetReader.shippedText("fading-dye"), Clock.systemUTC(), 8);
        robot.push(KeyCode.DIGIT1);
        assertThat(robot.lookup("#sheet-verdict").queryAll()).isEmpty();
    }
}

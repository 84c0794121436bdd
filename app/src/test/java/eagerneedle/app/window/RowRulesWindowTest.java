package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import java.time.Clock;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Rules of a sheet in the window: what would not be kept is said before it is, what counts nowhere can be taken in. */
class RowRulesWindowTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private void take(FxRobot robot, String level) throws Exception {
        fire(robot, "level-slopes-" + level);
        robot.push(KeyCode.SPACE);
        await(() -> window.rig().get().clock("position") > 3);
        robot.push(KeyCode.SPACE);
        await(() ->
                robot.lookup("#keep-run").tryQuery().filter(n -> n.isVisible()).isPresent());
    }

    @Test
    void aRuleSpeaksBeforeARunIsKeptAndAfter(FxRobot robot) throws Exception {
        String text = SheetReader.shippedText("baggage-chute")
                .replace("    quantities:\n      sin_theta:", """
                            rules:
                              slow: {must: "a > 0.3 m/s^2", else: leave-out, says: On so little a slope friction decides.}
                              steep: {must: "a < 0.9 m/s^2", else: refuse, says: The cart is too fast for the ranger.}
                            quantities:
                              sin_theta:""".replaceAll("(?m)^", "    "));
        openText(text, Clock.systemUTC(), 8);
        act(() -> {
            stage.setWidth(1280);
            stage.setHeight(800);
        });
        robot.push(KeyCode.CONTROL, KeyCode.K);
        robot.push(KeyCode.DIGIT2);
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
        robot.push(KeyCode.DIGIT4);

        take(robot, "E");
        assertThat(text(robot, "refusal")).isEqualTo("Not to be kept: The cart is too fast for the ranger.");
        assertThat(text(robot, "keep-run")).isEqualTo("Keep nevertheless");
        fire(robot, "keep-run");
        assertThat(session().keptRuns()).hasSize(1);

        take(robot, "A");
        assertThat(text(robot, "refusal")).isEqualTo("Counts nowhere: On so little a slope friction decides.");
        assertThat(text(robot, "keep-run")).isEqualTo("Keep");
        fire(robot, "keep-run");
        assertThat(window.bench().reduction().column("slopes.a")).hasSize(1);

        robot.push(KeyCode.DIGIT5);
        settle();
        Run slow = session().keptRuns().get(1);
        assertThat(slow.leftOut()).as("the file says nothing of it").isNull();
        assertThat(text(robot, "leave-out")).isEqualTo("Take in again");
        fire(robot, "leave-out");
        assertThat(window.bench().reduction().column("slopes.a")).hasSize(2);
        assertThat(text(robot, "leave-out")).isEqualTo("Leave out...");
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        settle();
        assertThat(window.bench().reduction().column("slopes.a")).hasSize(1);
    }
}

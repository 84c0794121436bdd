package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.session.Run;
import java.util.List;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Outputs lead: a run begins when they are there, a target is held, levels follow each other by themselves. */
class OutputsWindowTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private List<Run> runs() {
        return window.bench().session().keptRuns();
    }

    /** Looked for on the thread of the window: what stands in it changes meanwhile. */
    private static Label state(FxRobot robot) {
        Label[] found = new Label[1];
        act(() -> found[0] = robot.lookup("#hold-state").queryAs(Label.class));
        return found[0];
    }

    @Test
    void theProgramHoldsATargetAtLevelAfterLevel(FxRobot robot) throws Exception {
        openConnected(robot, "whirl", testSheet("whirl"));
        assertThat(robot.lookup("#seek-needle").query().isVisible()).isTrue();
        robot.interact(() -> robot.lookup("#all-levels").queryAs(CheckBox.class).setSelected(true));
        robot.clickOn("#start-stop");
        await(() -> runs().size() == 3);
        settle();
        assertThat(state(robot).getText()).isEqualTo("All levels are taken.");
        double[] sought = {1, 2, 3};
        for (int i = 0; i < 3; i++) {
            Run run = runs().get(i);
            assertThat(run.entries().outputs()).containsKey("motor");
            double v = Math.sqrt(window.bench()
                    .reduction()
                    .ofRun(run, "vv")
                    .quantity()
                    .orElseThrow()
                    .value());
            assertThat(v).isBetween(0.98 * sought[i], 1.02 * sought[i]);
            assertThat(window.bench()
                            .reduction()
                            .ofRun(run, "volts")
                            .quantity()
                            .orElseThrow()
                            .value())
                    .isBetween(1.9 * sought[i], 3.0 * sought[i] + 1);
        }
        // Afterwards nothing is left on.
        await(() -> window.rig().orElseThrow().outputs().get("motor").value() == 0);
    }

    @Test
    void noRunBeginsBeforeItsOutputIsThereAndASweepStopsAtSaturation(FxRobot robot) throws Exception {
        openConnected(robot, "sweep", testSheet("sweep"));
        robot.interact(() -> robot.lookup("#all-levels").queryAs(CheckBox.class).setSelected(true));
        Label state = state(robot);
        robot.clickOn("#start-stop");
        await(() -> state.getText().startsWith("Stopped"));
        settle();
        // 0.98 of 4.3 V is above the range of 4.096 V; the levels lie 0.2 V apart from 0.5 V on.
        assertThat(state(robot).getText()).isEqualTo("Stopped: voltage is beyond its range at this level.");
        assertThat(runs()).hasSizeBetween(18, 19);
        for (Run run : runs()) {
            double drive =
                    Double.parseDouble(run.entries().outputs().get("drive").split(" ")[0]);
            double u = window.bench()
                    .reduction()
                    .ofRun(run, "U")
                    .quantity()
                    .orElseThrow()
                    .value();
            assertThat(u).as(run.name() + " at " + drive).isBetween(0.95 * drive, 1.01 * drive);
        }
    }
}

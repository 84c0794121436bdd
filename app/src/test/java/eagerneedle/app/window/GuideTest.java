package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.station.Station;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The walk of two minutes: through all stations by one key, left at any time, and nothing is changed by it. */
class GuideTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    @Test
    void itGoesThroughAllStationsAndChangesNothing(FxRobot robot) {
        openRehearsed(robot, "trolley-two-gates");
        var before = session();
        assertThat(robot.lookup("#guide").query().isVisible()).isFalse();
        robot.push(KeyCode.F1);
        settle();
        for (int i = 0; i < GuideBanner.WALK.size(); i++) {
            GuideBanner.Stop stop = GuideBanner.WALK.get(i);
            assertThat(text(robot, "guide-says"))
                    .isEqualTo(i + 1 + " of " + GuideBanner.WALK.size() + "   " + stop.says());
            assertThat(window.dial().current()).isEqualTo(stop.station());
            // Next has the focus: a newcomer needs one key.
            robot.push(KeyCode.SPACE);
            settle();
        }
        assertThat(robot.lookup("#guide").query().isVisible()).isFalse();
        assertThat(session()).isEqualTo(before);
    }

    @Test
    void itIsLeftAtAnyTimeAndDoesNotCallBack(FxRobot robot) {
        openRehearsed(robot, "trolley-two-gates");
        act(() -> window.guide().begin());
        settle();
        fire(robot, "guide-next");
        fire(robot, "guide-before");
        assertThat(text(robot, "guide-says")).startsWith("1 of ");
        act(() -> window.go(Station.JUDGE));
        settle();
        assertThat(window.dial().current()).isEqualTo(Station.JUDGE);
        fire(robot, "guide-leave");
        assertThat(robot.lookup("#guide").query().isVisible()).isFalse();
        assertThat(window.dial().current()).isEqualTo(Station.JUDGE);
    }
}

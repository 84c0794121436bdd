package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.station.Station;
import eagerneedle.core.session.RecordCommand;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.TextInputControl;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** News of something else (a rehearsal that is done, a run that was kept) takes no half-written word away. */
class NothingTypedIsLostTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private List<TextInputControl> fields(FxRobot robot) {
        List<TextInputControl> out = new ArrayList<>();
        act(() -> robot.lookup(n -> n instanceof TextInputControl t && t.isEditable() && isThere(t)).queryAll().stream()
                .map(TextInputControl.class::cast)
                .forEach(out::add));
        return out;
    }

    private static boolean isThere(Node n) {
        for (Node p = n; p != null; p = p.getParent()) {
            if (!p.isVisible()) {
                return false;
            }
        }
        return !n.isDisabled();
    }

    private void newsComes(int i) {
        act(() -> window.bench().apply(new RecordCommand.AddNote(Instant.EPOCH, "news " + i, List.of())));
        settle();
    }

    private int tried(FxRobot robot, Station station) {
        act(() -> window.go(station));
        settle();
        int n = 0;
        for (TextInputControl f : fields(robot)) {
            String[] before = {""};
            act(() -> {
                f.requestFocus();
                before[0] = f.getText() == null ? "" : f.getText();
                f.setText("7");
            });
            newsComes(n);
            String[] after = {""};
            boolean[] focused = {false};
            act(() -> {
                after[0] = f.getText();
                focused[0] = f.isFocused();
                f.setText(before[0]);
            });
            assertThat(after[0])
                    .as(station + ", " + f.getId() + ", " + f.getAccessibleText())
                    .isEqualTo("7");
            assertThat(focused[0])
                    .as(station + ", " + f.getId() + " keeps the keyboard")
                    .isTrue();
            n++;
        }
        return n;
    }

    @Test
    void halfWrittenWordsStay(FxRobot robot) {
        openRehearsed(robot, "baggage-chute");
        int n = 0;
        for (Station s : Station.values()) {
            n += tried(robot, s);
        }
        assertThat(n).as("fields that were tried").isGreaterThan(20);
    }
}

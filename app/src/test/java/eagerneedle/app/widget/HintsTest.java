package eagerneedle.app.widget;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.await;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import javafx.stage.Window;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

@ExtendWith(ApplicationExtension.class)
class HintsTest {
    private final Label cut = new Label("a name that is far longer than the room it has");
    private final Label whole = new Label("short");

    @Start
    void start(Stage stage) {
        cut.setMaxWidth(90);
        Scene scene = new Scene(new VBox(40, cut, whole), 400, 200);
        Theme.dress(scene, false);
        stage.setScene(scene);
        stage.setX(0);
        stage.setY(0);
        stage.show();
    }

    private static List<String> told() {
        List<String> out = new ArrayList<>();
        act(() -> Window.getWindows().forEach(w -> {
            if (w instanceof Tooltip t && t.isShowing()) {
                out.add(t.getText());
            }
        }));
        return out;
    }

    @Test
    void wordsThatAreCutAreSaidWholeOnHover(FxRobot robot) throws Exception {
        assertThat(Hints.isCut(cut)).isTrue();
        assertThat(Hints.isCut(whole)).isFalse();
        robot.moveTo(whole);
        robot.moveTo(cut);
        robot.moveBy(2, 1);
        await(() -> told().contains(cut.getText()));
        robot.moveTo(whole);
        settle();
        robot.moveBy(2, 1);
        assertThat(told()).doesNotContain(whole.getText());
    }
}

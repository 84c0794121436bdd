package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Pane;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** All benches of a folder in the real window: held together, one left out, one published, one that changes. */
class BenchesWindowTest extends BenchWindow {
    @TempDir
    Path shared;

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private static String said(FxRobot robot) {
        StringBuilder out = new StringBuilder();
        robot.lookup("#benches-says")
                .queryAs(Pane.class)
                .getChildren()
                .forEach(n -> out.append(((Label) n).getText()).append('\n'));
        return out.toString();
    }

    private static String told(FxRobot robot) {
        return robot.lookup("#benches-state").queryAs(Labeled.class).getText();
    }

    @Test
    void theOddOneIsSeenLeftOutAndWhoPublishesComesIn(FxRobot robot) throws Exception {
        SheetReader.Located sheet = SheetTrial.read(SheetReader.shippedText("signpost-arm"), "signpost-arm");
        for (int i = 1; i <= 5; i++) {
            Demonstration.simulate(
                    sheet, i, i == 4 ? Set.of("b-for-c") : Set.of(), shared.resolve("bench " + i + ".needle"));
        }
        openRehearsed(robot, "signpost-arm");
        robot.push(KeyCode.CONTROL, KeyCode.U);
        settle();
        fire(robot, "benches-read");
        assertThat(told(robot)).as("nothing was named").contains("publishes a closed copy");
        act(() -> robot.lookup("#benches-folder").queryAs(TextField.class).setText(shared.toString()));
        fire(robot, "benches-read");
        await(() -> told(robot).contains("5 benches"));
        ChoiceBox<?> results = robot.lookup("#benches-result").queryAs(ChoiceBox.class);
        assertThat(results.getItems().size()).isGreaterThan(3);
        assertThat(results.getValue().toString()).contains("P");
        assertThat(said(robot)).contains("bench 4 stands apart: ").contains("It differs by shear strain");

        CheckBox fourth = robot.from(robot.lookup("#benches-counted"))
                .lookup((javafx.scene.Node n) ->
                        n instanceof CheckBox c && c.getText().equals("bench 4"))
                .queryAs(CheckBox.class);
        act(fourth::fire);
        assertThat(said(robot)).doesNotContain("stands apart").contains("Together they give");
        act(fourth::fire);
        assertThat(said(robot)).contains("bench 4 stands apart: ");
        fire(robot, "benches-copy");
        String[] copied = new String[1];
        act(() -> copied[0] = Clipboard.getSystemClipboard().getString());
        assertThat(copied[0].split("\n")).hasSize(8).anyMatch(l -> l.startsWith("bench 4\t"));

        // This window's session comes in, and a bench that goes is gone at the next look.
        fire(robot, "benches-publish");
        await(() -> told(robot).contains("6 benches"));
        Files.delete(shared.resolve("bench 5.needle"));
        await(() -> told(robot).contains("5 benches"));
        fire(robot, "benches-back");
        assertThat(robot.lookup("#benches").tryQuery()).isEmpty();
    }
}

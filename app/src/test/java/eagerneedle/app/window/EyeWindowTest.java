package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.capture.CaptureStation;
import eagerneedle.app.station.Cautions;
import eagerneedle.app.station.Station;
import eagerneedle.app.workbench.SheetFile;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.store.bench.BenchFile;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.image.ImageView;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Rows that are read: typed, built before a face, pasted, timed, measured on a picture, and put right afterwards. */
class EyeWindowTest extends BenchWindow {
    private static final Path SHEET = Path.of("..", "docs", "examples", "coil-by-hand.yaml");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private void openCoil() throws Exception {
        Path file = folder.resolve("coil.needle");
        BenchFile.create(file, Session.start(SheetFile.text(SHEET), "Coil", Instant.parse("2026-11-28T10:00:00Z")))
                .close();
        open(file);
        act(() -> new Cautions(window.bench()).takeOver(java.util.List.of()));
    }

    private List<Run> runs() {
        return window.bench().session().keptRuns();
    }

    private static TextField field(FxRobot robot, String id) {
        return robot.lookup("#" + id).queryAs(TextField.class);
    }

    private static void write(FxRobot robot, String id, String text) {
        robot.interact(() -> {
            field(robot, id).requestFocus();
            field(robot, id).setText(text);
        });
        settle();
    }

    private static String label(FxRobot robot, String id) {
        return robot.lookup("#" + id).queryAs(Label.class).getText();
    }

    private String notebook() {
        return window.bench().file().acts().stream().map(a -> a.text()).collect(Collectors.joining("\n"));
    }

    private void takeFirstRow(FxRobot robot) {
        robot.push(KeyCode.DIGIT4);
        settle();
        write(robot, "by-eye-m", "50.00(2) g");
        write(robot, "by-eye-y", "310.5(3) mm");
        write(robot, "by-eye-t", "4.31; 4.28; 4.35 s");
        robot.push(KeyCode.ENTER);
        settle();
    }

    @Test
    void aRowIsReadBuiltTimedAndKept(FxRobot robot) throws Exception {
        openCoil();
        robot.push(KeyCode.DIGIT4);
        settle();
        assertThat(robot.lookup("#start-stop").query().getParent().isVisible())
                .as("nothing is started where nothing is recorded")
                .isFalse();
        // Nothing typed: the first field is asked for, and nothing is kept.
        robot.interact(() -> robot.lookup("#keep-run").queryAs(Button.class).fire());
        settle();
        assertThat(runs()).isEmpty();
        assertThat(field(robot, "by-eye-m").isFocused()).isTrue();
        robot.write("50.00(2) mm");
        write(robot, "by-eye-y", "1 mm");
        write(robot, "by-eye-t", "4.3(1) s");
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(runs()).as("a mass is not in mm").isEmpty();
        write(robot, "by-eye-m", "50.00(2) g");
        // By keyboard alone: the reading is built before the face of a rule.
        robot.interact(() -> field(robot, "by-eye-y").setText(""));
        robot.interact(() -> field(robot, "by-eye-y").requestFocus());
        robot.push(KeyCode.CONTROL, KeyCode.B);
        settle();
        assertThat(robot.lookup("#build-mark").queryAs(TextField.class).getText())
                .isEqualTo("310 mm");
        write(robot, "build-mark", "3l2 mm");
        assertThat(robot.lookup("#build-take").query().isDisabled()).isTrue();
        assertThat(label(robot, "build-problem")).isNotEmpty();
        write(robot, "build-mark", "312.5 mm");
        assertThat(label(robot, "build-says")).contains("312.50(14) mm").contains("u = 0.14 mm");
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(field(robot, "by-eye-y").getText())
                .isEqualTo("reading(312.5 mm, division: 1 mm, judged: 0.5, edges: 1, start: 0 mm)");
        // The stopwatch goes into the cell that waits for a time, three times.
        robot.interact(() -> field(robot, "by-eye-t").setText(""));
        for (int i = 1; i <= 3; i++) {
            robot.push(KeyCode.F8);
            robot.push(KeyCode.F8);
            settle();
            assertThat(field(robot, "by-eye-t").getText().split(";")).hasSize(i);
        }
        robot.push(KeyCode.F8);
        robot.push(KeyCode.F8);
        settle();
        assertThat(field(robot, "by-eye-t").getText().split(";"))
                .as("no fourth")
                .hasSize(3);
        write(robot, "by-eye-t", "4.31; 4.28; 4.35 s");
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(runs()).hasSize(1);
        Quantity t =
                window.bench().reduction().ofRun(runs().get(0), "t").quantity().orElseThrow();
        assertThat(t.value()).isCloseTo(4.3133, within(1e-4));
        // A row that is half read goes along to another level.
        write(robot, "by-eye-y", "312.0(3) mm");
        robot.clickOn("#level-hang-b");
        settle();
        assertThat(field(robot, "by-eye-y").getText()).isEqualTo("312.0(3) mm");
        robot.clickOn("#level-hang-a");
        settle();
        write(robot, "by-eye-y", "");
        robot.interact(() -> field(robot, "by-eye-y").requestFocus());
        // The mass serves the second run at this level, and is offered.
        assertThat(field(robot, "by-eye-m").getText()).isEqualTo("50.00(2) g");
        assertThat(field(robot, "by-eye-y").getText()).isEmpty();
        assertThat(field(robot, "by-eye-y").isFocused()).isTrue();
        assertThat(notebook()).contains("Kept Run 1 (Weight on the coil, 50 g) from a reading by eye.");
    }

    @Test
    void rowsArePastedAsOneAct(FxRobot robot) throws Exception {
        openCoil();
        robot.push(KeyCode.DIGIT4);
        settle();
        paste(robot, "50.01\t311\t4.31\n50.01\tabout 312\t4.30\n");
        assertThat(runs()).as("a row that cannot be read takes none").isEmpty();
        paste(robot, "50.01\t311 mm\t4.31; 4.32 s\n\t312.5\t4.30; 4.29 s\n100.02\t352\t5.9; 5.95 s\n");
        assertThat(runs()).hasSize(3);
        assertThat(runs().get(2).level()).isEqualTo("b");
        assertThat(runs().get(0).entries().byEye().get("m")).isEqualTo("50.010(20) g");
        assertThat(runs().get(1).entries().byEye().get("y")).isEqualTo("312.50(14) mm");
        robot.interact(() -> window.bench().undo());
        settle();
        assertThat(runs()).isEmpty();
    }

    private void paste(FxRobot robot, String cells) {
        robot.interact(() -> {
            ClipboardContent c = new ClipboardContent();
            c.putString(cells);
            Clipboard.getSystemClipboard().setContent(c);
            field(robot, "by-eye-m").requestFocus();
            field(robot, "by-eye-m").paste();
        });
        settle();
    }

    @Test
    void aKeptRunIsPutRightByKeyboard(FxRobot robot) throws Exception {
        openCoil();
        takeFirstRow(robot);
        robot.push(KeyCode.ESCAPE);
        robot.push(KeyCode.DIGIT5);
        settle();
        robot.interact(() -> robot.lookup("#run-1").query().requestFocus());
        robot.push(KeyCode.F2);
        settle();
        write(robot, "correct-name", "slow");
        write(robot, "correct-y", "311.5(3) mm");
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(label(robot, "correct-problem")).contains("Say why pointer is corrected");
        robot.interact(() -> robot.lookup("#correct-level").query().requestFocus());
        robot.push(KeyCode.RIGHT);
        settle();
        robot.interact(() -> field(robot, "correct-why").requestFocus());
        robot.write("misread by a division").push(KeyCode.ENTER);
        settle();
        Run run = runs().get(0);
        assertThat(run.name()).isEqualTo("slow");
        assertThat(run.level()).isEqualTo("b");
        assertThat(run.entries().byEye().get("y")).isEqualTo("311.5(3) mm");
        assertThat(notebook())
                .contains("called slow")
                .contains("at 100 g in place of 50 g")
                .contains("pointer 311.5(3) mm in place of 310.5(3) mm; misread by a division.");
        robot.interact(() -> window.bench().undo());
        settle();
        assertThat(runs().get(0).entries().byEye().get("y")).isEqualTo("310.5(3) mm");
        assertThat(runs().get(0).level()).isEqualTo("a");
    }

    /** A picture with a scale of 200 points for 100 mm and a bar of 300 points. */
    private Path picture() throws Exception {
        BufferedImage image = new BufferedImage(640, 480, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(Color.WHITE);
        g.fillRect(0, 0, 640, 480);
        g.setStroke(new BasicStroke(3));
        g.setColor(Color.DARK_GRAY);
        g.drawLine(100, 400, 300, 400);
        g.setColor(Color.RED);
        g.drawLine(200, 50, 200, 350);
        g.dispose();
        Path file = folder.resolve("coil.png");
        ImageIO.write(image, "png", file.toFile());
        return file;
    }

    private static void drag(FxRobot robot, int mark, double x, double y) {
        Node handle = robot.lookup("#pick-" + mark).query();
        Node board = handle.getParent();
        double scale = ((ImageView) board.lookup(".image-view")).getFitWidth() / 640;
        var to = board.localToScreen(x * scale, y * scale);
        var ring = handle.localToScreen(11, 0);
        robot.moveTo(ring.getX(), ring.getY());
        robot.press(MouseButton.PRIMARY);
        robot.moveTo(to.getX(), to.getY());
        robot.release(MouseButton.PRIMARY);
        settle();
    }

    @Test
    void aLengthIsMeasuredOnAPicture(FxRobot robot) throws Exception {
        openCoil();
        takeFirstRow(robot);
        Path picture = picture();
        robot.interact(() -> ((CaptureStation) window.view(Station.CAPTURE)).attach(picture));
        settle();
        MenuButton menu = robot.lookup("#picture-by-eye-y").queryAs(MenuButton.class);
        robot.interact(() -> menu.getItems().get(0).fire());
        settle();
        drag(robot, 0, 200, 50);
        drag(robot, 1, 200, 350);
        drag(robot, 2, 100, 400);
        drag(robot, 3, 300, 400);
        String says = label(robot, "pick-says");
        double measured = Double.parseDouble(says.replaceAll(".*= ([\\d.]+)\\(.*", "$1"));
        assertThat(measured).isCloseTo(150, within(3.0));
        // One step of an arrow key is one picture point: half a millimetre here.
        robot.interact(() -> robot.lookup("#pick-1").query().requestFocus());
        robot.push(KeyCode.DOWN);
        settle();
        double moved = Double.parseDouble(label(robot, "pick-says").replaceAll(".*= ([\\d.]+)\\(.*", "$1"));
        assertThat(moved - measured).isCloseTo(0.5, within(0.11));
        write(robot, "pick-length", "100 g");
        assertThat(robot.lookup("#pick-take").query().isDisabled()).isTrue();
        write(robot, "pick-length", "100.0(1) mm");
        robot.interact(() -> robot.lookup("#pick-take").queryAs(Button.class).fire());
        settle();
        String written = field(robot, "by-eye-y").getText();
        assertThat(written).startsWith("picked_length(").contains("100.0(1) mm").contains("picture: 1");
        // What was picked is kept and can be moved.
        robot.interact(() -> menu.getItems().get(0).fire());
        settle();
        assertThat(label(robot, "pick-says")).startsWith("pointer = ");
        assertThat(Double.parseDouble(label(robot, "pick-says").replaceAll(".*= ([\\d.]+)\\(.*", "$1")))
                .isCloseTo(moved, within(0.06));
        robot.push(KeyCode.ESCAPE);
        settle();
        write(robot, "by-eye-t", "4.31; 4.28; 4.35 s");
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(runs()).hasSize(2);
        assertThat(runs().get(1).entries().pictures()).hasSize(1);
    }
}

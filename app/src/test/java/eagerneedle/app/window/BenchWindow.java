package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;

import eagerneedle.app.OnScreen;
import eagerneedle.app.Rehearsed;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.concurrent.Callable;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.Labeled;
import javafx.scene.control.MenuButton;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;

/** The real window on a fresh session, and hands to work it with. */
@ExtendWith(ApplicationExtension.class)
abstract class BenchWindow {
    Path folder;
    Stage stage;
    MainWindow window;

    /** To be called from the test class's own start method. */
    void prepare(Stage newStage) throws Exception {
        stage = newStage;
        folder = Files.createTempDirectory("needle-window");
    }

    @AfterEach
    void close() {
        act(() -> stage.close());
    }

    /** Opens a window on a new session of a sheet's text. */
    void openText(FxRobot robot, String text, Clock clock) {
        openText(text, clock, 8);
    }

    /** As {@link #openText(FxRobot, String, Clock)}, with simulated instruments that run so many times too fast. */
    void openText(String text, Clock clock, double pace) {
        SheetReader.Located sheet = SheetReader.read(text, "the test's sheet");
        act(() -> {
            Workbench bench = new Workbench(
                    BenchFile.create(
                            folder.resolve(sheet.sheet().id() + ".needle"),
                            Session.start(text, sheet.sheet().title(), clock.instant())),
                    clock);
            window = new MainWindow(stage, bench, clock, pace, Stockroom.demonstration());
            stage.setX(0);
            stage.setY(0);
            stage.show();
        });
        settle();
    }

    /** Opens a window on a session that was carried out on the simulated rig of a method. */
    void openRehearsed(FxRobot robot, String method) {
        open(Rehearsed.in(folder, method));
    }

    /** Opens a window on a bench file. */
    void open(Path file) {
        act(() -> {
            window = new MainWindow(
                    stage,
                    new Workbench(BenchFile.open(file), Clock.systemUTC()),
                    Clock.systemUTC(),
                    8,
                    Stockroom.demonstration());
            stage.setX(0);
            stage.setY(0);
            stage.setWidth(1280);
            stage.setHeight(800);
            stage.show();
        });
        settle();
    }

    /** The text of a sheet of the tests' own. */
    static String testSheet(String name) throws IOException {
        try (InputStream in = BenchWindow.class.getResourceAsStream("/eagerneedle/app/workbench/" + name + ".yaml")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** Opens a window on a new session of a sheet, connects its simulated instruments and goes to the captures. */
    void openConnected(FxRobot robot, String name, String text) throws Exception {
        SheetTrial.read(text, name);
        Path file = folder.resolve(name + ".needle");
        BenchFile.create(file, Session.start(text, name, Instant.parse("2026-11-28T10:00:00Z")))
                .close();
        open(file);
        robot.push(KeyCode.DIGIT2);
        settle();
        robot.clickOn("#connect");
        await(() -> window.rig().isPresent());
        settle();
        robot.push(KeyCode.DIGIT4);
        settle();
    }

    static void await(Callable<Boolean> condition) throws Exception {
        OnScreen.await(condition);
    }

    static String text(FxRobot robot, String id) {
        return OnScreen.seen(() -> robot.lookup("#" + id).queryAs(Labeled.class).getText());
    }

    static void fire(FxRobot robot, String id) {
        act(() -> robot.lookup("#" + id).queryAs(ButtonBase.class).fire());
        settle();
    }

    static void type(FxRobot robot, String id, String text) {
        act(() -> robot.lookup("#" + id).queryAs(TextField.class).setText(text));
        settle();
    }

    static void pick(FxRobot robot, String menu, String words) {
        MenuButton m = robot.lookup("#" + menu).queryAs(MenuButton.class);
        act(() -> {
            if (m.getOnShowing() != null) {
                m.getOnShowing().handle(null);
            }
            m.getItems().stream()
                    .filter(i -> i.getText() != null && i.getText().startsWith(words))
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("no item " + words))
                    .fire();
        });
        settle();
    }

    Session session() {
        return window.bench().session();
    }
}

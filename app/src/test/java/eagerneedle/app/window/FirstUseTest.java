package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.await;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.station.Progress;
import eagerneedle.app.station.Station;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import javafx.geometry.Bounds;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.ApplicationExtension;
import org.testfx.framework.junit5.Start;

/** An empty session in a small window, and one that was cut off in the middle of a run. */
@ExtendWith(ApplicationExtension.class)
class FirstUseTest {
    private static final String SHEET = SheetReader.shippedText("baggage-chute");
    private Path folder;
    private MainWindow window;

    @Start
    void start(Stage stage) throws Exception {
        folder = Files.createTempDirectory("needle-first");
        Workbench bench = new Workbench(
                BenchFile.create(
                        folder.resolve("first.needle"),
                        Session.start(SHEET, "first", Clock.systemUTC().instant())),
                Clock.systemUTC());
        window = new MainWindow(stage, bench, Clock.systemUTC(), 8, Stockroom.demonstration());
        stage.setX(0);
        stage.setY(0);
        stage.setWidth(1024);
        stage.setHeight(700);
        stage.show();
    }

    @AfterEach
    void close() {
        act(() -> window.stage().close());
    }

    private static String text(FxRobot robot, String id) {
        return robot.lookup("#" + id).queryAs(Label.class).getText();
    }

    @Test
    void everyStationSaysWhatToDoNext(FxRobot robot) throws Exception {
        robot.push(KeyCode.DIGIT3);
        assertThat(robot.lookup(".label").queryAll())
                .anyMatch(n -> ((Label) n).getText().contains("Take at least 2 points"));
        robot.push(KeyCode.DIGIT4);
        assertThat(robot.lookup(".label").queryAll())
                .anyMatch(n -> ((Label) n).getText().startsWith("Next: Level, rolling east"));
        robot.push(KeyCode.SPACE);
        settle();
        assertThat(text(robot, "watch-line")).contains("connect it at Rig first");
        robot.push(KeyCode.DIGIT5);
        assertThat(robot.lookup("#trace").query().getAccessibleText()).contains("Capture or import a run first");
        robot.push(KeyCode.DIGIT6);
        assertThat(robot.lookup(".heading").queryAll())
                .anyMatch(n -> ((Label) n).getText().equals("What will be judged"));
        robot.push(KeyCode.DIGIT1);
        settle();
        Label predicted = robot.lookup("#predicted").queryAs(Label.class);
        await(() -> predicted.getText().startsWith("9.8"));
    }

    @Test
    void noControlLeavesASmallWindow(FxRobot robot) {
        for (Station s : Station.values()) {
            act(() -> window.go(s));
            settle();
            double width = window.stage().getScene().getWidth();
            robot.lookup(n -> n instanceof Button && n.isVisible()).queryAll().forEach(n -> {
                Bounds b = n.localToScene(n.getBoundsInLocal());
                assertThat(b.getMaxX()).as(s + ": " + ((Button) n).getText()).isLessThanOrEqualTo(width + 1);
                assertThat(b.getMinX()).as(s + ": " + ((Button) n).getText()).isGreaterThanOrEqualTo(-1);
            });
        }
    }

    @Test
    void readingsMoveFromPlannedToMeasured(FxRobot robot) {
        robot.push(KeyCode.CONTROL, KeyCode.K);
        act(() -> robot.lookup(".plan-scroll").queryAs(ScrollPane.class).setVvalue(0.45));
        settle();
        robot.clickOn("#read-spacing");
        robot.write("843.1(6) mm").push(KeyCode.ENTER);
        settle();
        assertThat(window.bench().session().measured()).containsEntry("spacing", "843.1(6) mm");
        assertThat(Progress.of(window.bench(), Station.PLAN)).isEqualTo(Station.State.ATTENTION);
        robot.clickOn("#undo");
        settle();
        assertThat(window.bench().session().measured()).isEmpty();
    }

    @Test
    void stepsAreSignedOffAndTheDialFollows(FxRobot robot) {
        robot.push(KeyCode.DIGIT2);
        for (String step : new String[] {"feet", "aim"}) {
            robot.clickOn("#step-" + step);
            settle();
        }
        assertThat(window.bench().session().signOffs()).containsOnlyKeys("feet", "aim");
        assertThat(Progress.of(window.bench(), Station.RIG)).isEqualTo(Station.State.ATTENTION);
        assertThat(robot.lookup("#station-rig").query().getAccessibleText()).isEqualTo("Rig, needs attention");
    }

    @Test
    void aRunCutOffByACrashIsRecovered(FxRobot robot) {
        Path cut = folder.resolve("cut.needle");
        try (BenchFile file = BenchFile.create(
                cut, Session.start(SHEET, "cut", Clock.systemUTC().instant()))) {
            file.begin(Run.captured(1, "slopes", "B", Clock.systemUTC().instant(), "ranger", Run.COUNTS));
            double[] t = new double[100];
            double[] c = new double[100];
            for (int i = 0; i < 100; i++) {
                t[i] = 0.02 * i;
                c[i] = Math.rint((0.3 + 0.2 * t[i] * t[i]) * 5.831 / 0.004) + i % 2;
            }
            file.append(1, "position", new RawSamples(t, c));
        }
        act(() -> window.door().open(cut));
        settle();
        assertThat(window.bench().session().run(1).orElseThrow().name()).isEqualTo("Recovered run 1");
        assertThat(text(robot, "watch-line")).contains("recovered");
        assertThat(window.bench()
                        .reduction()
                        .ofRun(window.bench().session().run(1).orElseThrow(), "a")
                        .quantity()
                        .orElseThrow()
                        .value())
                .isBetween(0.38, 0.42);
    }
}

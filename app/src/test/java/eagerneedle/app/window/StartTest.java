package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.plot.CardDrawing;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.Recent;
import eagerneedle.store.stockroom.Stockroom;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.scene.control.Labeled;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** The start page, before any session and from within one. */
class StartTest extends BenchWindow {
    private static final Instant DAY = Instant.parse("2026-11-24T09:00:00Z");
    private Recent recent;

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
        System.setProperty("needle.home", folder.toString());
        recent = Recent.at(folder.resolve("recent.json"));
        Path kept = folder.resolve("kept.needle");
        BenchFile.create(kept, Session.start(SheetReader.shippedText("drying-cabinet"), "cabinet", DAY))
                .close();
        recent.remember(folder.resolve("gone.needle"), "A session that was moved", "bench 2", DAY);
        recent.remember(kept, "Drying cabinet: a thermocouple line", "bench 3", DAY);
        StartScene.show(stage, recent, bench -> {
            window = new MainWindow(stage, bench, Clock.systemUTC(), 8, Stockroom.demonstration());
            window.rememberIn(recent);
            return window;
        });
        stage.setX(0);
        stage.setY(0);
        stage.show();
    }

    @BeforeEach
    void settled() {
        settle();
    }

    private final Thread.UncaughtExceptionHandler before = Thread.getDefaultUncaughtExceptionHandler();

    @AfterEach
    void home() {
        Thread.setDefaultUncaughtExceptionHandler(before);
        act(() -> Thread.currentThread().setUncaughtExceptionHandler(before));
        System.clearProperty("needle.home");
    }

    @Test
    void aSessionIsBegunByKeyAndKeptWhereTheProgramKeepsIts(FxRobot robot) throws Exception {
        act(() -> robot.lookup("#begin-potters-wheel").query().requestFocus());
        robot.push(KeyCode.ENTER);
        await(() -> window != null);
        assertThat(window.bench().sheet().id()).isEqualTo("potters-wheel");
        assertThat(window.bench().file().path())
                .isEqualTo(Home.folder().resolve("potters-wheel.needle"))
                .exists();
        assertThat(recent.entries().get(0).title()).isEqualTo("Potter's wheel: moment of inertia");
        robot.push(KeyCode.CONTROL, KeyCode.H);
        await(() -> robot.lookup("#start-page").tryQuery().isPresent());
        robot.clickOn("#recent-1");
        await(() -> window.bench().sheet().id().equals("drying-cabinet"));
        assertThat(recent.entries().get(0).title()).startsWith("Drying cabinet");
        robot.push(KeyCode.CONTROL, KeyCode.H);
        robot.clickOn("#recent-0");
        settle();
        assertThat(robot.lookup("#start-page").tryQuery())
                .as("the session that is open already is gone on with")
                .isEmpty();
        assertThat(window.dial().current()).isEqualTo(eagerneedle.app.station.Station.PLAN);
    }

    /** Before any session there is nothing to send along, and nothing is lost. */
    @Test
    void anErrorOfTheProgramIsSaidHereToo(FxRobot robot) {
        Platform.runLater(() -> {
            throw new IllegalStateException("broken on purpose");
        });
        settle();
        assertThat(robot.lookup("#trouble-says").queryAs(Labeled.class).getText())
                .contains("(broken on purpose)")
                .contains("No session is open");
        assertThat(robot.lookup("#trouble-data").query().isVisible()).isFalse();
        fire(robot, "trouble-close");
        assertThat(robot.lookup("#trouble").query().isVisible()).isFalse();
        act(() -> Notices.attempt(
                robot.lookup("#start-page").query(), () -> List.of().iterator().next()));
        settle();
        assertThat(robot.lookup("#trouble-says").queryAs(Labeled.class).getText())
                .startsWith("▲ Something went wrong");
        assertThat(robot.lookup("#start-says").queryAs(Labeled.class).getText())
                .isEqualTo("Something went wrong in the program itself; what was kept stays as it was.");
    }

    @Test
    void drawingsAreMadeWhenTheirCardsComeIntoSight(FxRobot robot) {
        CardShelf shelf = robot.lookup(n -> n instanceof CardShelf).query();
        List<MethodCard> cards = SheetReader.shipped().stream()
                .map(id -> robot.lookup("#begin-" + id).queryAs(MethodCard.class))
                .toList();
        assertThat(cards).allMatch(c -> drawing(c).isDrawn() == inSight(shelf, c));
        assertThat(cards).anyMatch(c -> inSight(shelf, c)).anyMatch(c -> !inSight(shelf, c));
        MethodCard first =
                cards.stream().filter(c -> inSight(shelf, c)).findFirst().orElseThrow();
        act(() -> shelf.setVvalue(1));
        settle();
        List<MethodCard> last = cards.stream().filter(c -> inSight(shelf, c)).toList();
        assertThat(last)
                .isNotEmpty()
                .doesNotContain(first)
                .allMatch(c -> drawing(c).isDrawn());
        assertThat(last).allMatch(c -> strokes(drawing(c)) > 100);
    }

    private static CardDrawing drawing(MethodCard card) {
        return (CardDrawing) card.getChildren().get(0);
    }

    private static boolean inSight(CardShelf shelf, MethodCard card) {
        Bounds shown = shelf.localToScene(shelf.getBoundsInLocal());
        Bounds at = card.localToScene(card.getLayoutBounds());
        return at.getMaxY() > shown.getMinY() + 2 && at.getMinY() < shown.getMaxY() - 2;
    }

    /** Pixels that are not the ground's. */
    private static int strokes(CardDrawing drawing) {
        WritableImage[] image = new WritableImage[1];
        act(() -> image[0] = drawing.snapshot(null, null));
        int ground = image[0].getPixelReader().getArgb(0, 0);
        int count = 0;
        for (int x = 0; x < (int) image[0].getWidth(); x++) {
            for (int y = 0; y < (int) image[0].getHeight(); y++) {
                count += image[0].getPixelReader().getArgb(x, y) != ground ? 1 : 0;
            }
        }
        return count;
    }

    @Test
    void whatIsNoLongerThereIsSaidAndTakenOffTheList(FxRobot robot) {
        assertThat(robot.lookup("#recent-1 .quiet").queryAll())
                .anyMatch(n -> n instanceof Labeled l && l.getText().contains("no longer there"));
        robot.clickOn("#recent-1");
        assertThat(robot.lookup("#start-says").queryAs(Labeled.class).getText()).contains("gone.needle");
        assertThat(window).isNull();
        robot.clickOn(robot.lookup("#recent-1 .quiet-button").<javafx.scene.Node>query());
        settle();
        assertThat(recent.entries()).hasSize(1);
        assertThat(robot.lookup("#recent-1").tryQuery()).isEmpty();
    }

    @Test
    void readingsAreBroughtIntoTheMethodThatIsChosenForThem(FxRobot robot) throws Exception {
        Path csv = folder.resolve("cabinet.csv");
        StringBuilder b = new StringBuilder("time (s),cabinet (degC)\n");
        for (int i = 0; i < 100; i++) {
            b.append(i * 0.1).append(',').append(41 + 0.01 * (i % 7)).append('\n');
        }
        Files.writeString(csv, b);
        act(() -> ((StartPage) robot.lookup("#start-page").query()).take(csv));
        settle();
        assertThat(robot.lookup("#start-choose").queryAs(Labeled.class).getText())
                .contains("cabinet.csv")
                .contains("Which method");
        // The preview of the file is a dialog that waits for an answer.
        javafx.application.Platform.runLater(() -> robot.lookup("#begin-drying-cabinet")
                .query()
                .getOnMouseClicked()
                .handle(null));
        await(() -> javafx.stage.Window.getWindows().size() > 1);
        assertThat(window.bench().sheet().id()).isEqualTo("drying-cabinet");
        robot.push(KeyCode.ESCAPE);
        await(() -> javafx.stage.Window.getWindows().size() == 1);
    }

    @Test
    void aDemonstrationIsHeldOnceAndOpened(FxRobot robot) throws Exception {
        fire(robot, "demonstrate-potters-wheel");
        await(() -> window != null);
        assertThat(session().keptRuns()).hasSize(15);
        assertThat(window.bench().reduction().comparisons().get(0).agrees(eagerneedle.core.judge.School.STANDARD))
                .isTrue();
        assertThat(Files.list(folder).map(p -> p.getFileName().toString()))
                .contains("demo-potters-wheel.needle")
                .noneMatch(n -> n.endsWith(".making"));
    }

    @Test
    void aSheetOfOnesOwnIsCheckedFirst(FxRobot robot) throws Exception {
        Path bad = folder.resolve("bad.yaml");
        Files.writeString(bad, "sheet: 1\nid: bad\n");
        act(() -> ((StartPage) robot.lookup("#start-page").query()).take(bad));
        assertThat(robot.lookup("#start-says").queryAs(Labeled.class).getText()).contains("bad.yaml");
        Path good = folder.resolve("own.yaml");
        Files.writeString(good, SheetReader.shippedText("baggage-chute").replace("id: baggage-chute", "id: own"));
        act(() -> ((StartPage) robot.lookup("#start-page").query()).take(good));
        await(() -> window != null);
        assertThat(window.bench().file().path().getFileName()).hasToString("own.needle");
    }
}

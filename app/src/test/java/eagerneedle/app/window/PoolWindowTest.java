package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.capture.PoolStation;
import eagerneedle.app.command.Needle;
import eagerneedle.app.station.Station;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.app.workbench.SheetFile;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A pool in the window: sessions are taken beside it, left out with a reason, taken back, and drawn together. */
class PoolWindowTest extends BenchWindow {
    private static final Path EXAMPLES = Path.of("..", "docs", "examples");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private int taken() {
        return window.bench().session().sources().size();
    }

    @Test
    void sessionsAreTakenLeftOutAndTakenIn(FxRobot robot) throws Exception {
        Path benches = Files.createDirectories(folder.resolve("benches"));
        for (int i = 1; i <= 3; i++) {
            Demonstration.simulate(
                    SheetTrial.read(Files.readString(EXAMPLES.resolve("alloy-arrest.yaml")), "a.yaml"),
                    i,
                    Set.of(),
                    benches.resolve("bench-" + i + ".needle"));
        }
        Files.writeString(benches.resolve("broken.needle"), "not a bench");
        Path pool = folder.resolve("pool.needle");
        BenchFile.create(
                        pool,
                        Session.start(
                                SheetFile.text(EXAMPLES.resolve("alloys-together.yaml")),
                                "All alloys",
                                Instant.parse("2026-11-28T10:00:00Z")))
                .close();
        open(pool);
        robot.push(KeyCode.DIGIT1);
        settle();
        assertThat(robot.lookup("#sessions-expected").queryAs(Label.class).getText())
                .contains("lean: mass of tin 15.00(2) g");
        robot.push(KeyCode.DIGIT4);
        settle();
        PoolStation station = (PoolStation) window.view(Station.CAPTURE);
        robot.interact(() -> station.take(List.of(benches)));
        await(() -> taken() == 3);
        settle();
        assertThat(robot.lookup("#pool-summary").queryAs(Label.class).getText())
                .isEqualTo("3 sessions of 'The arrest of an alloy' count; 4 are expected.");
        assertThat(robot.lookup("#watch-strip").lookup(".label").queryAllAs(Label.class))
                .anyMatch(l -> l.getText().contains("broken.needle is not a bench file"));
        assertThat(window.bench().reduction().column("pool.T")).hasSize(6);
        // Without a reason nothing happens; with one, by keyboard, it counts nowhere, and undo takes that back.
        TextField why = robot.lookup("#pool-bench-2").lookup(".text-field").query();
        robot.interact(why::requestFocus);
        robot.push(KeyCode.ENTER);
        settle();
        assertThat(window.bench().reduction().column("pool.T")).hasSize(6);
        robot.write("tube broke").push(KeyCode.ENTER);
        settle();
        assertThat(window.bench().reduction().column("pool.T")).hasSize(4);
        assertThat(robot.lookup("#pool-summary").queryAs(Label.class).getText()).contains("1 left out");
        robot.interact(() -> window.bench().undo());
        settle();
        assertThat(window.bench().reduction().column("pool.T")).hasSize(6);
        // All that were taken at once are one act.
        robot.interact(() -> window.bench().undo());
        settle();
        assertThat(taken()).isZero();
        robot.interact(() -> window.bench().redo());
        settle();
        robot.push(KeyCode.DIGIT5);
        settle();
        assertThat(robot.lookup("#columns").queryAll()).hasSize(1);
        assertThat(robot.lookup("#sight-run").queryAll()).isEmpty();
    }

    /** Two batches give one diagram, by the window as by the command line; a third moves it. */
    @Test
    void batchesOfAlloysGiveTheDiagramOfTheCommandLine(FxRobot robot) throws Exception {
        Path batches = Files.createDirectories(folder.resolve("batches"));
        for (int i = 1; i <= 2; i++) {
            Demonstration.simulate("cooling-alloys", 60 + i, Set.of(), batches.resolve("batch-" + i + ".needle"));
        }
        Path third = folder.resolve("batch-3.needle");
        Demonstration.simulate("cooling-alloys", 63, Set.of(), third);
        Path diagram = EXAMPLES.resolve("alloys-diagram.yaml");
        Path byCommand = folder.resolve("by-command.needle");
        Needle.needle("pool", "--into", byCommand, "--method", diagram, batches);
        Path pool = folder.resolve("diagram.needle");
        BenchFile.create(
                        pool,
                        Session.start(SheetFile.text(diagram), "All batches", Instant.parse("2026-11-28T10:00:00Z")))
                .close();
        open(pool);
        robot.push(KeyCode.DIGIT4);
        settle();
        PoolStation station = (PoolStation) window.view(Station.CAPTURE);
        robot.interact(() -> station.take(List.of(batches)));
        await(() -> taken() == 2);
        settle();
        var two = window.bench().reduction().quantity("w_E").orElseThrow();
        assertThat(Needle.needle("reduce", "--json", byCommand).out()).contains("\"value\" : " + two.value());
        // Three tubes of each batch have no eutectic arrest: what is absent takes no part.
        assertThat(window.bench().reduction().column("pool.top")).hasSize(12);
        assertThat(window.bench().reduction().column("pool.arrest")).hasSize(6);
        robot.interact(() -> station.take(List.of(third)));
        await(() -> taken() == 3);
        settle();
        var three = window.bench().reduction().quantity("w_E").orElseThrow();
        assertThat(three.value()).isNotEqualTo(two.value());
        assertThat(three.u()).isLessThan(two.u());
    }
}

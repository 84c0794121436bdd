package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.settle;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.trace.Window;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import javafx.geometry.Point2D;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** A moment that windows follow, moved on the trace by hand. */
class MomentsWindowTest extends BenchWindow {
    private static final Path SHEET = Path.of("..", "docs", "examples", "buffer-wagons.yaml");

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private Run run() {
        return session().run(3).orElseThrow();
    }

    /** The session that somebody who is sent the file finds in it. */
    private Session kept(Path file) throws Exception {
        Path sent = folder.resolve("sent.needle");
        Files.copy(file, sent);
        try (BenchFile again = BenchFile.open(sent)) {
            return again.session();
        }
    }

    private Quantity of(String name) {
        return window.bench().reduction().ofRun(run(), name).quantity().orElseThrow();
    }

    private Window before() {
        return window.bench().reduction().window(run(), "at.before").orElseThrow();
    }

    @Test
    void aDraggedMomentTakesItsWindowsAlongAndGoesBack(FxRobot robot) throws Exception {
        Path file = folder.resolve("wagons.needle");
        Demonstration.simulate(SheetTrial.read(Files.readString(SHEET), "buffer-wagons.yaml"), 7, Set.of(), file);
        open(file);
        robot.push(KeyCode.DIGIT5);
        act(() -> window.choose(run()));
        settle();
        Quantity found = of("impact");
        Window followed = before();
        Quantity speed = of("v.a.before");
        PlotView trace = robot.lookup("#trace").queryAs(PlotView.class);
        Point2D at = trace.localToScreen(
                trace.frame().px(found.value()),
                trace.frame().top() + trace.frame().height() / 2);
        double far = trace.frame().px(0.15) - trace.frame().px(0);
        robot.moveTo(at)
                .press(MouseButton.PRIMARY)
                .moveTo(at.getX() + far, at.getY())
                .release(MouseButton.PRIMARY);
        settle();
        Quantity moved = of("impact");
        assertThat(moved.value() - found.value()).isCloseTo(0.15, within(0.02));
        double sample = 1 / window.bench().sheet().channels().get("x.a").rate();
        assertThat(moved.u()).as("anywhere within a sample").isCloseTo(sample / Math.sqrt(12), within(0.05 * sample));
        assertThat(before().to() - followed.to()).isCloseTo(moved.value() - found.value(), within(1e-9));
        assertThat(of("v.a.before").value())
                .as("the impact is in the window now")
                .isNotEqualTo(speed.value());
        assertThat(session().run(3).orElseThrow().windows()).containsOnlyKeys("impact");
        assertThat(kept(file).runs().get(2).windows()).as("kept in the file").isEqualTo(run().windows());
        // And taken back.
        robot.push(KeyCode.CONTROL, KeyCode.Z);
        settle();
        assertThat(of("impact").value()).isEqualTo(found.value());
        assertThat(before()).isEqualTo(followed);
    }
}

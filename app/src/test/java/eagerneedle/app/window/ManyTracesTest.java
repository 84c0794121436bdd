package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static eagerneedle.app.OnScreen.seen;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Station;
import eagerneedle.app.widget.LivePage;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.picture.Layer;
import eagerneedle.rig.simulated.WaveStandIn;
import java.time.Clock;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Sixteen channels do not fit in a window: those that are seen move, the others when they are scrolled to. */
class ManyTracesTest extends BenchWindow {
    private static final int CHANNELS = 16;

    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private static String sheet(int port) {
        String channels = IntStream.rangeClosed(1, CHANNELS)
                .mapToObj(c -> "  in" + c + ": {label: input " + c + ", unit: V, device: logger, rate: 1000, chain: "
                        + "[{kind: converter, label: converter, from: V, range: [-10, 10], bits: 16, coding: signed}]}")
                .collect(Collectors.joining("\n"));
        String names =
                IntStream.rangeClosed(1, CHANNELS).mapToObj(c -> "in" + c).collect(Collectors.joining(", "));
        return """
                sheet: 1
                id: sixteen
                title: Sixteen channels
                subject: Electricity
                devices:
                  logger: {label: Fast logger, driver: line, address: "127.0.0.1:%d"}
                channels:
                %s
                captures:
                  all:
                    label: All channels
                    mode: stream
                    channels: [%s]
                    longest: 3600
                    levels: {once: {label: once}}
                results: {}
                """.formatted(port, channels, names);
    }

    private static PlotView trace(FxRobot robot, int channel) {
        Node row = robot.lookup("#live-number-in" + channel).query();
        while (row.getParent().getChildrenUnmodifiable().stream().noneMatch(PlotView.class::isInstance)) {
            row = row.getParent();
        }
        return row.getParent().getChildrenUnmodifiable().stream()
                .filter(PlotView.class::isInstance)
                .map(PlotView.class::cast)
                .findFirst()
                .orElseThrow();
    }

    private static boolean isDrawn(FxRobot robot, int channel) {
        return trace(robot, channel).visible() != null;
    }

    /** The moment at which a trace ends, s. */
    private static double last(FxRobot robot, int channel) {
        return trace(robot, channel).plot().layers().stream()
                .filter(Layer.Points.class::isInstance)
                .map(Layer.Points.class::cast)
                .mapToDouble(p -> p.x()[p.x().length - 1])
                .max()
                .orElseThrow();
    }

    @Test
    void whatIsOutOfSightIsDrawnWhenItIsScrolledTo(FxRobot robot) throws Exception {
        try (WaveStandIn logger = new WaveStandIn(CHANNELS)) {
            String text = sheet(logger.port());
            openText(robot, text, Clock.systemUTC());
            LiveRig rig =
                    LiveRig.at(SheetReader.read(text, "sixteen").sheet(), "logger", "127.0.0.1:" + logger.port(), 1000);
            act(() -> {
                window.connect(rig);
                window.go(Station.CAPTURE);
            });
            await(() -> isDrawn(robot, 1) && isDrawn(robot, 2));
            // A number of each is worked out all the same, and they are laid out together.
            await(() -> IntStream.rangeClosed(1, CHANNELS)
                    .allMatch(c -> text(robot, "live-more-in" + c).matches("SD .*, n \\d+")));
            assertThat(seen(() -> robot.lookup(
                                    (Node n) -> n.getClass().getSimpleName().equals("RateOfChange"))
                            .query()
                            .isManaged()))
                    .as("no room is kept for what only a single trace has")
                    .isFalse();
            robot.push(KeyCode.SPACE);
            await(() -> rig.isRecording() && rig.count("in1") > 500);
            assertThat(seen(() -> LivePage.isSeen(trace(robot, 1)))).isTrue();
            assertThat(seen(() -> LivePage.isSeen(trace(robot, CHANNELS)))).isFalse();
            assertThat(seen(() -> isDrawn(robot, CHANNELS))).isFalse();
            act(() -> robot.lookup("#room").queryAs(ScrollPane.class).setVvalue(1));
            await(() -> isDrawn(robot, CHANNELS));
            assertThat(seen(() -> LivePage.isSeen(trace(robot, 1)))).isFalse();
            double until = seen(() -> trace(robot, CHANNELS).visible()[1]);
            await(() -> trace(robot, CHANNELS).visible()[1] > until);
            assertThat(seen(() -> LivePage.isSeen(robot.lookup("#start-stop").query())))
                    .isFalse();
            robot.push(KeyCode.SPACE);
            await(() -> LivePage.isSeen(robot.lookup("#discard-run").query()));
            // It waits to be kept, and is shown whole and to one end, wherever one scrolls to.
            double end = seen(() -> last(robot, CHANNELS));
            for (int c = 1; c < CHANNELS; c++) {
                int channel = c;
                assertThat(seen(() -> last(robot, channel))).isCloseTo(end, within(0.05));
            }
            robot.push(KeyCode.K);
            long n = window.bench().file().count(1, "in" + CHANNELS);
            assertThat(n).isGreaterThan(500).isEqualTo(window.bench().file().count(1, "in1"));
            assertThat(seen(() -> isDrawn(robot, 1) && isDrawn(robot, CHANNELS)))
                    .as("a kept run is shown whole")
                    .isTrue();
        }
    }
}

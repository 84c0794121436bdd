package eagerneedle.app.window;

import static eagerneedle.app.OnScreen.act;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.capture.Prompts;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.rig.simulated.GateStandIn;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Labeled;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/** Each way to capture, in the real window, on simulated or stand-in instruments. */
class CaptureModesTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private static String sheet(String capture) {
        return """
                sheet: 1
                id: modes
                title: Ways to capture
                subject: Electricity
                devices:
                  logger:
                    label: Logger TH-LG-02
                    driver: line
                    rig: chains
                    outputs: {supply: {label: supply, unit: V, lowest: 0, highest: 10, ramp: 100, safe: 0}}
                channels:
                  volts:
                    label: voltage
                    unit: V
                    needs: [0 V, 5 V]
                    device: logger
                    rate: 50
                    chain:
                      - {kind: sensor, label: lead, from: V, to: V, gain: 1, noise: 0.0005}
                      - {kind: converter, label: converter, from: V, range: [-10, 10], bits: 16, coding: signed}
                  second:
                    label: second voltage
                    unit: V
                    needs: [0 V, 5 V]
                    device: logger
                    rate: 50
                    chain:
                      - {kind: sensor, label: lead, from: V, to: V, gain: 1, noise: 0.0005}
                      - {kind: converter, label: converter, from: V, range: [-10, 10], bits: 16, coding: signed}
                captures:
                %s
                results: {}
                """.formatted(capture.indent(2));
    }

    private void connect(FxRobot robot, String capture) throws Exception {
        openText(robot, sheet(capture), Clock.systemUTC());
        robot.push(KeyCode.DIGIT2);
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
        robot.push(KeyCode.DIGIT4);
        await(() -> window.rig().get().last("volts", 5).size() > 20);
    }

    private Run kept() {
        return session().keptRuns().get(session().keptRuns().size() - 1);
    }

    private void set(String volts) throws Exception {
        window.rig().get().arrange(Map.of("channel", "volts", "reference", volts));
    }

    @Test
    void aShotKeepsWhatLiesAroundItsTrigger(FxRobot robot) throws Exception {
        connect(robot, """
                step:
                  label: Steps
                  mode: shot
                  channels: [volts, second]
                  shot: {at: 4.5 V, way: up, before: 0.5, after: 1}
                  levels: {up: {label: up}}""");
        set("1 V");
        assertThat(text(robot, "start-stop")).isEqualTo("Arm");
        assertThat(text(robot, "shot-state"))
                .contains("voltage passes 4.5 V upwards")
                .contains("0.5 s before to 1 s after");
        robot.push(KeyCode.SPACE);
        await(() -> text(robot, "run-clock").equals("armed"));
        await(() -> window.rig().get().clock("volts") > 1.5);
        assertThat(window.rig().get().isArmed()).isTrue();
        set("4.9 V");
        await(() -> ended(robot));
        robot.push(KeyCode.K);
        Trace t = window.bench().reduction().trace(kept(), "volts").orElseThrow();
        assertThat(t.time()[0]).isBetween(-0.52, -0.46);
        assertThat(t.time()[t.size() - 1]).isBetween(0.96, 1.001);
        for (int i = 0; i < t.size(); i++) {
            assertThat(t.value()[i])
                    .as("at %s s", t.time()[i])
                    .satisfies(
                            t.time()[i] < 0
                                    ? v -> assertThat(v).isLessThan(4.5)
                                    : v -> assertThat(v).isGreaterThanOrEqualTo(4.49));
        }
        assertThat(window.bench()
                        .reduction()
                        .trace(kept(), "second")
                        .orElseThrow()
                        .size())
                .as("every channel of the capture")
                .isEqualTo(t.size());
        robot.push(KeyCode.SPACE);
        await(() -> text(robot, "run-clock").equals("armed"));
        robot.push(KeyCode.SPACE);
        assertThat(text(robot, "watch-line")).contains("Disarmed before the trigger came");
        assertThat(session().keptRuns()).hasSize(1);
    }

    @Test
    void gateEdgesAreCountedWhileTheyCome(FxRobot robot) throws Exception {
        try (GateStandIn timer = new GateStandIn(1000)) {
            String gate = "{label: %s gate, unit: \"1\", device: timer, rate: 100, chain: [{kind: converter, label: "
                    + "gate, from: \"1\", bits: 1}]}";
            openText(robot, """
                    sheet: 1
                    id: spokes
                    title: Spokes
                    subject: Motion
                    devices:
                      timer: {label: Gate timer, driver: gate}
                    channels:
                      first: %s
                      second: %s
                    captures:
                      turn:
                        label: Turning wheel
                        mode: gate
                        channels: [first, second]
                        levels: {once: {label: once}}
                        quantities:
                          T: {label: time from spoke to spoke, unit: ms, formula: "period(edges(first), resolution: 1 us)"}
                    results: {}
                    """.formatted(gate.formatted("first"), gate.formatted("second")), Clock.systemUTC());
            robot.push(KeyCode.DIGIT2);
            type(robot, "address", "127.0.0.1:" + timer.port());
            fire(robot, "connect-there");
            await(() -> window.rig().isPresent());
            robot.push(KeyCode.DIGIT4);
            robot.push(KeyCode.SPACE);
            await(() -> window.rig().get().count("first") > 80);
            assertThat(text(robot, "gate-first-edges")).matches("\\d+");
            assertThat(text(robot, "gate-first-block")).endsWith(" ms");
            assertThat(text(robot, "gate-first-mean")).contains(" ms of 12");
            robot.push(KeyCode.SPACE);
            robot.push(KeyCode.K);
            double shown = window.bench()
                    .reduction()
                    .quantity(new eagerneedle.core.reduce.Key.OfRun(1, "T"))
                    .orElseThrow()
                    .value();
            RawSamples raw = window.bench().file().samples(kept().id(), "first");
            List<Double> blocks = new java.util.ArrayList<>();
            for (int i = 1; i < raw.size(); i++) {
                if (raw.values()[i] > 0.5 && raw.values()[i - 1] < 0.5) {
                    blocks.add(raw.time()[i]);
                }
            }
            assertThat(shown)
                    .isCloseTo(
                            1e3 * (blocks.get(blocks.size() - 1) - blocks.get(0)) / (blocks.size() - 1),
                            within(0.001 * shown));
        }
    }

    @Test
    void promptedReadingsKeepTheirTrueTimesAndASkippedOneIsEnteredAfterwards(FxRobot robot) throws Exception {
        connect(robot, """
                fade:
                  label: Readings in time
                  mode: prompted
                  channels: [volts]
                  prompt: {first: 4, every: 8, count: 4, seconds: 0.5, by: key}
                  levels: {once: {label: once}}""");
        assertThat(robot.lookup("#prompt-itself").queryAs(CheckBox.class).isSelected())
                .isFalse();
        robot.push(KeyCode.SPACE);
        set("2 V");
        await(() -> window.rig().get().clock("volts") > 4.2);
        robot.push(KeyCode.T);
        await(() -> text(robot, "prompt-says").startsWith("Reading 2 of 4 is due at 12 s"));
        robot.push(KeyCode.S);
        await(() -> text(robot, "prompt-says").startsWith("Reading 3 of 4 is due at 20 s"));
        fire(robot, "prompt-itself");
        await(() -> ended(robot));
        fire(robot, "prompt-late-1");
        type(robot, "late-when", "13.5");
        type(robot, "late-value", "2.25");
        fire(robot, "late-enter");
        fire(robot, "keep-run");
        List<Prompts.Mark> marks = kept().entries().marks();
        assertThat(marks).hasSize(4);
        assertThat(marks.get(0).late()).isBetween(0.1, 4.0);
        assertThat(marks.get(1)).isEqualTo(new Prompts.Mark(12, 13.5, "2.25"));
        assertThat(marks.get(2).late()).as("the program takes it at its moment").isEqualTo(0.0);
        Trace t = window.bench().reduction().trace(kept(), "volts").orElseThrow();
        assertThat(t.size()).isEqualTo(4);
        assertThat(t.time()[1]).isEqualTo(13.5);
        assertThat(t.value()[1]).isCloseTo(2.25, within(1e-9));
        assertThat(t.value()[0]).isCloseTo(2, within(0.01));
        assertThat(window.bench().file().samples(kept().id(), "volts").size())
                .as("all samples are kept beside the readings")
                .isGreaterThan(500);
    }

    @Test
    void aRowIsTakenOnceItIsSteadyTogetherWithWhatIsReadByEye(FxRobot robot) throws Exception {
        connect(robot, """
                row:
                  label: Load steps
                  mode: hold
                  channels: [volts, second]
                  hold: {seconds: 1, samples: 25}
                  by_eye: {gauge: {label: dial gauge, value: "2.00(5) mm", by: dial gauge TH-DG-01}}
                  levels: {low: {label: low, outputs: {supply: 2}}, high: {label: high, outputs: {supply: 4}}}""");
        set("1.5 V");
        fire(robot, "start-stop");
        await(() -> window.rig().get().standIn().output("supply") == 2);
        await(() -> ended(robot));
        fire(robot, "keep-run");
        assertThat(text(robot, "watch-line")).contains("Enter dial gauge first");
        type(robot, "by-eye-gauge", "3 s");
        fire(robot, "keep-run");
        assertThat(text(robot, "watch-line")).contains("dial gauge is in mm, not in s");
        type(robot, "by-eye-gauge", "1.42(5) mm");
        Path picture = folder.resolve("set-up.png");
        javax.imageio.ImageIO.write(
                new java.awt.image.BufferedImage(8, 8, java.awt.image.BufferedImage.TYPE_INT_RGB),
                "png",
                picture.toFile());
        act(() -> ((eagerneedle.app.capture.CaptureStation) window.view(eagerneedle.app.station.Station.CAPTURE))
                .attach(picture));
        fire(robot, "keep-run");
        assertThat(kept().entries().byEye()).containsEntry("gauge", "1.42(5) mm");
        assertThat(window.bench()
                        .file()
                        .attachment(kept().entries().pictures().get(0).attachment()))
                .isEqualTo(Files.readAllBytes(picture));
        assertThat(window.bench()
                        .reduction()
                        .trace(kept(), "volts")
                        .orElseThrow()
                        .size())
                .isGreaterThanOrEqualTo(25)
                .isLessThan(60);
        assertThat(text(robot, "level-row-low")).contains("1\u00a0of\u00a01");
        fire(robot, "copy-rows");
        String[] pasted = {""};
        act(() -> pasted[0] = Clipboard.getSystemClipboard().getString());
        assertThat(pasted[0].split("\n")[0]).isEqualTo("run\tlevel\tvoltage, V\tu\tsecond voltage, V\tu\tdial gauge");
        String[] first = pasted[0].split("\n")[1].split("\t");
        assertThat(first).startsWith("Run 1", "low").endsWith("1.42(5) mm").hasSize(7);
        assertThat(Double.parseDouble(first[3]))
                .as("what is taken stands still")
                .isBetween(1e-6, 0.02);
        assertThat(Double.parseDouble(first[5])).isBetween(1e-6, 0.02);
        fire(robot, "start-stop");
        await(() -> window.rig().get().standIn().output("supply") == 4);
        fire(robot, "start-stop");
        await(() -> text(robot, "hold-state").equals("Not taken.") || ended(robot));
    }

    @Test
    void aWatchIsAnsweredAndItsSamplesAreVoided(FxRobot robot) throws Exception {
        connect(robot, """
                free:
                  label: Free running
                  mode: stream
                  channels: [volts]
                  levels: {once: {label: once}}""");
        robot.push(KeyCode.SPACE);
        await(() -> window.rig().get().count("volts") > 120);
        set("30 V");
        await(() -> text(robot, "live-watch").contains("saturated"));
        await(() -> window.rig().get().count("volts") > 200);
        robot.push(KeyCode.SPACE);
        robot.push(KeyCode.K);
        await(() -> window.bench().findings().stream().anyMatch(f -> f.watch().equals("saturated")));
        double saturatedFrom = window.bench().findings().stream()
                .filter(f -> f.watch().equals("saturated"))
                .findFirst()
                .orElseThrow()
                .from();
        fire(robot, "watch-more");
        act(() -> robot.lookup("#watch-acknowledge-0")
                .queryAs(javafx.scene.control.Hyperlink.class)
                .fire());
        assertThat(window.bench().findings())
                .filteredOn(f -> f.watch().equals("saturated"))
                .allMatch(f -> f.severity() == eagerneedle.core.watch.Finding.Severity.NOTE);
        assertThat(session().explained()).hasSize(1);
        type(robot, "watch-why-0", "range left too small");
        act(() -> robot.lookup("#watch-void-0")
                .queryAs(javafx.scene.control.Hyperlink.class)
                .fire());
        assertThat(kept().entries().voided().get(0).reason()).isEqualTo("range left too small");
        double[] left =
                window.bench().reduction().trace(kept(), "volts").orElseThrow().time();
        assertThat(left[left.length - 1]).isLessThan(saturatedFrom);
        assertThat(window.bench().findings()).noneMatch(f -> f.watch().equals("saturated"));
        assertThat(window.bench().file().samples(kept().id(), "volts").size())
                .as("they stay in the file")
                .isGreaterThan(left.length);
        fire(robot, "undo");
        assertThat(kept().entries().voided()).isEmpty();
    }

    @Test
    void aRunIsVoidedWithAReasonOrContinued(FxRobot robot) throws Exception {
        connect(robot, """
                free:
                  label: Free running
                  mode: stream
                  channels: [volts, second]
                  levels: {once: {label: once}}""");
        robot.push(KeyCode.P);
        await(() -> robot.lookup("#projector .big").queryAll().size() == 2
                && robot.lookup("#projector .big").queryAll().stream()
                        .allMatch(n -> ((Labeled) n).getText().endsWith(" V")));
        robot.push(KeyCode.ESCAPE);
        robot.push(KeyCode.SPACE);
        await(() -> window.rig().get().count("volts") > 60);
        robot.push(KeyCode.SPACE);
        robot.clickOn("#void-reason").write("lead was loose");
        fire(robot, "discard-run");
        assertThat(session().runs().get(0).discard()).isEqualTo("lead was loose");
        robot.push(KeyCode.SPACE);
        await(() -> window.rig().get().count("volts") > 60);
        await(() -> text(robot, "live-number-volts").matches(".*\\(\\d+\\) V")
                && text(robot, "live-more-volts").matches("SD .*, n \\d+"));
        robot.push(KeyCode.SPACE);
        robot.push(KeyCode.K);
        int before =
                window.bench().reduction().trace(kept(), "volts").orElseThrow().size();
        double end = window.bench().file().overview(kept().id(), "volts").end();
        fire(robot, "continue-run");
        await(() -> window.rig().get().count("volts") > 60);
        robot.push(KeyCode.SPACE);
        await(() -> !kept().entries().resumed().isEmpty());
        Trace t = window.bench().reduction().trace(kept(), "volts").orElseThrow();
        assertThat(t.size()).isGreaterThan(before + 50);
        assertThat(t.time()[before]).as("the time in between is not forgotten").isGreaterThan(end);
        assertThat(session().keptRuns()).hasSize(1);
        fire(robot, "hold-scale");
        fire(robot, "stopwatch");
        await(() -> !robot.lookup("#stopwatch-time")
                .queryAs(Labeled.class)
                .getText()
                .equals("0.00 s"));
        fire(robot, "stopwatch");
        String stopped = text(robot, "stopwatch-time");
        double now = window.rig().get().clock("volts");
        await(() -> window.rig().get().clock("volts") > now + 1);
        assertThat(text(robot, "stopwatch-time")).isEqualTo(stopped);
        assertThat(ended(robot)).as("nothing is asked any more").isFalse();
    }

    private static boolean ended(FxRobot robot) {
        return robot.lookup("#keep-run").query().getParent().getParent().isVisible();
    }
}

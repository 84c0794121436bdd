package eagerneedle.app.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.simulated.GateStandIn;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.rig.simulated.ScpiStandIn;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.util.Locale;
import java.util.Set;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledOnOs;
import org.junit.jupiter.api.condition.OS;
import org.testfx.api.FxRobot;
import org.testfx.framework.junit5.Start;

/**
 * Every kind of instrument but the simulated ones, connected at Rig by its address and captured from, in the real
 * window.
 */
class RealDeviceTest extends BenchWindow {
    @Start
    void start(Stage newStage) throws Exception {
        prepare(newStage);
    }

    private static final String VOLTS =
            "{label: voltage, unit: V, device: meter, input: volts, rate: 10, chain: [{kind: converter, label: "
                    + "meter, from: V, range: [-10, 10], bits: 24}]}";
    private static final String AMPS =
            "{label: current, unit: mA, device: meter, input: amps, rate: 10, chain: [{kind: converter, label: "
                    + "meter, from: mA, range: [-200, 200], bits: 24}]}";
    private static final String GATE =
            "{label: gate, unit: \"1\", device: meter, input: first, rate: 100, chain: [{kind: converter, label: "
                    + "gate, from: \"1\", bits: 1}]}";

    private static String sheet(String device, String channels, String names) {
        return """
                sheet: 1
                id: any-meter
                title: Any meter
                subject: Electricity
                devices:
                  meter: {label: Bench meter, %s}
                channels:
                %s
                captures:
                  look:
                    label: A look
                    mode: stream
                    channels: [%s]
                    levels: {once: {label: once}}
                results: {}
                """.formatted(device, channels.indent(2), names);
    }

    private void connectThere(FxRobot robot, String address) throws Exception {
        robot.push(KeyCode.DIGIT2);
        type(robot, "address", address);
        fire(robot, "connect-there");
        await(() -> window.rig().isPresent());
    }

    /** Takes one run of at least so many samples and keeps it. */
    private Run capture(FxRobot robot, String channel, int atLeast) throws Exception {
        robot.push(KeyCode.DIGIT4);
        fire(robot, "start-stop");
        await(() -> window.rig().get().all(channel).size() >= atLeast);
        fire(robot, "start-stop");
        fire(robot, "keep-run");
        assertThat(session().keptRuns()).isNotEmpty();
        return session().keptRuns().get(session().keptRuns().size() - 1);
    }

    @Test
    void aScpiMeterIsConnectedCapturedFromAndLost(FxRobot robot) throws Exception {
        try (ScpiStandIn meter = new ScpiStandIn(5)) {
            openText(
                    robot,
                    sheet(
                            "driver: scpi, queries: {volts: \"MEAS:VOLT?\", amps: \"MEAS:CURR?\"}",
                            "volts: " + VOLTS + "\namps: "
                                    + AMPS.replace("mA", "A").replace("200", "2"),
                            "volts, amps"),
                    Clock.systemUTC());
            connectThere(robot, "127.0.0.1:" + meter.port());
            Run run = capture(robot, "volts", 5);
            assertThat(run.rawUnit("volts")).isEqualTo("V");
            assertThat(run.rawUnit("amps")).as("each channel in its own unit").isEqualTo("A");
            double mean = java.util.Arrays.stream(window.bench()
                            .reduction()
                            .trace(run, "volts")
                            .orElseThrow()
                            .value())
                    .average()
                    .orElseThrow();
            assertThat(mean).isCloseTo(meter.volts(), within(1e-3));
            double amps = java.util.Arrays.stream(window.bench()
                            .reduction()
                            .trace(run, "amps")
                            .orElseThrow()
                            .value())
                    .average()
                    .orElseThrow();
            assertThat(amps).isCloseTo(meter.volts() / 99.83, within(1e-5));
            meter.disconnect();
            await(() -> text(robot, "watch-line").contains("lost")
                    || window.rig().get().state() == Driver.State.RUNNING);
            await(() -> window.rig().get().state() == Driver.State.RUNNING);
        }
    }

    @Test
    void aGateTimerIsConnectedAndItsEdgesAreKept(FxRobot robot) throws Exception {
        try (GateStandIn timer = new GateStandIn(4_294_900_000L)) {
            openText(
                    robot,
                    sheet(
                            "driver: gate",
                            "first: " + GATE + "\nsecond: " + GATE.replace("first", "second"),
                            "first, second"),
                    Clock.systemUTC());
            connectThere(robot, "127.0.0.1:" + timer.port());
            Run run = capture(robot, "first", 40);
            double[] t = window.bench().file().samples(run.id(), "first").time();
            for (int i = 1; i < t.length; i++) {
                assertThat(t[i])
                        .as("its clock goes round, time does not")
                        .isGreaterThan(t[i - 1])
                        .isLessThan(t[i - 1] + 0.1);
            }
        }
    }

    @Test
    void aFileThatGrowsIsFollowed(FxRobot robot) throws Exception {
        Path file = folder.resolve("other program.csv");
        Files.writeString(file, "t (s),volts (V)\n0,1\n");
        openText(robot, sheet("driver: file", "volts: " + VOLTS, "volts"), Clock.systemUTC());
        robot.push(KeyCode.DIGIT2);
        type(robot, "address", folder.resolve("nothing.csv").toString());
        fire(robot, "connect-there");
        await(() -> text(robot, "watch-line").contains("There is no file nothing.csv yet"));
        connectThere(robot, file.toString());
        Thread writer = new Thread(() -> {
            try {
                for (int i = 1; i <= 400 && !Thread.interrupted(); i++) {
                    Files.writeString(
                            file,
                            String.format(Locale.ROOT, "%.2f,%.4f%n", i / 20.0, 2 + 0.001 * i),
                            StandardOpenOption.APPEND);
                    Thread.sleep(25);
                }
            } catch (IOException | InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        writer.start();
        try {
            Run run = capture(robot, "volts", 20);
            double[] v =
                    window.bench().reduction().trace(run, "volts").orElseThrow().value();
            assertThat(v[v.length - 1] - v[0]).isCloseTo(0.001 * (v.length - 1), within(1e-4));
        } finally {
            writer.interrupt();
            writer.join();
        }
    }

    @Test
    void readingsByEyeAreTypedIntoARun(FxRobot robot) throws Exception {
        openText(
                robot,
                sheet("driver: manual", "volts: " + VOLTS + "\namps: " + AMPS, "volts, amps"),
                Clock.systemUTC());
        robot.push(KeyCode.DIGIT2);
        assertThat(text(robot, "connect")).isEqualTo("Take readings by hand");
        fire(robot, "connect");
        await(() -> window.rig().isPresent());
        robot.push(KeyCode.DIGIT4);
        fire(robot, "start-stop");
        robot.clickOn("#typed-volts").write("1.25");
        robot.push(KeyCode.ENTER);
        robot.write("12,5");
        robot.push(KeyCode.ENTER);
        assertThat(text(robot, "watch-line")).contains("12,5");
        assertThat(robot.lookup("#typed-amps").queryAs(TextField.class).getText())
                .as("nothing that was typed is lost")
                .isEqualTo("12,5");
        type(robot, "typed-amps", "0.0125 A");
        robot.push(KeyCode.ENTER);
        for (String[] pair : new String[][] {{"1.50", "15.1"}, {"1.75", "17.4"}}) {
            Thread.sleep(30);
            robot.write(pair[0]);
            robot.push(KeyCode.ENTER);
            robot.write(pair[1]);
            robot.push(KeyCode.ENTER);
        }
        fire(robot, "start-stop");
        fire(robot, "keep-run");
        Run run = session().keptRuns().get(0);
        assertThat(window.bench().reduction().trace(run, "volts").orElseThrow().value())
                .usingComparatorWithPrecision(1e-9)
                .containsExactly(1.25, 1.5, 1.75);
        assertThat(window.bench().reduction().trace(run, "amps").orElseThrow().value())
                .usingComparatorWithPrecision(1e-9)
                .containsExactly(12.5, 15.1, 17.4);
    }

    @Test
    @EnabledOnOs(OS.LINUX)
    void aLoggerOnASerialPortIsConnected(FxRobot robot) throws Exception {
        SheetReader.Located chute = SheetReader.read(SheetReader.shippedText("baggage-chute"), "x");
        try (LineStandIn logger =
                LineStandIn.serial(Rigs.shipped("baggage-chute", 7, Set.of()), "TH-LG-01", "Logger TH-LG-01", 1)) {
            openText(robot, chute.text(), Clock.systemUTC());
            robot.push(KeyCode.CONTROL, KeyCode.K);
            connectThere(robot, logger.serialPort());
            assertThat(window.rig().get().label()).contains("TH-LG-01");
            await(() -> window.rig().get().last("position", 5).size() > 10);
            Run run = capture(robot, "position", 20);
            assertThat(run.rawUnit("position")).isEqualTo("counts");
        }
    }
}

package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The sketches of docs/firmware, compiled for this computer, talk to the driver over a pseudo-terminal. */
class FirmwareTest {
    private static final Path SOURCES = Path.of("..", "docs", "firmware").toAbsolutePath();

    @TempDir
    private static Path built;

    private Process process;
    private BlockingQueue<String> printed = new LinkedBlockingQueue<>();

    @BeforeAll
    static void compile() throws Exception {
        assumeTrue(hasCompiler(), "there is no C compiler here");
        for (String sketch : List.of("logger", "gates", "heater")) {
            Process cc = new ProcessBuilder(
                            "cc",
                            "-std=c99",
                            "-O1",
                            "-Wall",
                            "-Wextra",
                            "-Werror",
                            "-o",
                            built.resolve(sketch).toString(),
                            SOURCES.resolve("needle.c").toString(),
                            SOURCES.resolve(sketch + ".c").toString(),
                            SOURCES.resolve("host.c").toString())
                    .redirectErrorStream(true)
                    .start();
            String said = new String(cc.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            assertThat(cc.waitFor()).as(said).isZero();
        }
    }

    private static boolean hasCompiler() {
        for (String dir : System.getenv("PATH").split(":")) {
            if (Files.isExecutable(Path.of(dir, "cc"))) {
                return true;
            }
        }
        return false;
    }

    private String plugged(String sketch, boolean gates) throws Exception {
        ProcessBuilder b = new ProcessBuilder(built.resolve(sketch).toString());
        if (gates) {
            b.environment().put("GATES", "1");
        }
        Process started = b.start();
        process = started;
        BlockingQueue<String> lines = new LinkedBlockingQueue<>();
        printed = lines;
        Thread t = new Thread(
                () -> {
                    try (BufferedReader in = new BufferedReader(
                            new InputStreamReader(started.getInputStream(), StandardCharsets.UTF_8))) {
                        for (String l = in.readLine(); l != null; l = in.readLine()) {
                            lines.add(l);
                        }
                    } catch (IOException gone) {
                        lines.add("gone");
                    }
                },
                "firmware");
        t.setDaemon(true);
        t.start();
        return said();
    }

    private String said() throws InterruptedException {
        String s = printed.poll(40, TimeUnit.SECONDS);
        assertThat(s).as("the sketch says something").isNotNull();
        return s;
    }

    @AfterEach
    void unplug() {
        if (process != null) {
            process.destroyForcibly();
        }
    }

    /** The median interval: a computer that is busy with other things makes the sketch miss one now and then. */
    private static double usual(List<Double> moments) {
        double[] apart = IntStream.range(1, moments.size())
                .mapToDouble(i -> moments.get(i) - moments.get(i - 1))
                .sorted()
                .toArray();
        return apart[apart.length / 2];
    }

    @Test
    void theLoggerSamples() throws Exception {
        String port = plugged("logger", false);
        try (LineDriver d = new LineDriver(new SerialWire(port, 115200))) {
            Driver.Description who = d.open();
            assertThat(who.id()).isEqualTo("TH-LG-12");
            assertThat(who.channels()).containsExactly("a", "b");
            assertThat(d.selfTest()).isEmpty();
            d.configure(50);
            Recorder rows = new Recorder();
            d.start(rows);
            rows.more(60);
            d.stop();
            assertThat(d.unreadable()).isZero();
            List<double[]> all = List.copyOf(rows.rows);
            assertThat(usual(all.stream().map(r -> r[0]).toList()))
                    .as("twenty milliseconds apart")
                    .isCloseTo(0.02, within(0.004));
            for (double[] r : all) {
                assertThat(r[1]).isBetween(1000.0, 1099.0).isEqualTo(Math.rint(r[1]));
                assertThat(r[2]).isBetween(-1599.0, -1500.0);
            }
        }
    }

    @Test
    void theGateTimerSendsItsEdges() throws Exception {
        String port = plugged("gates", true);
        try (LineDriver d = LineDriver.gates(new SerialWire(port, 115200))) {
            assertThat(d.open().channels()).containsExactly("upper", "lower");
            Recorder rows = new Recorder();
            d.start(rows);
            rows.more(60);
            d.stop();
            List<Double> blocked = new ArrayList<>();
            List<double[]> all = List.copyOf(rows.rows);
            for (int i = 1; i < all.size(); i++) {
                if (all.get(i)[1] == 1 && all.get(i - 1)[1] == 0) {
                    blocked.add(all.get(i)[0]);
                }
            }
            assertThat(blocked.size()).isGreaterThan(10);
            assertThat(usual(blocked)).isCloseTo(0.04, within(0.002));
        }
    }

    @Test
    void theSupplyKeepsItsLimitsAndMakesItselfSafe() throws Exception {
        String port = plugged("heater", false);
        assertThat(said()).as("off at the start").isEqualTo("0 0");
        LineDriver d = new LineDriver(new SerialWire(port, 115200));
        d.open();
        d.setOutput("heater", 5);
        assertThat(said()).isEqualTo("0 5");
        assertThatThrownBy(() -> d.setOutput("heater", 13)).hasMessageContaining("refused");
        assertThatThrownBy(() -> d.setOutput("lamp", 1)).hasMessageContaining("no such output");
        d.close();
        assertThat(said()).as("said when it is let go").isEqualTo("0 0");
        try (LineDriver again = new LineDriver(new SerialWire(port, 115200))) {
            again.open();
            again.setOutput("heater", 2);
            assertThat(said()).isEqualTo("0 2");
        }
        assertThat(said()).isEqualTo("0 0");
        // And with nobody to say it: the line is cut while the output is on.
        SerialWire cut = new SerialWire(port, 115200);
        cut.open();
        cut.out().write("set heater 7.5\n".getBytes(StandardCharsets.US_ASCII));
        cut.out().flush();
        assertThat(said()).isEqualTo("0 7.5");
        long from = System.nanoTime();
        cut.close();
        assertThat(said()).isEqualTo("0 0");
        assertThat((System.nanoTime() - from) / 1e9).as("not before its time").isGreaterThan(1.0);
    }

    /** The program is killed while it ramps, at twenty moments in the long run. */
    @Test
    void whenTheProgramIsKilledTheOutputGoesOff() throws Exception {
        int kills = Math.min(20, Integer.getInteger("kills", 4));
        for (int k = 0; k < kills; k++) {
            String port = plugged("heater", false);
            assertThat(said()).isEqualTo("0 0");
            Process program = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-XX:TieredStopAtLevel=1",
                            "-cp",
                            System.getProperty("java.class.path"),
                            Ramping.class.getName(),
                            port)
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            try (BufferedReader in =
                    new BufferedReader(new InputStreamReader(program.getInputStream(), StandardCharsets.UTF_8))) {
                assertThat(in.readLine()).isEqualTo("begun");
                // So many settings are waited for, so that each kill falls at another place of the ramp. A busy
                // computer climbs it in fewer.
                double before = 0;
                for (int settings = 0; settings <= k * 26 / kills && before < 9; settings++) {
                    double v = Double.parseDouble(said().substring(2));
                    assertThat(v).isBetween(before, 9.0);
                    assertThat(v - before).as("no faster than its ramp").isLessThan(2);
                    before = v;
                }
                program.destroyForcibly().waitFor();
                long from = System.nanoTime();
                String last = said();
                while (!last.equals("0 0")) {
                    assertThat(Double.parseDouble(last.substring(2))).isLessThanOrEqualTo(9);
                    last = said();
                }
                assertThat((System.nanoTime() - from) / 1e9).isLessThan(20);
            } finally {
                program.destroyForcibly();
                process.destroyForcibly().waitFor();
            }
        }
    }

    @Test
    void nonsenseIsPassedOver() throws Exception {
        String port = plugged("heater", false);
        said();
        SerialWire wire = new SerialWire(port, 115200);
        wire.open();
        String nonsense = "x".repeat(400)
                + "\nset\nset heater\nset heater volts\nset heater 1e400\nset heater nan\nrate -3\n\n\u0000\n";
        wire.out().write(nonsense.getBytes(StandardCharsets.ISO_8859_1));
        wire.out().flush();
        wire.close();
        try (LineDriver d = new LineDriver(new SerialWire(port, 115200))) {
            assertThat(d.open().label()).isEqualTo("Heater supply");
            d.setOutput("heater", 1);
            assertThat(said()).isEqualTo("0 1");
        }
    }
}

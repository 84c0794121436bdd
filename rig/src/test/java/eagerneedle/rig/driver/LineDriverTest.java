package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Misbehaviour;
import eagerneedle.rig.simulated.Rigs;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.PrintStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** The line driver over a real connection on loopback, with every fault of the stand-in. */
@Timeout(30)
class LineDriverTest implements Driver.Sink {
    private final List<double[]> samples = new CopyOnWriteArrayList<>();
    private final List<Driver.State> states = new CopyOnWriteArrayList<>();
    private final List<String> sentences = new CopyOnWriteArrayList<>();
    protected LineStandIn standIn;
    protected LineDriver driver;
    protected ListenedWire wire;

    @Override
    public void block(Driver.Block block) {
        for (int i = 0; i < block.size(); i++) {
            samples.add(new double[] {block.time()[i], block.counts()[0][i]});
        }
    }

    @Override
    public void state(Driver.State state, String sentence) {
        states.add(state);
        sentences.add(sentence);
    }

    @BeforeEach
    void open() throws IOException {
        standIn = new LineStandIn(
                Rigs.shipped("baggage-chute", 3, Set.of()), "TH-UR-07", "Ultrasonic ranger TH-UR-07", 4);
        wire = new ListenedWire(new TcpWire("127.0.0.1", standIn.port()));
        driver = new LineDriver(wire);
    }

    /** Pulls the lead and puts it back. */
    protected void pull() throws IOException {
        standIn.disconnect();
    }

    @AfterEach
    void close() throws IOException {
        driver.close();
        standIn.close();
    }

    private static void await(BooleanSupplier condition) {
        long end = System.nanoTime() + 8_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("the condition came in time").isLessThan(end);
            try {
                Thread.sleep(10);
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private void running() throws IOException {
        driver.open();
        driver.configure(100);
        driver.arrange(Map.of("reference", "0.8 m"));
        driver.start(this);
        await(() -> samples.size() > 20);
    }

    private void timesRise() {
        List<double[]> seen = new ArrayList<>(samples);
        for (int i = 1; i < seen.size(); i++) {
            assertThat(seen.get(i)[0]).isGreaterThan(seen.get(i - 1)[0]);
        }
    }

    @Test
    void itSaysWhoItIsAndSendsSamplesByItsOwnClock() throws IOException {
        Driver.Description d = driver.open();
        assertThat(d.id()).isEqualTo("TH-UR-07");
        assertThat(d.channels()).containsExactly("position");
        assertThat(d.simulated()).isTrue();
        assertThat(driver.state()).isEqualTo(Driver.State.READY);
        driver.configure(50);
        driver.arrange(Map.of("reference", "0.8 m"));
        driver.start(this);
        await(() -> samples.size() > 30);
        assertThat(samples.get(0)[0]).isZero();
        assertThat(samples.get(10)[0]).isCloseTo(0.2, org.assertj.core.api.Assertions.within(1e-9));
        double metres = samples.get(5)[1] * 0.004 / 5.831;
        assertThat(metres).isBetween(0.75, 0.85);
        timesRise();
        driver.stop();
        assertThat(driver.state()).isEqualTo(Driver.State.READY);
        int n = samples.size();
        driver.start(this);
        await(() -> samples.size() > n + 5);
    }

    @Test
    void silenceIsToldAndItsEndToo() throws IOException {
        running();
        standIn.misbehave(Misbehaviour.SILENCE);
        await(() -> driver.state() == Driver.State.SILENT && !sentences.isEmpty());
        assertThat(sentences.get(0)).contains("silent").contains("kept").endsWith(".");
        int kept = samples.size();
        standIn.misbehave(Misbehaviour.NONE);
        await(() -> samples.size() > kept + 5);
        assertThat(states).containsExactly(Driver.State.SILENT, Driver.State.RUNNING);
        timesRise();
    }

    @Test
    void garbageIsCountedAndCostsOnlyItself() throws IOException {
        running();
        standIn.misbehave(Misbehaviour.GARBAGE);
        await(() -> driver.unreadable() > 10);
        standIn.misbehave(Misbehaviour.NONE);
        int kept = samples.size();
        await(() -> samples.size() > kept + 20);
        assertThat(samples).allSatisfy(s -> assertThat(s[1] * 0.004 / 5.831).isBetween(0.7, 0.9));
        timesRise();
    }

    @Test
    void halfLinesAreNotTakenForSamples() throws IOException {
        running();
        standIn.misbehave(Misbehaviour.HALF_LINES);
        await(() -> driver.unreadable() > 10);
        standIn.misbehave(Misbehaviour.NONE);
        int kept = samples.size();
        await(() -> samples.size() > kept + 10);
        assertThat(samples).allSatisfy(s -> assertThat(s[1] * 0.004 / 5.831).isBetween(0.7, 0.9));
    }

    @Test
    void aClockThatJumpsBackDoesNotTurnTimeAround() throws IOException {
        running();
        await(() -> samples.get(samples.size() - 1)[0] > 0.5);
        standIn.misbehave(Misbehaviour.CLOCK_BACK);
        await(() -> sentences.stream().anyMatch(s -> s.contains("clock jumped by") || s.contains("started anew")));
        int kept = samples.size();
        await(() -> samples.size() > kept + 20);
        timesRise();
        assertThat(driver.state()).isEqualTo(Driver.State.RUNNING);
    }

    @Test
    void aLostConnectionIsToldAndComesBackByItself() throws IOException {
        running();
        int kept = samples.size();
        pull();
        await(() -> states.contains(Driver.State.LOST) && !sentences.isEmpty());
        assertThat(sentences.get(0)).contains("lost").contains("kept");
        await(() -> samples.size() > kept + 20);
        assertThat(driver.state()).isEqualTo(Driver.State.RUNNING);
        timesRise();
    }

    @Test
    void nobodyThereIsOneSentence() throws IOException {
        int port = standIn.port();
        standIn.close();
        LineDriver nobody = new LineDriver("127.0.0.1", port);
        assertThatThrownBy(nobody::open)
                .isInstanceOf(IOException.class)
                .hasMessageContaining("Nothing answers at 127.0.0.1");
        nobody.close();
    }

    @Test
    void aClosedInstrumentNeverAnswersHoweverOftenItIsTried() throws IOException {
        for (int i = 0; i < 200; i++) {
            LineStandIn shortLived = new LineStandIn(
                    Rigs.shipped("baggage-chute", i, Set.of()), "TH-UR-08", "Ultrasonic ranger TH-UR-08", 4);
            int port = shortLived.port();
            shortLived.close();
            LineDriver nobody = new LineDriver("127.0.0.1", port);
            assertThatThrownBy(nobody::open)
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("Nothing answers at 127.0.0.1");
        }
    }

    /**
     * An instrument that still sends two lines of the sampling before when the next one starts, as one with a full
     * buffer does.
     */
    @Test
    void linesOfTheSamplingBeforeDoNotSpoilTheNext() throws Exception {
        try (ServerSocket slow = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            Thread instrument = new Thread(() -> slowInstrument(slow), "slow instrument");
            instrument.setDaemon(true);
            instrument.start();
            LineDriver late = new LineDriver("127.0.0.1", slow.getLocalPort());
            late.open();
            late.start(this);
            await(() -> samples.size() == 3);
            late.stop();
            samples.clear();
            late.start(this);
            await(() -> samples.size() == 3);
            assertThat(samples).extracting(s -> s[1]).containsExactly(201.0, 202.0, 203.0);
            assertThat(samples).extracting(s -> s[0]).containsExactly(0.0, 0.1, 0.2);
            late.close();
        }
    }

    private static void slowInstrument(ServerSocket server) {
        try (Socket peer = server.accept();
                BufferedReader in =
                        new BufferedReader(new InputStreamReader(peer.getInputStream(), StandardCharsets.UTF_8));
                PrintStream out = new PrintStream(peer.getOutputStream(), true, StandardCharsets.UTF_8)) {
            int starts = 0;
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                if (line.equals("describe")) {
                    out.print("= slow;Slow logger;x\n");
                } else if (line.equals("start")) {
                    String before = starts++ == 0 ? "" : ":300000,104\n:400000,105\n";
                    String run =
                            starts == 1 ? ":0,101\n:100000,102\n:200000,103\n" : ":0,201\n:100000,202\n:200000,203\n";
                    out.print(before + run);
                }
            }
        } catch (IOException closed) {
            // The test is over.
        }
    }

    @Test
    void somethingElseThereIsOneSentence() throws IOException {
        try (ServerSocket mute = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            LineDriver other = new LineDriver("127.0.0.1", mute.getLocalPort());
            assertThatThrownBy(other::open)
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("does not say what it is");
            assertThat(other.state()).isEqualTo(Driver.State.CLOSED);
        }
    }

    @Test
    void anInstrumentThatComesBackInOtherUnitsIsRefused() throws IOException {
        running();
        standIn.misbehave(Misbehaviour.WRONG_UNITS);
        await(() -> !sentences.isEmpty());
        assertThat(driver.state()).isEqualTo(Driver.State.REFUSED);
        assertThat(sentences.get(sentences.size() - 1))
                .contains("position in mV")
                .contains("position in counts")
                .contains("nothing of that is kept");
        int kept = samples.size();
        int heard = wire.bytes();
        await(() -> wire.bytes() > heard + 300);
        assertThat(samples).as("nothing of it is kept").hasSize(kept);
    }

    @Test
    void outputsAreConfirmedOrRefusedAndNeverTakenForGranted() throws IOException {
        driver.open();
        standIn.limit("heater", 12);
        driver.setOutput("heater", 5);
        assertThat(standIn.output("heater")).isEqualTo(5);
        assertThatThrownBy(() -> driver.setOutput("heater", 20))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("refused heater = 20.0: above its own limit of 12.0");
        assertThat(standIn.output("heater")).isEqualTo(5);
        assertThat(driver.selfTest()).isEmpty();
        driver.identify();
        await(() -> standIn.identified() == 1);
        standIn.misbehave(Misbehaviour.DEAF);
        assertThatThrownBy(() -> driver.setOutput("heater", 6))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("did not confirm")
                .hasMessageContaining("not done");
    }

    @Test
    void anOutputGoesOffWhenTheLeadIsPulledAndWhenTheProgramCloses() throws IOException {
        running();
        driver.setOutput("heater", 5);
        pull();
        await(() -> standIn.output("heater") == 0);
        await(() -> states.contains(Driver.State.LOST) && !sentences.isEmpty());
        assertThat(sentences.get(0)).contains("outputs switch themselves off");
        await(() -> driver.state() == Driver.State.RUNNING);
        assertThat(standIn.output("heater"))
                .as("it does not come on again by itself")
                .isZero();
        driver.setOutput("heater", 4);
        driver.close();
        await(() -> standIn.output("heater") == 0);
    }

    @Test
    void anOutputStaysOnWhileTheProgramIsThere() throws Exception {
        driver.open();
        driver.setOutput("heater", 5);
        // Every half second; the watchdog's time is one and a half.
        await(() -> wire.alive() > 4);
        assertThat(standIn.output("heater"))
                .as("kept alive past the watchdog's time")
                .isEqualTo(5);
    }

    @Test
    void closingLeavesNoThread() throws IOException {
        running();
        driver.close();
        driver.close();
        standIn.close();
        Recorder.noThreadIsLeft("line driver", "stand-in TH-UR-07");
        assertThat(driver.state()).isEqualTo(Driver.State.CLOSED);
        int n = samples.size();
        assertThat(samples).hasSize(n);
    }
}

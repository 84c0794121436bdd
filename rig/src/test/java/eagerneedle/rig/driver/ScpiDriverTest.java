package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.rig.simulated.ScpiStandIn;
import eagerneedle.rig.simulated.ScpiStandIn.Misbehaviour;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.util.LinkedHashMap;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(40)
class ScpiDriverTest {
    private final Recorder heard = new Recorder();
    private ScpiStandIn standIn;
    private ScpiDriver driver;

    @BeforeEach
    void open() throws IOException {
        standIn = new ScpiStandIn(4);
        Map<String, String> queries = new LinkedHashMap<>();
        queries.put("voltage", "MEAS:VOLT?");
        queries.put("current", "MEAS:CURR?");
        driver = new ScpiDriver(
                new TcpWire("127.0.0.1", standIn.port()),
                queries,
                Map.of("voltage", "V", "current", "A"),
                Map.of("supply", "VOLT %s"),
                Map.of("supply", 0.0));
    }

    @AfterEach
    void close() throws IOException {
        driver.close();
        standIn.close();
        Recorder.noThreadIsLeft("scpi");
    }

    private void running() throws IOException {
        driver.open();
        driver.configure(50);
        driver.setOutput("supply", 2);
        driver.start(heard);
        heard.more(10);
    }

    @Test
    void itSaysWhoItIsAndMeasuresWhatIsSet() throws IOException {
        Driver.Description d = driver.open();
        assertThat(d.id()).isEqualTo("TH-DM-05");
        assertThat(d.channels()).containsExactly("voltage", "current");
        assertThat(d.units()).containsExactly("V", "A");
        assertThat(driver.selfTest()).isEmpty();
        driver.configure(50);
        driver.setOutput("supply", 2.5);
        driver.start(heard);
        heard.more(10);
        assertThat(heard.rows.get(9)[1]).isCloseTo(2.5, within(0.002));
        assertThat(heard.rows.get(9)[2]).isCloseTo(2.5 / 99.83, within(1e-5));
        heard.timesRise();
        driver.stop();
        assertThat(driver.state()).isEqualTo(Driver.State.READY);
    }

    @Test
    void silenceIsToldAndItsEndToo() throws IOException {
        running();
        standIn.misbehave(Misbehaviour.SILENCE);
        Recorder.await(() -> !heard.sentences.isEmpty());
        assertThat(heard.sentences.get(0)).contains("does not answer").contains("kept");
        standIn.misbehave(Misbehaviour.NONE);
        heard.more(5);
        assertThat(heard.states).containsExactly(Driver.State.SILENT, Driver.State.RUNNING);
    }

    @Test
    void garbageHalfAnswersOverloadAndUnitsThatDoNotFitAreCounted() throws IOException {
        running();
        for (Misbehaviour how :
                new Misbehaviour[] {Misbehaviour.GARBAGE, Misbehaviour.WRONG_UNITS, Misbehaviour.OVERLOAD}) {
            long before = driver.unreadable();
            standIn.misbehave(how);
            Recorder.await(() -> driver.unreadable() > before + 3);
        }
        standIn.misbehave(Misbehaviour.HALF_LINES);
        heard.rows.clear();
        Recorder.await(() -> driver.unreadable() > 12);
        standIn.misbehave(Misbehaviour.NONE);
        heard.more(12);
        assertThat(heard.rows).as("no half answer passed for a number").allSatisfy(r -> {
            assertThat(r[1]).isCloseTo(2, within(0.002));
            assertThat(r[2]).isCloseTo(2 / 99.83, within(1e-5));
        });
    }

    @Test
    void anAnswerWithItsOwnUnitIsConverted() throws IOException {
        running();
        standIn.misbehave(Misbehaviour.MILLI);
        heard.more(5);
        heard.rows.clear();
        heard.more(5);
        assertThat(heard.rows).allSatisfy(r -> assertThat(r[1]).isCloseTo(2, within(0.002)));
    }

    @Test
    void aLimitIsRefusedByTheInstrumentInItsOwnWords() throws IOException {
        driver.open();
        assertThatThrownBy(() -> driver.setOutput("supply", 9))
                .isInstanceOf(IOException.class)
                .hasMessage("The instrument refused supply = 9.0: Data out of range.");
        assertThatThrownBy(() -> driver.setOutput("lamp", 1)).hasMessageContaining("no output called lamp");
        assertThat(standIn.volts()).isZero();
    }

    @Test
    void afterALostConnectionTheOutputIsSwitchedOffFirst() throws IOException {
        running();
        standIn.disconnect();
        Recorder.await(() -> heard.states.contains(Driver.State.LOST) && !heard.sentences.isEmpty());
        assertThat(heard.sentences.get(0)).contains("may still be on");
        Recorder.await(() -> driver.state() == Driver.State.RUNNING);
        heard.more(5);
        Recorder.await(() -> standIn.volts() == 0);
        heard.timesRise();
    }

    @Test
    void closingSwitchesOff() throws IOException {
        running();
        driver.close();
        driver.close();
        Recorder.await(() -> standIn.volts() == 0);
        assertThat(driver.state()).isEqualTo(Driver.State.CLOSED);
    }

    @Test
    void somethingElseThereIsOneSentence() throws IOException {
        try (ServerSocket mute = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            ScpiDriver other = new ScpiDriver(
                    new TcpWire("127.0.0.1", mute.getLocalPort()), Map.of(), Map.of(), Map.of(), Map.of());
            assertThatThrownBy(other::open).isInstanceOf(IOException.class).hasMessageContaining("not to *IDN?");
        }
    }
}

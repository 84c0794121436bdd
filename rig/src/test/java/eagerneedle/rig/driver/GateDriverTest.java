package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.rig.simulated.GateStandIn;
import eagerneedle.rig.simulated.GateStandIn.Misbehaviour;
import java.io.IOException;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(40)
class GateDriverTest {
    private final Recorder heard = new Recorder();
    private GateStandIn standIn;
    private LineDriver driver;

    @BeforeEach
    void open() throws IOException {
        // The timer's 32 bits go round a quarter of a second after the start.
        standIn = new GateStandIn((1L << 32) - 250_000);
        driver = LineDriver.gates(new TcpWire("127.0.0.1", standIn.port()));
        driver.open();
        driver.start(heard);
        heard.more(10);
    }

    @AfterEach
    void close() throws IOException {
        driver.close();
        standIn.close();
        Recorder.noThreadIsLeft("line driver", "gate stand-in");
    }

    @Test
    void edgesKeepTheirMicrosecondsAcrossTheEndOfTheClock() {
        heard.more(60);
        heard.timesRise();
        for (int i = 1; i < heard.rows.size(); i++) {
            double gap = heard.rows.get(i)[0] - heard.rows.get(i - 1)[0];
            assertThat(gap).isCloseTo(0.008, within(1e-6));
            assertThat(heard.rows.get(i)[1])
                    .as("each edge turns the first gate")
                    .isEqualTo(1 - heard.rows.get(i - 1)[1]);
        }
        assertThat(driver.unreadable()).isZero();
    }

    @Test
    void silenceOfAGateIsNothingToWorryAbout() throws Exception {
        standIn.misbehave(Misbehaviour.SILENCE);
        AtomicInteger asked = new AtomicInteger();
        // An hour goes by.
        driver.timedBy(() -> System.nanoTime() + 3_600_000_000_000L + asked.getAndIncrement());
        Recorder.await(() -> asked.get() > 3);
        assertThat(driver.state()).isEqualTo(Driver.State.RUNNING);
        assertThat(heard.states).isEmpty();
        standIn.misbehave(Misbehaviour.NONE);
        heard.more(5);
    }

    @Test
    void garbageAndHalfLinesCostOnlyThemselves() throws IOException {
        standIn.misbehave(Misbehaviour.GARBAGE);
        Recorder.await(() -> driver.unreadable() > 5);
        standIn.misbehave(Misbehaviour.HALF_LINES);
        Recorder.await(() -> driver.unreadable() > 15);
        standIn.misbehave(Misbehaviour.NONE);
        heard.more(10);
        heard.timesRise();
        assertThat(heard.rows).allSatisfy(r -> assertThat(r[1]).isIn(0.0, 1.0));
    }

    @Test
    void aClockThatJumpsBackAndOtherUnitsAreNotTaken() throws IOException {
        heard.more(50);
        standIn.misbehave(Misbehaviour.CLOCK_BACK);
        Recorder.await(() ->
                heard.sentences.stream().anyMatch(s -> s.contains("clock jumped by") || s.contains("started anew")));
        heard.more(10);
        heard.timesRise();
        standIn.misbehave(Misbehaviour.WRONG_UNITS);
        Recorder.await(() -> heard.states.contains(Driver.State.REFUSED) && !heard.sentences.isEmpty());
        assertThat(driver.state()).isEqualTo(Driver.State.REFUSED);
        assertThat(heard.sentences.get(heard.sentences.size() - 1)).contains("first in ms");
    }

    @Test
    void aLostConnectionIsToldAndComesBack() throws IOException {
        standIn.disconnect();
        Recorder.await(() -> heard.states.contains(Driver.State.LOST));
        Recorder.await(() -> driver.state() == Driver.State.RUNNING);
        heard.more(10);
        heard.timesRise();
    }
}

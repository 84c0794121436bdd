package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.mockito.ArgumentMatchers.anyDouble;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import eagerneedle.core.sheet.Output;
import eagerneedle.rig.simulated.LineStandIn;
import eagerneedle.rig.simulated.Rigs;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(40)
class OutputGuardTest {
    private static final Output HEATER = new Output("heater", "V", 0, 24, 6, 20.0, 10, 0, 0, null);
    private final List<Double> set = new ArrayList<>();
    private final List<String> news = new CopyOnWriteArrayList<>();
    private final long[] clock = {0};
    private final Driver driver = mock(Driver.class);
    private OutputGuard guard;

    @BeforeEach
    void make() throws IOException {
        when(driver.state()).thenReturn(Driver.State.RUNNING);
        doAnswer(i -> set.add(i.getArgument(1))).when(driver).setOutput(anyString(), anyDouble());
        guard = new OutputGuard(driver, "heater", HEATER, news::add, () -> clock[0]);
    }

    private void seconds(double s) {
        for (int i = 0; i < Math.round(s * 10); i++) {
            clock[0] += 100_000_000L;
            guard.step();
        }
    }

    @Test
    void aWishIsReachedNoFasterThanTheRamp() {
        guard.set(12);
        seconds(1);
        assertThat(guard.value()).isCloseTo(6, within(1e-9));
        seconds(2);
        assertThat(guard.value()).isEqualTo(12);
        for (int i = 1; i < set.size(); i++) {
            assertThat(set.get(i) - set.get(i - 1)).isLessThanOrEqualTo(0.6 + 1e-9);
        }
    }

    @Test
    void aProgramThatWasHeldUpDoesNotLeap() {
        guard.set(12);
        seconds(0.5);
        clock[0] += 5_000_000_000L;
        guard.step();
        assertThat(guard.value()).isCloseTo(3 + 1.2, within(1e-9));
    }

    @Test
    void whatIsBeyondTheLimitsIsRefusedAndChangesNothing() {
        guard.set(5);
        assertThatThrownBy(() -> guard.set(25)).hasMessage("The heater stays between 0 V and 24 V; 25 V was not set.");
        assertThatThrownBy(() -> guard.set(-1)).hasMessageContaining("was not set");
        assertThatThrownBy(() -> guard.set(Double.NaN)).isInstanceOf(IllegalArgumentException.class);
        seconds(2);
        assertThat(guard.value()).isEqualTo(5);
    }

    @Test
    void theTimeNearTheLimitIsCountedAndEnds() {
        guard.set(22);
        seconds(6);
        assertThat(guard.secondsLeft()).isLessThan(8);
        seconds(9);
        assertThat(guard.value()).isZero();
        assertThat(set.get(set.size() - 1)).isZero();
        assertThat(news.get(0)).contains("above 20 V for 10 s").contains("switched off");
        seconds(5);
        assertThat(guard.value()).as("it stays off").isZero();
    }

    @Test
    void anErrorSwitchesOff() throws IOException {
        guard.set(5);
        seconds(1);
        doThrow(new IOException("The instrument refused heater."))
                .when(driver)
                .setOutput(anyString(), org.mockito.AdditionalMatchers.gt(4.0));
        seconds(1);
        guard.set(10);
        seconds(1);
        assertThat(guard.value()).isZero();
        assertThat(news.get(news.size() - 1)).contains("refused").contains("switched off");
        assertThat(set.get(set.size() - 1)).isZero();
    }

    @Test
    void aLostConnectionIsForgottenAsOffAndNothingIsSetUntilItIsWishedAgain() {
        guard.set(5);
        seconds(1);
        when(driver.state()).thenReturn(Driver.State.LOST);
        seconds(0.1);
        assertThat(news).hasSize(1).first().asString().contains("Go and see");
        assertThatThrownBy(() -> guard.set(5)).hasMessageContaining("not connected");
        when(driver.state()).thenReturn(Driver.State.RUNNING);
        int n = set.size();
        seconds(2);
        assertThat(set).hasSize(n);
        guard.set(3);
        seconds(1);
        assertThat(guard.value()).isEqualTo(3);
        guard.close();
        assertThat(set.get(set.size() - 1)).isZero();
    }

    @Test
    void theLeadIsPulledAtAHeaterThatIsOn() throws IOException {
        try (LineStandIn standIn =
                        new LineStandIn(Rigs.shipped("baggage-chute", 3, Set.of()), "TH-LG-03", "Logger", 1);
                LineDriver line = new LineDriver("127.0.0.1", standIn.port())) {
            line.open();
            line.configure(20);
            line.start(new Recorder());
            Output quick = new Output("heater", "V", 0, 24, 60, null, 0, 0, 0, null);
            try (OutputGuard real = new OutputGuard(line, "heater", quick, news::add)) {
                real.set(12);
                Recorder.await(() -> standIn.output("heater") == 12);
                standIn.disconnect();
                Recorder.await(() -> standIn.output("heater") == 0);
                Recorder.await(() -> real.value() == 0);
                Recorder.await(() -> line.state() == Driver.State.RUNNING);
                assertThat(standIn.output("heater"))
                        .as("off also when the line is back")
                        .isZero();
                real.set(6);
                Recorder.await(() -> standIn.output("heater") == 6);
            }
            Recorder.await(() -> standIn.output("heater") == 0);
        }
        Recorder.noThreadIsLeft("output guard", "line driver");
    }
}

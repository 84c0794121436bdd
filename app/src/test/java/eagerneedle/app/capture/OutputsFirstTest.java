package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import eagerneedle.core.sheet.Output;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.driver.OutputGuard;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** No run begins before its outputs are there. */
class OutputsFirstTest {
    private final Driver driver = mock(Driver.class);
    private OutputGuard guard;

    @BeforeEach
    void begin() {
        when(driver.state()).thenReturn(Driver.State.RUNNING);
        guard = new OutputGuard(
                driver, "motor", new Output("motor", "V", 0, 12, 4, null, 0, 0, 0, null), sentence -> {});
    }

    @AfterEach
    void end() {
        guard.close();
    }

    private OutputsFirst to(double value, double rest) {
        return new OutputsFirst(Map.of("motor", guard), Map.of("motor", value), rest, "Supply");
    }

    private static double now() {
        return System.nanoTime() / 1e9;
    }

    private double waited(OutputsFirst first) throws InterruptedException {
        double begin = now();
        while (!first.isThere(now())) {
            assertThat(now() - begin).isLessThan(10);
            Thread.sleep(10);
        }
        return now() - begin;
    }

    @Test
    void itIsWaitedForTheRamp() throws InterruptedException {
        OutputsFirst first = to(2, 0);
        assertThat(first.isThere(now())).isFalse();
        assertThat(first.says()).startsWith("The motor goes to 2 V, ").endsWith(" s to go.");
        assertThat(waited(first)).isGreaterThan(0.4);
        assertThat(guard.value()).isEqualTo(2);
    }

    @Test
    void whatIsChargedRestsFirst() throws InterruptedException {
        waited(to(1, 0));
        OutputsFirst first = to(1, 0.3);
        assertThat(first.says()).isEqualTo("The motor rests for 0.3 s.");
        assertThat(waited(first)).isGreaterThan(0.25 + 0.3 + 0.2);
    }

    @Test
    void whatIsSwitchedOffMeanwhileEndsIt() {
        OutputsFirst first = to(2, 0);
        guard.off();
        assertThatThrownBy(() -> first.isThere(now())).hasMessageContaining("motor was switched off before the run");
    }

    @Test
    void whatCannotBeIsSaidAtOnce() {
        assertThatThrownBy(() -> to(13, 0)).hasMessageContaining("stays between 0 V and 12 V");
        assertThatThrownBy(() -> new OutputsFirst(Map.of(), Map.of("motor", 1.0), 0, "Supply"))
                .hasMessage("Supply has no output motor; set it by hand.");
    }
}

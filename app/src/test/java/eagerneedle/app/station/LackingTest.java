package eagerneedle.app.station;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.core.session.RunCommand;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LackingTest {
    @TempDir
    Path folder;

    @Test
    void capturesThatAResultRestsOnAreFoundThroughWhatItsFormulaNames() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "baggage-chute")) {
            assertThat(Lacking.captures(desk.bench().sheet(), "g")).containsExactlyInAnyOrder("level_east", "slopes");
            assertThat(Lacking.captures(desk.bench().sheet(), "spacing")).isEmpty();
            assertThat(Lacking.of(desk.bench(), "g"))
                    .startsWith("Still to take at Capture (key 4): ")
                    .contains("Slopes, rolling east, no run yet of 20")
                    .contains("Level, rolling east, no run yet of 4")
                    .doesNotContain("west");
        }
    }

    @Test
    void runsThatAreThereAreCountedAndNothingIsLackingInTheEnd() {
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "baggage-chute")) {
            assertThat(Lacking.of(desk.bench(), "g")).isEmpty();
            assertThat(Progress.of(desk.bench(), Station.REDUCE)).isEqualTo(Station.State.DONE);
            desk.bench().apply(new RunCommand.LeaveOut(9, "hand in the beam"));
            assertThat(Lacking.of(desk.bench(), "g"))
                    .isEqualTo("Still to take at Capture (key 4): Slopes, rolling east, 19 runs of 20.");
        }
    }
}

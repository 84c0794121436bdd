package eagerneedle.app.calibrate;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.core.session.PlanningCommand;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class InUseModelTest {
    @TempDir
    Path folder;

    @Test
    void whatIsOverdueStandsFirstAndWhatIsTiedIsInUse() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "baggage-chute")) {
            InUseModel m = new InUseModel(desk);
            assertThat(m.used())
                    .extracting(InUseModel.Used::id)
                    .contains("TH-TP-02", "TH-CP-01", "TH-BA-03", "TH-UR-07");
            assertThat(m.used()).noneMatch(InUseModel.Used::owes);
            assertThat(m.used())
                    .filteredOn(u -> u.id().equals("TH-CP-01"))
                    .extracting(InUseModel.Used::standing)
                    .containsExactly("good until 2 Jun 2027");
            desk.bench()
                    .apply(new PlanningCommand.TieInput(
                            "rise_A",
                            "rise, block A",
                            desk.stockroom().find("TH-CP-04").orElseThrow()));
            InUseModel.Used first = m.used().get(0);
            assertThat(first.id()).isEqualTo("TH-CP-04");
            assertThat(first.owes()).isTrue();
            assertThat(first.standing()).contains("was due on 2026-06-02");
        }
    }
}

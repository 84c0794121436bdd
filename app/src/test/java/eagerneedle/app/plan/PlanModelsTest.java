package eagerneedle.app.plan;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.plan.InputsModel.Column;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.JudgeCommand;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What Plan shows and allows, without a window. */
class PlanModelsTest {
    @TempDir
    Path folder;

    private PlainDesk desk;

    private InputsModel inputs() {
        desk = PlainDesk.fresh(folder, "baggage-chute");
        return new InputsModel(desk);
    }

    @AfterEach
    void close() {
        desk.close();
    }

    @Test
    void aCellIsWrittenTakenAwayOrRefused() {
        InputsModel m = inputs();
        assertThat(m.cell("spacing", Column.MEASURED)).isEmpty();
        m.write("spacing", Column.MEASURED, " 842.3(6) mm ");
        assertThat(m.cell("spacing", Column.MEASURED)).isEqualTo("842.3(6) mm");
        m.write("spacing", Column.MEASURED, " ");
        assertThat(m.cell("spacing", Column.MEASURED)).isEmpty();
        String before = m.cell("spacing", Column.PLANNED);
        assertThatThrownBy(() -> m.write("spacing", Column.PLANNED, "eight hundred"))
                .hasMessageContaining("not a number with a unit");
        assertThatThrownBy(() -> m.write("spacing", Column.PLANNED, "842 s")).isInstanceOf(RuntimeException.class);
        for (String other : new String[] {"840; 842; 843", "reading(842 s, division: 1 s)", "4; 5 s"}) {
            assertThatThrownBy(() -> m.write("spacing", Column.MEASURED, other))
                    .as(other)
                    .hasMessageContaining("is read in mm");
        }
        m.write("spacing", Column.MEASURED, "84.2; 84.3; 84.1 cm");
        m.write("spacing", Column.MEASURED, "");
        assertThat(m.cell("spacing", Column.PLANNED)).isEqualTo(before);
    }

    @Test
    void aPastedColumnIsOneActAndBareNumbersTakeWhatWasPlanned() {
        InputsModel m = inputs();
        List<String> cells = List.of("20.03", "", "60.05(1) mm");
        assertThat(m.paste("rise_A", Column.MEASURED, cells)).startsWith("2 readings were pasted");
        Reading planned = Reading.parse(m.cell("rise_A", Column.PLANNED));
        Reading pasted = Reading.parse(m.cell("rise_A", Column.MEASURED));
        assertThat(pasted.value()).isEqualTo(20.03);
        assertThat(pasted.unit()).isEqualTo(planned.unit());
        assertThat(pasted.u()).isEqualTo(planned.u());
        desk.bench().undo();
        assertThat(desk.bench().session().measured()).isEmpty();
        assertThatThrownBy(() -> m.paste("g_reference", Column.MEASURED, cells))
                .hasMessage("3 cells were pasted, but there are only 1 inputs from here on; nothing was taken.");
        assertThatThrownBy(() -> m.paste("rise_A", Column.MEASURED, List.of("1 mm", "two")))
                .as("one bad cell, and none is taken")
                .isInstanceOf(RuntimeException.class);
        assertThat(desk.bench().session().measured()).isEmpty();
    }

    @Test
    void anInputIsTiedToWhatReadsItBestFirst() throws Exception {
        InputsModel m = inputs();
        desk.rehearsed();
        List<InputsModel.Choice> choices = m.choices("rise_A");
        assertThat(choices.get(0).words())
                .startsWith("micrometer TH-MM-01")
                .contains("u = ")
                .contains("result u = ");
        assertThat(m.isTied("rise_A")).isFalse();
        m.tie("rise_A", choices.get(0).serial());
        assertThat(m.readWith("rise_A")).isEqualTo("micrometer TH-MM-01");
        assertThatThrownBy(() -> m.tie("rise_A", "TH-BA-03")).hasMessageContaining("does not read mm");
        assertThatThrownBy(() -> m.tie("rise_A", "TH-XX-99")).hasMessageContaining("no instrument TH-XX-99");
        assertThat(m.readWith("rise_A")).isEqualTo("micrometer TH-MM-01");
        m.untie("rise_A");
        assertThat(m.isTied("rise_A")).isFalse();
        assertThat(m.atHand()).isNotEmpty().anyMatch(i -> i.id().equals("TH-CP-01"));
    }

    @Test
    void aHiddenReferenceIsNotInACell() {
        InputsModel m = inputs();
        desk.bench().apply(new JudgeCommand.HideReferences(PlainDesk.CLOCK.instant()));
        assertThat(m.isHidden("g_reference")).isTrue();
        assertThat(m.cell("g_reference", Column.PLANNED)).isEqualTo("hidden");
        assertThat(m.isHidden("spacing")).isFalse();
    }

    @Test
    void thePredictionFollowsWhatIsPlanned() throws Exception {
        InputsModel m = inputs();
        desk.rehearsed();
        PlanModel plan = new PlanModel(desk);
        PlanModel.Prediction before = plan.prediction();
        assertThat(before.value()).startsWith("9.8");
        assertThat(before.words()).contains("at 95 %").contains("Largest contributor: ");
        assertThat(before.budget()).isPresent();
        m.write("spacing", Column.PLANNED, "842(9) mm");
        desk.rehearsed();
        assertThat(plan.prediction().value()).isNotEqualTo(before.value());
        assertThat(plan.runs()).contains("levels, ").contains(" runs each");
    }

    /** Shares beside the inputs are those of the budget above them, told by a rehearsal or not. */
    @Test
    void sharesOfInputsAreThoseOfTheBudget() throws Exception {
        InputsModel m = inputs();
        desk.rehearsed();
        Budget budget = Budget.of(desk.bench().plan().quantity("g").orElseThrow());
        double wheels = budget.lines().stream()
                .filter(l -> l.label().startsWith("wheel shape factor"))
                .findFirst()
                .orElseThrow()
                .share();
        assertThat(wheels).isGreaterThan(0.03);
        assertThat(m.shares().get("k_w")).isEqualTo(wheels);
        double scatter = budget.lines().stream()
                .filter(l -> l.label().startsWith("scatter") || l.label().startsWith("position"))
                .mapToDouble(Budget.Line::share)
                .sum();
        assertThat(m.shares().values().stream().mapToDouble(x -> x).sum())
                .as("with what no input is to blame for they are all of it")
                .isCloseTo(1 - scatter, within(1e-9));
    }

    @Test
    void theWayToATargetIsFoundAndPlanned() throws Exception {
        inputs();
        TargetModel m = new TargetModel(desk);
        double before =
                desk.rehearsed().bench().plan().quantity("g").orElseThrow().u();
        TargetModel.Way way = m.search("0.4 %").get();
        assertThat(way.says()).startsWith("Cheapest: ");
        m.plan(way);
        desk.rehearsed();
        assertThat(desk.bench().plan().quantity("g").orElseThrow().u()).isLessThan(before);
        assertThat(m.search("0.4 %").get().says()).startsWith("The target is met");
        assertThatThrownBy(() -> m.search("soon").get()).hasMessageStartingWith("Write the target as a share");
    }
}

package eagerneedle.app.window;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.window.LedgerModel.Line;
import eagerneedle.app.window.LedgerModel.Role;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.RunCommand;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The ledger without a window: lines, what is fresh, lineage. */
class LedgerModelTest {
    @TempDir
    Path folder;

    private PlainDesk desk;
    private final LedgerModel model = new LedgerModel();

    @BeforeEach
    void open() {
        desk = PlainDesk.rehearsed(folder, "baggage-chute");
        model.open(desk.bench());
    }

    private void openAll() {
        model.lines().stream()
                .filter(l -> l instanceof Line.Group g && g.folded())
                .forEach(l -> model.fold(((Line.Group) l).label()));
    }

    @AfterEach
    void close() {
        desk.close();
    }

    private List<Line.Item> items() {
        return model.lines().stream()
                .filter(l -> l instanceof Line.Item)
                .map(Line.Item.class::cast)
                .toList();
    }

    private Line.Item item(String id) {
        return items().stream().filter(i -> i.id().equals(id)).findFirst().orElseThrow();
    }

    @Test
    void resultsStandFirstThenTheRunInHandThenInputs() {
        assertThat(items()).noneMatch(i -> i.id().contains("slopes-9"));
        model.focusRun(desk.bench().session().run(9).orElseThrow());
        openAll();
        List<String> ids = items().stream().map(Line.Item::id).toList();
        assertThat(ids.indexOf("ledger-g")).isLessThan(ids.indexOf("ledger-slopes-9--a"));
        assertThat(ids.indexOf("ledger-slopes-9--a")).isLessThan(ids.indexOf("ledger-spacing"));
        assertThat(model.planned(true)).isTrue();
        assertThat(model.planned(true)).isFalse();
        assertThat(model.lines())
                .anyMatch(l -> l instanceof Line.Group g && g.label().startsWith("Predicted "));
        assertThat(items()).as("a plan has no runs").noneMatch(i -> i.id().contains("slopes-9"));
    }

    @Test
    void whatMovedIsFreshUntilItIsLookedAt() {
        assertThat(items()).noneMatch(Line.Item::fresh);
        desk.bench().apply(new RunCommand.LeaveOut(9, "tried"));
        assertThat(item("ledger-g").fresh()).isTrue();
        assertThat(item("ledger-g").name()).startsWith("● ");
        assertThat(item("ledger-g").hint()).contains("It was 9.").contains("of its standard uncertainty then.");
        model.select(new Key.Global("g"));
        assertThat(item("ledger-g").fresh()).isFalse();
        assertThat(model.detail())
                .anyMatch(r -> r.words().startsWith("It was 9.") && r.style().equals("needle-ink"));
    }

    @Test
    void theNeighboursOfWhatIsLookedAtAreShown() {
        model.select(new Key.Global("g"));
        assertThat(item("ledger-g").role()).isEqualTo(Role.SELECTED);
        assertThat(items()).extracting(Line.Item::role).contains(Role.COMES_FROM);
        assertThat(model.detail())
                .extracting(LedgerModel.Remark::words)
                .anyMatch(w -> w.startsWith("Comes from: "))
                .anyMatch(w -> w.contains("at 95 %, k = "))
                .anyMatch(w -> w.matches("\\d+ % {2}.*"));
        model.select(new Key.Global("g"));
        assertThat(model.detail()).as("the same again looks away").isEmpty();
        model.reveal(new Key.Global("g"));
        model.reveal(new Key.Global("g"));
        assertThat(model.detail()).as("to reveal is not to look away").isNotEmpty();
    }

    @Test
    void whileChoicesAreTriedEachLineSaysWhatItWas() {
        String before = item("ledger-g").value().strip();
        desk.bench().startTrying();
        assertThat(items()).allMatch(i -> i.was().isEmpty());
        desk.bench().apply(new PlanningCommand.SetMeasured("spacing", "spacing", "900.0(6) mm"));
        assertThat(item("ledger-g").was().strip()).startsWith(before);
        assertThat(item("ledger-g").value().strip()).isNotEqualTo(before);
        desk.bench().forgetTried();
        assertThat(item("ledger-g").was()).isEmpty();
        assertThat(item("ledger-g").value().strip()).isEqualTo(before);
    }

    @Test
    void whatIsJudgedStandsLargeWithItsNeedleAndTheRestIsFoldedByGroup() {
        assertThat(items()).extracting(Line.Item::id).containsExactly("ledger-g", "ledger-a_zero");
        assertThat(items()).allMatch(i -> i.large() && i.verdict().isPresent());
        List<Line.Group> groups = model.lines().stream()
                .filter(l -> l instanceof Line.Group)
                .map(Line.Group.class::cast)
                .toList();
        assertThat(groups).isNotEmpty().allMatch(g -> g.folded() && g.count() > 0);
        desk.bench().apply(new RunCommand.LeaveOut(9, "tried"));
        assertThat(model.lines()).anyMatch(l -> l instanceof Line.Group g && g.fresh() > 0);
        model.select(new Key.Global("g"));
        assertThat(items()).as("lineage is never folded away").anyMatch(i -> i.role() == Role.COMES_FROM);
    }

    @Test
    void aFilterFindsInFoldedGroupsAndAPinStaysAtTheTop() {
        model.filter("SPAC");
        assertThat(items()).extracting(Line.Item::id).containsExactly("ledger-spacing");
        model.filter("nothing like it");
        assertThat(model.lines()).isEmpty();
        model.filter("");
        model.pin(new Key.Global("spacing"));
        assertThat(model.lines().stream().map(l -> l instanceof Line.Item i ? i.id() : ((Line.Group) l).label()))
                .startsWith("ledger-g", "ledger-a_zero", "Pinned", "ledger-spacing");
        model.pin(new Key.Global("spacing"));
        assertThat(items()).noneMatch(i -> i.id().equals("ledger-spacing"));
    }

    @Test
    void aHiddenReferenceIsNotSaid() {
        openAll();
        String value = item("ledger-g_reference").value();
        assertThat(value).contains("9.8");
        desk.bench().apply(new JudgeCommand.HideReferences(PlainDesk.CLOCK.instant()));
        assertThat(item("ledger-g_reference").value()).doesNotContain("9.8");
        model.select(new Key.Global("g_reference"));
        assertThat(model.detail()).noneMatch(r -> r.words().contains("9.8"));
        assertThat(model.tabbed().lines().noneMatch(l -> l.startsWith("g_reference\t")))
                .isTrue();
    }

    /** A reading that was typed in another unit is another quantity; it must not keep the ledger from being shown. */
    @Test
    void whatBecameAnotherKindOfQuantityIsSaid() {
        Quantity mm = Reading.parse("12.0(2) mm").toQuantity("x", "x", "x");
        Quantity number = Reading.parse("2.0(5)").toQuantity("x", "x", "x");
        assertThat(LedgerDetail.moved(mm, number)).isEqualTo("It was 12.00(20) mm, a quantity of another kind.");
        assertThat(LedgerDetail.moved(mm, Reading.parse("1.3(1) cm").toQuantity("x", "x", "x")))
                .contains("moved by 0.1 cm, 5 of its standard uncertainty");
    }
}

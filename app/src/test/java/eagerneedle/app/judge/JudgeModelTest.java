package eagerneedle.app.judge;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.judge.JudgeModel.Shown;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.judge.Demand;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.RunCommand;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What Judge shows and allows, without a window. */
class JudgeModelTest {
    @TempDir
    Path folder;

    private PlainDesk desk;
    private JudgeModel model;

    private Shown open(PlainDesk at) {
        desk = at;
        model = new JudgeModel(desk, 6);
        return model.shown();
    }

    @AfterEach
    void close() {
        if (desk != null) {
            desk.close();
        }
    }

    @Test
    void withoutRunsItSaysWhatIsMissing() {
        Shown shown = open(PlainDesk.fresh(folder, "baggage-chute"));
        assertThat(shown).isInstanceOf(Shown.Nothing.class);
        List<JudgeModel.Awaited> awaited = ((Shown.Nothing) shown).awaited();
        assertThat(awaited)
                .extracting(JudgeModel.Awaited::label)
                .contains("Local g against the reference of the laboratory");
        assertThat(awaited)
                .allSatisfy(a -> assertThat(a.lacks())
                        .startsWith("Still to take at Capture (key 4): ")
                        .contains(", no run yet of ")
                        .doesNotContain("line ")
                        .doesNotContain("_"));
    }

    @Test
    void allSchoolsSpeakOfTheSameComparisonAndOneIsChosen() {
        Shown.Judged j = (Shown.Judged) open(PlainDesk.rehearsed(folder, "baggage-chute"));
        assertThat(j.speaks()).isEqualTo(School.STANDARD);
        assertThat(j.verdict()).contains("agrees with");
        assertThat(j.chance()).startsWith("A difference this large or larger would be expected in ");
        assertThat(j.remedy()).as("there is none where they agree").isEmpty();
        assertThat(j.schools()).extracting(UnderSchool::school).containsExactly(School.values());
        assertThat(j.schools()).filteredOn(UnderSchool::speaks).hasSize(1);
        assertThat(j.schools().get(School.PERCENT.ordinal()).good()).isEmpty();
        assertThat(j.schools().get(School.LIMITS.ordinal()).more()).startsWith("limits overlap by ");
        assertThat(j.mayHide()).isTrue();
        model.letSpeak(School.LIMITS);
        Shown.Judged limits = (Shown.Judged) model.shown();
        assertThat(limits.speaks()).isEqualTo(School.LIMITS);
        assertThat(limits.chance()).as("limits know no chance").isEmpty();
        assertThat(limits.verdict()).contains("agree: the limits overlap by");
    }

    @Test
    void theBudgetNamesItsLargestShareAndWhatAWishWouldTake() {
        JudgeModel.Shares s = ((Shown.Judged) open(PlainDesk.rehearsed(folder, "baggage-chute"))).shares();
        assertThat(s.largest())
                .startsWith("Largest: " + s.budget().lines().get(0).label());
        assertThat(s.rest()).startsWith("and " + (s.budget().lines().size() - 6) + " more, together ");
        String half = model.cheapest(s.result(), "");
        assertThat(half)
                .isEqualTo(model.cheapest(s.result(), Double.toString(s.result().u() / 2) + " m/s^2"));
        assertThat(model.wanted()).endsWith("m/s^2");
        assertThat(model.cheapest(s.result(), "soon")).startsWith("Write it as a share, 0.2 %");
        assertThat(model.wanted()).as("what cannot be read is not kept").endsWith("m/s^2");
    }

    @Test
    void inBlindWorkNoReferenceIsInSightUntilTheResultIsLocked() {
        open(PlainDesk.rehearsed(folder, "baggage-chute"));
        model.hideReferences();
        Shown.Hidden h = (Shown.Hidden) model.shown();
        assertThat(h.since()).startsWith("12:00 on 23 Nov 2026");
        assertThat(h.lockable()).isTrue();
        assertThat(h.results()).isNotEmpty().allMatch(r -> r.value().contains("("));
        assertThat(h.shares()).isPresent();
        model.lock();
        Shown.Judged j = (Shown.Judged) model.shown();
        assertThat(j.locked().orElseThrow().good()).isTrue();
        assertThat(j.mayHide()).as("once is enough").isFalse();
        desk.bench().apply(new RunCommand.LeaveOut(9, "the trolley was pushed"));
        JudgeModel.Remark moved = ((Shown.Judged) model.shown()).locked().orElseThrow();
        assertThat(moved.good()).isFalse();
        assertThat(moved.words()).contains("It has been changed since, to ");
    }

    @Test
    void checksAndStatementsAreInWords() {
        open(PlainDesk.rehearsed(folder, "baggage-chute"));
        assertThat(model.checks()).isNotEmpty().allMatch(c -> c.words().matches("(?s)[○✓▲] .*"));
        assertThat(model.checks()).allMatch(c -> c.good() != c.words().startsWith("▲"));
        List<JudgeModel.Said> said = model.said();
        for (int i = 0; i < said.size(); i++) {
            assertThat(said.get(i).number()).isEqualTo(i);
            assertThat(said.get(i).words()).isNotBlank();
        }
    }

    @Test
    void aMistakeIsMadeOnTheDataAndNothingIsKept() {
        open(PlainDesk.rehearsed(folder, "baggage-chute"));
        MistakeModel mistakes = new MistakeModel(desk);
        int acts = desk.bench().file().acts().size();
        assertThat(mistakes.mistakes()).isNotEmpty();
        mistakes.mistakes()
                .forEach(m -> assertThat(mistakes.of(m))
                        .as(m.id())
                        .isNotEmpty()
                        .allMatch(c -> c.words().endsWith(".")));
        assertThat(desk.bench().file().acts()).hasSize(acts);
    }

    @Test
    void anotherComparisonIsTakenInHand() {
        Shown.Judged j = (Shown.Judged) open(PlainDesk.rehearsed(folder, "potters-wheel"));
        assertThat(j.others())
                .hasSizeGreaterThan(1)
                .filteredOn(JudgeModel.Other::chosen)
                .hasSize(1);
        String other = j.others().stream()
                .filter(o -> !o.chosen())
                .findFirst()
                .orElseThrow()
                .of()
                .id();
        model.choose(other);
        assertThat(((Shown.Judged) model.shown()).comparison().id()).isEqualTo(other);
    }

    /** A bound has a probability of being kept, which no school changes. */
    @Test
    void aBoundIsKeptUnderEverySchool() {
        Quantity share =
                Quantity.of(0.31, 0.01, LabUnit.ONE, Leaf.typeB("share", "share", "test", Distribution.NORMAL));
        Comparison c = Comparison.of(
                "bound",
                "a bound",
                share,
                Quantity.number(0.59),
                Coverage.DEFAULT,
                3,
                new Demand(Double.NaN, Demand.Side.BELOW));
        for (School s : School.values()) {
            UnderSchool under = UnderSchool.of(c, s, s == School.STANDARD);
            assertThat(under.verdict()).isEqualTo("keeps the bound");
            assertThat(under.good()).contains(true);
        }
        assertThat(UnderSchool.of(c, School.LIMITS, false).more()).doesNotContain("gap");
    }
}

package eagerneedle.core.session;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.judge.School;
import eagerneedle.core.trace.Window;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class HistoryTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private final Session empty = Session.start("sheet", "test", DAY);
    private final History history = new History(empty);
    private final Run run = Run.captured(1, "slopes", "A", DAY, "ranger", Run.COUNTS);

    private List<Command> oneOfEach() {
        return List.of(
                new PlanningCommand.SetPlanned("s", "spacing", "842(1) mm"),
                new PlanningCommand.SetMeasured("s", "spacing", "843(1) mm"),
                new RunCommand.KeepRun(run),
                new RunCommand.RenameRun(1, "first"),
                new ReducingCommand.SetWindow(1, "rolling", new Window(0.5, 1.5, "moved by hand")),
                new RunCommand.LeaveOut(1, "hand in the beam"),
                new RunCommand.LeaveOut(1, null),
                new RunCommand.DiscardRun(1, "wrong block"),
                new RunCommand.DiscardRun(1, null),
                new RigCommand.SignOff("feet", "Feet stand", DAY),
                new RecordCommand.AddNote(DAY, "A note."),
                new JudgeCommand.ChooseSchool(School.LIMITS),
                new ReducingCommand.SetWindow(1, "rolling", null),
                new RigCommand.SignOff("feet", "Feet stand", null),
                new RecordCommand.AddNote(DAY, "", List.of(new Entries.Picture(1, "rig.png"))),
                new JudgeCommand.HideReferences(DAY),
                new JudgeCommand.LockResults(DAY, java.util.Map.of("g", "9.81(2) m/s²")),
                new ReducingCommand.AddQuantity(
                        "slopes", "half", new eagerneedle.core.sheet.Derived("half", null, null, null, "a / 2", null)),
                new ReducingCommand.AddQuantity("slopes", "half", null),
                new RunCommand.VoidSamples(1, 0.1, 0.2, "knocked"),
                new RunCommand.CountSamples(1, new Entries.Voided(0.1, 0.2, "knocked")),
                new PlanningCommand.SetPlanned("s", "spacing", null),
                new PlanningCommand.SetMeasured("s", "spacing", null));
    }

    @Test
    void undoingEverythingGivesTheBeginningAndRedoingTheEnd() {
        oneOfEach().forEach(history::apply);
        Session end = history.session();
        int undone = 0;
        while (history.undo().isPresent()) {
            undone++;
        }
        assertThat(undone).isEqualTo(oneOfEach().size());
        assertThat(history.session()).isEqualTo(empty);
        while (history.canRedo()) {
            history.redo();
        }
        assertThat(history.session()).isEqualTo(end);
        assertThat(history.redo()).isEmpty();
    }

    @Test
    void aNewActForgetsWhatWasUndone() {
        history.apply(new RecordCommand.AddNote(DAY, "one"));
        history.undo();
        history.apply(new RecordCommand.AddNote(DAY, "two"));
        assertThat(history.canRedo()).isFalse();
        assertThat(history.session().notes()).extracting(Note::text).containsExactly("two");
    }

    @Test
    void everyActSaysWhatItDidInOneSentence() {
        assertThat(oneOfEach())
                .allSatisfy(c ->
                        assertThat(c.says()).isNotBlank().doesNotContain("\n").endsWith("."));
    }

    @Test
    void actsThatCannotBeDoneChangeNothing() {
        history.apply(new RunCommand.KeepRun(run));
        Session before = history.session();
        assertThatThrownBy(() -> history.apply(new RunCommand.KeepRun(run))).hasMessageContaining("already");
        assertThatThrownBy(() -> history.apply(new RunCommand.RenameRun(1, "  ")))
                .hasMessageContaining("name");
        assertThatThrownBy(() -> history.apply(new PlanningCommand.SetMeasured("s", "spacing", "wide")))
                .hasMessageContaining("not a number");
        assertThatThrownBy(() -> history.apply(new RecordCommand.AddNote(DAY, " ")))
                .hasMessageContaining("empty");
        assertThat(history.session()).isSameAs(before);
    }

    @Test
    void runsTakePartUnlessDiscardedOrLeftOut() {
        history.apply(new RunCommand.KeepRun(run));
        assertThat(history.session().run(1).orElseThrow().takesPart()).isTrue();
        history.apply(new RunCommand.LeaveOut(1, "blurred"));
        assertThat(history.session().run(1).orElseThrow().takesPart()).isFalse();
        assertThat(history.session().keptRuns()).hasSize(1);
        history.apply(new RunCommand.DiscardRun(1, "wrong"));
        assertThat(history.session().keptRuns()).isEmpty();
        assertThat(history.session().nextRunId()).isEqualTo(2);
    }

    @Test
    void sessionsDoNotShareTheirMaps() {
        java.util.Map<String, String> planned = new java.util.HashMap<>();
        Session s = new Session(
                "",
                "",
                DAY,
                planned,
                planned,
                List.of(),
                List.of(),
                java.util.Map.of(),
                List.of(),
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
        planned.put("a", "b");
        assertThat(s.planned()).isEmpty();
        assertThatThrownBy(() -> s.planned().put("a", "b")).isInstanceOf(UnsupportedOperationException.class);
    }

    /** What is voided while it is captured is not written down as kept; its samples are. */
    @Test
    void aRunVoidedAtCaptureIsWrittenDownAsLeftOut() {
        assertThat(new RunCommand.KeepRun(run).says()).isEqualTo("Kept Run 1 (slopes, A) from ranger.");
        assertThat(new RunCommand.KeepRun(run.discarded("hand in the beam")).says())
                .isEqualTo("Left out Run 1 (slopes, A) from ranger when it was captured: hand in the beam; its "
                        + "samples are in the file.");
        assertThat(new RunCommand.KeepRun(run.discarded("hand in the beam"))
                        .apply(empty)
                        .keptRuns())
                .isEmpty();
    }
}

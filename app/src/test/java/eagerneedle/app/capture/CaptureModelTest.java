package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.station.Cautions;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.trace.RawSamples;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Which run comes next, what waits to be kept, and what may be gone on with; without a window. */
class CaptureModelTest {
    @TempDir
    Path folder;

    private PlainDesk desk;
    private CaptureModel model;
    private final LiveRig rig = mock(LiveRig.class);
    private final RunTaking taking = mock(RunTaking.class);

    @BeforeEach
    void open() {
        desk = PlainDesk.fresh(folder, "baggage-chute");
        desk.connect(rig);
        new Cautions(desk.bench()).takeOver(java.util.List.of());
        model = new CaptureModel(desk);
        model.follow();
        when(rig.run(anyInt(), any(), any(), any()))
                .thenAnswer(i -> Run.captured(
                        i.getArgument(0),
                        i.getArgument(1),
                        i.getArgument(2),
                        i.getArgument(3),
                        "TH-UR-07",
                        Run.COUNTS));
        when(taking.ended(any())).thenAnswer(i -> i.getArgument(0));
        when(taking.needsSamples()).thenReturn(true);
        when(rig.rate()).thenReturn(50.0);
    }

    @AfterEach
    void close() {
        desk.close();
    }

    private Run take() {
        model.begin(rig, taking);
        when(rig.finish()).thenReturn(100L);
        assertThat(model.finish(rig, taking)).isEqualTo(CaptureModel.End.PENDING);
        return model.pending().orElseThrow();
    }

    @Test
    void noRunBeginsBeforeTheCautionsAreRead() {
        desk.bench().undo();
        assertThatThrownBy(() -> model.begin(rig, taking)).hasMessageContaining("Read the cautions first");
        assertThat(model.pending()).isEmpty();
    }

    @Test
    void theNextRunFollowsTheScheduleUntilALevelIsChosenByHand() throws IOException {
        String first = model.level();
        assertThat(model.hint()).startsWith("Next: ");
        Run run = take();
        verify(rig).arrange(Map.of("capture", model.capture(), "level", first));
        verify(taking).begin(eq(rig), any());
        model.follow();
        assertThat(model.pending()).contains(run);
        assertThatThrownBy(() -> model.begin(rig, taking)).hasMessage("Keep " + run.name() + " or leave it out first.");
        model.keep(run);
        assertThat(model.pending()).isEmpty();
        assertThat(model.shown()).contains(run);
        assertThat(desk.bench().session().keptRuns()).hasSize(1);
        model.choose("slopes", "E");
        model.follow();
        assertThat(model.level()).isEqualTo("E");
        model.keep(take());
        model.follow();
        assertThat(model.level()).as("the schedule goes on").isNotEqualTo("E");
    }

    @Test
    void aRunThatDoesNotBeginLeavesNothingBehind() throws IOException {
        doThrow(new IOException("The connection to the instrument is lost."))
                .when(taking)
                .begin(any(), any());
        assertThatThrownBy(() -> model.begin(rig, taking)).hasMessage("The connection to the instrument is lost.");
        assertThat(model.pending()).isEmpty();
    }

    @Test
    void withoutSamplesOrTriggerThereIsNoRun() {
        model.begin(rig, taking);
        when(rig.finish()).thenReturn(0L);
        assertThat(model.finish(rig, taking)).isEqualTo(CaptureModel.End.EMPTY);
        assertThat(model.pending()).isEmpty();
        model.begin(rig, taking);
        when(rig.isArmed()).thenReturn(true);
        when(rig.finish()).thenReturn(100L);
        assertThat(model.finish(rig, taking)).isEqualTo(CaptureModel.End.UNFIRED);
        assertThat(model.pending()).isEmpty();
        when(rig.isArmed()).thenReturn(false);
        when(rig.finish()).thenReturn(0L);
        when(taking.needsSamples()).thenReturn(false);
        model.begin(rig, taking);
        assertThat(model.finish(rig, taking)).as("a mark in time needs none").isEqualTo(CaptureModel.End.PENDING);
    }

    @Test
    void aRunIsGoneOnWithWhereItEndedOrAsMuchLaterAsItIs() throws IOException {
        Run run = take();
        desk.bench().file().append(run.id(), model.channel(), new RawSamples(new double[] {0, 7.5}, new double[] {1, 2
        }));
        assertThat(model.mayGoOn()).isFalse();
        model.keep(run);
        assertThat(model.mayGoOn()).isTrue();
        model.goOn(rig, model.channel());
        // The clock of this desk stands still: the next sample comes one interval behind the last.
        verify(rig).record(any(), any(), eq(7.5 + 1 / 50.0));
        assertThat(model.isContinuing()).isTrue();
        assertThat(model.finish(rig, taking)).isEqualTo(CaptureModel.End.CONTINUED);
        model.keepContinued();
        assertThat(model.pending()).isEmpty();
        assertThat(model.shown()).isPresent();
        assertThat(desk.bench().session().keptRuns()).hasSize(1);
    }

    @Test
    void aShotSaysWhatItWaitsFor() {
        desk.close();
        desk = PlainDesk.fresh(folder, "weather-vane-reed");
        Capture plan = desk.bench().sheet().captures().values().stream()
                .filter(c -> c.shot() != null)
                .findFirst()
                .orElseThrow();
        ShotModel shot = new ShotModel(desk, plan);
        assertThat(shot.begins()).startsWith("Fires when ").contains("; kept from ");
        assertThat(shot.look(true, false)).isFalse();
        assertThat(shot.word()).isEqualTo("armed");
        assertThat(shot.says()).startsWith("Armed: waits until ");
        assertThat(shot.look(false, false)).isFalse();
        assertThat(shot.says()).isEqualTo("Fired; it is being kept.");
        assertThat(shot.look(false, true)).isTrue();
        assertThat(shot.says()).startsWith("Fired and kept");
    }
}

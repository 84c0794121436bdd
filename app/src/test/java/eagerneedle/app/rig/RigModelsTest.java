package eagerneedle.app.rig;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.anyDouble;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.core.trace.RawSamples;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What Rig shows and allows, without a window: the connection, chains, touching to identify. */
class RigModelsTest {
    @TempDir
    Path folder;

    private PlainDesk desk;
    private final LiveRig rig = mock(LiveRig.class);

    private void open(String method) {
        desk = PlainDesk.fresh(folder, method);
    }

    @AfterEach
    void close() {
        desk.close();
    }

    private static RawSamples level(double value) {
        double[] t = new double[40];
        double[] v = new double[40];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.05 * i;
            v[i] = value + (i % 2 == 0 ? 1 : -1);
        }
        return new RawSamples(t, v);
    }

    private void connectQuietInputs() {
        when(rig.channels()).thenReturn(List.of("bath", "cabinet", "room"));
        when(rig.lastOfInput(anyString(), anyDouble())).thenReturn(level(1000));
        desk.connect(rig);
    }

    @Test
    void whatTheSheetNamesMayBeConnected() {
        open("drying-cabinet");
        RigModel m = new RigModel(desk);
        RigModel.Connection c = m.connection();
        assertThat(c.connected()).isFalse();
        assertThat(c.act()).isEqualTo("Connect, simulated");
        assertThat(c.elsewhere()).isEqualTo("or a real one at");
        assertThat(m.mistakes().get(0)).isEqualTo(RigModel.NO_MISTAKE);
        assertThat(m.mistakes()).contains("swapped", "no-reference");
        assertThat(m.preparation()).extracting(s -> s.id()).contains("warm");
    }

    @Test
    void theInputThatAnswersIsComparedWithItsTagAndTagsAreExchangedInOneAct() {
        open("drying-cabinet");
        TouchModel m = new TouchModel(desk);
        assertThatThrownBy(() -> m.begin("cabinet", 0)).hasMessage("Connect the instrument first; then touch.");
        connectQuietInputs();
        m.begin("cabinet", 0);
        assertThat(m.said().words()).startsWith("Waiting for an answer");
        m.look(rig, 1);
        assertThat(m.said().words()).as("nothing has moved").startsWith("Waiting");
        when(rig.lastOfInput(eq("bath"), anyDouble())).thenReturn(level(1100));
        m.look(rig, 2);
        assertThat(m.said().words())
                .contains("Input bath answered to the touch at cabinet")
                .contains("are exchanged");
        assertThat(m.said().mood()).isEqualTo(TouchModel.Mood.ATTENTION);
        assertThat(m.said().offer()).isEqualTo("Exchange the tags");
        m.look(rig, 500);
        assertThat(m.said().offer()).as("an answer does not run out").isEqualTo("Exchange the tags");
        m.accept();
        assertThat(desk.bench().session().setup("cabinet").input()).isEqualTo("bath");
        assertThat(desk.bench().session().setup("bath").input()).isEqualTo("cabinet");
        desk.bench().undo();
        assertThat(desk.bench().session().setups()).as("one act").isEmpty();
        m.accept();
        assertThat(desk.bench().session().setups()).as("it is not done twice").isEmpty();
    }

    @Test
    void theRightInputAndNoInputAreSaid() {
        open("drying-cabinet");
        TouchModel m = new TouchModel(desk);
        connectQuietInputs();
        m.begin("bath", 0);
        when(rig.lastOfInput(eq("bath"), anyDouble())).thenReturn(level(1100));
        m.look(rig, 1);
        assertThat(m.said().words()).contains("the tag at ice bath is right");
        assertThat(m.said().offer()).isEmpty();
        when(rig.lastOfInput(anyString(), anyDouble())).thenReturn(level(1000));
        m.begin("room", 10);
        m.look(rig, 29.9);
        assertThat(m.said().words()).startsWith("Waiting");
        m.look(rig, 30.1);
        assertThat(m.said().words()).startsWith("No input stood out within 20 s");
        // Two that move alike: neither stands out.
        m.begin("room", 40);
        when(rig.lastOfInput(eq("bath"), anyDouble())).thenReturn(level(1100));
        when(rig.lastOfInput(eq("room"), anyDouble())).thenReturn(level(1090));
        m.look(rig, 41);
        assertThat(m.said().words()).startsWith("Waiting");
    }

    @Test
    void tooFewSamplesAreSaid() {
        open("drying-cabinet");
        TouchModel m = new TouchModel(desk);
        connectQuietInputs();
        when(rig.lastOfInput(eq("room"), anyDouble()))
                .thenReturn(new RawSamples(new double[] {0, 1}, new double[] {5, 5}));
        assertThatThrownBy(() -> m.begin("room", 0)).hasMessageContaining("too few samples");
    }

    @Test
    void aChainSaysWhatItReadsAndIsMended() {
        open("drying-cabinet");
        ChainModel m = new ChainModel(desk, "bath");
        assertThat(m.now().unit()).isEqualTo("not connected");
        assertThat(m.advice()).anyMatch(a -> a.fix() != null && a.about().equals("step"));
        m.apply(m.advice().stream()
                .filter(a -> a.about().equals("step"))
                .findFirst()
                .orElseThrow()
                .fix());
        assertThat(m.advice()).noneMatch(a -> a.about().equals("step"));
        assertThat(m.isAsSheet()).isFalse();
        m.asSheet();
        assertThat(m.isAsSheet()).isTrue();
        m.tag(" window sill ", "");
        assertThat(m.tag()).contains(" · at window sill").doesNotContain(" on ");
        desk.connect(rig);
        m.take(RawSamples.NONE, true);
        assertThat(m.now().value()).isEqualTo("out of reach");
        assertThat(m.advice().get(0).says()).isEqualTo("No samples of this channel arrive.");
    }

    @Test
    void anotherInstrumentStandsInAPlaceAndTakesTheWordsAlong() {
        open("drying-cabinet");
        ChainModel m = new ChainModel(desk, "bath");
        List<ChainModel.Place> places = m.places();
        assertThat(places).isNotEmpty().allMatch(p -> !p.alternatives().isEmpty());
        ChainModel.Alternative first = places.get(0).alternatives().get(0);
        m.choose(first);
        assertThat(desk.bench().session().setups()).isEqualTo(Map.of("bath", first.setup()));
        assertThat(desk.bench().file().acts())
                .last()
                .satisfies(a -> assertThat(a.text()).contains(first.words()));
    }
}

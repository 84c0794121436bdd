package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyDouble;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import eagerneedle.app.station.Desk;
import eagerneedle.app.workbench.ColumnMapping;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.PromptPlan;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What capturing and bringing in show and allow, without a window and without waiting. */
class CaptureModelsTest {
    private static final Clock CLOCK = Clock.fixed(Instant.parse("2026-11-23T09:00:00Z"), ZoneOffset.UTC);

    @TempDir
    Path folder;

    private Workbench bench;

    private Workbench open(String text) {
        String title = SheetReader.read(text, "sheet").sheet().title();
        bench = new Workbench(
                BenchFile.create(folder.resolve("s.needle"), Session.start(text, title, CLOCK.instant())), CLOCK);
        return bench;
    }

    @AfterEach
    void close() {
        if (bench != null) {
            bench.close();
        }
    }

    private static PromptModel prompts() {
        return new PromptModel(new PromptPlan(10.0, 20, 3, 5, 1, "key"));
    }

    @Test
    void promptsCountDownAndKeepHowLateAReadingWas() {
        PromptModel m = prompts();
        assertThat(m.count(0)).isEqualTo("3 readings");
        assertThat(m.says()).isEqualTo("Every 20 s from 10 s on.");
        assertThat(m.canTake()).isFalse();
        m.begin(false);
        m.look(0, false);
        assertThat(m.count(0)).isEqualTo("10 s");
        assertThat(m.nearness(0)).isEqualTo(PromptModel.Nearness.FAR);
        assertThat(m.nearness(6)).isEqualTo(PromptModel.Nearness.NEAR);
        assertThat(m.nearness(9.9)).isEqualTo(PromptModel.Nearness.NOW);
        assertThat(m.says()).isEqualTo("Reading 1 of 3 is due at 10 s.");
        m.look(12, false);
        assertThat(m.count(12)).isEqualTo("2 s late");
        m.take(12.4, 100);
        assertThat(m.done()).extracting(PromptModel.Done::words).containsExactly("● 10 s +2.4 s");
        m.skip();
        assertThat(m.done().get(1)).isEqualTo(new PromptModel.Done("30 s skipped", true));
        assertThat(m.due(1)).isEqualTo("30");
        assertThatThrownBy(() -> m.enterLate(1, "soon", "3.1")).hasMessageContaining("not a moment");
        assertThatThrownBy(() -> m.enterLate(1, "31", "much")).isInstanceOf(IllegalArgumentException.class);
        assertThat(m.done().get(1).skipped()).isTrue();
        m.enterLate(1, "31", "3.1");
        assertThat(m.done().get(1).words()).isEqualTo("● 30 s +1.0 s: 3.1");
        m.take(50, 300);
        assertThat(m.isOver()).isTrue();
        assertThat(m.canTake()).isFalse();
        assertThat(m.count(51)).isEqualTo("done");
        Run run = m.marked(Run.captured(1, "c", "l", CLOCK.instant(), "rig", Run.COUNTS));
        assertThat(run.entries().marks()).hasSize(3);
        m.end();
        m.begin(false);
        assertThat(m.done()).isEmpty();
    }

    @Test
    void readingsAreTakenByThemselvesAndSoundOnce() {
        PromptModel m = prompts();
        m.begin(false);
        int sounds = 0;
        for (double now = 0; now < 60; now += 0.05) {
            int before = m.marks();
            m.look(now, true);
            sounds += m.soundsNow(now, before, true) ? 1 : 0;
        }
        assertThat(m.isOver()).isTrue();
        assertThat(sounds).isEqualTo(3);
        assertThat(m.done()).noneMatch(PromptModel.Done::skipped);
    }

    @Test
    void typedReadingsAreTakenWhenTheyAreEntered() {
        PromptModel m = prompts();
        m.begin(true);
        m.look(10, true);
        assertThat(m.marks()).isZero();
        assertThat(m.says()).endsWith("type it when it is due.");
        assertThatThrownBy(() -> m.take(10, 0)).hasMessageContaining("Type the reading first");
        assertThat(m.hasTyped(0)).isFalse();
        assertThat(m.hasTyped(1)).isTrue();
        m.take(10.2, 1);
        assertThat(m.hasTyped(1)).isFalse();
    }

    private static RawSamples gate(double... changes) {
        List<double[]> s = new ArrayList<>();
        s.add(new double[] {0, 0});
        for (int i = 0; i < changes.length; i++) {
            s.add(new double[] {changes[i], (i + 1) % 2});
        }
        return new RawSamples(
                s.stream().mapToDouble(x -> x[0]).toArray(),
                s.stream().mapToDouble(x -> x[1]).toArray());
    }

    @Test
    void gatesTellBlocksPeriodsAndTheirMean() {
        assertThat(GateFigures.of(RawSamples.NONE)).isEqualTo(new GateFigures("0", "—", "—", "—"));
        GateFigures one = GateFigures.of(gate(1, 1.02));
        assertThat(one.edges()).isEqualTo("2");
        assertThat(one.block()).isEqualTo("20 ms");
        assertThat(one.period()).isEqualTo("—");
        double[] even = new double[12];
        for (int i = 0; i < 6; i++) {
            even[2 * i] = 1 + 0.5 * i + (i % 2) * 0.001;
            even[2 * i + 1] = even[2 * i] + 0.03;
        }
        GateFigures many = GateFigures.of(gate(even));
        assertThat(many.edges()).isEqualTo("12");
        assertThat(many.block()).isEqualTo("30 ms");
        assertThat(many.period()).isEqualTo("501 ms");
        assertThat(many.mean()).startsWith("500.2").contains("ms of 5");
    }

    @Test
    void aRowWaitsUntilEveryChannelIsSteadyAndSaysWhyNot() {
        open(SheetReader.shippedText("logging-day"));
        Capture plan = bench.sheet().captures().values().stream()
                .filter(c -> c.mode().equals("hold"))
                .findFirst()
                .orElseThrow();
        String first = plan.channels().get(0);
        double rate = bench.sheet().channels().get(first).rate();
        LiveRig rig = mock(LiveRig.class);
        Desk desk = mock(Desk.class);
        when(desk.bench()).thenReturn(bench);
        when(desk.rig()).thenReturn(Optional.of(rig));
        when(rig.typed()).thenReturn(Map.of());
        HoldModel m = new HoldModel(desk, plan);
        m.begin(rig, "", 100);
        assertThat(m.isWaiting()).isTrue();
        when(rig.last(any(), anyDouble())).thenReturn(RawSamples.NONE);
        assertThat(m.look(rig, 100.1)).isFalse();
        assertThat(m.says()).startsWith("Waiting: ").contains("is being looked at");
        double seconds = plan.hold().seconds();
        when(rig.last(any(), anyDouble())).thenReturn(counts(100 + seconds, seconds, rate, 40));
        assertThat(m.look(rig, 100 + 2 * seconds)).isFalse();
        assertThat(m.says()).contains("drifts by");
        assertThat(m.isImpatient()).isFalse();
        assertThat(m.look(rig, 101 + plan.hold().patience())).isFalse();
        assertThat(m.isImpatient()).isTrue();
        m.takeAnyway();
        assertThat(m.look(rig, 101 + plan.hold().patience())).isTrue();
        m.begin(rig, "", 100);
        when(rig.last(any(), anyDouble())).thenReturn(counts(100 + seconds, seconds, rate, 0));
        assertThat(m.look(rig, 100 + 2 * seconds)).isTrue();
        assertThat(m.says()).isEqualTo("Steady.");
        m.stop();
        assertThat(m.isWaiting()).isFalse();
    }

    private static RawSamples counts(double from, double seconds, double rate, double perSample) {
        int n = Math.max(8, (int) (seconds * rate));
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = from + seconds * i / n;
            v[i] = 2000 + perSample * i + (i * 7919 % 3);
        }
        return new RawSamples(t, v);
    }

    private Path file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    private static String rows(String separator, String comma) {
        StringBuilder b = new StringBuilder("time" + separator + "position\ns" + separator + "mm\n");
        for (int i = 0; i < 40; i++) {
            String t = String.format(java.util.Locale.ROOT, "%.2f", 0.05 * i).replace(".", comma);
            b.append(t).append(separator).append(100 + 3 * i).append('\n');
        }
        return b.toString();
    }

    @Test
    void aFileIsGuessedPutRightAndBroughtIn() throws IOException {
        open(SheetReader.shippedText("baggage-chute"));
        ImportModel m = ImportModel.ofFiles(bench, List.of(file("run.csv", rows(";", ","))));
        m.belongsTo("slopes", "C");
        assertThat(m.name()).isEqualTo("run.csv");
        assertThat(m.isText()).isTrue();
        assertThat(m.separator()).isEqualTo("semicolon");
        assertThat(m.hasDecimalComma()).isTrue();
        assertThat(m.preview(3, 6).get(0)).containsExactly("time / s", "position / mm");
        assertThat(m.preview(3, 6)).hasSize(4);
        assertThat(m.columns()).containsExactly("time", "position");
        ColumnMapping guess = m.guess();
        assertThat(m.says()).startsWith("Read as 2 columns, separated by semicolon, decimal comma, 2 header lines");
        assertThat(m.putRight("semicolon", true)).isFalse();
        assertThatThrownBy(() -> m.putRight("bar", false)).isInstanceOf(IllegalArgumentException.class);
        assertThat(m.separator()).isEqualTo("semicolon");
        assertThatThrownBy(() -> m.bring(guess, "a while", false)).hasMessageContaining("not a number of seconds");
        assertThat(bench.session().runs()).isEmpty();
        Run run = m.bring(guess, "0", false);
        assertThat(run.level()).isEqualTo("C");
        assertThat(bench.file()
                        .samples(run.id(), guess.values().keySet().iterator().next())
                        .size())
                .isEqualTo(40);
    }

    @Test
    void aFolderFollowsTheScheduleUntilAFileDoesNotFit() throws IOException {
        open(SheetReader.shippedText("baggage-chute"));
        Path runs = Files.createDirectory(folder.resolve("runs"));
        for (String n : List.of("a", "b")) {
            Files.writeString(runs.resolve(n + ".csv"), rows(",", "."));
        }
        Files.writeString(runs.resolve(".hidden"), "not this");
        Files.writeString(runs.resolve("c.csv"), "time,x,y\n0,1,2\n1,2,3\n2,3,4\n3,4,5\n");
        ImportModel m = ImportModel.ofFiles(bench, List.of(runs));
        String[] next = bench.schedule().next().orElseThrow();
        List<String> levels =
                List.copyOf(bench.sheet().captures().get(next[0]).levels().keySet());
        m.belongsTo(next[0], levels.get(levels.size() - 1));
        assertThat(m.size()).isEqualTo(3);
        assertThat(m.name()).isEqualTo("a.csv and 2 more");
        assertThatThrownBy(() -> m.bring(m.guess(), "0", true))
                .hasMessageContaining("c.csv has 3 columns")
                .hasMessageContaining("2 of 3 files were brought in");
        assertThat(bench.session().runs())
                .extracting(Run::level)
                .hasSize(2)
                .first()
                .isEqualTo(next[1]);
        assertThatThrownBy(() -> ImportModel.ofFiles(bench, List.of(Files.createDirectory(folder.resolve("empty")))))
                .hasMessageContaining("empty holds no files");
        assertThatThrownBy(() -> ImportModel.ofClipboard(bench, "  ")).hasMessageContaining("clipboard");
    }
}

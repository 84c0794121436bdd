package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.simulated.Misbehaviour;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

@Timeout(40)
class LiveRigTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private final String text = SheetReader.shippedText("baggage-chute");
    private final Sheet sheet = SheetReader.read(text, "sheet").sheet();

    @TempDir
    private Path folder;

    private BenchFile file;
    private LiveRig rig;

    @BeforeEach
    void connect() throws IOException {
        file = BenchFile.create(folder.resolve("live.needle"), Session.start(text, "live", DAY));
        rig = LiveRig.simulated(sheet, "ranger", 50, 8, Set.of());
    }

    @AfterEach
    void close() {
        rig.close();
        file.close();
    }

    private static void await(BooleanSupplier condition) throws InterruptedException {
        long end = System.nanoTime() + 10_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("the condition came in time").isLessThan(end);
            Thread.sleep(10);
        }
    }

    private Run start(String level) throws IOException {
        Run run = Run.captured(file.nextRunId(file.session()), "slopes", level, DAY, rig.label(), Run.COUNTS);
        rig.arrange(Map.of("capture", "slopes", "level", level));
        rig.record(run, file);
        return run;
    }

    @Test
    void aRunIsWrittenWhileItIsRecorded() throws Exception {
        Run run = start("C");
        assertThat(rig.isRecording()).isTrue();
        await(() -> file.samples(run.id(), "position").size() > 60);
        await(() -> rig.all("position").size() > 120);
        long n = rig.finish();
        assertThat(rig.isRecording()).isFalse();
        assertThat(file.samples(run.id(), "position").size()).isEqualTo((int) n);
        double[] t = file.samples(run.id(), "position").time();
        assertThat(t[0]).isZero();
        for (int i = 1; i < t.length; i++) {
            assertThat(t[i]).isGreaterThan(t[i - 1]);
        }
        await(() -> rig.last("position", 1).size() > 10);
    }

    @Test
    void twoRunsDoNotMix() throws Exception {
        Run first = start("A");
        await(() -> rig.all("position").size() > 40);
        rig.finish();
        Run second = start("E");
        await(() -> rig.all("position").size() > 40);
        rig.finish();
        assertThat(second.id()).isEqualTo(first.id() + 1);
        assertThat(file.samples(first.id(), "position").time()[0]).isZero();
        assertThat(file.samples(second.id(), "position").time()[0]).isZero();
    }

    @Test
    void silenceInARunKeepsWhatCameAndSaysSo() throws Exception {
        Run run = start("C");
        await(() -> rig.all("position").size() > 50);
        rig.standIn().misbehave(Misbehaviour.SILENCE);
        await(() -> rig.news().contains("silent"));
        assertThat(rig.state()).isEqualTo(Driver.State.SILENT);
        long n = rig.finish();
        assertThat(n).isGreaterThan(50);
        assertThat(file.samples(run.id(), "position").size()).isEqualTo((int) n);
    }

    @Test
    void aPulledLeadInARunKeepsWhatCameAndGoesOn() throws Exception {
        Run run = start("A");
        await(() -> rig.all("position").size() > 50);
        rig.standIn().disconnect();
        await(() -> rig.state() == Driver.State.LOST);
        int before = rig.all("position").size();
        await(() -> rig.all("position").size() > before + 20);
        assertThat(rig.news()).isEmpty();
        assertThat((int) rig.finish())
                .isEqualTo(file.samples(run.id(), "position").size())
                .isGreaterThan(before);
    }

    @Test
    void garbageIsToldAndPassedOver() throws Exception {
        Run run = start("C");
        rig.standIn().misbehave(Misbehaviour.GARBAGE);
        await(() -> rig.news().contains("could not be understood"));
        rig.standIn().misbehave(Misbehaviour.NONE);
        await(() -> rig.all("position").size() > 20);
        rig.finish();
        assertThat(java.util.Arrays.stream(file.samples(run.id(), "position").values()))
                .allMatch(c -> c >= 0 && c <= 16383);
    }

    @Test
    void anAddressThatIsNoneIsOneSentence() {
        assertThatThrownBy(() -> LiveRig.at(sheet, "ranger", "somewhere", 50))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("host:port");
        assertThatThrownBy(() -> LiveRig.at(sheet, "ranger", "127.0.0.1:none", 50))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("not an address");
        assertThatThrownBy(() -> LiveRig.at(sheet, "ranger", "127.0.0.1:1", 50))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("Nothing answers");
    }

    @Test
    void aRealAddressIsConnectedTheSameWay() throws Exception {
        try (LiveRig other = LiveRig.at(sheet, "ranger", "127.0.0.1:" + secondStandIn(), 50)) {
            await(() -> other.last("position", 1).size() > 5);
            assertThat(other.label()).isEqualTo("other");
            assertThat(other.standIn()).isNull();
        }
    }

    private static int secondStandIn() throws IOException {
        return new eagerneedle.rig.simulated.LineStandIn(
                        eagerneedle.rig.simulated.Rigs.shipped("baggage-chute", 1, Set.of()), "X-1", "other", 4)
                .port();
    }
}

package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.driver.Driver;
import eagerneedle.rig.simulated.Misbehaviour;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.function.BooleanSupplier;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Two rangers, a gate timer and a supply over real wires, in real time, each with a clock of its own. */
@Timeout(60)
class SeveralInstrumentsTest {
    private static final Instant DAY = Instant.parse("2026-11-28T09:00:00Z");
    private static final Way STAND_IN = new Way.Simulated(1, Set.of());

    @TempDir
    private Path folder;

    private SheetReader.Located sheet;
    private BenchFile file;
    private LiveRig rig;

    @BeforeEach
    void connect() throws IOException {
        // A machine that is busy with other tests keeps no real time.
        assumeTrue(Boolean.getBoolean("everyMethod"), "in the long profile");
        try (InputStream in = getClass().getResourceAsStream("four-instruments.yaml")) {
            sheet = SheetTrial.read(new String(in.readAllBytes(), StandardCharsets.UTF_8), "four.yaml");
        }
        file = BenchFile.create(folder.resolve("four.needle"), Session.start(sheet.text(), "four", DAY));
        Map<String, Way> ways = new LinkedHashMap<>();
        Map<String, Double> rates = new LinkedHashMap<>();
        sheet.sheet().devices().keySet().forEach(d -> {
            ways.put(d, STAND_IN);
            rates.put(
                    d,
                    sheet.sheet().channels().values().stream()
                            .filter(c -> d.equals(c.device()))
                            .mapToDouble(c -> c.rate())
                            .max()
                            .orElseThrow());
        });
        rig = LiveRig.to(sheet.sheet(), ways, rates);
    }

    @AfterEach
    void close() {
        if (rig != null) {
            rig.close();
            file.close();
        }
    }

    private static void await(BooleanSupplier condition) throws InterruptedException {
        long end = System.nanoTime() + 10_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as("the condition came in time").isLessThan(end);
            Thread.sleep(10);
        }
    }

    private interface Meanwhile {
        void happens() throws Exception;
    }

    /** A run of 3.4 s in which something happens, kept. */
    private Run taken(Meanwhile what) throws Exception {
        Run run = rig.run(file.nextRunId(file.session()), "roll", "run", DAY);
        rig.arrange(Map.of("capture", "roll", "level", "run"));
        rig.record(run, file);
        what.happens();
        await(() -> rig.end("y") > 3.4 && (rig.end("x") > 3.4 || rig.state() == Driver.State.LOST));
        assertThat(rig.finish()).isPositive();
        Run kept = run.clockedBy(rig.clocks());
        file.save(new RunCommand.KeepRun(kept).apply(file.session()), DAY, "Kept.");
        return kept;
    }

    private Reduction reduced() {
        return new Reducer(sheet, file).reduce(file.session());
    }

    @Test
    void oneEventIsSeenByThreeAtOneTime() throws Exception {
        assertThat(rig.devices()).containsExactly("left", "right", "gates", "supply");
        rig.standIn("left").drift(50e-6);
        rig.standIn("right").drift(-100e-6);
        for (int k = 0; k < 10; k++) {
            Run run = taken(() -> {});
            assertThat(run.clocks()).containsOnlyKeys("left", "right", "gates", "supply");
            assertThat(run.clocks().get("left").time(0)).isCloseTo(0, within(1e-9));
            for (String name : new String[] {"apart", "gated"}) {
                Quantity q = reduced().ofRun(run, name).quantity().orElseThrow();
                assertThat(q.u()).as(name).isLessThan(2);
                assertThat(Math.abs(q.value())).as(name + " in ms, " + q).isLessThan(3.5 * q.u());
            }
            // Each keeps its own rate, and its own stamps.
            assertThat(file.samples(run.id(), "y").size())
                    .isBetween((int) (0.7 * file.samples(run.id(), "x").size()), (int)
                            (0.9 * file.samples(run.id(), "x").size()));
            assertThat(file.samples(run.id(), "gate").size()).isBetween(2, 4);
        }
    }

    @Test
    void aClockThatJumpsBackIsFollowed() throws Exception {
        Run run = taken(() -> {
            await(() -> rig.end("y") > 0.5);
            rig.standIn("right").misbehave(Misbehaviour.CLOCK_BACK);
        });
        assertThat(run.clocks().get("right").pieces()).hasSize(2);

        Quantity q = reduced().ofRun(run, "apart").quantity().orElseThrow();
        assertThat(Math.abs(q.value())).as("apart in ms, " + q).isLessThan(4 * q.u());
    }

    @ParameterizedTest
    @ValueSource(strings = {"left", "right", "gates", "supply"})
    void anyPulledPlugIsSaidAndTheOthersGoOn(String pulled) throws Exception {
        String other = pulled.equals("right") ? "x" : "y";
        Run run = rig.run(file.nextRunId(file.session()), "roll", "run", DAY);
        rig.arrange(Map.of("capture", "roll", "level", "run"));
        rig.record(run, file);
        await(() -> rig.end(other) > 0.4);
        rig.standIn(pulled).close();
        String label = sheet.sheet().devices().get(pulled).label();
        await(() -> rig.news().startsWith(label + ": The connection to the instrument is lost"));
        await(() -> rig.end(other) > 3.4);
        assertThat(rig.finish()).isPositive();
        file.save(new RunCommand.KeepRun(run.clockedBy(rig.clocks())).apply(file.session()), DAY, "Kept.");
        assertThat(rig.standings())
                .filteredOn(s -> s.state() == Driver.State.LOST)
                .extracting(Standing::device)
                .containsExactly(pulled);
        sheet.sheet().channels().forEach((name, c) -> {
            int n = file.samples(run.id(), name).size();
            if (!name.equals("gate")) {
                assertThat(n).as(name).isBetween(c.device().equals(pulled) ? 2 : (int) (1.8 * c.rate()), (int)
                        ((c.device().equals(pulled) ? 3 : 6) * c.rate()));
            }
        });
    }

    @Test
    void allOrNoneAreConnected() {
        Map<String, Way> ways = new LinkedHashMap<>();
        ways.put("left", STAND_IN);
        ways.put("right", new Way.At("127.0.0.1:1"));
        assertThatThrownBy(() -> LiveRig.to(sheet.sheet(), ways, Map.of("left", 50.0, "right", 50.0)))
                .isInstanceOf(IOException.class);
    }

    @Test
    void whatOneInstrumentAloneDoesIsSaid() {
        Run run = rig.run(1, "roll", "run", DAY);
        assertThatThrownBy(() -> rig.record(run, file, 3)).hasMessageContaining("take a new one");
    }
}

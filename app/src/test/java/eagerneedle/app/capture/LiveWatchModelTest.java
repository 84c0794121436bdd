package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.app.workbench.LiveReadings;
import eagerneedle.app.workbench.LiveRig;
import eagerneedle.app.workbench.Way;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is wrong at the bench is said while it is, from whichever of the instruments it comes. */
class LiveWatchModelTest {
    private static final Instant DAY = Instant.parse("2026-11-28T09:00:00Z");

    /** Two instruments that read one thermometer each. */
    private static SheetReader.Located two() throws IOException {
        try (InputStream in =
                LiveWatchModelTest.class.getResourceAsStream("/eagerneedle/app/workbench/two-ovens.yaml")) {
            return SheetTrial.read(new String(in.readAllBytes(), StandardCharsets.UTF_8), "two-ovens.yaml");
        }
    }

    @TempDir
    private Path folder;

    private LiveRig rig;
    private BenchFile file;

    @AfterEach
    void close() {
        if (rig != null) {
            rig.close();
            file.close();
        }
    }

    private void connect(SheetReader.Located located, double pace, String... faults) throws Exception {
        Sheet sheet = located.sheet();
        Map<String, Way> ways = new LinkedHashMap<>();
        Map<String, Double> rates = new LinkedHashMap<>();
        sheet.devices().keySet().forEach(d -> {
            ways.put(d, new Way.Simulated(pace, Set.of(faults)));
            rates.put(
                    d,
                    sheet.channels().values().stream()
                            .filter(c -> d.equals(c.device()))
                            .mapToDouble(Channel::rate)
                            .max()
                            .orElse(1));
        });
        rig = LiveRig.to(sheet, ways, rates);
        file = BenchFile.create(
                folder.resolve("live" + System.nanoTime() + ".needle"),
                Session.start(located.text(), sheet.title(), DAY));
    }

    /**
     * What is said first while a run at the first level lasts; or nothing, once so many looks were taken at a run that
     * is over.
     */
    private String said(Sheet sheet, String capture, double seconds, boolean wantsSomething) throws Exception {
        Capture plan = sheet.captures().get(capture);
        LiveWatchModel model = new LiveWatchModel(
                n -> sheet.channels().get(n),
                n -> raw -> LiveReadings.trace(sheet.channels().get(n), raw));
        String level = plan.levels().keySet().iterator().next();
        rig.arrange(Map.of("capture", capture, "level", level));
        if (plan.mode().equals("hold")) {
            // A row is taken of what has come to rest, by the instrument's clock.
            double rest = rig.end(plan.channels().get(0)) + 6;
            long patience = System.nanoTime() + 20_000_000_000L;
            while (rig.end(plan.channels().get(0)) < rest) {
                assertThat(System.nanoTime()).as("the instrument goes on").isLessThan(patience);
                Thread.sleep(10);
            }
        }
        rig.record(rig.run(1, capture, level, DAY), file);
        long end = System.nanoTime() + (long) (seconds * 1e9);
        while (System.nanoTime() < end) {
            model.take(model.look(rig, plan).get());
            String says = model.says(plan);
            // A computer that is held up has lost samples, and says so until they are past.
            if (!says.isEmpty() && !(wantsSomething && says.contains("did not arrive"))) {
                rig.finish();
                return says;
            }
            Thread.sleep(20);
        }
        rig.finish();
        return wantsSomething ? "nothing was said in " + seconds + " s" : "";
    }

    private static SheetReader.Located shipped(String id) {
        return SheetReader.read(SheetReader.shippedText(id), id);
    }

    @Test
    void nothingIsSaidWhileAllIsWell() throws Exception {
        SheetReader.Located two = two();
        String said = "";
        // Two instruments keep the time of this computer: where it is held up, samples are missing and that is said.
        for (int held = 0; held < 5 && (held == 0 || said.contains("did not arrive")); held++) {
            close();
            connect(two, 4);
            said = said(two.sheet(), "look", 1.5, false);
        }
        assertThat(said).isEmpty();
    }

    @Test
    void twoInstrumentsThatShowWhatIsExpectedOfEachOther() throws Exception {
        SheetReader.Located two = two();
        connect(two, 4, "exchanged");
        assertThat(said(two.sheet(), "look", 8, true))
                .contains("Cold oven and warm oven show what is expected of each other");
    }

    @Test
    void oneInstrumentOutsideItsBand() throws Exception {
        SheetReader.Located two = two();
        connect(two, 4, "out");
        assertThat(said(two.sheet(), "look", 8, true)).contains("outside what its tag expects");
    }

    @Test
    void spokesThatAGateMisses() throws Exception {
        SheetReader.Located wheel = shipped("potters-wheel");
        String capture = wheel.sheet().captures().keySet().iterator().next();
        connect(wheel, 4, "missed-spokes");
        assertThat(said(wheel.sheet(), capture, 12, true)).contains("gate");
    }

    @Test
    void aGateThatSeesAllIsNotDoubted() throws Exception {
        SheetReader.Located wheel = shipped("potters-wheel");
        String capture = wheel.sheet().captures().keySet().iterator().next();
        connect(wheel, 8);
        assertThat(said(wheel.sheet(), capture, 2, false)).isEmpty();
    }

    @Test
    void humInARowThatStandsStill() throws Exception {
        SheetReader.Located reed = shipped("weather-vane-reed");
        String capture = reed.sheet().captures().entrySet().stream()
                .filter(c -> c.getValue().mode().equals("hold"))
                .findFirst()
                .orElseThrow()
                .getKey();
        connect(reed, 4, "hum");
        assertThat(said(reed.sheet(), capture, 6, true)).contains("carries a hum of 50 Hz");
    }
}

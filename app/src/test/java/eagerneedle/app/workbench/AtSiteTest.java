package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.Rehearsed;
import eagerneedle.core.chain.Link;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.stockroom.Kit;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Sessions at the benches of a laboratory: the same sheet, with other instruments. */
class AtSiteTest {
    private static final Instant NOW = Instant.parse("2026-11-30T13:30:00Z");
    private static final String METHOD = "signpost-arm";

    @TempDir
    private Path folder;

    @BeforeEach
    void site() throws IOException {
        System.setProperty("needle.site", folder.toString());
        System.setProperty("needle.home", folder.resolve("home").toString());
        Files.writeString(folder.resolve("site.yaml"), """
                g: 9.8099(5) m/s^2
                kits:
                  bench 7: [TH-CP-07, TH-LG-07]
                  bench 9: [TH-LG-09, TH-BA-05]
                """);
        try (Stockroom room = Stockroom.at(folder.resolve("stockroom.db"))) {
            room.bringIn(Stockroom.demonstrationJson());
            room.put(room.find("TH-CP-01").orElseThrow().copyAs("TH-CP-07"));
            room.put(room.find("TH-LG-01").orElseThrow().copyAs("TH-LG-07"));
            room.put(room.find("TH-LG-01").orElseThrow().copyAs("TH-LG-09"));
        }
    }

    @AfterEach
    void nowhere() {
        System.clearProperty("needle.site");
        System.clearProperty("needle.home");
    }

    private static SheetReader.Located located() {
        return SheetTrial.read(SheetReader.shippedText(METHOD), METHOD);
    }

    private List<Instrument> stock() {
        try (Stockroom room = Stockroom.at(folder.resolve("stockroom.db"))) {
            return room.all();
        }
    }

    @Test
    void aSessionBeginsWithWhatTheLaboratorySaysAndWithTheInstrumentsOfItsBench() {
        SheetReader.Located sheet = located();
        try (BenchFile file = Home.begin(sheet, "bench 7", NOW)) {
            Session s = file.session();
            assertThat(s.planned()).containsEntry("g", "9.8099(5) m/s^2");
            assertThat(s.bench().bench()).isEqualTo("bench 7");
            assertThat(s.bench().serials()).containsEntry("TH-LG-01", "TH-LG-07");
            assertThat(s.tied().get("d_o").id()).isEqualTo("TH-CP-07");
            String channel = sheet.sheet().channels().keySet().iterator().next();
            assertThat(Link.serials(s.channel(sheet.sheet(), channel).chain())).contains("TH-LG-07");
            assertThat(s.sheetText()).isEqualTo(sheet.text());
            assertThat(file.acts().toString())
                    .contains("local g is 9.8099(5) m/s^2")
                    .contains("The session is at bench 7 with ");
        }
        assertThatThrownBy(() -> Home.begin(sheet, "bench 77", NOW))
                .hasMessageContaining("no bench bench 77")
                .hasMessageContaining("bench 7");
    }

    @Test
    void aHalfDoneSessionGoesOnAtAnotherBenchAndWhatWasDoneStays() {
        Path file = Rehearsed.in(folder, "letter-scale");
        try (Workbench bench = new Workbench(BenchFile.open(file), Clock.fixed(NOW, ZoneOffset.UTC))) {
            Sheet sheet = bench.sheet();
            String channel = sheet.channels().keySet().iterator().next();
            Reduction before = bench.reduction();
            assertThat(bench.session().calibrationOf(channel, sheet)).isPresent();
            AtSite.Move move = AtSite.to(
                    new Kit("bench 9", List.of("TH-LG-09", "TH-BA-05")), bench.session(), sheet, stock(), NOW);
            assertThat(move.lacking()).anyMatch(l -> l.contains("bench 9 has no caliper of its own"));
            bench.apply(move.act());
            Session now = bench.session();
            // The new logger has no calibration yet; what was captured with the old one keeps its own.
            assertThat(now.calibrationOf(channel, sheet)).isEmpty();
            assertThat(now.channel(sheet, channel).chain().stream().map(Link::instrument))
                    .contains("TH-LG-09");
            int same = 0;
            for (String result : sheet.results().keySet()) {
                if (before.quantity(result).isPresent()) {
                    assertThat(bench.reduction().quantity(result).orElseThrow().value())
                            .as(result)
                            .isEqualTo(before.quantity(result).get().value());
                    same++;
                }
            }
            assertThat(same).isGreaterThan(3);
            // What was measured was measured with the caliper of then.
            assertThat(now.tied()).doesNotContainKey("b");
            bench.undo();
            assertThat(bench.session().calibrationOf(channel, sheet)).isPresent();
        }
    }
}

package eagerneedle.app.calibrate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.app.PlainDesk;
import eagerneedle.app.calibrate.TargetsModel.Standing;
import eagerneedle.app.calibrate.TargetsModel.Target;
import eagerneedle.app.widget.Cell;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What Calibrate lists and what its points say, without a window. */
class TargetsTest {
    @TempDir
    Path folder;

    private static Target target(Workbench bench, String key) {
        return new TargetsModel(bench)
                .targets().stream().filter(t -> t.key().equals(key)).findFirst().orElseThrow();
    }

    @Test
    void targetsTellHowTheyStand() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "calibration-day")) {
            List<Target> all = new TargetsModel(desk.bench()).targets();
            assertThat(all).extracting(Target::standing).containsOnly(Standing.OPEN);
            assertThat(all).extracting(Target::key).contains("balance").anyMatch(k -> k.startsWith("input "));
            assertThat(target(desk.bench(), "balance").state()).isEqualTo("not calibrated yet");
            assertThat(all)
                    .filteredOn(t -> t.key().startsWith("input "))
                    .allMatch(t ->
                            t.state().equals("still as planned") && t.kind().equals("actual value"));
        }
    }

    @Test
    void whatWasGoodUntilADayCallsForAttentionAfterIt() {
        Path file;
        Calibration kept;
        try (PlainDesk desk = PlainDesk.rehearsed(folder, "calibration-day")) {
            file = desk.bench().file().path();
            kept = desk.bench()
                    .session()
                    .calibrationOf("balance", desk.bench().sheet())
                    .orElseThrow();
            assertThat(target(desk.bench(), "balance").standing()).isEqualTo(Standing.GOOD);
            assertThat(target(desk.bench(), "balance").state()).startsWith("good until ");
            assertThat(new TargetsModel(desk.bench()).targets())
                    .filteredOn(t -> t.key().startsWith("input "))
                    .allMatch(t -> t.state().equals("measured") && t.standing() == Standing.GOOD);
        }
        Instant after = kept.due().plusSeconds(86_400);
        try (Workbench later = new Workbench(BenchFile.open(file), Clock.fixed(after, ZoneOffset.UTC))) {
            assertThat(target(later, "balance").standing()).isEqualTo(Standing.ATTENTION);
            assertThat(target(later, "balance").state()).startsWith("was due on ");
        }
    }

    @Test
    void pointsStandWithTheirResidualsOnceThereIsARelation() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "calibration-day")) {
            PointsModel m = new PointsModel(desk.bench(), "balance");
            LabUnit unit = m.channel().labUnit();
            List<List<Cell>> open = PointCells.of(m.shown().orElse(null), m.rows(), unit);
            assertThat(open.get(0)).extracting(Cell::text).startsWith("set").contains("indication");
            assertThat(open.get(1).get(0).text()).startsWith("▸ 20.000");
            assertThat(open.get(1).get(0).look()).isEqualTo(Cell.Look.STRONG);
            assertThat(open.get(2).get(0).text()).startsWith("○ ");
            assertThat(open.get(5).get(0).says()).startsWith("Verification: ");
            for (double read : new double[] {20.31, 50.42, 100.6, 200.93}) {
                m.take(new SteadyModel.Taken(read, 0.01, 200));
            }
            List<List<Cell>> taken = PointCells.of(m.shown().orElse(null), m.rows(), unit);
            assertThat(taken.get(1)).hasSize(4);
            assertThat(taken.get(1).get(0).text()).startsWith("● ");
            assertThat(taken.get(1).get(2).text()).isEqualTo("20.310(10)");
            assertThat(taken.get(1).get(2).says()).startsWith("mean of 200 samples");
            double sum = 0;
            for (int i = 1; i <= 4; i++) {
                sum += Double.parseDouble(taken.get(i).get(3).text().replace('−', '-'));
            }
            assertThat(sum).as("residuals of a line add up to nothing").isBetween(-0.003, 0.003);
            assertThat(taken.get(5)).hasSize(2);
        }
        assertThat(PointCells.of(null, List.of(), LabUnit.ONE)).isEmpty();
    }

    @Test
    void whatTheSheetDoesNotCalibrateIsOffered() {
        try (PlainDesk desk = PlainDesk.fresh(folder, "signpost-arm")) {
            OfferModel offer = new OfferModel(desk);
            assertThat(offer.channels()).as("each gauge is calibrated alike").containsExactly("v");
            String channel = "v";
            String before = desk.bench().session().sheetText();
            assertThatThrownBy(() -> offer.add("nowhere", "", "", "0 V", "")).hasMessageContaining(channel);
            assertThatThrownBy(() -> offer.add(channel, "", "", " , ", "")).hasMessageContaining("Write what is set");
            assertThatThrownBy(() -> offer.add(channel, "", "spiral", "0 V, 1 V", ""))
                    .hasMessageContaining("line, offset, factor, parabola");
            assertThat(desk.bench().session().sheetText()).isEqualTo(before);
            offer.add(channel, "", "", "0 V, 1 V, 2 V", "bench source");
            assertThat(new OfferModel(desk).channels()).doesNotContain(channel);
            assertThat(new TargetsModel(desk.bench()).targets())
                    .extracting(Target::key)
                    .containsExactly("v.a", "v.b", "v.c");
            assertThat(target(desk.bench(), "v.b").standing()).isEqualTo(Standing.OPEN);
        }
    }

    @Test
    void whateverIsOfferedCanBeAdded() {
        int added = 0;
        for (String method : SheetReader.shipped()) {
            try (PlainDesk desk = PlainDesk.fresh(folder, method)) {
                OfferModel offer = new OfferModel(desk);
                for (String channel : offer.channels()) {
                    int before = new TargetsModel(desk.bench()).targets().size();
                    String unit = desk.bench().sheet().channels().entrySet().stream()
                            .filter(e ->
                                    e.getKey().equals(channel) || e.getKey().startsWith(channel + "."))
                            .findFirst()
                            .orElseThrow()
                            .getValue()
                            .unit();
                    offer.add(channel, "", "", "1 %s, 2 %s, 3 %s".replace("%s", unit), "");
                    assertThat(new TargetsModel(desk.bench()).targets())
                            .as(method + " " + channel)
                            .hasSizeGreaterThan(before);
                    added++;
                }
                assertThat(offer.channels()).isEmpty();
            }
        }
        assertThat(added).isGreaterThan(10);
    }
}

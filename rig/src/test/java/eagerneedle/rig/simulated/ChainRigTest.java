package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whole sheets carried out on the rig that is made from them, calibrations of every kind included. */
class ChainRigTest {
    private static final SheetReader.Located DAY = read("calibration-day");
    private static final SheetReader.Located CABINET = read("drying-cabinet");

    private static SheetReader.Located read(String id) {
        return SheetTrial.read(SheetReader.shippedText(id), id + ".yaml");
    }

    private static Reduction reduced(SheetReader.Located sheet, Rehearsal r) {
        return new Reducer(
                        sheet,
                        (run, channel) -> Optional.ofNullable(r.samples().get(run))
                                .map(m -> m.get(channel))
                                .orElse(RawSamples.NONE))
                .reduce(r.session());
    }

    @Test
    void everyKindOfCalibrationFindsWhatIsHidden() {
        int trials = 80;
        Map<String, int[]> hits = new java.util.TreeMap<>();
        for (long seed = 0; seed < trials; seed++) {
            ChainRig rig = new ChainRig(DAY.sheet(), seed, Set.of());
            Rehearsal r = Rehearsal.of(DAY, rig, Instant.EPOCH);
            Reduction reduction = reduced(DAY, r);
            for (String name : List.of(
                    "G_eff",
                    "beam",
                    "w_eff",
                    "meter_factor",
                    "strain.slope",
                    "thermometer.slope",
                    "light.slope",
                    "light.intercept",
                    "balance.slope")) {
                Quantity found = reduction
                        .quantity(name)
                        .orElseThrow(() -> new AssertionError(
                                name + ": " + reduction.outcome(name).problem()));
                Quantity truth = r.truth().get(name);
                assertThat(truth).as("truth of %s", name).isNotNull();
                hits.computeIfAbsent(name, k -> new int[1])[0] +=
                        Math.abs(found.value() - truth.in(found.unit())) <= Coverage.DEFAULT.expanded(found) ? 1 : 0;
            }
            List<Quantity> lower = reduction.column("tables.lower");
            for (int i = 0; i < lower.size(); i++) {
                hits.computeIfAbsent("tables.lower", k -> new int[1])[0] += Math.abs(
                                        lower.get(i).value() - rig.circles()[0][i])
                                <= Coverage.DEFAULT.expanded(lower.get(i))
                        ? 1
                        : 0;
            }
            Calibration scale = reduction.session().latestCalibrationOf("scale").orElseThrow();
            assertThat(Math.abs(scale.points().get(0).indication()))
                    .as("zero was brought into its band")
                    .isLessThan(0.6);
            assertThat(scale.points().get(1).indication()).as("seed " + seed).isCloseTo(500, within(0.7));
            assertThat(scale.failure()).isEmpty();
            assertThat(reduction
                            .session()
                            .latestCalibrationOf("balance")
                            .orElseThrow()
                            .failure())
                    .isEmpty();
            assertThat(reduction
                            .session()
                            .latestCalibrationOf("light")
                            .orElseThrow()
                            .failure())
                    .isEmpty();
        }
        // 80 trials: three standard deviations of a true 95 % are 7.3 %.
        hits.forEach((name, n) -> assertThat(n[0] / (double) (name.equals("tables.lower") ? 8 * trials : trials))
                .as("coverage of %s", name)
                .isBetween(0.87, 1.0));
    }

    @Test
    void theCabinetIsRehearsedAndItsOffsetTakenOut() {
        Rehearsal r = Rehearsal.of(CABINET, Rigs.chains(CABINET.sheet(), 5, Set.of()), Instant.EPOCH);
        Reduction reduction = reduced(CABINET, r);
        Quantity air = reduction
                .quantity("T_air")
                .orElseThrow(() -> new AssertionError(reduction.outcome("T_air").problem()));
        assertThat(air.value()).isBetween(30.0, 70.0);
        assertThat(air.u()).isBetween(0.02, 0.6);
        assertThat(air.contributions().keySet())
                .as("the gain stays in the budget, the offset is gone")
                .anyMatch(l -> l.id().endsWith("/gain"));
        assertThat(air.contributions().entrySet())
                .filteredOn(e -> e.getKey().id().endsWith("TH-AM-01/offset"))
                .allMatch(e -> Math.abs(e.getValue()) < 0.01);
        assertThat(reduction.quantity("shortcut").orElseThrow().value()).isNotZero();
    }

    @ParameterizedTest
    @ValueSource(strings = {"swapped", "reversed", "open"})
    void faultsShowInTheSignal(String fault) {
        SimulatedRig good = Rigs.chains(CABINET.sheet(), 5, Set.of());
        SimulatedRig bad = Rigs.chains(CABINET.sheet(), 5, Set.of(fault));
        for (SimulatedRig rig : List.of(good, bad)) {
            rig.begin();
            rig.arrange(Map.of("touch", "cabinet"));
            for (int i = 0; i < 30; i++) {
                rig.advance(0.1);
            }
        }
        double[] a = good.read();
        double[] b = bad.read();
        int where = fault.equals("reversed") ? 1 : 0;
        assertThat(Math.abs(a[where] - b[where]))
                .as("counts differ where the fault is")
                .isGreaterThan(3);
    }

    /** What the whole rig shows holds for a capture without a part of its own; nothing is made up in its place. */
    @Test
    void signalsOfTheWholeRigHoldForEveryCapture() {
        SheetReader.Located sheet = SheetTrial.read("""
                sheet: 2
                id: still
                title: Still
                subject: Heat
                devices: {logger: {label: Logger, driver: line}}
                channels:
                  bath: {label: bath, unit: degC, device: logger, rate: 20, chain: [{kind: converter, label: meter, from: degC, bits: 16, range: [0, 100]}]}
                  room: {label: room, unit: degC, device: logger, rate: 20, chain: [{kind: converter, label: meter, from: degC, bits: 16, range: [0, 100]}]}
                captures:
                  look: {label: Look, channels: [bath], levels: {run: {label: run}}, quantities: {T: {label: mean, unit: degC, formula: mean(bath)}}}
                results: {T: {label: bath, unit: degC, formula: mean(look.T)}}
                rig:
                  signals: {bath: 42 degC, room: 21 degC}
                  lasts: 2 s
                """, "still.yaml");
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 3, Set.of()), Instant.EPOCH);
        assertThat(reduced(sheet, r).quantity("T").orElseThrow().value()).isCloseTo(42, within(0.01));
        // Nothing is recorded that a run would not record.
        assertThat(r.samples().get(1)).containsOnlyKeys("bath");
        assertThat(r.samples().get(1).get("bath").size()).isEqualTo(40);
    }

    @Test
    void touchingAPlaceMovesTheInputItIsWiredTo() {
        for (boolean swapped : new boolean[] {false, true}) {
            SimulatedRig rig = Rigs.chains(CABINET.sheet(), 5, swapped ? Set.of("swapped") : Set.of());
            rig.begin();
            double[] before = rig.read();
            rig.arrange(Map.of("touch", "ice_bath"));
            for (int i = 0; i < 30; i++) {
                rig.advance(0.1);
            }
            double[] after = rig.read();
            int moved = swapped ? 0 : 1;
            assertThat(after[moved]).isGreaterThan(before[moved] + 2);
            assertThat(Math.abs(after[2] - before[2])).as("the room stays").isLessThan(30);
        }
    }

    @Test
    void aSessionKnowsItsSheetOnly() {
        assertThat(Session.start(DAY.text(), "x", Instant.EPOCH).setup("strain"))
                .isNotNull();
        assertThat(Rigs.faults(DAY.sheet())).containsExactly("swapped", "reversed", "open");
    }
}

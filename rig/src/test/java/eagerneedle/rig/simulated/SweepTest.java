package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Sixty steps of an output, each discharged first, a row a step; or the reason why there is none. */
class SweepTest {
    private static final String SHEET = """
            sheet: 2
            id: charging-steps
            title: A capacitor charged in steps
            subject: Electricity
            inputs:
              tau: {label: time constant, value: "50(1) ms"}
            devices:
              board: {label: Board TH-AD-01, driver: line, outputs: {drive: {label: drive, unit: V, lowest: 0, highest: 6, step: 1 mV, safe: 0}}}
            channels:
              V: {label: voltage, unit: V, device: board, rate: 200, chain: [{kind: converter, label: 14 bit, from: V, range: [0, 4.096], bits: 14, noise: 0.4 mV}]}
            captures:
              steps:
                label: Drive in steps
                mode: hold
                channels: [V]
                levels: {spread: {drive: {from: 0.1 V, to: TOP, count: 60}}, outputs: {drive: drive}}
                hold: {seconds: 0.2, samples: 20, settle: 0.6, rest: 0.6, patience: 20}
                quantities:
                  U: {label: voltage, unit: V, formula: "mean(V)"}
                  from: {label: at the start, unit: V, formula: "min(V)"}
            results:
              gain: {label: volts a volt, formula: "slope(line(steps.U, steps.drive))"}
            rig:
              hidden: {factor: "0.98(1)"}
              steps:
                state: {charge: "0 V"}
                rates: {charge: "(factor * drive - charge) / tau"}
                signals: {V: charge}
                lasts: 1.2 s
              truth: {gain: factor}
            """;

    private static Reduction reduced(SheetReader.Located sheet, Rehearsal r) {
        return reduced(sheet, r, r.session());
    }

    private static Reduction reduced(SheetReader.Located sheet, Rehearsal r, Session session) {
        return new Reducer(
                        sheet,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(session);
    }

    private static SheetReader.Located sheet(String top) {
        return SheetTrial.read(SHEET.replace("TOP", top), "steps.yaml");
    }

    private static Rehearsal carriedOut(SheetReader.Located sheet) {
        return Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 4, Set.of()), Instant.EPOCH);
    }

    @Test
    void sixtyStepsAreSixtyRows() {
        SheetReader.Located sheet = sheet("4.0 V");
        Rehearsal r = carriedOut(sheet);
        Reduction reduction = reduced(sheet, r);
        List<Run> runs = r.session().keptRuns();
        assertThat(runs).hasSize(60);
        double factor = r.truth().get("gain").value();
        for (int i = 0; i < 60; i++) {
            double drive = 0.1 + 3.9 * i / 59;
            Quantity u = reduction.ofRun(runs.get(i), "U").quantity().orElseThrow();
            assertThat(u.value()).as(runs.get(i).name()).isCloseTo(factor * drive, within(6 * u.u() + 1e-3));
        }
        assertThat(reduction.quantity("gain").orElseThrow().value()).isCloseTo(factor, within(0.002));
    }

    @Test
    void stepsBeyondTheRangeGiveNoRowAndSayWhy() {
        SheetReader.Located sheet = sheet("6.0 V");
        Rehearsal r = carriedOut(sheet);
        Reduction reduction = reduced(sheet, r);
        double factor = r.truth().get("gain").value();
        List<Run> without = reduction.runs().stream()
                .filter(x -> reduction.ofRun(x, "U").quantity().isEmpty())
                .toList();
        long beyond = java.util.stream.IntStream.range(0, 60)
                .filter(i -> factor * (0.1 + 5.9 * i / 59) > 4.09)
                .count();
        assertThat(beyond).isGreaterThan(10);
        assertThat(without)
                .hasSizeBetween((int) beyond - 1, (int) beyond + 1)
                .allSatisfy(x -> assertThat(reduction.ofRun(x, "U").problem())
                        .isEqualTo(x.name() + ": every sample of voltage is out of range."));
        assertThat(reduction.outcome("gain").problem())
                .isEqualTo(without.get(0).name() + ": every sample of voltage is out of range.");
        Session left = r.session();
        for (Run x : without) {
            left = new RunCommand.LeaveOut(x.id(), "at the rail").apply(left);
        }
        Quantity gain = reduced(sheet, r, left).quantity("gain").orElseThrow();
        assertThat(gain.value()).isCloseTo(factor, within(0.004));
    }
}

package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Trims and touch by the physics of a sheet: what it writes is what a hand does, at a reference and in a run. */
class HandsTest {
    private static final String SHEET = """
            sheet: 2
            id: hands
            title: Hands
            subject: Load
            devices: {logger: {label: Logger, driver: line}}
            channels:
              load: {label: load, unit: N, device: logger, rate: 100, needs: [0 N, 50 N], chain: [{kind: sensor, label: cell, from: N, to: V, gain: 0.05, noise: 0.0001}, {kind: converter, label: c, from: V, range: [-5, 5], bits: 20, coding: signed}],
                calibration: {kind: zero and span, relation: adjusted, band: 0.02 N, points: ["0 N", "40 N"], verify: ["20 N"]}}
              skin: {label: skin, unit: degC, device: logger, rate: 100, needs: [10 degC, 40 degC], position: wrist, chain: [{kind: sensor, label: probe, from: degC, to: V, gain: 0.1, noise: 0.00001}, {kind: converter, label: c, from: V, range: [-5, 5], bits: 20, coding: signed}]}
            captures:
              hang:
                label: Hang
                channels: [load, skin]
                quantities: {F: {label: force, unit: N, formula: mean(load)}, T: {label: skin, unit: degC, formula: mean(skin)}}
            results:
              F: {label: force, unit: N, formula: mean(hang.F)}
            rig:
              hidden:
                gain: "1.04(1) * (1 + 0.02 * load.span_turns + 0.001 * load.zero_turns)"
                off: "3.0(5) N + 2 N * load.zero_turns - 1 N * load.span_turns"
                wrist: "20 degC + 12 K * exp(-skin.touched / (2 s))"
              points: {signals: {load: gain * reference + off, skin: wrist}}
              hang:
                lasts: 1 s
                signals: {load: gain * (25 N) + off, skin: wrist}
              truth: {F: 25 N}
            """;

    private final SheetReader.Located sheet = SheetTrial.read(SHEET, "hands.yaml");

    private static double mean(SimulatedRig rig, int channel, double perUnit) {
        double sum = 0;
        for (int i = 0; i < 50; i++) {
            sum += rig.read()[channel];
            rig.advance(0.001);
        }
        return sum / 50 * (10 / Math.pow(2, 20)) / perUnit;
    }

    @Test
    void aTrimDoesWhatThePhysicsSays() {
        SimulatedRig rig = Rigs.of(sheet.sheet(), 4, Set.of());
        Map<String, String> none = Map.of("channel", "load", "part", "points", "point", "0", "reference", "0 N");
        rig.arrange(none);
        double before = mean(rig, 0, 0.05);
        rig.arrange(Map.of("channel", "load", "trim", "0", "turn", "1.5"));
        assertThat(mean(rig, 0, 0.05) - before).as("2 N a turn").isCloseTo(3, within(3e-3));
        rig.arrange(Map.of("channel", "load", "trim", "1", "turn", "-2"));
        assertThat(mean(rig, 0, 0.05) - before)
                .as("and 1 N a turn the other way")
                .isCloseTo(5, within(3e-3));
        rig.arrange(Map.of("capture", "hang", "level", ""));
        rig.begin();
        double g = rig.truth().get("gain") == null
                ? Double.NaN
                : rig.truth().get("gain").value();
        assertThat(g).as("what a trim changes is no truth of the session").isNaN();
    }

    @Test
    void aTouchWarmsWhatIsTouchedAndNothingElse() {
        SimulatedRig rig = Rigs.of(sheet.sheet(), 4, Set.of());
        assertThat(mean(rig, 1, 0.1)).isCloseTo(20, within(0.01));
        double load = mean(rig, 0, 0.05);
        rig.arrange(Map.of("touch", "wrist"));
        assertThat(mean(rig, 1, 0.1)).as("just now").isGreaterThan(31);
        rig.advance(2);
        assertThat(mean(rig, 1, 0.1))
                .as("12 K / e after two seconds")
                .isCloseTo(20 + 12 * Math.exp(-1.05), within(0.2));
        assertThat(mean(rig, 0, 0.05)).isCloseTo(load, within(0.01));
        rig.advance(60);
        assertThat(mean(rig, 1, 0.1)).isCloseTo(20, within(0.01));
    }

    @Test
    void whoFollowsTheAdvisorEndsWithinTheBandAndCoversTheTruth() {
        Rehearsal r = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 2, Set.of()), Instant.EPOCH);
        assertThat(r.session().calibrations()).hasSize(1);
        assertThat(RehearsalTrial.of(sheet, RehearsalTrial.SESSIONS)).isEmpty();
    }

    @Test
    void aTrimThatIsNotThereIsUnknown() {
        List<SheetException> found = SheetTrial.look(SHEET.replace("skin.touched", "skin.zero_turns"), "hands.yaml")
                .problems();
        assertThat(found).isNotEmpty();
        assertThat(found.get(0).getMessage()).contains("skin.zero_turns");
        int line =
                (int) SHEET.substring(0, SHEET.indexOf("skin.touched")).lines().count();
        assertThat(found.get(0).line())
                .as("where it is written, not where it is used")
                .isEqualTo(line);
    }

    /** The truth of a result of which the rig says nothing is what perfect instruments would find. */
    @Test
    void whatIsNotStatedIsWhatPerfectInstrumentsFind() {
        String more = SHEET.replace("results:\n", "results:\n  T: {label: skin, unit: degC, formula: mean(hang.T)}\n");
        SheetReader.Located located = SheetTrial.read(more, "hands.yaml");
        Map<String, Quantity> beyond = IdealSession.beyond(located, 3, Set.of("F"));
        assertThat(beyond).containsOnlyKeys("T");
        assertThat(beyond.get("T").value()).isCloseTo(20, within(1e-5));
        // The largest of a hundred noisy samples is no estimate of what they scatter about.
        String noise = more.replace("formula: mean(skin)", "formula: 'uncertain(max(values(skin)), 0.05 mK)'");
        RehearsalTrial.Verdict v =
                RehearsalTrial.look(SheetTrial.read(noise, "hands.yaml"), RehearsalTrial.SESSIONS, () -> false);
        assertThat(v.problems()).isEmpty();
        assertThat(v.notes())
                .anySatisfy(n -> assertThat(n.getMessage())
                        .contains("what perfect instruments would find lies within what is stated of T"));
    }
}

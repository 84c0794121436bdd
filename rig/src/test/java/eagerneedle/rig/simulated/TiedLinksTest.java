package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Constants of chains that inputs give: one amplifier, measured once, before two channels. */
class TiedLinksTest {
    private static final String SHEET = """
            sheet: 2
            id: bridge
            title: Bridge
            subject: Load
            inputs:
              G: {label: gain of the amplifier, value: "200.0(20)"}
              k: {label: gauge factor, value: "2.05(2) mV/mm"}
            channels:
              a: {label: a, unit: mm, rate: 100, needs: [-10 mm, 10 mm], chain: [{kind: sensor, label: gauge, from: mm, to: mV, gain: k}, {kind: conditioner, label: amplifier, from: mV, to: V, gain: G}, {kind: converter, label: c, from: V, range: [-10, 10], bits: 20, coding: signed}]}
              b: {label: b, unit: mV, rate: 100, needs: [-20 mV, 20 mV], chain: [{kind: conditioner, label: amplifier, from: mV, to: V, gain: G, offset: "0.000(2)"}, {kind: converter, label: c, from: V, range: [-10, 10], bits: 20, coding: signed}]}
            captures:
              hold:
                label: Hold
                channels: [a, b]
                quantities:
                  a_mean: {label: a, unit: mm, formula: mean(a)}
                  b_mean: {label: b, unit: mV, formula: mean(b)}
            results:
              far: {label: a, unit: mm, formula: mean(hold.a_mean)}
              high: {label: b, unit: mV, formula: mean(hold.b_mean)}
              ratio: {label: ratio, unit: mV/mm, formula: high / far}
            rig:
              hold:
                lasts: 2 s
                signals: {a: 5 mm, b: 8 mV}
              truth: {far: 5 mm, high: 8 mV, ratio: 1.6 mV/mm}
            """;

    private static SheetReader.Located sheet(String text) {
        return SheetTrial.read(text, "bridge.yaml");
    }

    private static Reducer reducer(SheetReader.Located sheet, Rehearsal r) {
        return new Reducer(
                sheet,
                (run, channel) -> r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE));
    }

    private static Quantity of(Reduction r, String name) {
        return r.quantity(name).orElseThrow();
    }

    @Test
    void whatOneInputGivesToSeveralChannelsMovesThemTogether() {
        SheetReader.Located sheet = sheet(SHEET);
        Rehearsal held = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), 5, Set.of()), Instant.EPOCH);
        Reducer reducer = reducer(sheet, held);
        Reduction r = reducer.reduce(held.session());
        assertThat(of(r, "high").u() / of(r, "high").value())
                .as("1 % of the gain")
                .isCloseTo(0.0100, within(3e-4));
        assertThat(of(r, "far").u() / of(r, "far").value())
                .as("with that of the gauge factor")
                .isCloseTo(Math.hypot(0.01, 0.02 / 2.05), within(3e-4));
        assertThat(of(r, "ratio").u() / of(r, "ratio").value())
                .as("the gain drops out, the gauge factor and the offset remain")
                .isCloseTo(Math.hypot(0.02 / 2.05, 0.002 / 1.6), within(3e-4));
        assertThat(Budget.of(of(r, "far")).lines())
                .extracting(Budget.Line::label)
                .contains("gain of the amplifier", "gauge factor");
        // Measured again: the counts stay, what they mean moves.
        Reduction other = reducer.reduce(
                new eagerneedle.core.session.PlanningCommand.SetMeasured("G", "gain of the amplifier", "210.0(1)")
                        .apply(held.session()));
        assertThat(of(other, "high").value())
                .isCloseTo(of(r, "high").value() * of(r, "G").value() / 210, within(1e-3));
        assertThat(of(other, "high").u() / 8).isLessThan(0.002);
    }

    @Test
    void coverageIsHeldSinceTheRigAssumesWhatTheReductionDoes() {
        SheetReader.Located sheet = sheet(SHEET);
        for (String name : new String[] {"far", "high", "ratio"}) {
            int inside = 0;
            double squares = 0;
            for (int seed = 0; seed < 100; seed++) {
                Rehearsal held = Rehearsal.of(sheet, Rigs.of(sheet.sheet(), seed, Set.of()), Instant.EPOCH);
                Quantity q = of(reducer(sheet, held).reduce(held.session()), name);
                double error = q.value() - held.truth().get(name).in(q.unit());
                inside += Math.abs(error) <= Coverage.DEFAULT.expanded(q) ? 1 : 0;
                squares += error * error / (q.u() * q.u()) / 100;
            }
            assertThat(inside).as(name).isGreaterThanOrEqualTo(90);
            assertThat(Math.sqrt(squares)).as(name).isBetween(0.8, 1.25);
        }
    }

    @Test
    void aWordIsNoInputThoughOneIsCalledSo() {
        String sheet = """
                sheet: 2
                id: pair
                title: Pair
                subject: Heat
                inputs:
                  K: {label: stiffness, value: "2.0(1) N/m"}
                channels:
                  T: {label: air, unit: degC, chain: [{kind: sensor, label: pair, from: degC, to: mV, law: thermocouple, of: {pair: K, reference: "0.0(1) degC"}}, {kind: converter, label: c, from: mV, range: [0, 50], bits: 16}]}
                results:
                  two: {label: two, unit: N/m, formula: 2 * K}
                """;
        assertThat(SheetTrial.look(sheet, "pair.yaml").problems()).isEmpty();
        assertThat(sheet(sheet).sheet().channels().get("T").chain().get(0).of()).containsEntry("pair", "K");
        assertThat(sheet(sheet).sheet().channels().get("T").chain().get(0).inputs())
                .isNull();
    }

    @Test
    void whatCannotBeAConstantIsTold() {
        assertThat(SheetTrial.look(SHEET.replace("2.05(2) mV/mm", "2.05(2) mV/s"), "bridge.yaml")
                        .problems())
                .singleElement()
                .satisfies(e -> assertThat(e.getMessage())
                        .contains("line 9", "k in mV/s cannot be the gain of gauge, which is in mV per mm"));
        assertThat(SheetTrial.look(SHEET.replace("gain: k", "gain: kk"), "bridge.yaml")
                        .problems())
                .as("a name that nobody knows")
                .isNotEmpty();
    }
}

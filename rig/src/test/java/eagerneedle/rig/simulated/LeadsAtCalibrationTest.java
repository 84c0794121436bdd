package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.watch.Finding;
import eagerneedle.core.watch.Rule;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** What a calibration betrays of leads: turned round, or on another input, alone in its bath or with all others. */
class LeadsAtCalibrationTest {
    private static final String TEXT = """
            sheet: 2
            id: two-cans
            title: Two cans
            subject: Heat
            place: "Tarn Hollow College · bench 3"
            question: Which can stays warm?
            principle: [{text: Mean, formula: "T = mean(T)"}]
            cautions: [Hot water.]
            sets: {can: {names: [near, far], at: [340 K, 310 K]}}
            devices: {logger: {label: Logger, driver: line}}
            channels:
              T: {each: can, label: [near can, far can], unit: degC, needs: [10 degC, 90 degC], device: logger, rate: 2,
                chain: [{kind: sensor, label: probe, from: degC, to: V, gain: "0.0400(1)", offset: "0.00(1)"}, {kind: converter, label: 16 bit, from: V, range: [-5, 5], bits: 16, noise: 0.001}],
                calibration: {kind: two baths, points: ["0.00(5) degC", "60.0(1) degC"], together: true}}
            captures:
              look: {label: Look, channels: [T], longest: 1 min, quantities: {warm: {each: can, unit: degC, formula: mean(T)}}}
            results: {T_can: {each: can, label: temperature, group: Result, unit: degC, formula: mean(look.warm)}}
            rig: {look: {signals: {T: {each: can, formula: at}}, lasts: 20 s}}
            """;

    private static List<Finding> found(String text, String fault) {
        SheetReader.Located sheet = SheetTrial.read(text, "two-cans.yaml");
        Rehearsal r = Rehearsal.of(
                sheet, Rigs.of(sheet.sheet(), 3, fault.isEmpty() ? Set.of() : Set.of(fault)), Instant.EPOCH);
        return new SessionWatch()
                .look(
                        new Reducer(
                                        sheet,
                                        (run, channel) -> r.samples()
                                                .getOrDefault(run, Map.of())
                                                .getOrDefault(channel, RawSamples.NONE))
                                .reduce(r.session()),
                        Instant.EPOCH.plusSeconds(86_400));
    }

    private static String alone() {
        return TEXT.replace(", together: true", "");
    }

    @Test
    void nothingIsSaidOfLeadsThatAreRight() {
        for (String text : new String[] {TEXT, alone()}) {
            assertThat(found(text, ""))
                    .extracting(Finding::rule)
                    .doesNotContain(Rule.REVERSED, Rule.SWAPPED, Rule.OUT_OF_RANGE);
        }
    }

    @Test
    void aSensorThatFallsWhereItsReferenceRisesIsReversed() {
        for (String text : new String[] {TEXT, alone()}) {
            assertThat(found(text, "reversed"))
                    .filteredOn(f -> f.rule() == Rule.REVERSED)
                    .singleElement()
                    .satisfies(f -> {
                        assertThat(f.channel()).isEqualTo("T.far");
                        assertThat(f.run()).isZero();
                        assertThat(f.message())
                                .isEqualTo("When it was calibrated, far can fell where its reference rose.");
                        assertThat(f.remedy()).contains("two leads");
                    });
        }
    }

    /** The cause is told once: what the runs then show is no riddle any more. */
    @Test
    void guessesAboutItsRunsAreNotMade() {
        String limited = alone().replace("offset: \"0.00(1)\"}", "offset: \"0.00(1)\", lowest: -5, highest: 110}");
        assertThat(found(limited, "open")).extracting(Finding::rule).contains(Rule.OUT_OF_RANGE);
        assertThat(found(limited, "reversed"))
                .extracting(Finding::rule)
                .contains(Rule.REVERSED)
                .doesNotContain(Rule.OUT_OF_RANGE);
    }

    @Test
    void aProbeThatIsOnAnotherInputDoesNotAnswerUnlessBothStandInOneBath() {
        assertThat(found(alone(), "swapped"))
                .filteredOn(f -> f.rule() == Rule.SWAPPED)
                .hasSize(2)
                .allSatisfy(f -> assertThat(f.message()).contains("did not answer to its references"));
        assertThat(found(TEXT, "swapped")).extracting(Finding::rule).doesNotContain(Rule.SWAPPED, Rule.REVERSED);
    }
}

package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.capture.Seeker;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What outputs are set to, what is sought, and how it is come by. */
class OutputsTest {
    private static final String SHEET = """
            sheet: 2
            id: whirl
            title: A bob on an arm
            subject: motion
            inputs:
              per_volt: {label: volts a speed, value: "2.1 V*s/m"}
            devices:
              bench: {label: Bench, driver: line, outputs: {motor: {label: motor, unit: V, lowest: 0, highest: 12, safe: 0}}}
            channels:
              speed: {label: speed, unit: m/s, device: bench, rate: 50, chain: [{kind: converter, label: 12 bit, from: m/s, range: [0, 4.096], bits: 12}]}
            captures:
              whirl:
                label: Whirling
                mode: hold
                channels: [speed]
                levels:
                  slow: {set: {v: "1.0 m/s"}, outputs: {motor: "v * per_volt"}}
                  fast: {set: {v: "2.0 m/s"}, outputs: {motor: 4.5}}
                seek: {output: motor, until: "speed = v", within: 1 %}
                quantities:
                  u: {label: speed, unit: m/s, formula: "mean(speed)"}
            results:
              u: {label: speed, unit: m/s, formula: "mean(whirl.u)"}
            rig:
              whirl: {signals: {speed: "motor / per_volt"}, lasts: 1 s}
            """;

    private static Reduction plan() {
        SheetReader.Located located = SheetTrial.read(SHEET, "whirl.yaml");
        return new Reducer(located, (run, channel) -> RawSamples.NONE)
                .reduce(Session.start(SHEET, "whirl", Instant.EPOCH));
    }

    @Test
    void anOutputIsSetByAFormulaOrByANumberInItsUnit() {
        assertThat(LevelOutputs.of(plan(), "whirl", "slow")).containsOnlyKeys("motor");
        assertThat(LevelOutputs.of(plan(), "whirl", "slow").get("motor")).isCloseTo(2.1, within(1e-12));
        assertThat(LevelOutputs.of(plan(), "whirl", "fast").get("motor")).isEqualTo(4.5);
    }

    @Test
    void aTargetIsReadFromTheNewestSamples() {
        LiveTarget t = LiveTarget.of(plan(), "whirl", "fast").orElseThrow();
        assertThat(t.target().value()).isEqualTo(2);
        assertThat(t.band()).isCloseTo(0.02, within(1e-12));
        assertThat(t.now(c -> RawSamples.NONE, c -> RawSamples.NONE)).isEmpty();
        RawSamples at = new RawSamples(new double[] {0.1, 0.2}, new double[] {100, 1990});
        double now = t.now(c -> at, c -> at).orElseThrow();
        assertThat(now).isCloseTo(1.99, within(1e-3));
        assertThat(t.isThere(now)).isTrue();
        assertThat(t.isThere(1.97)).isFalse();
        assertThat(t.isThere(Double.NaN)).isFalse();
    }

    /** A straight output is found at the second turn, a bent one in a few; limits are never passed. */
    @Test
    void aTargetIsComeBy() {
        Seeker seeker = new Seeker(0, 12, 0.005);
        double at = 0;
        int turns = 0;
        while (Math.abs(Math.sqrt(Math.max(0, at - 0.4)) - 2) > 0.01 && turns < 40) {
            at = seeker.next(at, Math.sqrt(Math.max(0, at - 0.4)) - 2);
            assertThat(at).isBetween(0.0, 12.0);
            turns++;
        }
        assertThat(turns).isLessThan(15);
        Seeker never = new Seeker(0, 12, 0);
        double v = 0;
        for (int i = 0; i < 50; i++) {
            v = never.next(v, v - 100);
            assertThat(v).isBetween(0.0, 12.0);
        }
        assertThat(v).isEqualTo(12);
        assertThat(new Seeker(0, 12, 0).next(3, Double.NaN)).isBetween(0.0, 12.0);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            v * per_volt"            | v * per_volts"           | the name per_volts is not known here; did you mean per_volt?
            v * per_volt"            | v"                       | The motor is set in V; v is in m/s
            v * per_volt"            | v * 10 * per_volt"       | The motor stays between 0 and 12 V
            motor: 4.5               | motor: 45                | The motor stays between 0 and 12 V
            motor: 4.5               | moter: 4.5               | no device has an output moter; did you mean motor?
            {output: motor, until    | {output: moter, until    | no device has an output moter; did you mean motor?
            until: "speed = v"       | until: "sped = v"        | the name sped is not known here; did you mean speed?
            until: "speed = v"       | until: "speed > v"       | one equals sign
            within: 1 %              | within: close            | close
            within: 1 %              | within: 0 %              | is nothing; write how close as a quantity
            until: "speed = v"       | until: "speed * 1 s = v" | what is read is in m, and its target is
            mode: hold               | mode: stream             | give this capture 'mode: hold'
            {output: motor, until    | {by: program, until      | the program turns an output: say which one
            """)
    void whatIsWrongIsSaid(String good, String wrong, String why) {
        assertThat(SHEET).contains(good);
        assertThat(SheetTrial.look(SHEET.replace(good, wrong), "whirl.yaml").problems())
                .extracting(SheetException::getMessage)
                .anySatisfy(m -> assertThat(m).contains(why));
    }

    @Test
    void whatNoInstrumentHasIsSaid() {
        assertThatThrownBy(() -> LevelOutputs.output(plan().sheet(), "heater"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith("No instrument has an output heater");
    }
}

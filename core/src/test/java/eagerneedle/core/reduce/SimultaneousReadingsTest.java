package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import org.junit.jupiter.api.Test;

/**
 * CountedSamples of one run belong together: resistance and reactance of a circuit element, the example H.2 of JCGM
 * 100, by the formulas one would write.
 */
class SimultaneousReadingsTest {
    private static final double[][] H2 = {
        {5.007, 19.663, 1.0456},
        {4.994, 19.639, 1.0438},
        {5.005, 19.640, 1.0468},
        {4.990, 19.685, 1.0428},
        {4.999, 19.678, 1.0433}
    };
    private static final String SHEET = """
            sheet: 1
            id: element
            title: Impedance of an element
            subject: Electricity
            question: Which resistance and reactance has it?
            devices:
              d: {label: A meter, driver: line}
            channels:
              volts: {label: volts, unit: V, device: d, chain: [{kind: converter, label: 12 bit, from: V, range: [0, 10], bits: 12}]}
            captures:
              meter:
                label: Readings
                mode: hold
                channels: [volts]
                levels:
                  a: {label: once}
                  b: {label: twice}
                by_eye:
                  V: {label: voltage, value: 5 V}
                  I: {label: current, value: 19.6 mA}
                  phi: {label: phase, value: 1.04 rad}
                  w: {label: another, value: 1.0 V}
            results:
              V: {label: voltage, unit: V, formula: mean(meter.V)}
              I: {label: current, unit: mA, formula: mean(meter.I)}
              phi: {label: phase, unit: rad, formula: mean(meter.phi)}
              R: {label: resistance, unit: ohm, formula: V / I * cos(phi)}
              X: {label: reactance, unit: ohm, formula: V / I * sin(phi)}
              Z: {label: impedance, unit: ohm, formula: V / I}
              none: {label: nothing, unit: V, formula: mean(meter.V) - V}
              rows: {label: resistance row by row, unit: ohm, formula: mean(meter.V / meter.I * cos(meter.phi))}
              once: {label: the one at a, unit: V, formula: 'row(meter.V, "a")'}
              second: {label: the level b, unit: V, formula: 'row(meter.V, 2)'}
            """;

    private static Session session(int runs) {
        Session s = Session.start(SHEET, "Impedance", Instant.parse("2026-11-23T09:00:00Z"));
        for (int i = 0; i < runs; i++) {
            s = new RunCommand.KeepRun(Run.captured(
                            i + 1,
                            "meter",
                            i == 0 ? "a" : "b",
                            Instant.parse("2026-11-23T10:00:00Z"),
                            "by eye",
                            Run.COUNTS))
                    .apply(s);
            s = new RunCommand.EnterByEye(i + 1, "V", "V", H2[i][0] + " V").apply(s);
            s = new RunCommand.EnterByEye(i + 1, "I", "I", H2[i][1] + " mA").apply(s);
            s = new RunCommand.EnterByEye(i + 1, "phi", "phi", H2[i][2] + " rad").apply(s);
            s = new RunCommand.EnterByEye(i + 1, "w", "w", "1.0 V").apply(s);
        }
        return s;
    }

    private static Reduction reduce(Session s) {
        return new Reducer(SheetReader.read(SHEET, "element.yaml"), (run, channel) -> RawSamples.NONE).reduce(s);
    }

    private static Quantity q(Reduction r, String name) {
        return r.quantity(name)
                .orElseThrow(() -> new AssertionError(r.outcome(name).problem()));
    }

    @Test
    void theExampleOfTheGuideComesOutByTheNaturalFormulas() {
        Reduction r = reduce(session(5));
        assertThat(q(r, "R").toString()).isEqualTo("127.732(71) Ω");
        assertThat(q(r, "X").value()).isCloseTo(219.847, within(5e-4));
        assertThat(q(r, "X").u()).isCloseTo(0.2955, within(1e-3));
        assertThat(q(r, "Z").value()).isCloseTo(254.260, within(5e-4));
        assertThat(q(r, "Z").u()).isCloseTo(0.236, within(5e-4));
        assertThat(q(r, "V").u()).isCloseTo(0.0032, within(5e-5));
        assertThat(q(r, "I").u()).isCloseTo(0.0095, within(5e-5));
        assertThat(q(r, "phi").u()).isCloseTo(0.00075, within(5e-6));
        assertThat(q(r, "V").correlation(q(r, "I"))).isCloseTo(-0.355, within(5e-3));
        assertThat(q(r, "V").correlation(q(r, "phi"))).isCloseTo(0.858, within(5e-3));
        assertThat(q(r, "I").correlation(q(r, "phi"))).isCloseTo(-0.645, within(5e-3));
        assertThat(q(r, "R").correlation(q(r, "X"))).isCloseTo(-0.588, within(5e-3));
        assertThat(q(r, "R").correlation(q(r, "Z"))).isCloseTo(-0.485, within(5e-3));
        assertThat(q(r, "X").correlation(q(r, "Z"))).isCloseTo(0.993, within(5e-3));
        assertThat(q(r, "R").dof()).as("five readings of each, taken together").isCloseTo(4, within(1e-9));
    }

    @Test
    void rowByRowIsTheSame() {
        Reduction r = reduce(session(5));
        assertThat(q(r, "rows").value()).isCloseTo(q(r, "R").value(), within(2e-3));
        assertThat(q(r, "rows").u()).isCloseTo(q(r, "R").u(), within(5e-4));
        assertThat(q(r, "rows").minus(q(r, "R")).u())
                .as("and nearly the same reading")
                .isLessThan(0.01);
    }

    @Test
    void theSameMeanTwiceIsOne() {
        Reduction r = reduce(session(5));
        assertThat(q(r, "none").value()).isZero();
        assertThat(q(r, "none").u()).isZero();
    }

    @Test
    void budgetsAndDrawsKnowWhatIsSeenTogether() {
        Quantity z = q(reduce(session(5)), "R");
        assertThat(eagerneedle.core.quantity.Budget.of(z).lines().stream()
                        .mapToDouble(eagerneedle.core.quantity.Budget.Line::share)
                        .sum())
                .isCloseTo(1, within(1e-9));
        double[] draws = eagerneedle.core.quantity.Covariance.draws(java.util.List.of(z), 200_000, 3)[0];
        java.util.Arrays.sort(draws);
        assertThat((draws[195_000] - draws[5_000]) / 2)
                .as("of 4 degrees of freedom")
                .isCloseTo(2.776 * z.u(), within(0.02 * 2.776 * z.u()));
    }

    @Test
    void aRowIsAddressedByItsLevel() {
        Session two = session(2);
        assertThat(q(reduce(two), "once").value()).isEqualTo(5.007);
        assertThat(q(reduce(two), "second").value()).isEqualTo(4.994);
        Session without = new RunCommand.LeaveOut(1, "test").apply(two);
        assertThat(reduce(without).outcome("once").problem()).contains("No run of meter at a counts");
        assertThat(q(reduce(without), "second").value())
                .as("what is left out shifts nothing")
                .isEqualTo(4.994);
        assertThat(reduce(session(3)).outcome("second").problem()).contains("There are 2 runs of meter at b");
    }
}

package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/**
 * What a session may choose beside its sheet: quantities of its own, hidden references, samples that do not count; and
 * the law of its results.
 */
class ChoicesTest {
    private static final Instant DAY = Instant.parse("2026-11-24T09:00:00Z");
    private static final String SHEET = """
            sheet: 1
            id: ohm
            title: A resistor
            subject: Electricity
            inputs:
              R_dial: {label: dial of the box, value: "100.0(5) ohm"}
              shared: {label: scale of the meter, value: "1.000(4)"}
              R_lead: {label: leads, value: "0.20(3) ohm"}
            planned:
              R_planned: {label: resistance expected, value: "100.0(1) ohm"}
            devices: {meter: {label: Meter, driver: manual}}
            channels:
              volts: {label: voltage, unit: V, device: meter, rate: 1, chain: [{kind: converter, label: display, from: V, step: 0.001, bits: 16}]}
            captures:
              row:
                label: Rows
                channels: [volts]
                levels: {a: {label: 10 mA, set: {I: "10.00(2) mA"}}, b: {label: 20 mA, set: {I: "20.00(2) mA"}}, c: {label: 30 mA, set: {I: "30.00(2) mA"}}}
                quantities:
                  V: {label: mean voltage, unit: V, formula: "mean(volts) * shared", planned: "I * fresh(R_planned) * shared"}
            results:
              law: {formula: "line(row.V, row.I)"}
              R_s: {label: slope, unit: ohm, formula: "slope(law)"}
              R: {label: resistance, unit: ohm, formula: "R_s - R_lead"}
              both: {label: two in a row, unit: ohm, formula: "R + R_dial"}
              P: {label: power at one volt, unit: mW, formula: "(1 V)^2 / R * shared^2"}
            statements:
              - {label: Routes, formula: "routes(R, R_dial)"}
              - {label: Which, formula: "nearest(R, \\"hundred\\", 100(1) ohm, \\"fifty\\", 50(1) ohm)"}
            comparisons:
              - {id: dial, label: Against the dial, result: R, reference: R_dial, main: true}
            """;
    private final SheetReader.Located sheet = SheetTrial.read(SHEET, "ohm.yaml");
    private final Reducer reducer =
            new Reducer(sheet, (run, channel) -> new RawSamples(new double[] {0, 1, 2, 3}, volts(run)));
    private Session session = Session.start(SHEET, "ohm", DAY);

    private static double[] volts(int run) {
        double v = 1000 * 1.003 * run;
        return new double[] {v, v + 2, v - 1, v + 1};
    }

    @BeforeEach
    void threeRows() {
        for (String level : List.of("a", "b", "c")) {
            apply(new RunCommand.KeepRun(Run.captured(session.nextRunId(), "row", level, DAY, "meter", Run.COUNTS)));
        }
    }

    private void apply(Command c) {
        session = c.apply(session);
    }

    private static Derived derived(String formula, String unit) {
        return new Derived("mine", null, null, unit, formula, null);
    }

    @Test
    void aColumnByFormulaIsWorkedOutForEveryRunAndMayBeUsedByAResult() {
        apply(new ReducingCommand.AddQuantity("row", "r", derived("V / I", "ohm")));
        apply(new ReducingCommand.AddQuantity(Session.RESULTS, "r_mean", derived("mean(row.r)", "ohm")));
        Reduction r = reducer.reduce(session);
        double mean = 0;
        for (Run run : session.runs()) {
            double v = r.ofRun(run, "V").quantity().orElseThrow().value();
            double i = 0.01 * run.id();
            assertThat(r.ofRun(run, "r").quantity().orElseThrow().value()).isCloseTo(v / i, within(1e-9));
            mean += v / i / 3;
        }
        assertThat(r.quantity("r_mean").orElseThrow().value()).isCloseTo(mean, within(1e-9));
        assertThat(r.ledger().entries()).extracting(Ledger.Entry::name).contains("row[2].r", "r_mean");
        apply(new ReducingCommand.AddQuantity("row", "r", null));
        assertThat(reducer.reduce(session).outcome("r_mean").problem()).contains("row.r");
        apply(new ReducingCommand.AddQuantity(Session.RESULTS, "r_mean", null));
        assertThat(session.own()).isEmpty();
        assertThat(reducer.sheetOf(session)).isSameAs(sheet.sheet());
    }

    @Test
    void whatCannotBeAddedIsRefusedOrSaid() {
        assertThatThrownBy(() -> apply(new ReducingCommand.AddQuantity("row", "2r", derived("V", null))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("begins with a letter");
        assertThatThrownBy(() -> apply(new ReducingCommand.AddQuantity("row", "r", derived("V / ", null))))
                .hasMessageContaining("column");
        assertThatThrownBy(() -> apply(new ReducingCommand.AddQuantity("row", "r", derived("V", "furlong"))))
                .hasMessageContaining("furlong");
        apply(new ReducingCommand.AddQuantity("row", "r", derived("V / current", null)));
        assertThat(reducer.reduce(session)
                        .ofRun(session.run(1).orElseThrow(), "r")
                        .problem())
                .contains("no current");
        apply(new ReducingCommand.AddQuantity("row", "r", derived("V + I", null)));
        assertThat(reducer.reduce(session)
                        .ofRun(session.run(1).orElseThrow(), "r")
                        .problem())
                .startsWith("In the formula that was added, column 1:")
                .contains("'V + I'");
        // A quantity of the sheet stays what it is.
        apply(new ReducingCommand.AddQuantity("row", "V", derived("2 V", null)));
        assertThat(reducer.reduce(session)
                        .ofRun(session.run(1).orElseThrow(), "V")
                        .quantity()
                        .orElseThrow()
                        .value())
                .isCloseTo(1.003, within(0.01));
    }

    @Test
    void blindWorkHidesReferencesUntilTheResultIsLocked() {
        Reduction open = reducer.reduce(session);
        assertThat(open.comparisons()).hasSize(1);
        assertThatThrownBy(() -> apply(new JudgeCommand.LockResults(DAY, Map.of("dial", "1 ohm"))))
                .hasMessageContaining("not hidden");
        apply(new JudgeCommand.HideReferences(DAY));
        Reduction blind = reducer.reduce(session);
        assertThat(blind.comparisons()).isEmpty();
        assertThat(blind.isHidden("R_dial")).isTrue();
        assertThat(blind.isHidden("R")).isFalse();
        assertThat(blind.ledger().named("R_dial").orElseThrow().instead()).isEqualTo(Reduction.HIDDEN);
        assertThat(blind.ledger().named("R").orElseThrow().quantity()).isPresent();
        assertThat(blind.statements().get(0).problem())
                .as("a statement that would tell")
                .isEqualTo(Reduction.HIDDEN);
        assertThat(blind.statements().get(1).sentence()).isPresent();
        assertThatThrownBy(() -> apply(new JudgeCommand.HideReferences(DAY))).hasMessageContaining("hidden already");

        apply(new JudgeCommand.LockResults(DAY.plusSeconds(60), blind.results()));
        Reduction seen = reducer.reduce(session);
        assertThat(seen.comparisons()).hasSize(1);
        assertThat(session.blind().locked())
                .containsEntry("dial", seen.quantity("R").orElseThrow().toString());
        assertThatThrownBy(() -> apply(new JudgeCommand.HideReferences(DAY))).hasMessageContaining("cannot be unseen");
    }

    @Test
    void samplesThatDoNotCountAreTakenInAgain() {
        double all = reducer.reduce(session)
                .ofRun(session.run(1).orElseThrow(), "V")
                .quantity()
                .orElseThrow()
                .value();
        apply(new RunCommand.VoidSamples(1, 0.5, 1.5, "knocked"));
        double without = reducer.reduce(session)
                .ofRun(session.run(1).orElseThrow(), "V")
                .quantity()
                .orElseThrow()
                .value();
        assertThat(without).isCloseTo(1.003, within(1e-9)).isNotEqualTo(all);
        Entries.Voided span = session.run(1).orElseThrow().entries().voided().get(0);
        apply(new RunCommand.CountSamples(1, span));
        assertThat(reducer.reduce(session)
                        .ofRun(session.run(1).orElseThrow(), "V")
                        .quantity()
                        .orElseThrow()
                        .value())
                .isEqualTo(all);
    }

    /** The law of a result in numbers: alone as a root sum of squares, and what shared influences make of it. */
    @Test
    void theLawOfAResultGivesItsUncertainty() {
        Reduction r = reducer.reduce(session);
        List<LawOfResult> laws = r.laws("both", School.STANDARD);
        assertThat(laws).extracting(LawOfResult::key).containsExactly("both", "R");
        LawOfResult both = laws.get(0);
        assertThat(both.law()).isEqualTo("u(both)^2 = u(R)^2 + u(R_dial)^2");
        assertThat(both.shares()).as("nothing is shared").isFalse();
        assertThat(both.alone()).isCloseTo(r.quantity("both").orElseThrow().u(), within(1e-12));
        LawOfResult power = r.laws("P", School.STANDARD).get(0);
        assertThat(power.law()).isEqualTo("(u(P) / P)^2 = (u(R) / R)^2 + (2 * u(shared) / shared)^2");
        Quantity p = r.quantity("P").orElseThrow();
        assertThat(power.shares()).as("the meter's scale is in R as well").isTrue();
        assertThat(power.stated()).isEqualTo(p.u()).isLessThan(power.alone());
        double root = Math.sqrt(power.terms().stream()
                .mapToDouble(t -> t.contribution() * t.contribution())
                .sum());
        assertThat(power.alone()).isCloseTo(root, within(1e-15));
        LawOfResult limits = r.laws("both", School.LIMITS).get(0);
        assertThat(limits.law()).isEqualTo("a(both) = a(R) + a(R_dial)");
        assertThat(limits.alone())
                .isCloseTo(
                        r.quantity("R").orElseThrow().limit()
                                + r.quantity("R_dial").orElseThrow().limit(),
                        within(1e-12));
        assertThat(r.laws("both", School.PERCENT).get(0).law()).isEmpty();
        assertThat(r.laws("R_s", School.STANDARD))
                .as("a fit has no law of its own")
                .isEmpty();
    }

    @Test
    void aStatementTellsWhatItIsAbout() {
        Reduction r = reducer.reduce(session);
        Stated routes = r.statements().get(0);
        assertThat(routes.quantities())
                .extracting(Reduction.Labelled::label)
                .containsExactly("resistance", "dial of the box");
        assertThat(routes.bound()).isEmpty();
        Stated which = r.statements().get(1);
        assertThat(which.quantities())
                .extracting(Reduction.Labelled::label)
                .containsExactly("resistance", "hundred", "fifty");
        assertThat(which.quantities().get(2).quantity().value()).isEqualTo(50);
    }
}

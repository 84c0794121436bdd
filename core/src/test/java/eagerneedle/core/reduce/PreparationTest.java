package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.calibration.Relation;
import eagerneedle.core.chain.Link;
import eagerneedle.core.plan.PlanChange;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.RawSamples;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What is planned, tied, set up and calibrated, and what follows from it in numbers. */
class PreparationTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final String SHEET = """
            sheet: 1
            id: pull
            title: Pull
            subject: Trial
            inputs:
              length: {label: length, value: "250 limit 2 mm", by: steel rule}
              width: {label: width, value: "20.0 limit 0.5 mm"}
            planned:
              scatter: {label: scatter, value: "0.0(1) N"}
            channels:
              force:
                label: force
                unit: N
                needs: [0 N, 20 N]
                rate: 10
                chain:
                  - {kind: sensor, label: hook, from: N, to: V, gain: "0.100(1)", offset: "0.00(1)"}
                  - {kind: converter, label: logger, from: V, range: [-5, 5], bits: 16, coding: signed, ranges: [[-1, 1], [-5, 5]]}
                calibration: {kind: zero, relation: offset, points: ["0.000(1) N"], days: 30}
            captures:
              pulls:
                label: Pulls
                channels: [force]
                repeats: 2
                minutes: 3
                levels: {one: {label: one}}
                quantities:
                  F: {label: force, formula: "mean(force)", planned: "10 N + fresh(scatter)"}
            results:
              F: {label: mean force, unit: N, formula: "mean(pulls.F)"}
              stress: {label: stress, unit: N/mm, formula: "F / length * (width / (20 mm))"}
            comparisons:
              - {id: a, label: a, result: stress, reference: F_ref}
            """.replace("F_ref", "stress");
    private final SheetReader.Located sheet = SheetReader.read(SHEET, "pull.yaml");
    private double volts = 1.0;
    private final Reducer reducer = new Reducer(sheet, (run, channel) -> samples());
    private Session session = Session.start(SHEET, "Pull", DAY);

    private RawSamples samples() {
        double[] t = new double[40];
        double[] v = new double[40];
        for (int i = 0; i < t.length; i++) {
            t[i] = i / 10.0;
            v[i] = Math.rint(volts * 6553.6) + i % 2;
        }
        return new RawSamples(t, v);
    }

    private void act(Command c) {
        session = c.apply(session);
    }

    private static Instrument tool(
            String id, String name, String high, String resolution, String accuracy, double minutes) {
        return new Instrument(
                id,
                "hand instrument",
                name,
                "mm",
                null,
                List.of("0 mm", high),
                resolution,
                1,
                accuracy,
                null,
                null,
                minutes,
                null,
                null,
                null,
                false);
    }

    private final Instrument rule = tool("R-1", "rule", "1000 mm", "1 mm", "0.2 mm", 1);
    private final Instrument caliper = tool("C-1", "caliper", "300 mm", "0.02 mm", "0.03 mm", 2);
    private final Instrument scope = tool("M-1", "microscope", "400 mm", "0.01 mm", "0.005 mm", 20);

    @Test
    void aTiedInstrumentSpeaksForTheReadingAndIsSharedByTwo() {
        double before = reducer.plan(session).quantity("length").orElseThrow().u();
        act(new PlanningCommand.TieInput("length", "length", caliper));
        act(new PlanningCommand.TieInput("width", "width", caliper));
        Reduction plan = reducer.plan(session);
        Quantity length = plan.quantity("length").orElseThrow();
        assertThat(length.value()).isEqualTo(250);
        assertThat(length.u())
                .isCloseTo(Math.hypot(0.03, 0.01) / Math.sqrt(3), within(1e-9))
                .isLessThan(before);
        assertThat(length.correlation(plan.quantity("width").orElseThrow()))
                .as("one caliper, one error")
                .isGreaterThan(0.85);
        act(new PlanningCommand.SetPlanned("length", "length", "250.0(9) mm"));
        assertThat(reducer.plan(session).quantity("length").orElseThrow().u())
                .as("what a person writes comes first")
                .isCloseTo(0.9, within(1e-9));
        act(new PlanningCommand.SetMeasured("length", "length", "251.3 mm"));
        assertThat(reducer.reduce(session).quantity("length").orElseThrow().u())
                .as("a bare number read with it")
                .isCloseTo(Math.hypot(0.03, 0.01) / Math.sqrt(3), within(1e-9));
    }

    @Test
    void whatItWouldTakeIsFoundByTryingEveryChange() {
        Quantity now = reducer.plan(session).quantity("stress").orElseThrow();
        Improvements improvements = new Improvements(reducer, session, List.of(rule, caliper, scope), "stress");
        List<Improvements.Possible> all = improvements.all();
        assertThat(all).isNotEmpty().allMatch(p -> p.change().result().u() < now.u());
        for (Improvements.Possible p : all) {
            assertThat(reducer.planIf(p.act().apply(session))
                            .quantity("stress")
                            .orElseThrow()
                            .u())
                    .as(p.change().says())
                    .isEqualTo(p.change().result().u());
        }
        // Width leads: 0.29 mm of 20 mm, 1.4 %. The rule is no better; the caliper is enough and quicker than the
        // microscope.
        double target = 0.012 * now.value();
        assertThat(PlanChange.cheapest(
                                all.stream().map(Improvements.Possible::change).toList(), target)
                        .orElseThrow()
                        .says())
                .isEqualTo("read width with caliper C-1");
        double hard = 0.0065 * now.value();
        List<Improvements.Possible> way = improvements.way(hard);
        assertThat(way).hasSizeGreaterThan(1);
        assertThat(way.get(way.size() - 1).change().result().u()).isLessThanOrEqualTo(hard);
        assertThat(improvements.way(1e-9)).as("it ends when nothing helps").hasSizeLessThanOrEqualTo(4);
        assertThat(improvements.instrumentsFor("length"))
                .extracting(c -> c.instrument().id())
                .containsExactly("M-1", "C-1", "R-1");
        assertThat(Improvements.target("0.5 %", now)).isCloseTo(0.005 * now.value(), within(1e-12));
        assertThatThrownBy(() -> Improvements.target("-1 %", now)).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void moreRunsBringTheScatterDown() {
        double two = reducer.plan(session).quantity("F").orElseThrow().u();
        act(new PlanningCommand.SetRepeats("pulls", 8));
        assertThat(reducer.plan(session).quantity("F").orElseThrow().u()).isCloseTo(two / 2, within(1e-9));
        assertThatThrownBy(() -> act(new PlanningCommand.SetRepeats("pulls", 0)))
                .hasMessageContaining("from 1 to 1000");
    }

    @Test
    void aChainChangedLaterDoesNotReinterpretARunCapturedBefore() {
        act(new RunCommand.KeepRun(Run.captured(1, "pulls", "one", DAY, "logger", Run.COUNTS)));
        double before = reducer.reduce(session).quantity("F").orElseThrow().value();
        Link narrow = sheet.sheet().channels().get("force").chain().get(1).withRange(-1, 1);
        act(new RigCommand.SetUp(
                "force",
                session.setup("force")
                        .withChain(List.of(
                                sheet.sheet().channels().get("force").chain().get(0), narrow)),
                "narrower"));
        assertThat(reducer.reduce(session).quantity("F").orElseThrow().value()).isEqualTo(before);
        act(new RunCommand.KeepRun(
                Run.captured(2, "pulls", "one", DAY, "logger", Run.COUNTS).setUp(session.setups())));
        assertThat(reducer.reduce(session)
                        .ofRun(session.run(2).orElseThrow(), "F")
                        .quantity()
                        .orElseThrow()
                        .value())
                .as("the same counts in a range five times narrower")
                .isCloseTo(before / 5, within(0.01));
        assertThatThrownBy(() -> act(new RigCommand.SetUp(
                        "force",
                        session.setup("force")
                                .withChain(List.of(sheet.sheet()
                                        .channels()
                                        .get("force")
                                        .chain()
                                        .get(0))),
                        "broken")))
                .isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void anUncalibratedChainPutsItsOwnUncertaintyIntoTheBudget() {
        act(new RunCommand.KeepRun(Run.captured(1, "pulls", "one", DAY, "logger", Run.COUNTS)));
        Quantity raw = reducer.reduce(session).quantity("F").orElseThrow();
        // One percent of 10 N by the gain, 10 mV over 0.1 V/N by the offset.
        assertThat(raw.u()).isCloseTo(Math.hypot(0.1, 0.1), within(0.002));
        act(new CalibrationCommand.Calibrate(zero(0.2, DAY.plus(Duration.ofDays(30)))));
        Reduction after = reducer.reduce(session);
        Quantity zeroed = after.quantity("F").orElseThrow();
        assertThat(zeroed.value()).isCloseTo(raw.value() - 0.2, within(1e-6));
        assertThat(zeroed.u()).as("the offset is gone, the gain stays").isCloseTo(0.097, within(0.001));
        assertThat(after.quantity("force.intercept").orElseThrow().value()).isCloseTo(-0.2, within(1e-9));
        assertThat(after.doubts(zeroed, DAY)).isEmpty();
        assertThat(after.doubts(zeroed, DAY.plus(Duration.ofDays(31))))
                .as("a run is judged by the day it was captured on")
                .isEmpty();
        act(new CalibrationCommand.Calibrate(zero(0.2, DAY.minus(Duration.ofDays(1)))));
        Reduction overdue = reducer.reduce(session);
        assertThat(overdue.doubts(overdue.quantity("F").orElseThrow(), DAY))
                .hasSize(1)
                .first()
                .asString()
                .contains("force")
                .contains("was due on 2026-11-22");
    }

    private static Calibration zero(double reads, Instant due) {
        return new Calibration(
                "z",
                "force",
                "zero",
                Relation.OFFSET,
                "N",
                List.of(new CalibrationPoint("0.000(1) N", reads, 0.001, 100, true)),
                List.of(),
                null,
                null,
                DAY,
                due,
                "x",
                "",
                "",
                null,
                null);
    }

    @Test
    void samplesOfAMeterInTheConvertersPlaceGoBackThroughTheChain() {
        volts = 1.0 / 6553.6;
        act(new RunCommand.KeepRun(Run.captured(1, "pulls", "one", DAY, "meter", "V")));
        // Samples of 0 V and 1 V in turn, 0.1 V a newton.
        assertThat(reducer.reduce(session).quantity("F").orElseThrow().value())
                .isCloseTo(5 + 10 * Math.rint(1.0), within(1e-6));
    }

    @Test
    void aTimerThatRunsIsAWatch() {
        SheetReader.Located timed = SheetReader.read(
                SHEET.replace(
                        "captures:", "prepare:\n  - {id: warm, text: Amplifier warmed up, minutes: 20}\ncaptures:"),
                "timed.yaml");
        Session s = new RigCommand.StartTimer("warm", "amplifier", DAY).apply(Session.start(SHEET, "x", DAY));
        Reduction r = new Reducer(timed, (run, channel) -> RawSamples.NONE).reduce(s);
        assertThat(new SessionWatch().look(r, DAY.plusSeconds(60)))
                .anyMatch(f -> f.watch().equals("still warming up"));
        assertThat(new SessionWatch().look(r, DAY.plusSeconds(1300)))
                .noneMatch(f -> f.watch().equals("still warming up"));
    }
}

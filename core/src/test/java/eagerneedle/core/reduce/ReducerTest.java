package eagerneedle.core.reduce;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.calibration.CalibrationPoint;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.ReducingCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Window;
import eagerneedle.core.watch.Finding;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.hipparchus.stat.regression.SimpleRegression;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** A session built by hand from parabolas with known accelerations, reduced and checked by a second route. */
class ReducerTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private final SheetReader.Located sheet =
            SheetTrial.read(SheetReader.shippedText("baggage-chute"), "baggage-chute.yaml");
    private final Map<Integer, RawSamples> samples = new HashMap<>();
    private final Reducer reducer = new Reducer(sheet, (run, channel) -> samples.getOrDefault(run, RawSamples.NONE));
    private final Random random = new Random(5);
    private Session session = Session.start(sheet.text(), "test", DAY);

    private void run(String capture, String level, double a, double v0) {
        int id = session.nextRunId();
        Chain chain = sheet.sheet().channels().get("position").toChain();
        int n = 140;
        double[] t = new double[n];
        double[] c = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = 0.02 * i;
            double s = Math.max(0, t[i] - 0.4);
            c[i] = chain.counts((v0 < 0 ? 1.4 : 0.3) + v0 * s + a * s * s / 2 + 0.001 * random.nextGaussian());
        }
        samples.put(id, new RawSamples(t, c));
        apply(new RunCommand.KeepRun(Run.captured(id, capture, level, DAY, "ranger", Run.COUNTS)));
    }

    private void apply(Command c) {
        session = c.apply(session);
    }

    @BeforeEach
    void capture() {
        for (int i = 0; i < 3; i++) {
            run("level_east", "level", -0.075, 0.36);
            run("level_west", "level", 0.075, -0.36);
            for (int b = 0; b < 5; b++) {
                run("slopes", "ABCDE".substring(b, b + 1), 0.15 + 0.22 * b + 0.004 * random.nextGaussian(), 0);
            }
        }
    }

    /**
     * A long run waits, so that the session opens at once; asked for, it gives the same as if it had never been long.
     */
    @Test
    void aLongRunIsWorkedOutWhenItIsAskedFor() {
        List<String> read = new ArrayList<>();
        SampleSource long7 = new SampleSource() {
            @Override
            public RawSamples samples(int run, String channel) {
                read.add(run + channel);
                return samples.getOrDefault(run, RawSamples.NONE);
            }

            @Override
            public long count(int run, String channel) {
                return run == 7 ? 3_000_000 : samples.get(run).size();
            }
        };
        Reducer patient = new Reducer(sheet, long7);
        assertThat(patient.reduce(session).outcome("g").problem())
                .contains("Run 7 holds 3000000 samples")
                .contains("say so at Reduce");
        assertThat(read).doesNotContain("7position").contains("6position");
        assertThat(patient.hasLong(session)).isTrue();
        patient.takeLong();
        assertThat(patient.hasLong(session)).isFalse();
        assertThat(patient.reduce(session).quantity("g").orElseThrow().value())
                .isEqualTo(reducer.reduce(session).quantity("g").orElseThrow().value());
    }

    @Test
    void theLineAgreesWithAnIndependentRegression() {
        Reduction r = reducer.reduce(session);
        SimpleRegression plain = new SimpleRegression();
        List<Quantity> x = r.column("slopes.sin_theta");
        List<Quantity> y = r.column("slopes.a_line");
        assertThat(x).hasSize(15);
        for (int i = 0; i < x.size(); i++) {
            plain.addData(x.get(i).value(), y.get(i).value());
        }
        Quantity slope = r.quantity("g_eff").orElseThrow();
        assertThat(slope.value()).isCloseTo(plain.getSlope(), within(1e-9));
        assertThat(r.quantity("a_zero").orElseThrow().value()).isCloseTo(plain.getIntercept(), within(1e-9));
        double scatter = slope.keeping(l -> l.pool().startsWith("scatter:")).u();
        assertThat(scatter)
                .as("what runs scatter, part of which each run shows by itself")
                .isCloseTo(plain.getSlopeStdErr(), within(0.02 * plain.getSlopeStdErr()));
        assertThat(slope.u()).isGreaterThan(scatter);
        assertThat(r.fit("fall_line").orElseThrow().dof()).isEqualTo(13);
    }

    @Test
    void accelerationsComeBackFromTheCounts() {
        Reduction r = reducer.reduce(session);
        Run east = session.run(1).orElseThrow();
        Quantity a = r.ofRun(east, "a").quantity().orElseThrow();
        assertThat(a.value()).isCloseTo(-0.075, within(4 * a.u()));
        assertThat(a.unit().symbol()).isEqualTo("m/s^2");
        assertThat(r.quantity("friction").orElseThrow().value()).isCloseTo(0.075, within(0.003));
    }

    @Test
    void nothingIsComputedTwiceAndOneWindowCostsOneRun() {
        reducer.reduce(session);
        int all = reducer.computedLast();
        reducer.reduce(session);
        assertThat(reducer.computedLast()).isZero();
        Run run = session.keptRuns().get(2);
        apply(new ReducingCommand.SetWindow(run.id(), "rolling", new Window(0.6, 1.8, "by hand")));
        Reduction r = reducer.reduce(session);
        assertThat(reducer.computedLast()).isBetween(5, 31).isLessThan(all / 5);
        assertThat(r.window(run, "rolling").orElseThrow().from()).isEqualTo(0.6);
    }

    @Test
    void leavingARunOutMovesTheResultAndTakingItInBringsItBack() {
        Quantity before = reducer.reduce(session).quantity("g").orElseThrow();
        apply(new RunCommand.LeaveOut(3, "hand in the beam"));
        Quantity without = reducer.reduce(session).quantity("g").orElseThrow();
        assertThat(without.value()).isNotEqualTo(before.value());
        assertThat(reducer.reduce(session).column("slopes.a")).hasSize(14);
        apply(new RunCommand.LeaveOut(3, null));
        assertThat(reducer.reduce(session).quantity("g").orElseThrow().sameAs(before))
                .isTrue();
    }

    @Test
    void aCalibrationIsAppliedToStoredRuns() {
        double before = reducer.reduce(session).quantity("g_eff").orElseThrow().value();
        List<CalibrationPoint> points = new ArrayList<>();
        for (double x : new double[] {0.3, 0.6, 0.9, 1.2, 1.5}) {
            points.add(new CalibrationPoint(x * 1.02 + " ± 0.001 m", x, 0.0001, 100, true));
        }
        apply(new CalibrationCommand.Calibrate(Calibration.line(
                "c", "position", "known length", "m", points, DAY, DAY.plus(Duration.ofDays(30)), "x", "")));
        Quantity after = reducer.reduce(session).quantity("g_eff").orElseThrow();
        assertThat(after.value()).isCloseTo(1.02 * before, within(1e-6));
        assertThat(after.contributions().keySet()).anyMatch(l -> l.label().startsWith("position calibration"));
    }

    @Test
    void measuredReadingsReplacePlannedOnes() {
        double before = reducer.reduce(session).quantity("g").orElseThrow().value();
        apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "850.0(6) mm"));
        Reduction r = reducer.reduce(session);
        assertThat(r.quantity("g").orElseThrow().value() / before).isCloseTo(850.0 / 842.3, within(1e-3));
        assertThat(r.ledger().named("spacing").orElseThrow().source()).isEqualTo("measured");
        assertThat(r.ledger().named("rise_A").orElseThrow().source()).isEqualTo("as planned");
    }

    @Test
    void theLedgerListsInputsResultsAndRuns() {
        Ledger ledger = reducer.reduce(session).ledger();
        assertThat(ledger.named("g")).isPresent();
        assertThat(ledger.named("slopes[3].a").orElseThrow().quantity()).isPresent();
        assertThat(ledger.entries()).noneMatch(e -> e.name().equals("fall_line"));
    }

    @Test
    void lineageNamesBothNeighbours() {
        Reduction r = reducer.reduce(session);
        assertThat(r.lineage(new Key.Global("g")).from())
                .contains(new Key.Global("g_eff"), new Key.Global("k_w"), new Key.Global("m_w"), new Key.Global("m_c"));
        assertThat(r.lineage(new Key.Global("g_eff")).feeds()).contains(new Key.Global("g"), new Key.Global("tilt"));
        assertThat(r.lineage(new Key.OfRun(3, "sin_theta")).from())
                .contains(new Key.Global("spacing"), new Key.OfRun(3, "rise"));
        assertThat(r.formula(new Key.Global("friction"))).contains("(a_west - a_east) / 2");
    }

    @Test
    void withoutRunsThereIsAReasonNotANumber() {
        Reduction r = reducer.reduce(Session.start(sheet.text(), "empty", DAY));
        assertThat(r.quantity("g")).isEmpty();
        assertThat(r.outcome("g").problem()).contains("has no rows yet");
        assertThat(r.comparisons()).isEmpty();
        assertThat(r.checks()).allMatch(c -> c.met().isEmpty());
    }

    @Test
    void anImportedRunIsTakenInItsOwnUnit() {
        int id = session.nextRunId();
        double[] t = new double[60];
        double[] v = new double[60];
        for (int i = 0; i < 60; i++) {
            t[i] = 0.02 * i;
            v[i] = 300 + 500 * t[i] * t[i] / 2 + 0.5 * random.nextGaussian();
        }
        samples.put(id, new RawSamples(t, v));
        Run run = Run.captured(id, "slopes", "C", DAY, "file.csv", "mm");
        apply(new RunCommand.KeepRun(run));
        Reduction r = reducer.reduce(session);
        assertThat(r.ofRun(run, "a").quantity().orElseThrow().value()).isCloseTo(0.5, within(0.01));
        assertThat(r.trace(run, "position").orElseThrow().value()[0]).isCloseTo(0.3, within(0.005));
    }

    @Test
    void aRunWithoutSamplesSaysSo() {
        Run run = Run.captured(99, "slopes", "C", DAY, "ranger", Run.COUNTS);
        apply(new RunCommand.KeepRun(run));
        assertThat(reducer.reduce(session).ofRun(run, "a").problem()).contains("holds no samples of position");
        assertThat(reducer.reduce(session).outcome("g").problem()).contains("Run 99");
    }

    @Test
    void watchesFindWhatIsWrongAndOnlyThat() {
        SessionWatch watch = new SessionWatch();
        List<Finding> clean = watch.look(reducer.reduce(session), DAY);
        assertThat(clean).extracting(Finding::watch).containsOnly("not calibrated", "as planned");
        Run run = session.keptRuns().get(2);
        Window w = reducer.reduce(session).window(run, "rolling").orElseThrow();
        apply(new ReducingCommand.SetWindow(run.id(), "rolling", new Window(0.0, w.to(), "by hand")));
        List<Finding> found = watch.look(reducer.reduce(session), DAY);
        assertThat(found).anySatisfy(f -> {
            assertThat(f.watch()).isEqualTo("window");
            assertThat(f.run()).isEqualTo(run.id());
        });
        RawSamples raw = samples.get(4);
        double[] dead = raw.values().clone();
        java.util.Arrays.fill(dead, 40, 140, dead[40]);
        samples.put(500, new RawSamples(raw.time(), dead));
        apply(new RunCommand.KeepRun(Run.captured(500, "slopes", "B", DAY, "ranger", Run.COUNTS)));
        assertThat(watch.look(reducer.reduce(session), DAY))
                .anyMatch(f -> f.watch().equals("dead") && f.run() == 500);
    }

    @Test
    void failedChecksAndOverdueCalibrationsAreSaid() {
        apply(new PlanningCommand.SetMeasured("spacing", "foot spacing", "842.3(6) mm"));
        List<CalibrationPoint> points = List.of(
                new CalibrationPoint("0.3(1) m", 0.3, 1e-4, 9, true),
                new CalibrationPoint("0.6(1) m", 0.6, 1e-4, 9, true),
                new CalibrationPoint("0.9(1) m", 0.9, 1e-4, 9, true),
                new CalibrationPoint("1.2(1) m", 1.2, 1e-4, 9, true));
        apply(new CalibrationCommand.Calibrate(Calibration.line(
                "c",
                "position",
                "known length",
                "m",
                points,
                DAY.minus(Duration.ofDays(60)),
                DAY.minus(Duration.ofDays(30)),
                "x",
                "")));
        for (Run run : session.keptRuns().stream()
                .filter(r -> r.capture().startsWith("level"))
                .toList()) {
            apply(new RunCommand.DiscardRun(run.id(), "exchanged"));
        }
        for (int i = 0; i < 4; i++) {
            run("level_west", "level", -0.075, 0.36);
            run("level_east", "level", 0.075, -0.36);
        }
        List<Finding> found = new SessionWatch().look(reducer.reduce(session), DAY.plus(Duration.ofDays(60)));
        assertThat(found).anyMatch(f -> f.watch().equals("calibration overdue"));
        apply(new CalibrationCommand.Calibrate(Calibration.line(
                "d", "position", "known length", "m", points, DAY, DAY.plus(Duration.ofDays(30)), "x", "")));
        assertThat(new SessionWatch().look(reducer.reduce(session), DAY.plus(Duration.ofDays(60))))
                .as("not by the day it is looked at")
                .noneMatch(f -> f.watch().equals("calibration overdue"));
        assertThat(found)
                .anyMatch(f -> f.watch().equals("check")
                        && f.message().contains("Friction is positive")
                        && f.remedy().contains("exchanged"));
    }

    @Test
    void theChosenSchoolSpeaks() {
        assertThat(reducer.reduce(session).speaks("local-g")).isEqualTo(School.STANDARD);
        apply(new JudgeCommand.ChooseSchool(School.LIMITS));
        assertThat(reducer.reduce(session).speaks("local-g")).isEqualTo(School.LIMITS);
    }

    private static final String ROOM = """
            sheet: 1
            id: room
            title: "A room measured"
            subject: Length
            inputs:
              long: {label: long side, value: "5.02(3) m"}
              wide: {label: wide side, value: "reading(4.21 m, division: 1 mm, judged: 0.5, edges: 4)", by: tape TH-TP-02}
              high: {label: height, value: "2.50(2) m"}
            correlations:
              - {between: [long, high], r: -0.5}
            results:
              rim: {label: rim, unit: m, formula: "2 * (long + high)"}
              floor: {label: floor, unit: m^2, formula: "long * wide"}
              back: {label: back to front, unit: 1/m, formula: "long"}
            """;

    private static Reduction room(String text) {
        SheetReader.Located located = SheetTrial.read(text, "room.yaml");
        return new Reducer(located, (run, channel) -> RawSamples.NONE).reduce(Session.start(text, "room", DAY));
    }

    @Test
    void declaredCorrelationsAndBuiltReadingsReachTheResults() {
        Reduction r = room(ROOM.replace("back: {label: back to front, unit: 1/m, formula: \"long\"}", ""));
        assertThat(r.quantity("rim").orElseThrow().u())
                .isCloseTo(2 * Math.sqrt(0.0009 + 0.0004 - 0.0006), within(1e-12));
        assertThat(r.quantity("long")
                        .orElseThrow()
                        .correlation(r.quantity("high").orElseThrow()))
                .isCloseTo(-0.5, within(1e-12));
        Quantity wide = r.quantity("wide").orElseThrow();
        assertThat(wide.u()).isCloseTo(Math.sqrt(4.0 / 3) * 0.25e-3, within(1e-12));
        assertThat(wide.contributions().keySet())
                .allMatch(leaf -> leaf.label().startsWith("wide side by tape TH-TP-02"));
        assertThat(r.ledger().entries())
                .extracting(Ledger.Entry::name)
                .containsExactly("long", "wide", "high", "rim", "floor");
    }

    @Test
    void aFitMadeTheWrongWayRoundIsRecognisedByItsUnit() {
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> room(ROOM))
                .hasMessageContaining("line 14")
                .hasMessageContaining("its reciprocal would fit");
    }

    @Test
    void correlationsAreCheckedWithTheirPlace() {
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> room(ROOM.replace("[long, high]", "[long, hig]")))
                .hasMessageContaining("line 10")
                .hasMessageContaining("did you mean high");
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> room(ROOM.replace("r: -0.5", "r: -1.5")))
                .hasMessageContaining("line 10");
        org.assertj.core.api.Assertions.assertThatThrownBy(() -> room(ROOM.replace("edges: 4", "edges: none")))
                .hasMessageContaining("line 7");
    }
}

package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.assertj.core.api.Assertions.withinPercentage;

import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.PlanningCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.Setup;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.RawSamples;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Plans of a sheet that plans nothing by hand: known at once where inputs are read better, and by trying otherwise. */
class RehearsedForesightTest {
    private static final String SHEET = """
            sheet: 2
            id: stretch
            title: Stretch
            subject: Load
            inputs:
              F: {label: force, value: "10.0(2) N", by: spring scale}
            channels:
              y: {label: travel, unit: mm, rate: 100, needs: [0 mm, 10 mm], chain: [{kind: sensor, label: gauge, from: mm, to: V, gain: "0.500(5)"}, {kind: converter, label: c, from: V, range: [0, 5], bits: 16}]}
            captures:
              pull:
                label: Pull
                channels: [y]
                repeats: 4
                quantities:
                  y_mean: {label: travel, unit: mm, formula: mean(y)}
            results:
              k: {label: stiffness, unit: N/mm, formula: F / mean(pull.y_mean)}
            comparisons:
              - {id: k, label: stiffness, result: k, reference: "2.0(1) N/mm", main: true}
            rig:
              pull:
                hidden: {slip: "0.00(15) mm"}
                lasts: 1 s
                signals: {y: "5 mm + slip"}
              truth: {k: F / (5 mm)}
            """;

    private final SheetReader.Located sheet = SheetTrial.read(SHEET, "stretch.yaml");
    private final Reducer reducer = new Reducer(sheet, (run, channel) -> RawSamples.NONE);
    private final RehearsedForesight foresight = new RehearsedForesight(reducer);
    private final Session session = Session.start(SHEET, "Stretch", Instant.EPOCH);

    private Quantity k(Session s) {
        return foresight.of(s, "k").orElseThrow();
    }

    private static double share(Quantity q, String label) {
        return Budget.of(q).lines().stream()
                .filter(l -> l.label().contains(label))
                .mapToDouble(Budget.Line::contribution)
                .sum();
    }

    @Test
    void anInputThatIsReadBetterCountsAtOnce() {
        Quantity before = k(session);
        // By hand: 2 % of the force, 1 % of the gauge, 0.15 mm / sqrt(4) of 5 mm; all of a value of 2.
        assertThat(before.u())
                .isCloseTo(2 * Math.sqrt(0.02 * 0.02 + 0.01 * 0.01 + 0.015 * 0.015), withinPercentage(12));
        Session better = new PlanningCommand.SetPlanned("F", "force", "10.00(2) N").apply(session);
        Quantity after = k(better);
        assertThat(share(after, "force")).isCloseTo(share(before, "force") / 10, withinPercentage(1e-6));
        assertThat(share(after, "gauge")).isCloseTo(share(before, "gauge"), withinPercentage(1e-6));
        assertThat(after.value()).isEqualTo(before.value());
        assertThat(foresight.of(new PlanningCommand.SetPlanned("F", "force", "12.0(2) N").apply(session), "k"))
                .as("another force may be another stiffness")
                .isEmpty();
    }

    @Test
    void moreRunsAreTried() {
        Quantity four = k(session);
        Quantity many = k(new PlanningCommand.SetRepeats("pull", 16).apply(session));
        double scatter = Math.sqrt(four.u() * four.u() - many.u() * many.u());
        // 0.015 and 0.0075 of 2: the difference of the squares is that of the scatter alone.
        assertThat(scatter).isCloseTo(2 * Math.sqrt(0.015 * 0.015 - 0.0075 * 0.0075), withinPercentage(40));
    }

    @Test
    void whatItWouldTakeIsFoundFromRehearsals() {
        Instrument cell = new Instrument(
                "TH-FC-09",
                "hand instrument",
                "force cell",
                "N",
                null,
                List.of("0 N", "50 N"),
                "0.01 N",
                1,
                "0.02 N",
                null,
                null,
                2.0,
                null,
                null,
                List.of(),
                false);
        Improvements improvements = new Improvements(reducer, foresight, session, List.of(cell), "k");
        assertThat(improvements.all())
                .extracting(p -> p.change().says())
                .contains("read force with force cell TH-FC-09")
                .anyMatch(s -> s.startsWith("take 16 runs of pull"));
        Improvements.Possible runs = improvements.all().stream()
                .filter(p -> p.change().says().startsWith("take 16 runs"))
                .findFirst()
                .orElseThrow();
        assertThat(runs.change().result().u())
                .as("from what twice as many do")
                .isCloseTo(k(runs.act().apply(session)).u(), withinPercentage(10));
        Quantity withCell = improvements.instrumentsFor("F").get(0).result();
        assertThat(share(withCell, "force")).isCloseTo(2 * Math.hypot(0.02, 0.005) / Math.sqrt(3) / 10, within(2e-3));
    }

    private static final String COARSE = """
            sheet: 2
            id: coarse
            title: Coarse
            subject: Load
            channels:
              y: {label: travel, unit: mm, rate: 100, needs: [0 mm, 10 mm], chain: [{kind: sensor, label: gauge, from: mm, to: V, gain: "0.050(2)", noise: 0.02}, {kind: conditioner, label: amplifier, from: V, to: V, gain: 1, gains: [1, 10, 100]}, {kind: converter, label: c, from: V, range: [-6, 6], bits: 8, coding: signed}],
                calibration: {kind: two lengths, seconds: 0.1, points: ["0.00 mm", "10.00 mm"]}}
            captures:
              pull:
                label: Pull
                channels: [y]
                repeats: 3
                quantities:
                  y_mean: {label: travel, unit: mm, formula: mean(y)}
            results:
              travel: {label: travel, unit: mm, formula: mean(pull.y_mean)}
            rig:
              pull:
                lasts: 1 s
                signals: {y: 7 mm}
              truth: {travel: 7 mm}
            """;

    /** Gains, averaging and rounds of a calibration are proposed where they bring something, and bring what is said. */
    @Test
    void whatCanBeSetOtherwiseAtTheBenchIsProposed() {
        assertThat(proposed(COARSE))
                .as("the step is the limit")
                .contains("set gain 10 of travel")
                .doesNotContain("set gain 100 of travel")
                .noneMatch(s -> s.startsWith("average"));
        assertThat(proposed(COARSE.replace("bits: 8", "bits: 16")))
                .as("noise is the limit")
                .contains("average 16 conversions a sample of travel", "go 4 times through the calibration of travel")
                .noneMatch(s -> s.startsWith("set gain"));
    }

    private static List<String> proposed(String text) {
        SheetReader.Located coarse = SheetTrial.read(text, "coarse.yaml");
        Reducer r = new Reducer(coarse, (run, channel) -> RawSamples.NONE);
        Session now = Session.start(text, "Coarse", Instant.EPOCH);
        RehearsedForesight f = new RehearsedForesight(r);
        double before = f.of(now, "travel").orElseThrow().u();
        List<Improvements.Possible> all = new Improvements(r, f, now, List.of(), "travel").all();
        for (Improvements.Possible p : all) {
            double exact = f.of(p.act().apply(now), "travel").orElseThrow().u();
            assertThat(exact).as(p.change().says()).isLessThan(before);
            if (text.contains("bits: 16")) {
                // Whether noise carries samples over a coarse step or not is another matter from session to session.
                assertThat(p.change().result().u())
                        .as(p.change().says() + ": by a few rehearsals, and by as many as a plan takes")
                        .isCloseTo(exact, withinPercentage(15));
            }
        }
        return all.stream().map(p -> p.change().says()).toList();
    }

    @Test
    void aCalibrationInRoundsIsOneRoundAfterTheOther() {
        Session now = new RigCommand.SetUp("y", Setup.AS_SHEET.withRounds(2), "two rounds")
                .apply(Session.start(COARSE, "Coarse", Instant.EPOCH));
        assertThat(now.channel(SheetTrial.read(COARSE, "coarse.yaml").sheet(), "y")
                        .calibration()
                        .points())
                .extracting(c -> c.reference())
                .containsExactly("0.00 mm", "10.00 mm", "0.00 mm", "10.00 mm");
    }
}

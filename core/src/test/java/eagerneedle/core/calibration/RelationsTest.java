package eagerneedle.core.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.function.LongPredicate;
import org.junit.jupiter.api.Test;

/** Every kind of calibration recovers the hidden truth of a simulated instrument, as often as its interval says. */
class RelationsTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");
    private static final int TRIALS = 1500;

    private static Calibration of(
            Relation relation, String unit, List<CalibrationPoint> points, CalibrationPoint... verification) {
        return new Calibration(
                "c",
                "x",
                "test",
                relation,
                unit,
                points,
                List.of(verification),
                null,
                null,
                DAY,
                DAY.plus(Duration.ofDays(90)),
                "someone",
                "reference",
                "",
                null,
                null);
    }

    private static void covers(LongPredicate trial) {
        int hits = 0;
        for (long seed = 0; seed < TRIALS; seed++) {
            hits += trial.test(seed) ? 1 : 0;
        }
        assertThat(hits / (double) TRIALS)
                .as("share of intervals that hold the truth")
                .isBetween(0.93, 0.97);
    }

    private static boolean within95(Quantity q, double truth) {
        return Math.abs(q.value() - truth) <= Coverage.DEFAULT.expanded(q);
    }

    private static Quantity normal(Random r, String id, double truth, double u, String unit) {
        return Quantity.of(
                truth + u * r.nextGaussian(),
                u,
                LabUnit.parse(unit),
                Leaf.typeB(id, id, id, eagerneedle.core.quantity.Distribution.NORMAL));
    }

    @Test
    void zeroTakesTheOffsetOut() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double offset = 0.05 * r.nextGaussian();
            double u = 0.002;
            Calibration c = of(
                    Relation.OFFSET,
                    "V",
                    List.of(new CalibrationPoint("0 V", offset + u * r.nextGaussian(), u, 200, true)));
            return within95(c.at(1.2 + offset), 1.2);
        });
    }

    @Test
    void theIcePointTakesTheOffsetOutOfATemperature() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double bath = 0.02 * r.nextGaussian();
            double offset = 0.8 + 0.3 * r.nextGaussian();
            Calibration c = of(
                    Relation.OFFSET,
                    "degC",
                    List.of(new CalibrationPoint(
                            "0.00(2) degC", bath + offset + 0.01 * r.nextGaussian(), 0.01, 100, true)));
            Trace t = c.apply(new Trace(
                    "x",
                    new double[] {0, 1},
                    new double[] {40 + offset, 41 + offset},
                    LabUnit.parse("degC"),
                    0.01,
                    List.of()));
            double u = Math.sqrt(t.shared().stream()
                    .mapToDouble(s -> Math.pow(s.contribution().applyAsDouble(40), 2))
                    .sum());
            assertThat(u).isCloseTo(Math.hypot(0.02, 0.01), within(1e-9));
            return Math.abs(t.value()[0] - 40) <= 1.97 * u;
        });
    }

    @Test
    void twoFixedPointsGiveALine() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double gain = 1 + 0.01 * r.nextGaussian();
            double offset = 0.5 * r.nextGaussian();
            Quantity boiling = Written.quantity("boiling_point(98.71 ± 0.05 kPa)", "pressure", "pressure", "barometer")
                    .to(LabUnit.parse("degC"));
            double trueBoil = boiling.value() + boiling.u() * r.nextGaussian();
            double ice = 0.02 * r.nextGaussian();
            List<CalibrationPoint> points = List.of(
                    new CalibrationPoint(
                            "0.00(2) degC", offset + gain * ice + 0.01 * r.nextGaussian(), 0.01, 500, true),
                    CalibrationPoint.computed(
                            "boiling", boiling, offset + gain * trueBoil + 0.01 * r.nextGaussian(), 0.01, 500, true));
            Calibration c = of(Relation.LINE, "degC", points);
            return within95(c.at(offset + gain * 55), 55);
        });
    }

    @Test
    void shuntResistorsGiveTheFactorOfTheWholeChain() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double gaugeTrue = 350 + 0.5 * r.nextGaussian();
            double factorTrue = 2.08 * (1 + 0.005 * r.nextGaussian());
            double kappa = 1 + 0.03 * r.nextGaussian();
            Quantity gauge = normal(r, "gauge", 350, 0, "ohm").withValue(350);
            Quantity gaugeR = Quantity.of(
                    gaugeTrue + 0.5 * r.nextGaussian(),
                    0.5,
                    LabUnit.parse("ohm"),
                    Leaf.typeB("R", "R", "R", eagerneedle.core.quantity.Distribution.NORMAL));
            Quantity factor = Quantity.of(
                    factorTrue + 0.0104 * r.nextGaussian(),
                    0.0104,
                    LabUnit.ONE,
                    Leaf.typeB("G", "G", "G", eagerneedle.core.quantity.Distribution.NORMAL));
            assertThat(gauge.value()).isEqualTo(350);
            List<CalibrationPoint> points = new ArrayList<>();
            points.add(new CalibrationPoint("0", 1e-6 * r.nextGaussian(), 1e-6, 500, true));
            for (double rs : new double[] {1e6, 3e5, 1.5e5, 1e5}) {
                Quantity shunt = normal(r, "shunt" + rs, rs, rs * 1e-4, "ohm");
                Quantity simulated =
                        gaugeR.dividedBy(gaugeR.plus(shunt)).dividedBy(factor).negate();
                double truth = -gaugeTrue / (gaugeTrue + rs) / factorTrue;
                points.add(CalibrationPoint.computed(
                        "shunt " + rs, simulated, kappa * truth + 1e-6 * r.nextGaussian(), 1e-6, 500, true));
            }
            // A strain of 800 microstrain is indicated as kappa times that.
            return within95(of(Relation.LINE, "", points).at(kappa * -800e-6), -800e-6);
        });
    }

    @Test
    void blankAndDarkSetTheScaleAndStandardsTestIt() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double dark = 0.03 + 0.01 * r.nextGaussian();
            double blank = 0.94 + 0.02 * r.nextGaussian();
            double u = 0.0005;
            List<CalibrationPoint> points = List.of(
                    new CalibrationPoint("0", dark + u * r.nextGaussian(), u, 500, true),
                    new CalibrationPoint("1", blank + u * r.nextGaussian(), u, 500, true));
            double half = dark + 0.5 * (blank - dark) + u * r.nextGaussian();
            Calibration c = of(Relation.LINE, "", points, new CalibrationPoint("0.500(2)", half, u, 500, true));
            assertThat(Math.abs(c.departure().errors()[0])).isLessThan(0.004);
            return within95(c.at(dark + 0.3 * (blank - dark)), 0.3);
        });
    }

    @Test
    void theEffectiveWidthOfAFlagIsAnOffset() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double beam = 0.6 + 0.1 * r.nextGaussian();
            List<CalibrationPoint> points = new ArrayList<>();
            for (double w : new double[] {10, 20, 40}) {
                double stands = w + 0.02 * r.nextGaussian();
                points.add(new CalibrationPoint(
                        w + " ± 0.02 mm", stands - beam + 0.01 * r.nextGaussian(), 0.01, 200, true));
            }
            return within95(of(Relation.OFFSET, "mm", points).at(25 - beam), 25);
        });
    }

    @Test
    void checkMassesCorrectABalance() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double gain = 1 + 2e-4 * r.nextGaussian();
            double zero = 0.01 * r.nextGaussian();
            List<CalibrationPoint> points = new ArrayList<>();
            for (double m : new double[] {20, 50, 100, 200}) {
                points.add(new CalibrationPoint(
                        m + " ± 0.002 g",
                        zero + gain * (m + 0.002 * r.nextGaussian()) + 0.003 * r.nextGaussian(),
                        0.003,
                        60,
                        true));
            }
            return within95(of(Relation.LINE, "g", points).at(zero + gain * 130), 130);
        });
    }

    @Test
    void anAbsoluteCountGivesAFactor() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            double factor = 1 + 0.03 * r.nextGaussian();
            Quantity faraday = ((eagerneedle.core.formula.Value.Scalar)
                            eagerneedle.core.formula.Formula.parse("2 * 96485.33212 C/mol / (63.546 g/mol)")
                                    .evaluate(eagerneedle.core.formula.Scope.empty("f")))
                    .quantity();
            List<CalibrationPoint> points = new ArrayList<>();
            for (double grams : new double[] {0.12, 0.25, 0.41}) {
                Quantity mass = normal(r, "m" + grams, grams, 0.0008, "g");
                Quantity charge = mass.times(faraday).to(LabUnit.parse("C"));
                double indicated = grams * faraday.to(LabUnit.parse("C/g")).value() / factor;
                points.add(CalibrationPoint.computed(
                        "plated", charge, indicated + 0.1 * r.nextGaussian(), 0.1, 500, true));
            }
            return within95(of(Relation.FACTOR, "C", points).at(500 / factor), 500);
        });
    }

    @Test
    void aParabolaTakesACurveOut() {
        covers(seed -> {
            Random r = new Random(seed * 6364136223846793005L + 1442695040888963407L);
            List<CalibrationPoint> points = new ArrayList<>();
            for (double x = 0; x <= 100; x += 12.5) {
                double truth = 0.4 + 0.97 * x + 4e-4 * x * x;
                points.add(new CalibrationPoint(
                        String.format(Locale.ROOT, "%.9f ± 0.05 mm", truth + 0.05 * r.nextGaussian()),
                        x + 0.01 * r.nextGaussian(),
                        0.01,
                        400,
                        true));
            }
            return within95(of(Relation.PARABOLA, "mm", points).at(66), 0.4 + 0.97 * 66 + 4e-4 * 66 * 66);
        });
    }

    @Test
    void anOffsetLeavesWhatTheChainIsUncertainOfElsewhere() {
        Chain chain = Chain.of(List.of(
                Link.linear("sensor", "hook", "N", "V", "0.100(1)", "2.50(2)"),
                Link.converter("logger", "V", 0, 5, 12, null)));
        Calibration c = of(Relation.OFFSET, "N", List.of(new CalibrationPoint("0 N", 0.3, 0.01, 100, true)));
        Trace t = new Conversion(c)
                .apply(
                        new Trace(
                                "x",
                                new double[] {0},
                                new double[] {10.3},
                                LabUnit.parse("N"),
                                0.01,
                                chain.shared("force")),
                        chain,
                        null);
        assertThat(t.value()[0]).isCloseTo(10, within(1e-9));
        double gain = t.shared().stream()
                .filter(s -> s.leaf().id().endsWith("/gain"))
                .findFirst()
                .orElseThrow()
                .contribution()
                .applyAsDouble(10);
        double offset = t.shared().stream()
                .filter(s -> s.leaf().id().endsWith("/offset"))
                .findFirst()
                .orElseThrow()
                .contribution()
                .applyAsDouble(10);
        // One percent of gain over the 10 N from where the zero was taken; the output's offset is gone.
        assertThat(Math.abs(gain)).isCloseTo(0.1, within(0.002));
        assertThat(offset).isCloseTo(0, within(1e-9));
    }

    @Test
    void anAdjustedIndicatorKeepsWhatItsSettingLeavesOpen() {
        List<CalibrationPoint> set = List.of(
                new CalibrationPoint("0 g", 0.02, 0.01, 100, true),
                new CalibrationPoint("500 ± 1 g", 500.03, 0.01, 100, true));
        CalibrationPoint[] check = {
            new CalibrationPoint("100 g", 100.4, 0.01, 100, true).going("up"),
            new CalibrationPoint("250 g", 250.6, 0.01, 100, true).going("up"),
            new CalibrationPoint("400 g", 400.4, 0.01, 100, true).going("up"),
            new CalibrationPoint("250 g", 251.0, 0.01, 100, true).going("down")
        };
        Calibration c = of(Relation.ADJUSTED, "g", set, check);
        assertThat(c.at(250).value()).isEqualTo(250);
        // The span mass is known to 1 g at 500 g: half of it at 250 g; largest departure 1.0 g as a limit.
        assertThat(c.at(250).u()).isCloseTo(Math.sqrt(0.25 + 1.0 / 3), within(0.01));
        assertThat(c.at(500).keeping(l -> l.id().endsWith("reference")).u()).isCloseTo(1, within(1e-3));
        assertThat(c.departure().hysteresis()).isCloseTo(0.4, within(1e-9));
        assertThat(c.departure().linearity()).isCloseTo(0.1333, within(1e-3));
    }

    @Test
    void aVerificationPointOutsideItsToleranceFailsTheCalibration() {
        List<CalibrationPoint> points = List.of(
                new CalibrationPoint("0.0(1) g", 0, 0.01, 9, true),
                new CalibrationPoint("100.0(1) g", 100, 0.01, 9, true));
        CalibrationPoint good = new CalibrationPoint("50 g", 50.05, 0.01, 9, true);
        CalibrationPoint bad = new CalibrationPoint("50 g", 51.2, 0.01, 9, true);
        assertThat(of(Relation.LINE, "g", points, good).failure()).isEmpty();
        assertThat(of(Relation.LINE, "g", points, bad).failure().orElseThrow())
                .contains("At 50 g")
                .contains("1.2 g");
        assertThat(of(Relation.LINE, "g", points, bad).validRange()).containsExactly(0, 100);
    }

    @Test
    void driftFoundAfterUseIsTakenOutOrKept() {
        List<CalibrationPoint> zero = List.of(new CalibrationPoint("0 V", 0.10, 0.001, 100, true));
        List<CalibrationPoint> later = List.of(new CalibrationPoint("0 V", 0.16, 0.001, 100, true));
        Calibration c = of(Relation.OFFSET, "V", zero);
        Trace t = new Trace("x", new double[] {0, 600}, new double[] {1.1, 1.1}, LabUnit.parse("V"), 0.001, List.of());
        Instant end = DAY.plus(Duration.ofHours(1));
        Trace corrected = new Conversion(c.withAfter(new AfterUse(end, later, AfterUse.Use.CORRECT)))
                .apply(t, null, DAY.plus(Duration.ofMinutes(30)));
        // Half way 0.03 V of the 0.06 V are gone, ten minutes later 0.04 V.
        assertThat(corrected.value()[0]).isCloseTo(0.97, within(1e-9));
        assertThat(corrected.value()[1]).isCloseTo(0.96, within(1e-9));
        Trace kept = new Conversion(c.withAfter(new AfterUse(end, later, AfterUse.Use.INFLUENCE))).apply(t, null, DAY);
        assertThat(kept.value()[0]).isCloseTo(1.0, within(1e-9));
        assertThat(kept.shared().stream()
                        .filter(s -> s.leaf().id().endsWith("drift"))
                        .findFirst()
                        .orElseThrow()
                        .contribution()
                        .applyAsDouble(1))
                .isCloseTo(0.06 / Math.sqrt(3), within(1e-9));
        assertThat(new Conversion(c.withAfter(new AfterUse(end, later, AfterUse.Use.TELL)))
                        .apply(t, null, DAY)
                        .value()[0])
                .isCloseTo(1.0, within(1e-9));
        assertThat(c.withAfter(new AfterUse(end, later, AfterUse.Use.TELL))
                        .driftFound()
                        .orElseThrow()
                        .value())
                .isCloseTo(0.06, within(1e-9));
    }
}

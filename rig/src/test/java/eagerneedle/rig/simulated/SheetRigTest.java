package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.watch.Finding;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

class SheetRigTest {
    private static final double METRES = 0.004 / 5.831;
    private final SheetReader.Located sheet =
            SheetTrial.read(SheetReader.shippedText("baggage-chute"), "baggage-chute.yaml");

    private static double[] roll(SimulatedRig rig, String capture, String level, double seconds) {
        rig.arrange(Map.of("capture", capture, "level", level));
        rig.begin();
        double[] x = new double[(int) (seconds * 50)];
        for (int i = 0; i < x.length; i++) {
            x[i] = rig.read()[0] * METRES;
            rig.advance(0.02);
        }
        return x;
    }

    private static double secondDifference(double[] x, int from, int to) {
        double[] t = new double[to - from];
        double[] v = new double[to - from];
        for (int i = from; i < to; i++) {
            t[i - from] = 0.02 * (i - from);
            v[i - from] = x[i];
        }
        var fit = new org.hipparchus.linear.QRDecomposition(
                        org.hipparchus.linear.MatrixUtils.createRealMatrix(vandermonde(t)))
                .getSolver()
                .solve(org.hipparchus.linear.MatrixUtils.createRealVector(v));
        return 2 * fit.getEntry(2);
    }

    private static double[][] vandermonde(double[] t) {
        double[][] m = new double[t.length][3];
        for (int i = 0; i < t.length; i++) {
            m[i] = new double[] {1, t[i], t[i] * t[i]};
        }
        return m;
    }

    /** The integrated motion has the acceleration of the closed form, to the scatter between runs. */
    @Test
    void theIntegratedRollHasTheAccelerationOfItsPhysics() {
        SimulatedRig rig = Rigs.shipped("baggage-chute", 11, Set.of());
        double gEff = rig.truth().get("g_eff").value();
        double sine =
                rig.truth().get("rise_C").value() / rig.truth().get("spacing").value();
        double theta = Math.asin(sine) + rig.truth().get("tilt").in(LabUnit.RADIAN);
        double expected = gEff * Math.sin(theta) - rig.truth().get("friction").value() * Math.cos(theta);
        double mean = 0;
        for (int k = 0; k < 12; k++) {
            mean += secondDifference(roll(rig, "slopes", "C", 1.9), 28, 90) / 12;
        }
        assertThat(mean).isCloseTo(expected, within(0.03 * expected));
    }

    @Test
    void onTheLevelItSlowsDownBothWays() {
        SimulatedRig rig = Rigs.shipped("baggage-chute", 12, Set.of());
        double[] east = roll(rig, "level_east", "level", 3);
        double[] west = roll(rig, "level_west", "level", 3);
        assertThat(east[140]).isGreaterThan(east[20] + 0.4);
        assertThat(west[140]).isLessThan(west[20] - 0.4);
        assertThat(secondDifference(east, 30, 140)).isNegative();
        assertThat(secondDifference(west, 30, 140)).isPositive();
    }

    @Test
    void itComesToRestAgainstFrictionAndStays() {
        SimulatedRig rig = Rigs.shipped("baggage-chute", 13, Set.of());
        double[] x = roll(rig, "level_east", "level", 8);
        assertThat(x[399]).isCloseTo(x[340], within(0.006));
    }

    @Test
    void theFoamStopsIt() {
        SimulatedRig rig = Rigs.shipped("baggage-chute", 14, Set.of());
        double[] x = roll(rig, "slopes", "E", 4);
        assertThat(java.util.Arrays.stream(x).max().orElse(0)).isBetween(1.42, 1.56);
        assertThat(x[0]).isCloseTo(x[20], within(0.006));
    }

    @Test
    void oneSeedIsOneRigAndAnotherIsAnother() {
        assertThat(Rigs.shipped("baggage-chute", 5, Set.of()).truth().get("g").value())
                .isEqualTo(Rigs.shipped("baggage-chute", 5, Set.of())
                        .truth()
                        .get("g")
                        .value());
        assertThat(roll(Rigs.shipped("baggage-chute", 5, Set.of()), "slopes", "B", 1))
                .isEqualTo(roll(Rigs.shipped("baggage-chute", 5, Set.of()), "slopes", "B", 1));
        assertThat(Rigs.shipped("baggage-chute", 6, Set.of())
                        .truth()
                        .get("spacing")
                        .value())
                .isNotEqualTo(Rigs.shipped("baggage-chute", 5, Set.of())
                        .truth()
                        .get("spacing")
                        .value());
    }

    @Test
    void readingsAreTheTruthWithAStatedError() {
        int within = 0;
        for (int seed = 0; seed < 500; seed++) {
            SimulatedRig rig = Rigs.shipped("baggage-chute", seed, Set.of());
            Reading r = Reading.parse(rig.readings().get("spacing"));
            within += Math.abs(r.value() - rig.truth().get("spacing").value()) <= 1.96 * r.u() ? 1 : 0;
            Reading block = Reading.parse(rig.readings().get("rise_B"));
            assertThat(Math.abs(block.value() - rig.truth().get("rise_B").value()))
                    .isLessThanOrEqualTo(0.055);
        }
        assertThat(within / 500.0).isBetween(0.92, 0.98);
    }

    @Test
    void anUnknownFaultIsOneSentence() {
        assertThatThrownBy(() -> Rigs.shipped("baggage-chute", 1, Set.of("aslep")))
                .hasMessageContaining("did you mean asleep?")
                .hasMessageContaining("asleep, no-echo, sees-stop");
    }

    /** A sheet of the first edition names a rig and finds it, its hidden values included. */
    @Test
    void aSheetOfTheFirstEditionFindsItsRig() {
        String now = SheetReader.shippedText("baggage-chute");
        String then = now.substring(0, now.indexOf("\nrig:"))
                .replace("sheet: 2", "sheet: 1")
                .replace("driver: line}", "driver: line, rig: cart-on-slope}")
                .replaceAll("\n  - \\{id: (asleep|no-echo|sees-stop).*", "");
        SheetReader.Located old = SheetReader.read(then, "old.yaml");
        assertThat(Rigs.faults(old.sheet())).containsExactly("asleep", "no-echo", "sees-stop");
        assertThat(Rehearsal.of(old, Rigs.of(old.sheet(), 4, Set.of()), Instant.EPOCH)
                        .truth()
                        .get("g")
                        .value())
                .isEqualTo(Rigs.shipped("baggage-chute", 4, Set.of())
                        .truth()
                        .get("g")
                        .value());
        SheetReader.Located nowhere = SheetReader.read(then.replace("cart-on-slope", "submarine"), "old.yaml");
        assertThatThrownBy(() -> Rigs.of(nowhere.sheet(), 1, Set.of()))
                .hasMessageContaining("no simulated rig called submarine");
    }

    private List<Finding> findings(long seed, Set<String> faults) {
        Rehearsal r = Rehearsal.of(sheet, Rigs.shipped("baggage-chute", seed, faults), Instant.EPOCH);
        Reduction reduction = new Reducer(
                        sheet,
                        (run, channel) ->
                                r.samples().getOrDefault(run, Map.of()).getOrDefault(channel, RawSamples.NONE))
                .reduce(r.session());
        return new SessionWatch().look(reduction, Instant.EPOCH);
    }

    @Test
    void cleanSessionsRaiseFewFalseAlarms() {
        int alarms = 0;
        for (int seed = 1000; seed < 1040; seed++) {
            alarms += findings(seed, Set.of()).stream()
                            .filter(f -> f.severity() != Finding.Severity.NOTE)
                            .findAny()
                            .isPresent()
                    ? 1
                    : 0;
        }
        assertThat(alarms).as("clean sessions of 40 with an alarm").isLessThanOrEqualTo(3);
    }

    @Test
    void everyFaultIsFoundAndNamed() {
        for (int seed = 0; seed < 6; seed++) {
            assertThat(findings(seed, Set.of("asleep")))
                    .as("asleep")
                    .anyMatch(f -> f.watch().equals("dead"));
            assertThat(findings(seed, Set.of("no-echo")))
                    .as("no echo")
                    .anyMatch(f -> f.watch().equals("out of range"));
            assertThat(findings(seed, Set.of("sees-stop")))
                    .as("sees stop")
                    .anyMatch(f -> f.severity() != Finding.Severity.NOTE && f.run() > 0);
        }
    }

    @Test
    void aRehearsalKeepsEveryScheduledRunWithItsSamples() {
        Rehearsal r = Rehearsal.of(sheet, Rigs.shipped("baggage-chute", 4, Set.of()), Instant.EPOCH);
        assertThat(r.session().runs()).hasSize(28);
        assertThat(r.samples()).hasSize(28);
        assertThat(r.session().calibrations()).hasSize(1);
        assertThat(r.session().signOffs()).hasSize(sheet.sheet().prepare().size());
        assertThat(r.session().measured()).containsKeys("spacing", "rise_E", "m_c");
        assertThat(r.acts()).hasSizeGreaterThan(35);
        assertThat(r.truth()).containsKeys("g", "friction", "spacing");
    }
}

package eagerneedle.core.calibration;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.CalibrationCommand;
import eagerneedle.core.trace.Trace;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.junit.jupiter.api.Test;

class CalibrationTest {
    private static final Instant DAY = Instant.parse("2026-11-23T09:00:00Z");

    private static Calibration of(List<CalibrationPoint> points) {
        return Calibration.line(
                "c1", "position", "known length", "m", points, DAY, DAY.plus(Duration.ofDays(180)), "someone", "");
    }

    private static Calibration simulated(Random r, double zero, double scale, double uReference, double noise) {
        List<CalibrationPoint> points = new ArrayList<>();
        for (double x : new double[] {0.3, 0.5, 0.7, 0.9, 1.2, 1.5}) {
            double stands = x + uReference * r.nextGaussian();
            double indication = (stands - zero) / scale + noise * r.nextGaussian();
            points.add(new CalibrationPoint(
                    String.format(Locale.ROOT, "%.3f ± %s m", x, uReference), indication, noise, 100, true));
        }
        return of(points);
    }

    @Test
    void exactPointsGiveTheLineBack() {
        Calibration c = simulated(new Random(1), 0.004, 1.01, 0, 1e-12);
        Fit f = c.fit();
        assertThat(f.parameter(0).value()).isCloseTo(0.004, within(1e-9));
        assertThat(f.parameter(1).value()).isCloseTo(1.01, within(1e-9));
        assertThat(f.parameter(0).unit().symbol()).isEqualTo("m");
        assertThat(f.parameter(1).unit().isDimensionless()).isTrue();
    }

    @Test
    void hiddenZeroAndScaleAreCoveredAsStated() {
        int zero = 0;
        int scale = 0;
        int trials = 1500;
        for (int seed = 0; seed < trials; seed++) {
            Fit f = simulated(new Random(seed), 0.004, 0.993, 0.001, 0.0002).fit();
            zero += Math.abs(f.parameter(0).value() - 0.004) <= Coverage.DEFAULT.expanded(f.parameter(0)) ? 1 : 0;
            scale += Math.abs(f.parameter(1).value() - 0.993) <= Coverage.DEFAULT.expanded(f.parameter(1)) ? 1 : 0;
        }
        assertThat(zero / (double) trials).isBetween(0.935, 0.965);
        assertThat(scale / (double) trials).isBetween(0.935, 0.965);
    }

    @Test
    void aCalibratedTraceCarriesTheLineIntoWhatIsFittedToIt() {
        Calibration c = simulated(new Random(3), 0.004, 1.01, 0.001, 0.0002);
        double[] t = new double[60];
        double[] v = new double[60];
        for (int i = 0; i < 60; i++) {
            t[i] = 0.02 * i;
            v[i] = 0.3 + 0.5 * t[i] * t[i];
        }
        Trace calibrated = c.apply(new Trace("position", t, v, LabUnit.parse("m"), 0.001, List.of()));
        Fit line = c.fit();
        assertThat(calibrated.value()[10])
                .isCloseTo(line.parameter(0).value() + line.parameter(1).value() * v[10], within(1e-12));
        assertThat(calibrated.step()).isCloseTo(0.001 * line.parameter(1).value(), within(1e-12));
        Quantity second = PolynomialFit.ofTrace(calibrated, 2, "f", "s").parameter(2);
        // A second derivative knows the slope of the calibration, not its intercept.
        assertThat(second.value()).isCloseTo(0.5 * line.parameter(1).value(), within(1e-9));
        double bySlope = 0.5 * line.parameter(1).u();
        Quantity byCalibration = second.keeping(l -> l.id().startsWith("calibration"));
        assertThat(byCalibration.u()).isCloseTo(bySlope, within(1e-9));
        assertThat(byCalibration.correlation(line.parameter(1))).isGreaterThan(0.99);
    }

    @Test
    void tooFewPointsAreRefused() {
        Calibration c = simulated(new Random(1), 0, 1, 0.001, 0.0002);
        assertThatThrownBy(() -> of(c.points().subList(0, 1)).fit())
                .isInstanceOf(FitException.class)
                .hasMessageContaining("at least 2 points; there is 1.");
        assertThatThrownBy(() -> new CalibrationCommand.Calibrate(of(List.of())).apply(null))
                .isInstanceOf(FitException.class);
    }

    @Test
    void theWorkedExamplesOfTheStandardForStraightLines() {
        // ISO/TS 28037:2010, numerical examples: equal weights, unequal weights, uncertainties in both coordinates.
        double[] x = {1, 2, 3, 4, 5, 6};
        line(
                x,
                new double[6],
                new double[] {3.3, 5.6, 7.1, 9.3, 10.7, 12.1},
                new double[] {0.5, 0.5, 0.5, 0.5, 0.5, 0.5},
                1.867,
                1.757,
                0.465,
                0.120,
                1.665);
        line(
                x,
                new double[6],
                new double[] {3.2, 4.3, 7.6, 8.6, 11.7, 12.8},
                new double[] {0.5, 0.5, 0.5, 1, 1, 1},
                0.885,
                2.057,
                0.530,
                0.178,
                4.131);
        line(
                new double[] {1.2, 1.9, 2.9, 4.0, 4.7, 5.9},
                new double[] {0.2, 0.2, 0.2, 0.2, 0.2, 0.2},
                new double[] {3.4, 4.4, 7.2, 8.5, 10.8, 13.5},
                new double[] {0.2, 0.2, 0.2, 0.4, 0.4, 0.4},
                0.5788,
                2.1597,
                0.4764,
                0.1355,
                2.743);
    }

    private static void line(
            double[] x,
            double[] ux,
            double[] y,
            double[] uy,
            double a,
            double b,
            double ua,
            double ub,
            double chiSquare) {
        List<CalibrationPoint> points = new ArrayList<>();
        for (int i = 0; i < x.length; i++) {
            points.add(new CalibrationPoint(y[i] + " ± " + uy[i] + " m", x[i], ux[i], 100000, true));
        }
        Fit f = of(points).fit();
        double half = Math.pow(10, -3) * (a == 0.5788 ? 0.11 : 0.55);
        assertThat(f.parameter(0).value()).isCloseTo(a, within(half));
        assertThat(f.parameter(1).value()).isCloseTo(b, within(half));
        assertThat(f.parameter(0).u()).isCloseTo(ua, within(half * 20));
        assertThat(f.parameter(1).u()).isCloseTo(ub, within(half * 20));
        assertThat(f.chiSquared()).isCloseTo(chiSquare, within(0.0015));
    }

    @Test
    void dueIsDue() {
        Calibration c = simulated(new Random(1), 0, 1, 0.001, 0.0002);
        assertThat(c.overdue(DAY.plus(Duration.ofDays(179)))).isFalse();
        assertThat(c.overdue(DAY.plus(Duration.ofDays(181)))).isTrue();
    }

    @Test
    void referencesInOtherUnitsMeetTheChannels() {
        List<CalibrationPoint> points = List.of(
                new CalibrationPoint("300(1) mm", 0.3, 0.0001, 50, true),
                new CalibrationPoint("50.0(1) cm", 0.5, 0.0001, 50, true),
                new CalibrationPoint("0.700(1) m", 0.7, 0.0001, 50, true),
                new CalibrationPoint("900(1) mm", 0.9, 0.0001, 50, true));
        assertThat(of(points).fit().parameter(1).value()).isCloseTo(1, within(1e-9));
    }
}

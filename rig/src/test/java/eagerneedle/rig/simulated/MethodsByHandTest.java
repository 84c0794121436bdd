package eagerneedle.rig.simulated;

import static eagerneedle.rig.simulated.Done.done;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.hipparchus.analysis.polynomials.PolynomialFunction;
import org.hipparchus.analysis.solvers.BrentSolver;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;
import org.junit.jupiter.api.Test;

/**
 * Each method once more by a few independent lines, from counts and readings to the result: closed forms, or the
 * numerical library directly. Windows are choices and are taken as they are.
 */
class MethodsByHandTest {
    private static final double SAME = 1e-9;

    private static void same(double theirs, double ours) {
        assertThat(theirs).isCloseTo(ours, within(SAME * Math.abs(ours)));
    }

    /** Twice the second coefficient of a parabola through points, by QR on centred and scaled times. */
    private static double acceleration(double[] t, double[] y) {
        double mid = (t[0] + t[t.length - 1]) / 2;
        double half = (t[t.length - 1] - t[0]) / 2;
        double[][] rows = Arrays.stream(t)
                .map(v -> (v - mid) / half)
                .mapToObj(v -> new double[] {1, v, v * v})
                .toArray(double[][]::new);
        return 2
                * new QRDecomposition(MatrixUtils.createRealMatrix(rows))
                        .getSolver()
                        .solve(MatrixUtils.createRealVector(y))
                        .getEntry(2)
                / (half * half);
    }

    private static double slope(double[] y, double[] x) {
        double mx = Arrays.stream(x).average().orElseThrow();
        double my = Arrays.stream(y).average().orElseThrow();
        return IntStream.range(0, x.length)
                        .mapToDouble(i -> (x[i] - mx) * (y[i] - my))
                        .sum()
                / Arrays.stream(x).map(v -> (v - mx) * (v - mx)).sum();
    }

    /** Slope with uncertainties in both coordinates (York et al. 2004), by its own iteration. */
    static double slopeOfBoth(double[] y, double[] x, double[] uY, double[] uX) {
        double b = slope(y, x);
        for (int pass = 0; pass < 200; pass++) {
            double slope = b;
            double[] w = IntStream.range(0, x.length)
                    .mapToDouble(i -> 1 / (uY[i] * uY[i] + slope * slope * uX[i] * uX[i]))
                    .toArray();
            double all = Arrays.stream(w).sum();
            double mx =
                    IntStream.range(0, x.length).mapToDouble(i -> w[i] * x[i]).sum() / all;
            double my =
                    IntStream.range(0, x.length).mapToDouble(i -> w[i] * y[i]).sum() / all;
            double over = 0;
            double under = 0;
            for (int i = 0; i < x.length; i++) {
                double beta = w[i] * ((x[i] - mx) * uY[i] * uY[i] + slope * (y[i] - my) * uX[i] * uX[i]);
                over += w[i] * beta * (y[i] - my);
                under += w[i] * beta * (x[i] - mx);
            }
            b = over / under;
        }
        return b;
    }

    @Test
    void baggageChute() {
        Done d = done("baggage-chute");
        Calibration c = d.calibration("position");
        double a0 = c.coefficients().get(0).value();
        double a1 = c.coefficients().get(1).value();
        double toEast = d.runs("level_east").stream()
                .mapToDouble(run -> a(d, run, a0, a1))
                .average()
                .orElseThrow();
        double toWest = d.runs("level_west").stream()
                .mapToDouble(run -> a(d, run, a0, a1))
                .average()
                .orElseThrow();
        same(d.of("friction"), (toWest - toEast) / 2);
        List<Run> slopes = d.runs("slopes");
        double[] sine = slopes.stream()
                .mapToDouble(run -> d.of("rise_" + run.level()) / d.of("spacing"))
                .toArray();
        double[] fall = IntStream.range(0, slopes.size())
                .mapToDouble(i -> a(d, slopes.get(i), a0, a1) - toEast * (Math.sqrt(1 - sine[i] * sine[i]) - 1))
                .toArray();
        same(d.of("g"), slope(fall, sine) * (1 + d.of("k_w") * d.of("m_w") / d.of("m_c")));
        double intercept = Arrays.stream(fall).average().orElseThrow()
                - slope(fall, sine) * Arrays.stream(sine).average().orElseThrow();
        same(d.of("a_zero"), intercept);
    }

    private static double a(Done d, Run run, double a0, double a1) {
        double[][] xy = d.within(run, "position", "rolling", count -> a0 + a1 * (count * 0.004 / 5.831));
        return acceleration(xy[0], xy[1]);
    }

    @Test
    void pottersWheel() {
        Done d = done("potters-wheel");
        double r = (d.of("d_drum") + d.of("d_thread")) / 2e3;
        same(d.of("I_disc"), inertia(d, "disc", r) - inertia(d, "bare", r));
        same(d.of("I_ring"), inertia(d, "ring", r) - inertia(d, "bare", r));
        same(
                d.of("I_ring_formula"),
                d.of("M_ring") * (d.of("D_out") * d.of("D_out") + d.of("D_in") * d.of("D_in")) / 8e6);
    }

    /** Slope of torque against angular acceleration, from the moments at which the gate becomes dark. */
    private static double inertia(Done d, String capture, double r) {
        List<Run> runs = d.runs(capture);
        double[] a = runs.stream()
                .mapToDouble(run -> {
                    RawSamples raw = d.raw(run, "spokes");
                    Window w = d.reduction().window(run, "pull").orElseThrow();
                    double[] dark = IntStream.range(0, raw.size())
                            .filter(i -> raw.values()[i] > 0.5 && (i == 0 || raw.values()[i - 1] < 0.5))
                            .mapToDouble(i -> raw.time()[i])
                            .filter(t -> t > w.from() && t <= w.to())
                            .toArray();
                    return acceleration(
                            dark,
                            IntStream.range(0, dark.length)
                                    .mapToDouble(i -> i * d.of("arc") / 1e3)
                                    .toArray());
                })
                .toArray();
        double[] torque = IntStream.range(0, a.length)
                .mapToDouble(i -> d.of("m_" + runs.get(i).level().substring(1)) / 1e3 * (d.of("g") - a[i]) * r)
                .toArray();
        return slope(torque, Arrays.stream(a).map(v -> v / r).toArray());
    }

    @Test
    void weatherVaneReed() {
        Done d = done("weather-vane-reed");
        Calibration c = d.calibration("strain");
        double c0 = c.coefficients().get(0).value();
        double c1 = c.coefficients().get(1).value();
        // Counts to volts, volts to millivolts before the amplifier, and the quarter bridge solved for its strain.
        java.util.function.DoubleUnaryOperator strain = count -> {
            double ratio = (count * 10 / 65536 / 0.5) / 1e3 / 5.0;
            return c0 + c1 * 1e6 * 4 * ratio / (2.08 * (1 - 2 * ratio));
        };
        List<Run> loads = d.runs("static");
        double[] eps = loads.stream()
                .mapToDouble(run -> Arrays.stream(d.within(run, "strain", null, strain)[1])
                                .average()
                                .orElseThrow()
                        / 1e6)
                .toArray();
        double[] pull = loads.stream()
                .mapToDouble(run ->
                        run.level().equals("s0") ? 0 : d.of("s_" + run.level().substring(1)) / 1e3 * d.of("g"))
                .toArray();
        double h = d.of("h") / 1e3;
        double length = d.of("L") / 1e3;
        same(d.of("k_static"), slope(pull, eps) * 3 * h * d.of("x") / 1e3 / (2 * Math.pow(length, 3)));
        List<Run> rings = d.runs("ring");
        double[] inverse = rings.stream()
                .mapToDouble(run -> {
                    double[][] all = d.within(run, "strain", null, strain);
                    int[] in = IntStream.range(0, all[0].length)
                            .filter(i -> all[0][i] > 0.05 - 1e-6 && all[0][i] < 1.5 + 1e-6)
                            .toArray();
                    double[] p = ringing(
                            Arrays.stream(in).mapToDouble(i -> all[0][i]).toArray(),
                            Arrays.stream(in).mapToDouble(i -> all[1][i]).toArray(),
                            d.of(run, "T") / 1e3,
                            d.of(run, "tau"));
                    return 1 / (Math.pow(2 * Math.PI / p[0], 2) + 1 / (p[1] * p[1]));
                })
                .toArray();
        double[] mass = rings.stream()
                .mapToDouble(run ->
                        run.level().equals("a0") ? 0 : d.of("a_" + run.level().substring(1)) / 1e3)
                .toArray();
        double[] uY = rings.stream()
                .mapToDouble(run ->
                        d.reduction().ofRun(run, "inv").quantity().orElseThrow().u() * 1e-12)
                .toArray();
        double[] uX = rings.stream()
                .mapToDouble(run -> run.level().equals("a0") ? 0 : 0.02e-3)
                .toArray();
        double k = 1 / slopeOfBoth(inverse, mass, uY, uX);
        assertThat(d.of("k_dynamic")).isCloseTo(k, within(SAME * k));
        assertThat(d.of("E"))
                .isCloseTo(4 * k * Math.pow(length, 3) / (d.of("b") / 1e3 * h * h * h) / 1e9, within(SAME * d.of("E")));
    }

    /** Period and time of decay of a damped cosine about a level, from a start a little off. */
    private static double[] ringing(double[] t, double[] y, double period, double tau) {
        double mean = Arrays.stream(y).average().orElseThrow();
        double scale = Arrays.stream(y).map(v -> Math.abs(v - mean)).max().orElseThrow();
        var optimum = new LevenbergMarquardtOptimizer()
                .withCostRelativeTolerance(1e-15)
                .withParameterRelativeTolerance(1e-14)
                .withOrthoTolerance(1e-15)
                .optimize(new LeastSquaresBuilder()
                        .model(p -> {
                            double[] f = new double[t.length];
                            double[][] j = new double[t.length][5];
                            for (int i = 0; i < t.length; i++) {
                                double decay = Math.exp(-t[i] / p.getEntry(1));
                                double angle = 2 * Math.PI * t[i] / p.getEntry(0);
                                double wave = p.getEntry(2) * Math.cos(angle) + p.getEntry(3) * Math.sin(angle);
                                f[i] = decay * wave + p.getEntry(4);
                                j[i][0] = decay
                                        * (p.getEntry(2) * Math.sin(angle) - p.getEntry(3) * Math.cos(angle))
                                        * angle
                                        / p.getEntry(0);
                                j[i][1] = decay * wave * t[i] / (p.getEntry(1) * p.getEntry(1));
                                j[i][2] = decay * Math.cos(angle);
                                j[i][3] = decay * Math.sin(angle);
                                j[i][4] = 1;
                            }
                            return new Pair<>(MatrixUtils.createRealVector(f), MatrixUtils.createRealMatrix(j));
                        })
                        .target(y)
                        .start(new double[] {period * 1.001, tau * 1.05, scale / 2, scale / 2, mean})
                        .maxEvaluations(2000)
                        .maxIterations(2000)
                        .build());
        return optimum.getPoint().toArray();
    }

    @Test
    void fadingDye() {
        Done d = done("fading-dye");
        List<Run> runs = d.runs("fade");
        double[] lnK = runs.stream()
                .mapToDouble(run -> {
                    Trace t = d.reduction().trace(run, "light").orElseThrow();
                    var p = new LevenbergMarquardtOptimizer()
                            .withCostRelativeTolerance(1e-15)
                            .withParameterRelativeTolerance(1e-14)
                            .withOrthoTolerance(1e-15)
                            .optimize(new LeastSquaresBuilder()
                                    .model(q -> {
                                        double[] f = new double[t.size()];
                                        double[][] j = new double[t.size()][2];
                                        for (int i = 0; i < t.size(); i++) {
                                            double left = Math.exp(-q.getEntry(1) * t.time()[i]);
                                            f[i] = Math.pow(10, -q.getEntry(0) * left);
                                            j[i][0] = -Math.log(10) * left * f[i];
                                            j[i][1] = Math.log(10) * q.getEntry(0) * t.time()[i] * left * f[i];
                                        }
                                        return new Pair<>(
                                                MatrixUtils.createRealVector(f), MatrixUtils.createRealMatrix(j));
                                    })
                                    .target(t.value())
                                    .start(new double[] {0.9, 0.003})
                                    .maxEvaluations(500)
                                    .maxIterations(500)
                                    .build())
                            .getPoint();
                    return Math.log(p.getEntry(1) / d.of("c_excess"));
                })
                .toArray();
        double[] inverseT = runs.stream()
                .mapToDouble(run -> 1 / ((d.of(run, "T_start") + d.of(run, "T_end")) / 2 + 273.15))
                .toArray();
        double e = -slope(lnK, inverseT) * 8.314462618 / 1e3;
        assertThat(d.of("E_a")).isCloseTo(e, within(SAME * e));
    }

    /** The photometer's readings themselves: counts averaged over a second, between dark and blank. */
    @Test
    void fadingDyeFromItsCounts() {
        Done d = done("fading-dye");
        Run run = d.runs("fade").get(0);
        Calibration c = d.calibration("light");
        double dark = c.points().get(0).indication();
        double blank = c.points().get(1).indication();
        RawSamples raw = d.raw(run, "light");
        Trace t = d.reduction().trace(run, "light").orElseThrow();
        for (int k = 0; k < t.size(); k++) {
            double due = t.time()[k];
            double[] near = IntStream.range(0, raw.size())
                    .filter(i -> Math.abs(raw.time()[i] - due) <= 1.0)
                    .mapToDouble(i -> (raw.values()[i] * 2.5 / 16384 - 0.030) / 2.20)
                    .map(v -> (v - dark) / (blank - dark))
                    .toArray();
            assertThat(near.length).isGreaterThan(2);
            assertThat(t.value()[k])
                    .as("reading %d", k + 1)
                    .isBetween(
                            Arrays.stream(near).min().orElseThrow() - 1e-6,
                            Arrays.stream(near).max().orElseThrow() + 1e-6);
        }
    }

    @Test
    void dividingTables() {
        Done d = done("dividing-tables");
        double[][] x = d.calibration("tables").closure().readings();
        int n = x.length;
        double all = Arrays.stream(x).flatMapToDouble(Arrays::stream).average().orElseThrow();
        // In series k the lower table's interval i stands against the upper one's interval i + k; both circles close.
        for (int j = 0; j < n; j++) {
            double lower = 0;
            double upper = 0;
            for (int k = 0; k < n; k++) {
                lower += x[k][j] / n;
                upper += x[k][(j - k + n) % n] / n;
            }
            assertThat(d.of("lower_" + (j + 1))).isCloseTo(lower - all, within(SAME));
            assertThat(d.of("upper_" + (j + 1))).isCloseTo(all - upper, within(SAME));
        }
        Run first = d.runs("sine").get(0);
        double seen = Arrays.stream(d.within(first, "tables", null, count -> count * 10 / 65536 / 0.1)[1])
                .average()
                .orElseThrow();
        double angle = 2 * Math.toDegrees(Math.asin(d.of("block") / d.of("bar_length"))) - 45;
        assertThat(d.of("sine_1")).isCloseTo(seen + angle * 3600, within(1e-7));
    }

    @Test
    void dryingCabinet() {
        Done d = done("drying-cabinet");
        Calibration ice = d.calibration("cabinet");
        double offset = ice.points().get(0).indication();
        double mean = d.runs("air").stream()
                .mapToDouble(run -> Arrays.stream(d.within(
                                        run, "cabinet", "steady", count -> typeK(count * 1.6 / 8192 / 0.2) - offset)[1])
                        .average()
                        .orElseThrow())
                .average()
                .orElseThrow();
        same(d.of("T_air"), mean);
    }

    /** Temperature in °C of a type K pair against ice: the published polynomial of its voltage in mV, solved. */
    private static double typeK(double millivolts) {
        PolynomialFunction above = new PolynomialFunction(
                -0.176004136860e-1,
                0.389212049750e-1,
                0.185587700320e-4,
                -0.994575928740e-7,
                0.318409457190e-9,
                -0.560728448890e-12,
                0.560750590590e-15,
                -0.320207200030e-18,
                0.971511471520e-22,
                -0.121047212750e-25);
        return new BrentSolver(1e-12, 1e-12)
                .solve(
                        200,
                        t -> above.value(t)
                                + 0.118597600000 * Math.exp(-0.118343200000e-3 * (t - 126.9686) * (t - 126.9686))
                                - millivolts,
                        0,
                        200);
    }
}

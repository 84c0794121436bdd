package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.reference.Thermocouple;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Window;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;
import org.junit.jupiter.api.Test;

/** Methods of heat once more by a few independent lines, from counts to the result. */
class HeatByHandTest {
    /**
     * Cooling in a room that is straight between its samples has an exact solution; its two parameters by the library.
     */
    @Test
    void flaskJackets() {
        Done d = Done.done("flask-jackets");
        double[] g = d.runs("cool").stream()
                .mapToDouble(run -> rate(d, run) * (d.of("m.foam") / 1e3 * d.of("c_w") + d.of("C_flask")))
                .toArray();
        double mean = Arrays.stream(g).average().orElseThrow();
        assertThat(d.of("G.foam")).isCloseTo(mean, within(1e-9 * mean));
    }

    /** Means of rows from counts, a plane in temperature and order for each length, shares and their weighted mean. */
    @Test
    void warmedCord() {
        Done d = Done.done("warmed-cord");
        double at = 321.3;
        double alpha = d.of("alpha");
        double weights = 0;
        double sum = 0;
        for (String stretch : List.of("s1", "s2", "s3", "s4", "s5")) {
            Run slack = d.runs("slack").stream()
                    .filter(r -> r.level().equals(stretch))
                    .findFirst()
                    .orElseThrow();
            double zero = newtons(d, slack);
            List<double[]> rows = new ArrayList<>();
            List<Double> pulls = new ArrayList<>();
            for (Run run : d.runs("pull")) {
                if (run.level().startsWith(stretch + ".")) {
                    rows.add(new double[] {1, kelvin(d, run) - at, rows.size() - 4});
                    pulls.add(newtons(d, run) - zero);
                }
            }
            assertThat(rows).hasSize(9);
            double[] plane = new QRDecomposition(MatrixUtils.createRealMatrix(rows.toArray(double[][]::new)))
                    .getSolver()
                    .solve(MatrixUtils.createRealVector(
                            pulls.stream().mapToDouble(v -> v).toArray()))
                    .toArray();
            double pull = plane[0];
            double slope = plane[1];
            double warm = 1 + alpha * (at - kelvin(d, slack)) / 3;
            double stretched = d.of(slack, "L") / d.of(slack, "L_0") / warm;
            double cubed = Math.pow(stretched, 3);
            double weight = Math.pow(1 - 1 / cubed, 2);
            sum += weight * (1 - at / pull * slope - alpha * at / (cubed - 1));
            weights += weight;
        }
        assertThat(d.of("share")).isCloseTo(sum / weights, within(1e-9));
    }

    /**
     * Pieces of six curves by the library's decomposition, both of each carried to where they meet by bisection, and
     * two straight branches by it again; a thermocouple from its table, in the order of the standard.
     */
    @Test
    void coolingAlloys() {
        Done d = Done.done("cooling-alloys");
        Run run = d.runs("cool").get(0);
        List<double[]> rich = new ArrayList<>();
        List<double[]> poor = new ArrayList<>();
        List<Double> arrests = new ArrayList<>();
        List<String> all = IntStream.rangeClosed(1, 6)
                .boxed()
                .flatMap(k -> Stream.of("w.t" + k, "top.t" + k))
                .toList();
        for (int k = 1; k <= 6; k++) {
            String tube = ".t" + k;
            Calibration c = d.calibration("T" + tube);
            double[][] rest = melt(d, run, c, tube, "rest");
            double stands = Arrays.stream(rest[1]).average().orElseThrow();
            double drift = Math.abs(parabola(rest[0], rest[1], 0, 1)[1]);
            boolean pure = drift < 4e-3 && stands > 180;
            double top = pure ? stands : meeting(d, run, c, tube);
            double w = d.of("m_sn" + tube) / (d.of("m_sn" + tube) + d.of("m_bi" + tube));
            assertThat(d.of("top" + tube)).as(tube).isCloseTo(top, within(1e-9 * top));
            (w < 0.43 ? rich : poor)
                    .add(new double[] {100 * w, top, d.ownU("w" + tube, all), d.ownU("top" + tube, all)});
            if (!pure && drift < 4e-3) {
                arrests.add(stands);
            }
        }
        assertThat(arrests).hasSize(3);
        double[] a = york(rich);
        double[] b = york(poor);
        double crossing = (a[0] - b[0]) / (b[1] - a[1]);
        assertThat(d.of("w_E")).isCloseTo(crossing, within(1e-9 * crossing));
        assertThat(d.of("T_E"))
                .isCloseTo(arrests.stream().mapToDouble(v -> v).average().orElseThrow(), within(1e-9 * 138));
    }

    /** Counts to millivolts, to degrees by the table, to degrees by the calibration; in a window of the run. */
    private static double[][] melt(Done d, Run run, Calibration c, String tube, String window) {
        Thermocouple pair = Thermocouple.ofType("K");
        return d.within(
                run,
                "T" + tube,
                window + tube,
                count -> c.coefficients().get(0).value()
                        + c.coefficients().get(1).value() * pair.temperature(-20 + count * 80 / 262144));
    }

    /** Where the curve of the melt and that of freezing meet, from the coldest moment backwards. */
    private static double meeting(Done d, Run run, Calibration c, String tube) {
        double coldest = d.of(run, "dips" + tube);
        double[][] before = melt(d, run, c, tube, "before");
        double[][] after = melt(d, run, c, tube, "after");
        double[] a = parabola(before[0], before[1], coldest, 2);
        double[] b = parabola(after[0], after[1], coldest, 2);
        double low = -60;
        double high = 0;
        for (int i = 0; i < 200; i++) {
            double middle = (low + high) / 2;
            if (at(a, middle) > at(b, middle)) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return at(a, low);
    }

    private static double at(double[] c, double t) {
        return c[0] + t * (c[1] + t * c[2]);
    }

    private static double[] parabola(double[] t, double[] y, double about, int degree) {
        return new QRDecomposition(MatrixUtils.createRealMatrix(Arrays.stream(t)
                        .mapToObj(v -> IntStream.rangeClosed(0, degree)
                                .mapToDouble(k -> Math.pow(v - about, k))
                                .toArray())
                        .toArray(double[][]::new)))
                .getSolver()
                .solve(MatrixUtils.createRealVector(y))
                .toArray();
    }

    /** A straight line through points x, y, u(x), u(y), as York and others put it in Am. J. Phys. 72 (2004) 367. */
    private static double[] york(List<double[]> points) {
        double b = (points.get(1)[1] - points.get(0)[1]) / (points.get(1)[0] - points.get(0)[0]);
        double a = 0;
        for (int pass = 0; pass < 200; pass++) {
            double slope = b;
            double[] w = points.stream()
                    .mapToDouble(p -> 1 / (p[3] * p[3] + slope * slope * p[2] * p[2]))
                    .toArray();
            double all = Arrays.stream(w).sum();
            double x = IntStream.range(0, w.length)
                            .mapToDouble(i -> w[i] * points.get(i)[0])
                            .sum()
                    / all;
            double y = IntStream.range(0, w.length)
                            .mapToDouble(i -> w[i] * points.get(i)[1])
                            .sum()
                    / all;
            double up = 0;
            double down = 0;
            for (int i = 0; i < w.length; i++) {
                double[] p = points.get(i);
                double beta = w[i] * ((p[0] - x) * p[3] * p[3] + b * (p[1] - y) * p[2] * p[2]);
                up += w[i] * beta * (p[1] - y);
                down += w[i] * beta * (p[0] - x);
            }
            b = up / down;
            a = y - b * x;
        }
        return new double[] {a, b};
    }

    /** A row that is waited for is read by eye when it is over: the beam shows what the sensor shows. */
    @Test
    void theBeamAgreesWithTheSensor() {
        Done d = Done.done("warmed-cord");
        double zero = newtons(d, d.runs("slack").get(0));
        double beamZero = d.of(d.runs("slack").get(0), "b_0");
        assertThat(d.runs("pull"))
                .hasSize(45)
                .allSatisfy(run -> assertThat((d.of(run, "b") - beamZero) / 1e3 * d.of("g"))
                        .as(run.level())
                        .isCloseTo(newtons(d, run) - zero, within(0.04)));
    }

    private static double newtons(Done d, Run run) {
        return calibrated(d, run, "force", v -> (v - 2.5) / 0.05);
    }

    private static double kelvin(Done d, Run run) {
        return calibrated(d, run, "air", v -> v / 0.04) + 273.15;
    }

    private static double calibrated(Done d, Run run, String channel, DoubleUnaryOperator nominal) {
        Calibration c = d.calibration(channel);
        return c.coefficients().get(0).value()
                + c.coefficients().get(1).value()
                        * nominal.applyAsDouble(
                                Arrays.stream(d.raw(run, channel).values())
                                                .average()
                                                .orElseThrow()
                                        * 10
                                        / 65536);
    }

    private static double rate(Done d, Run run) {
        RawSamples water = d.raw(run, "T.foam");
        Window w = d.reduction().window(run, "span.foam").orElseThrow();
        int[] in = IntStream.range(0, water.size())
                .filter(i -> water.time()[i] >= w.from() && water.time()[i] <= w.to())
                .toArray();
        double[] t = Arrays.stream(in).mapToDouble(i -> water.time()[i]).toArray();
        double[] y = temperatures(d, run, "T.foam", in);
        double[] room = temperatures(d, run, "T_room", in);
        double[] found = new LevenbergMarquardtOptimizer()
                .withCostRelativeTolerance(1e-15)
                .withParameterRelativeTolerance(1e-15)
                .optimize(new LeastSquaresBuilder()
                        .start(new double[] {y[0], 0.3})
                        .target(y)
                        .maxEvaluations(500)
                        .maxIterations(500)
                        .model(p -> {
                            double[] at = followed(t, room, p.getEntry(0), p.getEntry(1) / 1e3);
                            double h = 1e-5;
                            double[] more = followed(t, room, p.getEntry(0), (p.getEntry(1) + h) / 1e3);
                            double[] less = followed(t, room, p.getEntry(0), (p.getEntry(1) - h) / 1e3);
                            double[][] j = new double[t.length][];
                            for (int i = 0; i < t.length; i++) {
                                j[i] = new double[] {
                                    Math.exp(-p.getEntry(1) / 1e3 * (t[i] - t[0])), (more[i] - less[i]) / (2 * h)
                                };
                            }
                            return new Pair<>(MatrixUtils.createRealVector(at), MatrixUtils.createRealMatrix(j));
                        })
                        .build())
                .getPoint()
                .toArray();
        return found[1] / 1e3;
    }

    private static double[] followed(double[] t, double[] room, double start, double k) {
        double[] out = new double[t.length];
        out[0] = start;
        for (int i = 1; i < t.length; i++) {
            double dt = t[i] - t[i - 1];
            double lag = (room[i] - room[i - 1]) / dt / k;
            out[i] = room[i] - lag + (out[i - 1] - room[i - 1] + lag) * Math.exp(-k * dt);
        }
        return out;
    }

    /** Counts to volts, volts to degrees, degrees by the calibration. */
    private static double[] temperatures(Done d, Run run, String channel, int[] in) {
        Calibration c = d.calibration(channel);
        RawSamples raw = d.raw(run, channel);
        return Arrays.stream(in)
                .mapToDouble(i -> raw.values()[i] * 10 / 65536 / 0.04)
                .map(v -> c.coefficients().get(0).value()
                        + c.coefficients().get(1).value() * v)
                .toArray();
    }
}

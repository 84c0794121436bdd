package eagerneedle.rig.simulated;

import static eagerneedle.rig.simulated.Done.done;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.RawSamples;
import java.util.Arrays;
import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.QRDecomposition;
import org.junit.jupiter.api.Test;

/** Methods of motion once more by a few independent lines, from counts and readings to the result. */
class MotionByHandTest {
    private static void same(double theirs, double ours) {
        assertThat(theirs).isCloseTo(ours, within(1e-9 * Math.abs(ours)));
    }

    /** The number that a reading begins with, or that stands first in its brackets. */
    private static double read(Run run, String name) {
        String text = run.entries().byEye().get(name);
        return Double.parseDouble(text.replaceFirst("^reading\\(", "").replaceFirst("[ (].*", ""));
    }

    /** Coefficients of a polynomial by QR about a middle. */
    private static double[] polynomial(double[] t, double[] y, double about, int degree) {
        double[][] rows = Arrays.stream(t)
                .mapToObj(v -> IntStream.rangeClosed(0, degree)
                        .mapToDouble(k -> Math.pow(v - about, k))
                        .toArray())
                .toArray(double[][]::new);
        return new QRDecomposition(MatrixUtils.createRealMatrix(rows))
                .getSolver()
                .solve(MatrixUtils.createRealVector(y))
                .toArray();
    }

    private static double mean(double[] v) {
        return Arrays.stream(v).average().orElseThrow();
    }

    @Test
    void collidingWagons() {
        Done d = done("colliding-wagons");
        double[] m = {d.of("m_bal.a"), d.of("m_bal.b")};
        double[] shares = d.runs("meet").stream()
                .filter(r -> r.level().equals("sticking"))
                .mapToDouble(run -> {
                    double[][] v = new double[2][2];
                    double[][] still = position(d, run, 1, 0);
                    double[][] away = position(d, run, 1, 1);
                    double met = d.of(run, "met");
                    double[] c = polynomial(away[0], away[1], met, 2);
                    double impact = met + (mean(still[1]) - c[0]) / c[1];
                    for (int side = 0; side < 2; side++) {
                        for (int w = 0; w < 2; w++) {
                            double[][] s = position(d, run, w, side);
                            v[w][side] = polynomial(s[0], s[1], impact, 2)[1];
                        }
                    }
                    same(d.of(run, "v.b.after"), v[1][1]);
                    return (m[0] * v[0][1] + m[1] * v[1][1]) / (m[0] * v[0][0] + m[1] * v[1][0]);
                })
                .toArray();
        same(d.of("kept.sticking"), mean(shares));
    }

    /** Times and positions of a wagon, 0 or 1, before or after an impact: counts to milliseconds, those to metres. */
    private static double[][] position(Done d, Run run, int wagon, int side) {
        String channel = wagon == 0 ? "x.a" : "x.b";
        Calibration c = d.calibration(channel);
        double sign = wagon == 0 ? 1 : -1;
        double west = wagon == 0 ? 0 : 2.2;
        double[] times = d.reduction().trace(run, channel).orElseThrow().time();
        RawSamples raw = d.raw(run, channel);
        double met = d.of(run, "met");
        double from = met + (side == 0 ? -0.50 : 0.14);
        double to = met + (side == 0 ? -0.02 : 0.70);
        int[] in = IntStream.range(0, times.length)
                .filter(i -> times[i] >= from && times[i] <= to)
                .toArray();
        return new double[][] {
            Arrays.stream(in).mapToDouble(i -> times[i]).toArray(),
            Arrays.stream(in)
                    .mapToDouble(i -> {
                        double ms = raw.values()[i] * 0.002;
                        double metres = (ms + 5.831 * sign * west) / (5.831 * sign);
                        return c.coefficients().get(0).value()
                                + c.coefficients().get(1).value() * metres;
                    })
                    .toArray()
        };
    }

    @Test
    void trolleyAndTwoGates() {
        Done d = done("trolley-two-gates");
        double[] wide = new double[2];
        for (int gate = 0; gate < 2; gate++) {
            String level = "g" + (gate + 1);
            wide[gate] = d.runs("flag").stream()
                            .filter(r -> r.level().equals(level))
                            .mapToDouble(r -> read(r, "off") - read(r, "on"))
                            .average()
                            .orElseThrow()
                    / 1e3;
        }
        double s = d.of("s") / 1e3;
        List<Run> rows = d.runs("drive");
        double[] a = rows.stream()
                .mapToDouble(r -> between(read(r, "t_1"), read(r, "t_2"), wide, s))
                .toArray();
        double[] weight = rows.stream()
                .mapToDouble(r -> read(r, "hangs") / 1e3 * d.of("g"))
                .toArray();
        // Only what a row has for itself weighs it: its two block times and its tally, not width, distance and g.
        double digit = 0.0005 / Math.sqrt(3);
        double[] uA = rows.stream()
                .mapToDouble(r -> {
                    double t1 = read(r, "t_1");
                    double t2 = read(r, "t_2");
                    double h = 1e-6;
                    return digit
                            * Math.hypot(
                                    (between(t1 + h, t2, wide, s) - between(t1 - h, t2, wide, s)) / (2 * h),
                                    (between(t1, t2 + h, wide, s) - between(t1, t2 - h, wide, s)) / (2 * h));
                })
                .toArray();
        double[] uW = rows.stream().mapToDouble(r -> 0.02e-3 * d.of("g")).toArray();
        double slope = MethodsByHandTest.slopeOfBoth(weight, a, uW, uA);
        double[] w = IntStream.range(0, a.length)
                .mapToDouble(i -> 1 / (uW[i] * uW[i] + slope * slope * uA[i] * uA[i]))
                .toArray();
        double start = IntStream.range(0, a.length)
                        .mapToDouble(i -> w[i] * (weight[i] - slope * a[i]))
                        .sum()
                / Arrays.stream(w).sum();
        double moving = d.of("m_trolley") + d.of("m_all") / 1e3;
        double mu = start / (moving * d.of("g") - start);
        same(d.of("mu"), mu);
        same(d.of("M_line"), slope * (1 + mu) - d.of("m_p") / 1e3);
    }

    /** Acceleration between two gates by the times that a flag blocks them. */
    private static double between(double t1, double t2, double[] wide, double s) {
        double v1 = wide[0] / t1;
        double v2 = wide[1] / t2;
        double rough = (v2 * v2 - v1 * v1) / (2 * s);
        return (v2 * v2 - v1 * v1 + rough * rough * (t2 * t2 - t1 * t1) / 4) / (2 * s);
    }

    @Test
    void ridingCarriage() {
        Done d = done("riding-carriage");
        double[] pull = d.runs("ride").stream()
                .mapToDouble(run -> {
                    double outer = (read(run, "r_start") + read(run, "r_end")) / 2;
                    double r = (outer + read(run, "r_inner")) / 2e3;
                    double t = period(d, run, rising(d.raw(run, "turn"), false));
                    return 4 * Math.PI * Math.PI * d.of("m_ride") / 1e3 * r / (t * t);
                })
                .toArray();
        same(d.of("ratio"), mean(pull) / (d.of("m_hang") / 1e3 * d.of("g")));
    }

    @Test
    void whirlingBob() {
        Done d = done("whirling-bob");
        Calibration c = d.calibration("force");
        double zero = mean(forces(d.raw(d.runs("still").get(0), "force"), c));
        double r = d.of("r_one") / 1e3;
        List<Run> rows = d.runs("speed");
        double[] f = new double[rows.size()];
        double[] x = new double[rows.size()];
        for (int i = 0; i < f.length; i++) {
            Run run = rows.get(i);
            double[] begin = rising(d.raw(run, "gate"), true);
            double t = period(d, run, begin);
            x[i] = 4 * Math.PI * Math.PI * r / (t * t);
            RawSamples raw = d.raw(run, "force");
            double[] force = forces(raw, c);
            f[i] = IntStream.range(1, begin.length)
                            .mapToDouble(k -> between(raw.time(), force, begin[k - 1], begin[k]))
                            .average()
                            .orElseThrow()
                    - zero;
        }
        double mx = mean(x);
        double slope = IntStream.range(0, x.length)
                        .mapToDouble(i -> (x[i] - mx) * f[i])
                        .sum()
                / Arrays.stream(x).map(v -> (v - mx) * (v - mx)).sum();
        same(d.of("m_one"), 1e3 * slope);
    }

    private static double[] forces(RawSamples raw, Calibration c) {
        return Arrays.stream(raw.values())
                .map(n -> (-6 + n * 12 / 65536 - 0.02) / 0.5)
                .map(n -> c.coefficients().get(0).value()
                        + c.coefficients().get(1).value() * n)
                .toArray();
    }

    /** Mean between two moments by trapezia, the ends between samples. */
    private static double between(double[] t, double[] y, double from, double to) {
        double[] at = DoubleStream.concat(
                        DoubleStream.of(from, to), Arrays.stream(t).filter(v -> v > from && v < to))
                .sorted()
                .toArray();
        double area = 0;
        for (int i = 1; i < at.length; i++) {
            area += (at[i] - at[i - 1]) * (value(t, y, at[i]) + value(t, y, at[i - 1])) / 2;
        }
        return area / (to - from);
    }

    private static double value(double[] t, double[] y, double at) {
        int i = (int) Arrays.stream(t).filter(v -> v <= at).count() - 1;
        return i >= t.length - 1 ? y[t.length - 1] : y[i] + (y[i + 1] - y[i]) * (at - t[i]) / (t[i + 1] - t[i]);
    }

    /** When a gate becomes dark: at the row that says so, or, of samples, half way from the one before. */
    private static double[] rising(RawSamples raw, boolean sampled) {
        double half = Arrays.stream(raw.values()).max().orElseThrow() / 2
                + Arrays.stream(raw.values()).min().orElseThrow() / 2;
        double[] t = raw.time();
        double[] v = raw.values();
        return IntStream.range(0, raw.size())
                .filter(i -> v[i] > half && (i == 0 ? !sampled : v[i - 1] < half))
                .mapToDouble(i -> sampled ? t[i - 1] + (half - v[i - 1]) / (v[i] - v[i - 1]) * (t[i] - t[i - 1]) : t[i])
                .toArray();
    }

    /** A straight line through the edges, or the mean of the single periods where they wander: one of the two it is. */
    private static double period(Done d, Run run, double[] edges) {
        double[] n = IntStream.range(0, edges.length).asDoubleStream().toArray();
        double byLine = polynomial(n, edges, mean(n), 1)[1];
        double byMean = (edges[edges.length - 1] - edges[0]) / (edges.length - 1);
        double theirs = d.of(run, "T");
        double nearer = Math.abs(theirs - byLine) < Math.abs(theirs - byMean) ? byLine : byMean;
        same(theirs, nearer);
        return nearer;
    }
}

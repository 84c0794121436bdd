package eagerneedle.rig.simulated;

import static eagerneedle.rig.simulated.Alone.mean;
import static eagerneedle.rig.simulated.Alone.same;
import static eagerneedle.rig.simulated.Done.done;
import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.junit.jupiter.api.Test;

/** Methods of strain and load once more by a few independent lines, from counts to the result. */
class StrainByHandTest {
    private static final DoubleUnaryOperator MILLIVOLTS = c -> c * 20 / (1 << 20);

    /** Counts of the recorder to a strain: quarter bridge, 5 V. */
    private static DoubleUnaryOperator quarter(double factor) {
        return c -> {
            double r = MILLIVOLTS.applyAsDouble(c) / 5000;
            return 4 * r / (factor * (1 - 2 * r));
        };
    }

    private static double in(Done d, String name, String unit) {
        return d.reduction().quantity(name).orElseThrow().in(eagerneedle.core.quantity.LabUnit.parse(unit));
    }

    @Test
    void letterScale() {
        Done d = done("letter-scale");
        DoubleUnaryOperator law = c -> c * 10 / 65536 / 0.4 / 0.0105;
        List<Quantity> shown = d.reduction().column("loads.eps");
        List<Quantity> load = d.reduction().column("loads.mass");
        List<Run> runs = d.runs("loads");
        for (int i = 0; i < runs.size(); i++) {
            same(shown.get(i).value(), mean(d, runs.get(i), "strain", law));
        }
        double[] line = Alone.latent(
                load.subList(0, 6), shown.subList(0, 6), new double[] {1, 1.6}, (at, x) -> Alone.line(at, x));
        double unknown = d.runs("unknown").stream()
                .mapToDouble(r -> mean(d, r, "strain", law))
                .average()
                .orElseThrow();
        same(d.of("m_u"), (unknown - line[0]) / line[1]);
        double full = 6 * in(d, "c_500", "kg") * d.of("g") * in(d, "x", "m");
        same(in(d, "eps_full", "strain"), full / (in(d, "b", "m") * Math.pow(in(d, "h", "m"), 2) * in(d, "E", "Pa")));
    }

    @Test
    void signpostArm() {
        Done d = done("signpost-arm");
        double[][] rows = new double[3][];
        double[] eps = new double[3];
        String[] gauges = {"a", "b", "c"};
        for (int k = 0; k < 3; k++) {
            String g = gauges[k];
            double change = volts(d, "hung", g) - volts(d, "bare", g);
            double r = change / (d.of("gain." + g) * d.of("V_ex"));
            eps[k] = 4 * r / (d.of("F") * (1 - 2 * r));
            double theta = 2 * (in(d, "delta", "rad") + k * Math.PI / 3);
            rows[k] = new double[] {1, Math.cos(theta), Math.sin(theta)};
        }
        double[] s = new LUDecomposition(MatrixUtils.createRealMatrix(rows))
                .getSolver()
                .solve(MatrixUtils.createRealVector(eps))
                .toArray();
        double e = in(d, "E", "Pa");
        double nu = d.of("nu");
        double across = s[0] - s[1];
        double along = s[0] + s[1];
        double second = Math.PI / 64 * (Math.pow(in(d, "d_o", "m"), 4) - Math.pow(in(d, "d_i", "m"), 4));
        double half = in(d, "d_o", "m") / 2;
        double bend = e / (1 - nu * nu) * (along + nu * across) * second / (half * in(d, "L", "m"));
        double twist = e / (2 * (1 + nu)) * 2 * s[2] * 2 * second / (half * in(d, "r", "m"));
        same(d.of("P_bend"), bend);
        same(d.of("P_twist"), twist);
        same(in(d, "phi", "rad"), Math.atan2(s[2], s[1]) / 2);
        same(
                d.of("P"),
                Alone.together(Stream.of("P_bend", "P_twist")
                        .map(n -> d.reduction().quantity(n).orElseThrow())
                        .toList()));
    }

    private static double volts(Done d, String capture, String gauge) {
        return d.runs(capture).stream()
                .mapToDouble(r -> mean(d, r, "v." + gauge, c -> c * 10 / 65536))
                .average()
                .orElseThrow();
    }

    @Test
    void brakeReservoir() {
        Done d = done("brake-reservoir");
        String[] gauges = {"g0", "g20", "g40", "g65", "g90", "g115", "g180"};
        double[] angle = {0, 20, 40, 65, 90, 115};
        double[] p = d.runs("step").stream()
                .mapToDouble(r -> mean(d, r, "p", c -> (c * 5 / 65536 / 0.25 - 4) / 1.6))
                .toArray();
        double[] per = Arrays.stream(gauges)
                .mapToDouble(g -> 1e6
                        * Alone.slope(
                                p,
                                d.runs("step").stream()
                                        .mapToDouble(r -> mean(d, r, "eps." + g, quarter(2.11)))
                                        .toArray())
                        * 2.11
                        / d.of("F"))
                .toArray();
        double nu = d.of("nu");
        double bending = per[0] - per[6];
        double[] at = IntStream.range(0, 6)
                .mapToDouble(i -> per[i]
                        - bending
                                / 2
                                * (Math.pow(Math.cos(rad(angle[i])), 2) - nu * Math.pow(Math.sin(rad(angle[i])), 2)))
                .toArray();
        at[0] = (per[0] + per[6]) / 2;
        String[] ways = {"d0", "d20", "d40", "d65", "d90", "d115"};
        for (int i = 0; i < 6; i++) {
            same(d.of("at." + ways[i]), at[i]);
        }
        assertThat(d.reduction()
                        .quantity("sigma_h")
                        .orElseThrow()
                        .contributions()
                        .keySet())
                .as("influences of a calibration are called as people call its channel")
                .anyMatch(l -> l.label().startsWith("pressure calibration"));
        double[] s = Alone.generalised(
                Arrays.stream(ways)
                        .map(w -> d.reduction()
                                .quantity("theta." + w)
                                .orElseThrow()
                                .coherent())
                        .toList(),
                Arrays.stream(ways)
                        .map(w -> d.reduction().quantity("at." + w).orElseThrow())
                        .toList(),
                new DoubleUnaryOperator[] {x -> 1, x -> Math.cos(2 * x), x -> Math.sin(2 * x)},
                new DoubleUnaryOperator[] {x -> 0, x -> -2 * Math.sin(2 * x), x -> 2 * Math.cos(2 * x)});
        double h = s[0] + s[1];
        double a = s[0] - s[1];
        same(d.of("e_h"), h);
        double stress = in(d, "E", "Pa") / (1 - nu * nu) * 5e-6;
        same(in(d, "sigma_h", "Pa"), stress * (h + nu * a));
        same(in(d, "sigma_a", "Pa"), stress * (a + nu * h));
        double outer = in(d, "D_o", "m") / 2;
        double inner = outer - in(d, "t", "m");
        same(in(d, "theory_h", "Pa"), 2 * 5e5 * inner * inner / (outer * outer - inner * inner));
    }

    private static double rad(double degrees) {
        return Math.toRadians(degrees);
    }

    @Test
    void plankFootbridge() {
        Done d = done("plank-footbridge");
        double w = in(d, "b", "m") * Math.pow(in(d, "h", "m"), 2) / 6;
        for (String setup : List.of("three", "four")) {
            List<Run> runs = d.runs("load").stream()
                    .filter(r -> r.level().startsWith(setup))
                    .toList();
            double[] reaction = runs.stream()
                    .mapToDouble(r -> mean(d, r, "R", c -> (MILLIVOLTS.applyAsDouble(c) - 0.1) / 0.02))
                    .toArray();
            double[] moment =
                    Arrays.stream(reaction).map(v -> v * in(d, "x_q", "m")).toArray();
            double arm = setup.equals("three") ? in(d, "L", "m") / 4 : in(d, "a", "m") / 2;
            double[] middle = Arrays.stream(reaction)
                    .map(v -> 2 * v / (1 - 2 * in(d, "yoke", "m") / in(d, "L", "m")) * arm)
                    .toArray();
            double quarter = Alone.slope(moment, half(d, runs, "bq", "tq"));
            same(in(d, "E_q." + setup, "Pa"), d.of("pair_q") / (w * quarter));
            same(in(d, "E_m." + setup, "Pa"), d.of("pair_m") / (w * Alone.slope(middle, half(d, runs, "bm", "tm"))));
            same(
                    d.of("nu_of." + setup),
                    -Alone.slope(middle, strain(d, runs, "bx")) / Alone.slope(middle, strain(d, runs, "bm")));
        }
        same(d.of("nu"), (d.of("nu_of.three") + d.of("nu_of.four")) / 2 / d.of("pair_x") + in(d, "K_t", ""));
        same(
                d.of("E"),
                Alone.together(Stream.of("E_q.three", "E_m.three", "E_q.four", "E_m.four")
                        .map(n -> d.reduction().quantity(n).orElseThrow())
                        .toList()));
    }

    private static double[] strain(Done d, List<Run> runs, String gauge) {
        return runs.stream()
                .mapToDouble(r -> mean(d, r, "eps." + gauge, quarter(2.08)) * 2.08 / d.of("F"))
                .toArray();
    }

    private static double[] half(Done d, List<Run> runs, String bottom, String top) {
        double[] b = strain(d, runs, bottom);
        double[] t = strain(d, runs, top);
        return IntStream.range(0, b.length).mapToDouble(i -> (b[i] - t[i]) / 2).toArray();
    }
}

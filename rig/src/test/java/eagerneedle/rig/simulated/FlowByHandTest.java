package eagerneedle.rig.simulated;

import static eagerneedle.rig.simulated.Alone.same;
import static eagerneedle.rig.simulated.Done.done;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Methods of fluids and energy once more by a few independent lines. */
class FlowByHandTest {
    private static double in(Done d, String name, String unit) {
        return d.reduction().quantity(name).orElseThrow().in(LabUnit.parse(unit));
    }

    private static double read(Run run, String name) {
        return Double.parseDouble(run.entries().byEye().get(name).replaceFirst("[ (].*", ""));
    }

    @Test
    void rainSpillway() {
        Done d = done("rain-spillway");
        double root = Math.sqrt(2 * d.of("g"));
        for (String notch : List.of("tri", "rect")) {
            double zero = d.runs("datum").stream()
                    .filter(r -> r.level().equals(notch))
                    .mapToDouble(r -> read(r, "z"))
                    .average()
                    .orElseThrow();
            List<Run> runs = d.runs("flow").stream()
                    .filter(r -> r.level().startsWith(notch))
                    .toList();
            List<Quantity> c = d.reduction().column("C." + notch);
            for (int i = 0; i < runs.size(); i++) {
                double q = read(runs.get(i), "V") / read(runs.get(i), "t") / 1000;
                double plain = (read(runs.get(i), "z") - zero) / 1000;
                double v = q / (in(d, "B", "m") * (in(d, "P_w", "m") + plain));
                double head = plain + in(d, "k_h", "m") + v * v / (2 * d.of("g"));
                double shape = notch.equals("tri")
                        ? 8.0 / 15 * Math.tan(in(d, "theta", "rad") / 2) * root * Math.pow(head, 2.5)
                        : 2.0 / 3 * (in(d, "b", "m") + in(d, "k_b", "m")) * root * Math.pow(head, 1.5);
                same(c.get(i).value(), q / shape);
            }
            List<Quantity> logarithms = c.stream()
                    .map(x -> x.coherent().through(Math::log, LabUnit.ONE, 1 / x.value()))
                    .toList();
            same(d.of("C_d." + notch), Math.exp(Alone.together(logarithms)));
        }
    }

    @Test
    void mastRotor() {
        Done d = done("mast-rotor");
        double[] cubes = d.runs("stream").stream()
                .mapToDouble(r -> Arrays.stream(
                                d.within(r, "wind", "steady", c -> Math.pow(c * 20 / 65536 / 0.5, 3))[1])
                        .average()
                        .orElseThrow())
                .toArray();
        double cube = Alone.mean(cubes);
        same(d.of("cube"), cube);
        double wind = 0.5 * d.of("rho") * Math.PI / 4 * Math.pow(in(d, "D", "m"), 2) * cube;
        Run run = d.runs("turn").stream()
                .filter(r -> r.level().equals("r10"))
                .findFirst()
                .orElseThrow();
        double[][] all = d.within(run, "volts", null, c -> Math.pow(c * 20 / 65536, 2));
        double[] smooth = IntStream.range(15, all[1].length - 15)
                .mapToDouble(
                        i -> Arrays.stream(all[1], i - 15, i + 16).average().orElseThrow())
                .toArray();
        double[] settled = IntStream.range(0, smooth.length)
                .filter(i -> all[0][i + 15] >= 20 && all[0][i + 15] <= 55)
                .mapToDouble(i -> smooth[i])
                .toArray();
        same(d.of("eta.r10"), Alone.mean(settled) / in(d, "R.r10", "ohm") / wind);
    }
}

package eagerneedle.rig.simulated;

import static eagerneedle.rig.simulated.Alone.mean;
import static eagerneedle.rig.simulated.Alone.same;
import static eagerneedle.rig.simulated.Done.done;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Run;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Methods of electricity once more by a few independent lines. */
class ElectricityByHandTest {
    private static final double E = 1.602176634e-19;
    private static final double K = 1.380649e-23;
    private static final double N_A = 6.02214076e23;

    private static double in(Done d, String name, String unit) {
        return d.reduction().quantity(name).orElseThrow().in(LabUnit.parse(unit));
    }

    private static double read(Run run, String name) {
        return Double.parseDouble(run.entries().byEye().get(name).replaceFirst("[ (].*", ""));
    }

    @Test
    void indicatorDiode() {
        Done d = done("indicator-diode");
        List<Run> runs = d.runs("sweep");
        List<Quantity> v = d.reduction().column("sweep.V");
        List<Quantity> i = d.reduction().column("sweep.I");
        for (int k = 0; k < runs.size(); k++) {
            double low = mean(d, runs.get(k), "lo", c -> c * 4.096 / 16383);
            double high = mean(d, runs.get(k), "hi", c -> c * 4.096 / 16383);
            same(v.get(k).value(), low);
            same(i.get(k).in(LabUnit.parse("A")), (high - low) / in(d, "R_sense", "ohm"));
        }
        double[] found = Alone.latent(i, v, new double[] {0.048, 1.54, 0.006}, (at, x) ->
                new double[] {at[0] * Math.log(x) + at[1] + at[2] * x, Math.log(x), 1, x, at[0] / x + at[2]});
        double thermal = K * in(d, "T", "K") / E;
        same(d.of("n"), found[0] / thermal);
        same(in(d, "b", "V"), found[1]);
        same(in(d, "R", "ohm"), found[2] * 1000);
        same(in(d, "I_s", "A"), 1e-3 * Math.exp(-found[1] / found[0]));
    }

    @Test
    void countedCharge() {
        Done d = done("counted-charge");
        double zero =
                d.runs("zero").stream().mapToDouble(r -> volts(d, r)).average().orElseThrow();
        List<Run> cells = d.runs("cell");
        List<Quantity> copper = d.reduction().column("cell.Q_Cu");
        List<Quantity> hydrogen = d.reduction().column("cell.Q_H");
        List<Quantity> meter = d.reduction().column("U");
        for (int k = 0; k < cells.size(); k++) {
            Run r = cells.get(k);
            same(copper.get(k).value(), 2 * N_A * E * (read(r, "m_1") - read(r, "m_0")) / 63.546);
            double t = read(r, "T");
            double dry = in(d, "p", "Pa")
                    - d.reduction()
                            .evaluate("vapour_pressure(" + t + " degC)", "x", "x")
                            .value()
                    - d.reduction()
                                    .evaluate("water_density(" + t + " degC)", "x", "x")
                                    .value()
                            * d.of("g")
                            * read(r, "h")
                            / 1000;
            same(hydrogen.get(k).value(), 2 * E * dry * read(r, "V") * 1e-6 / (K * (t + 273.15)));
            double[][] on = d.within(r, "meter", "on", c -> c * 10 / 65536);
            double area = 0;
            for (int s = 1; s < on[0].length; s++) {
                area += (on[1][s] + on[1][s - 1]) / 2 * (on[0][s] - on[0][s - 1]);
            }
            same(meter.get(k).value(), area - zero * (on[0][on[0].length - 1] - on[0][0]));
        }
        same(in(d, "S_Cu", "A/V"), Alone.latent(meter, copper, new double[] {1, 1}, (at, x) -> Alone.line(at, x))[1]);
        same(in(d, "S_H", "A/V"), Alone.latent(meter, hydrogen, new double[] {1, 1}, (at, x) -> Alone.line(at, x))[1]);
        double scale = Alone.together(Stream.of("S_Cu", "S_H")
                .map(n -> d.reduction().quantity(n).orElseThrow())
                .toList());
        same(d.of("S"), scale);
        double gain = (at(d, "anode") - zero) * 1e-5 / ((at(d, "cathode") - zero) * 1e-11);
        same(d.of("G"), gain);
        double out = still(d, "lit") - still(d, "dark");
        same(in(d, "I_meter", "A"), scale * 1e-8 * out / gain);
        same(in(d, "I_count", "A"), E * (rate(d, "lit") - rate(d, "dark")) / d.of("share"));
    }

    private static double volts(Done d, Run run) {
        return mean(d, run, "meter", c -> c * 10 / 65536);
    }

    private static double at(Done d, String level) {
        return d.runs("gain").stream()
                .filter(r -> r.level().equals(level))
                .mapToDouble(r -> volts(d, r))
                .findFirst()
                .orElseThrow();
    }

    private static double still(Done d, String light) {
        Run run = d.runs("output").stream()
                .filter(r -> r.level().equals(light))
                .findFirst()
                .orElseThrow();
        return Arrays.stream(d.within(run, "meter", "still", c -> c * 10 / 65536)[1])
                .average()
                .orElseThrow();
    }

    private static double rate(Done d, String light) {
        return d.runs("count").stream()
                .filter(r -> r.level().equals(light))
                .mapToDouble(r -> {
                    double seen = read(r, "n") * d.of("k") / d.of("t_gate");
                    return seen / (1 - seen * in(d, "dead", "s"));
                })
                .average()
                .orElseThrow();
    }
}

package eagerneedle.rig.simulated;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.session.Run;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.core.trace.Window;
import java.util.Arrays;
import java.util.stream.IntStream;
import org.hipparchus.linear.MatrixUtils;
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
        Done d = Done.example("flask-jackets");
        double[] g = d.runs("cool").stream()
                .mapToDouble(run -> rate(d, run) * (d.of("m.foam") / 1e3 * d.of("c_w") + d.of("C_flask")))
                .toArray();
        double mean = Arrays.stream(g).average().orElseThrow();
        assertThat(d.of("G.foam")).isCloseTo(mean, within(1e-9 * mean));
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

package eagerneedle.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.event.Edges;
import eagerneedle.core.quantity.LabUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

/** What a gate timer sends, as a trace: edges where they were, and the stretch in which they come faster. */
class GateTraceTest {
    private static Trace rows(double... timeAndState) {
        double[] t = new double[timeAndState.length / 2];
        double[] v = new double[t.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = timeAndState[2 * i];
            v[i] = timeAndState[2 * i + 1];
        }
        return new Trace("gate", t, v, LabUnit.ONE, 1, List.of());
    }

    /**
     * Rows come at edges only, of this gate or of another one; interpolating between rows would put every edge half an
     * interval early.
     */
    @Test
    void edgesOfRowsLieWhereTheRowsAre() {
        Trace stairs = rows(0.2, 0, 1.0, 1, 1.1, 1, 1.25, 0, 2.5, 1, 2.6, 0).stairs(1e-6);
        assertThat(Edges.of(stairs, true).times()).containsExactly(new double[] {1.0, 2.5}, within(1e-9));
        assertThat(Edges.of(stairs, false).times()).containsExactly(new double[] {1.25, 2.6}, within(1e-9));
        assertThat(stairs.interval()).isCloseTo(1e-6, within(1e-12));
    }

    @Test
    void aGateThatIsBlockedAtTheStartHasItsFirstEdgeThere() {
        assertThat(Edges.of(rows(0.5, 1, 0.7, 0, 0.9, 1, 1, 0).stairs(1e-6), true)
                        .times())
                .containsExactly(new double[] {0.5, 0.9}, within(1e-9));
    }

    /**
     * Spokes under a constant acceleration until a landing, then slowing down. The window ends within six spokes of it,
     * and hardly ever after.
     */
    @Test
    void theWindowEndsWhereAFallingMassLands() {
        SplittableRandom random = new SplittableRandom(5);
        int late = 0;
        int far = 0;
        int trials = 300;
        for (int trial = 0; trial < trials; trial++) {
            double a = 0.1 + 0.5 * random.nextDouble();
            double down = 0.02 + 0.2 * random.nextDouble();
            double arc = 0.015;
            double landing = 0.8;
            double top = Math.sqrt(2 * a * landing);
            List<Double> out = new ArrayList<>();
            double[] uneven = new double[10];
            for (int i = 0; i < uneven.length; i++) {
                uneven[i] = 0.0001 * random.nextGaussian();
            }
            for (int k = 1; k <= 70; k++) {
                double s = k * arc + uneven[k % 10];
                double t = s < landing
                        ? Math.sqrt(2 * s / a)
                        : top / a + (top - Math.sqrt(Math.max(0, top * top - 2 * down * (s - landing)))) / down;
                if (s > landing && top * top < 2 * down * (s - landing)) {
                    break;
                }
                out.add(t);
                out.add(1.0);
                out.add(t + 1e-4);
                out.add(0.0);
            }
            Window w = WindowProposal.named("speeding-up")
                    .of(rows(out.stream().mapToDouble(d -> d).toArray()).stairs(1e-6))
                    .orElseThrow();
            double tLanding = Math.sqrt(2 * landing / a);
            late += w.to() > tLanding + 1e-4 ? 1 : 0;
            far += w.to() < tLanding - 6 * arc / top ? 1 : 0;
        }
        assertThat(late).as("windows that run past the landing, of %s", trials).isLessThanOrEqualTo(3);
        assertThat(far).as("windows that end early, of %s", trials).isLessThanOrEqualTo(15);
    }

    /**
     * From rest the first interval is more than twice as long as the second, and nothing is missing; a spoke left out
     * is found.
     */
    @Test
    void aTrainThatStartsFromRestIsNotSuspect() {
        double[] t = java.util.stream.IntStream.range(0, 40)
                .mapToDouble(k -> Math.sqrt(0.2 * k))
                .toArray();
        assertThat(Edges.of(t).suspects()).isEmpty();
        double[] without = java.util.stream.IntStream.range(0, 40)
                .filter(k -> k != 12)
                .mapToDouble(k -> Math.sqrt(0.2 * k))
                .toArray();
        assertThat(Edges.of(without).suspects()).containsExactly(new Edges.Suspect(Edges.Kind.MISSED, 11, 1));
    }

    @Test
    void aWheelThatOnlySlowsDownHasNoSuchWindow() {
        List<Double> out = new ArrayList<>();
        for (int k = 0; k < 40; k++) {
            double t = k * 0.1 + k * k * 0.002;
            out.addAll(List.of(t, 1.0, t + 0.01, 0.0));
        }
        assertThat(WindowProposal.named("speeding-up")
                        .of(rows(out.stream().mapToDouble(d -> d).toArray()).stairs(1e-6)))
                .isEmpty();
    }
}

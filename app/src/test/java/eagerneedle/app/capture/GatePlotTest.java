package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import eagerneedle.core.trace.RawSamples;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class GatePlotTest {
    /** States of a gate that is blocked at these moments for 5 ms each. */
    private static RawSamples blocked(double... moments) {
        List<double[]> all = new ArrayList<>();
        all.add(new double[] {0, 0});
        for (double m : moments) {
            all.add(new double[] {m, 1});
            all.add(new double[] {m + 0.005, 0});
        }
        return new RawSamples(
                all.stream().mapToDouble(a -> a[0]).toArray(),
                all.stream().mapToDouble(a -> a[1]).toArray());
    }

    @Test
    void aPointForEachIntervalAtItsMiddle() {
        Plot plot = GatePlot.of("spokes", blocked(0.1, 0.3, 0.4, 0.48), 0).orElseThrow();
        Layer.Points p = (Layer.Points) plot.layers().get(0);
        assertThat(p.x()).containsExactly(new double[] {0.2, 0.35, 0.44}, within(1e-9));
        assertThat(p.y()).containsExactly(new double[] {5, 10, 12.5}, within(1e-6));
        assertThat(plot.y().label()).isEqualTo("spokes: passages, 1/s");
    }

    @Test
    void aMissedAndADoubledEdgeAreMarkedWhereTheyAre() {
        double[] steady = new double[14];
        for (int i = 0; i < steady.length; i++) {
            steady[i] = 0.1 + 0.1 * (i < 7 ? i : i + 1);
        }
        List<Layer.Words> missed = words(blocked(steady));
        assertThat(missed).hasSize(1);
        assertThat(missed.get(0).text()).isEqualTo("one edge missing");
        assertThat(missed.get(0).x()).isCloseTo(0.8, within(1e-9));
        List<Layer.Words> twice = words(blocked(0.1, 0.2, 0.3, 0.4, 0.41, 0.5, 0.6, 0.7, 0.8, 0.9));
        assertThat(twice).extracting(Layer.Words::text).containsExactly("the same edge twice?");
        assertThat(words(blocked(0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8))).isEmpty();
    }

    private static List<Layer.Words> words(RawSamples states) {
        return GatePlot.of("spokes", states, 0).orElseThrow().layers().stream()
                .filter(l -> l instanceof Layer.Words)
                .map(Layer.Words.class::cast)
                .toList();
    }

    @Test
    void tooFewPassagesShowNothing() {
        assertThat(GatePlot.of("spokes", RawSamples.NONE, 0)).isEmpty();
        assertThat(GatePlot.of("spokes", blocked(0.1, 0.2), 0)).isEmpty();
    }
}

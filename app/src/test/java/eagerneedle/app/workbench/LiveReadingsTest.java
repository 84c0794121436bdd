package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.WindowStatistics;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class LiveReadingsTest {
    private static Trace trace(double[] v, double step) {
        double[] t = new double[v.length];
        for (int i = 0; i < t.length; i++) {
            t[i] = 0.02 * i;
        }
        return new Trace("x", t, v, LabUnit.parse("g"), step, List.of());
    }

    @Test
    void whiteNoiseIsNotADisturbance() {
        int disturbed = 0;
        for (int seed = 0; seed < 2000; seed++) {
            Random r = new Random(seed * 6364136223846793005L + 1);
            double[] v = r.doubles(100).map(x -> 500 + 0.02 * r.nextGaussian()).toArray();
            disturbed += LiveReadings.disturbed(trace(v, 0.01)) ? 1 : 0;
        }
        assertThat(disturbed).isLessThan(4);
        assertThat(LiveReadings.disturbed(trace(new double[] {7, 7, 7, 7, 7.01, 7, 7}, 0.01)))
                .as("one step of the converter")
                .isFalse();
    }

    @Test
    void aSampleFromBeforeTheLoadIsADisturbanceThatASlopeDoesNotSee() {
        Random r = new Random(3);
        double[] v = r.doubles(100).map(x -> 500 + 0.02 * r.nextGaussian()).toArray();
        v[0] = -5;
        v[1] = -5;
        Trace t = trace(v, 0.01);
        assertThat(WindowStatistics.of(t).steady(3))
                .as("the slope is not significant")
                .isTrue();
        assertThat(LiveReadings.disturbed(t)).isTrue();
    }
}

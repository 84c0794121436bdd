package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
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

    /** Far more different counts than are remembered at a time: each still gets the value of its own. */
    @Test
    void everyCountIsReadByItsChain() {
        Sheet sheet = SheetReader.read(SheetReader.shippedText("drying-cabinet"), "test")
                .sheet();
        Channel channel = sheet.channels().get("cabinet");
        Chain chain = channel.toChain();
        Random r = new Random(5);
        int n = 30_000;
        double[] t = new double[n];
        double[] counts = new double[n];
        double lowest = chain.converter().lowestCount() + 1;
        double span = chain.converter().highestCount() - 1 - lowest;
        for (int i = 0; i < n; i++) {
            t[i] = i;
            counts[i] = i % 3 == 0 ? lowest + span * r.nextDouble() : Math.rint(lowest + span * r.nextDouble());
        }
        Trace read = LiveReadings.trace(channel, new RawSamples(t, counts));
        assertThat(read.size()).isGreaterThan(n / 2);
        for (int i = 0; i < read.size(); i++) {
            assertThat(read.value()[i]).isEqualTo(chain.indication(counts[(int) read.time()[i]]));
        }
    }
}

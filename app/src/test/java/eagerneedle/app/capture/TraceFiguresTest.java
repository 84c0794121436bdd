package eagerneedle.app.capture;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.sheet.Channel;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.Trace;
import java.util.List;
import java.util.stream.DoubleStream;
import org.junit.jupiter.api.Test;

/** The numbers above a trace, worked out by hand. */
class TraceFiguresTest {
    private final Channel channel = SheetReader.read(SheetReader.shippedText("letter-scale"), "letter-scale")
            .sheet()
            .channels()
            .values()
            .iterator()
            .next();

    private Trace trace(double... values) {
        double[] time = DoubleStream.iterate(0, t -> t + 1).limit(values.length).toArray();
        return new Trace(channel.label(), time, values, channel.labUnit(), 0, List.of());
    }

    @Test
    void meanScatterAndNumberOfSamples() {
        // 1 -1 1 -1 ... about 5: mean 5, SD sqrt(20/19) = 1.026; alternating samples give a mean no worse than
        // SD/sqrt(n).
        double[] values = new double[20];
        for (int i = 0; i < values.length; i++) {
            values[i] = 5 + (i % 2 == 0 ? 1 : -1);
        }
        TraceFigures f = TraceFigures.newest(channel, trace(values));
        assertThat(f.mean()).startsWith("5.00(23) ").endsWith(channel.labUnit().pretty());
        assertThat(f.rest()).isEqualTo("SD 1, n 20");
    }

    @Test
    void fewSamplesSayNothing() {
        assertThat(TraceFigures.newest(channel, trace(1, 2, 3))).isEqualTo(TraceFigures.NONE);
        assertThat(TraceFigures.seen(channel, trace(1, 2, 3), new double[] {0, 9}))
                .isEqualTo(TraceFigures.NONE);
        assertThat(TraceFigures.seen(channel, null, new double[] {0, 9})).isEqualTo(TraceFigures.NONE);
        assertThat(TraceFigures.seen(channel, trace(1, 2, 3, 4, 5), null)).isEqualTo(TraceFigures.NONE);
    }

    @Test
    void onlyWhatIsSeenCounts() {
        Trace t = trace(100, 1, 3, 1, 3, 1, 3, 100);
        TraceFigures f = TraceFigures.seen(channel, t, new double[] {1, 6});
        assertThat(f.mean()).startsWith("2.0");
        assertThat(f.rest()).isEqualTo("mean of what is seen, SD 1.1, n 6, from 1 to 3");
        assertThat(TraceFigures.seen(channel, t, new double[] {3.5, 6.5})).isEqualTo(TraceFigures.NONE);
    }
}

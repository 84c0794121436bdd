package eagerneedle.core.watch;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.chain.Chain;
import eagerneedle.core.chain.Link;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class SampleWatchTest {
    private final Chain chain = Chain.of(List.of(
            Link.linear("sensor", "echo", "m", "ms", "5.831", null).within(0.15, 4),
            Link.counter("timer", "ms", 0.004, 14)));
    private final SampleWatch watch = new SampleWatch("position", chain, 50);

    private double[] time(int n) {
        double[] t = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = i / 50.0;
        }
        return t;
    }

    private double[] clean(int n, long seed) {
        Random r = new Random(seed);
        double[] c = new double[n];
        for (int i = 0; i < n; i++) {
            c[i] = chain.counts(0.8 + 0.001 * r.nextGaussian());
        }
        return c;
    }

    @Test
    void cleanSamplesRaiseNoAlarm() {
        int alarms = 0;
        for (int seed = 0; seed < 400; seed++) {
            alarms += watch.look(1, time(150), clean(150, seed)).size();
        }
        assertThat(alarms).isZero();
    }

    @Test
    void samplesAtTheRailAreOutOfRange() {
        double[] c = clean(100, 1);
        for (int i = 40; i < 60; i++) {
            c[i] = 0;
        }
        Finding f = watch.look(3, time(100), c).get(0);
        assertThat(f.watch()).isEqualTo("out of range");
        assertThat(f.message()).isEqualTo("Position is out of range in 20 of 100 samples.");
        assertThat(f.run()).isEqualTo(3);
        assertThat(f.from()).isEqualTo(0.8);
        assertThat(f.to()).isEqualTo(1.18);
        assertThat(f.severity()).isEqualTo(Finding.Severity.WRONG);
        assertThat(f.line()).contains("Check that the sensor");
    }

    @Test
    void oneLostEchoIsTolerated() {
        double[] c = clean(100, 1);
        c[50] = 0;
        assertThat(watch.look(1, time(100), c)).isEmpty();
    }

    @Test
    void beyondTheSensorsLimitIsOutOfRangeEvenWithinTheConverter() {
        assertThat(watch.beyondReach(chain.counts(3.9))).isFalse();
        assertThat(watch.beyondReach(Math.rint(4.5 * 5.831 / 0.004))).isTrue();
        assertThat(watch.beyondReach(16383)).isTrue();
    }

    @Test
    void aSensorThatDoesNotMoveAStepIsDead() {
        double[] c = clean(200, 2);
        for (int i = 100; i < 200; i++) {
            c[i] = c[100];
        }
        assertThat(watch.look(1, time(200), c)).extracting(Finding::watch).containsExactly("dead");
    }

    @Test
    void missingSamplesAreCounted() {
        double[] t = time(100);
        for (int i = 50; i < 100; i++) {
            t[i] += 0.06;
        }
        Finding f = watch.look(1, t, clean(100, 3)).get(0);
        assertThat(f.watch()).isEqualTo("dropped samples");
        assertThat(f.message()).startsWith("3 samples of position did not arrive");
        assertThat(new SampleWatch("position", chain, 0).look(1, t, clean(100, 3)))
                .isEmpty();
    }

    private static String atRail(Chain chain, boolean top) {
        double[] c = new double[20];
        java.util.Arrays.fill(
                c, top ? chain.converter().highestCount() : chain.converter().lowestCount());
        double[] t = new double[20];
        for (int i = 0; i < t.length; i++) {
            t[i] = i / 50.0;
        }
        return new SampleWatch("bead", chain, 50).look(1, t, c).get(0).watch();
    }

    private static Chain thermistor(String sensor) {
        return Chain.of(List.of(
                Link.sensor(
                        "bead",
                        "degC",
                        "ohm",
                        "beta",
                        java.util.Map.of("resistance", "10 kohm", "at", "25 degC", "beta", "3950 K")),
                Link.sensor(
                        "divider",
                        "ohm",
                        "V",
                        "divider",
                        java.util.Map.of("supply", "5 V", "known", "10 kohm", "sensor", sensor)),
                Link.converter("input", "V", 0, 5, 16, null)));
    }

    @Test
    void anOpenLeadReadsLowWhereTheDividerIsTappedAtItsOtherResistor() {
        assertThat(atRail(thermistor("lower"), true)).isEqualTo("open");
        assertThat(atRail(thermistor("lower"), false)).isEqualTo("shorted");
        assertThat(atRail(thermistor("upper"), true)).isEqualTo("shorted");
        assertThat(atRail(thermistor("upper"), false)).isEqualTo("open");
    }
}

package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.core.trace.RawSamples;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Whatever the lengths of the blocks in which samples come, what is kept of them is what a plain list would hold. */
class GrowingSamplesTest {
    private static final int ROOM = 3000;

    private final GrowingSamples samples = new GrowingSamples(ROOM);
    private final List<Double> time = new ArrayList<>();
    private final List<Double> values = new ArrayList<>();

    private void add(int n) {
        double[] t = new double[n];
        double[] v = new double[n];
        for (int i = 0; i < n; i++) {
            t[i] = time.size() * 0.01;
            v[i] = (time.size() * 7919) % 1000;
            time.add(t[i]);
            values.add(v[i]);
        }
        samples.add(t, v);
    }

    private void holds(RawSamples some, int from) {
        assertThat(some.time())
                .containsExactly(time.subList(from, time.size()).stream()
                        .mapToDouble(d -> d)
                        .toArray());
        assertThat(some.values())
                .containsExactly(values.subList(from, values.size()).stream()
                        .mapToDouble(d -> d)
                        .toArray());
    }

    @Test
    void nothingYet() {
        add(0);
        assertThat(samples.all().size()).isZero();
        assertThat(samples.last(1).size()).isZero();
        assertThat(samples.thinned(5).size()).isZero();
        assertThat(samples.end()).isZero();
        assertThat(samples.whole()).isTrue();
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6})
    void blocksOfAnyLength(int seed) {
        Random random = new Random(seed);
        int[] lengths = {1, 2, 17, 255, 256, 257, 700, 1024, 1500};
        for (int block = 0; block < 60; block++) {
            add(lengths[random.nextInt(lengths.length)]);
            int n = samples.all().size();
            holds(samples.all(), time.size() - n);
            assertThat(n).isGreaterThanOrEqualTo(Math.min(time.size(), ROOM)).isLessThanOrEqualTo(2 * ROOM);
            assertThat(samples.count()).isEqualTo(time.size());
            assertThat(samples.whole()).isEqualTo(n == time.size());
            assertThat(samples.end()).isEqualTo(time.get(time.size() - 1));
            assertThat(samples.outline().samples()).isEqualTo(time.size());
            int back = random.nextInt(n);
            // Between two samples, so that rounding does not decide which belong to it.
            holds(samples.last(0.01 * back + 0.005), time.size() - 1 - back);
            RawSamples few = samples.thinned(50);
            assertThat(few.size()).isEqualTo(Math.min(50, n));
            for (int i = 0; i < few.size(); i++) {
                int at = time.size() - n + (int) ((long) i * n / few.size());
                assertThat(few.time()[i]).isEqualTo(time.get(at));
                assertThat(few.values()[i]).isEqualTo(values.get(at));
            }
        }
        assertThat(samples.whole()).isFalse();
    }

    @Test
    void aMomentThatIsASampleBelongsToTheLastSeconds() {
        samples.add(new double[] {0, 1, 2, 3}, new double[] {5, 6, 7, 8});
        assertThat(samples.last(2).time()).containsExactly(1, 2, 3);
        assertThat(samples.last(0).values()).containsExactly(8);
        assertThat(samples.last(99).size()).isEqualTo(4);
    }

    @Test
    void aBlockLongerThanAllTheRoomIsKeptWhole() {
        add(100);
        add(3 * ROOM);
        holds(samples.all(), 100);
        add(3 * ROOM);
        holds(samples.all(), 100 + 3 * ROOM);
    }
}

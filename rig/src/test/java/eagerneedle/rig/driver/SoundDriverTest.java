package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** The sound input over a line of numbers that are known: all of them come, gaps are gaps in time. */
class SoundDriverTest {
    /** What frame i of a channel holds. */
    private static short frame(long i, int channel) {
        return (short) ((i * 31 + channel * 7919) % 65536 - 32768);
    }

    /** A line that holds so many frames, hands them out as fast as they are fetched, and may lose some on the way. */
    private static final class Line implements SoundInput {
        private final long frames;
        private final long lostFrom;
        private final int lost;
        private double rate;
        private int channels;
        private long next;
        private volatile boolean gone;
        private volatile boolean silent;
        private volatile boolean closed;
        private final CountDownLatch over = new CountDownLatch(1);

        Line(long frames, long lostFrom, int lost) {
            this.frames = frames;
            this.lostFrom = lostFrom;
            this.lost = lost;
        }

        @Override
        public void open(double newRate, int newChannels) throws IOException {
            if (newChannels > 2) {
                throw new IOException("no such line");
            }
            rate = newRate;
            channels = newChannels;
        }

        @Override
        public void start() {
            next = 0;
        }

        @Override
        public int read(byte[] into) {
            if (gone) {
                return -1;
            }
            if (silent || next >= frames) {
                over.countDown();
                return 0;
            }
            if (next >= lostFrom && next < lostFrom + lost) {
                next = lostFrom + lost;
            }
            int n = (int) Math.min(into.length / (2 * channels), frames - next);
            if (next < lostFrom) {
                n = (int) Math.min(n, lostFrom - next);
            }
            int at = 0;
            for (int i = 0; i < n; i++) {
                for (int c = 0; c < channels; c++) {
                    short v = frame(next + i, c);
                    into[at++] = (byte) v;
                    into[at++] = (byte) (v >> 8);
                }
            }
            next += n;
            return at;
        }

        @Override
        public long position() {
            return next;
        }

        @Override
        public int waiting() {
            return 0;
        }

        @Override
        public void stop() {
            // Nothing runs.
        }

        @Override
        public String name() {
            return "a line";
        }

        @Override
        public void close() {
            closed = true;
        }
    }

    /** Everything that came. */
    private static final class Kept implements Driver.Sink {
        private final List<Driver.Block> blocks = Collections.synchronizedList(new ArrayList<>());
        private final List<String> said = Collections.synchronizedList(new ArrayList<>());
        private final CountDownLatch heard = new CountDownLatch(1);

        @Override
        public void block(Driver.Block block) {
            blocks.add(block);
        }

        @Override
        public void state(Driver.State state, String sentence) {
            said.add(sentence);
            heard.countDown();
        }
    }

    private static Kept captured(Line line, SoundDriver driver) throws Exception {
        Kept kept = new Kept();
        driver.open();
        driver.start(kept);
        assertThat(line.over.await(60, TimeUnit.SECONDS)).isTrue();
        driver.stop();
        return kept;
    }

    @Test
    void aMinuteAtFullRateComesWhole() throws Exception {
        long frames = 44100L * 60;
        Line line = new Line(frames, Long.MAX_VALUE, 0);
        SoundDriver driver = new SoundDriver(line, List.of());
        assertThat(driver.open().channels()).containsExactly("left", "right");
        driver.configure(44100);
        Kept kept = captured(line, driver);
        long i = 0;
        long wrong = 0;
        for (Driver.Block b : kept.blocks) {
            for (int k = 0; k < b.size(); k++, i++) {
                wrong += b.counts()[0][k] != frame(i, 0)
                                || b.counts()[1][k] != frame(i, 1)
                                || Math.abs(b.time()[k] - i / 44100.0) > 1e-12
                        ? 1
                        : 0;
            }
        }
        assertThat(i).isEqualTo(frames);
        assertThat(wrong).isZero();
        assertThat(driver.unreadable()).isZero();
        assertThat(kept.said).isEmpty();
        assertThat(line.rate).isEqualTo(44100);
    }

    /** What was not fetched in time is missing in time too: nothing behind it is moved together. */
    @Test
    void whatIsLostLeavesAGapOfItsLength() throws Exception {
        Line line = new Line(100_000, 40_000, 9000);
        SoundDriver driver = new SoundDriver(line, List.of("microphone"));
        Kept kept = captured(line, driver);
        assertThat(driver.unreadable()).isEqualTo(9000);
        assertThat(kept.said).singleElement().asString().contains("9000 samples are missing from 0.907 s on");
        long seen = 0;
        for (Driver.Block b : kept.blocks) {
            for (int k = 0; k < b.size(); k++) {
                long at = Math.round(b.time()[k] * 44100);
                assertThat(b.counts()[0][k]).isEqualTo(frame(at, 0));
                seen++;
            }
        }
        assertThat(seen).isEqualTo(91_000);
    }

    @Test
    void ratesAreThoseOfSoundInputs() throws Exception {
        Line line = new Line(10, Long.MAX_VALUE, 0);
        SoundDriver driver = new SoundDriver(line, List.of("microphone"));
        driver.configure(20);
        captured(line, driver);
        assertThat(line.rate).isEqualTo(8000);
        assertThat(line.channels).isEqualTo(1);
        driver.configure(44100.0000001);
        driver.open();
        assertThat(line.rate).isEqualTo(44100);
        assertThatThrownBy(() -> driver.configure(200_000)).hasMessageContaining("at most 96000");
    }

    @Test
    void aLineThatGoesIsToldAndLeavesNoThread() throws Exception {
        Line line = new Line(1000, Long.MAX_VALUE, 0);
        SoundDriver driver = new SoundDriver(line, List.of("microphone"));
        Kept kept = new Kept();
        driver.open();
        driver.start(kept);
        line.gone = true;
        assertThat(kept.heard.await(10, TimeUnit.SECONDS)).isTrue();
        assertThat(kept.said).singleElement().asString().contains("is gone");
        assertThat(driver.state()).isEqualTo(Driver.State.LOST);
        driver.close();
        assertThat(line.closed).isTrue();
        assertThat(Thread.getAllStackTraces().keySet())
                .noneMatch(t -> t.getName().equals("sound driver"));
    }

    @Test
    void silenceIsTold() throws Exception {
        Line line = new Line(1000, Long.MAX_VALUE, 0);
        line.silent = true;
        SoundDriver driver = new SoundDriver(line, List.of("microphone"));
        Kept kept = new Kept();
        driver.open();
        driver.start(kept);
        assertThat(kept.heard.await(10, TimeUnit.SECONDS)).isTrue();
        assertThat(kept.said.get(0)).contains("sends nothing");
        driver.close();
    }

    /** Here there may be none; whatever is there, it is one sentence or a description. */
    @Test
    void aSoundInputThatIsNotThereIsOneSentence() {
        SoundDriver driver = new SoundDriver(new SoundCard("no such input at all"), List.of());
        assertThatThrownBy(driver::open)
                .isInstanceOf(IOException.class)
                .hasMessageContaining("no sound input called no such input at all");
    }
}

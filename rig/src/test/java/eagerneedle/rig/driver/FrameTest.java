package eagerneedle.rig.driver;

import static org.assertj.core.api.Assertions.assertThat;

import eagerneedle.rig.simulated.WaveStandIn;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

class FrameTest {
    @Test
    void aFrameIsReadToTheLastBit() {
        Frame f = Frame.announced("% 1240000 2500 3 3", 2);
        byte[] raw = {1, 0, 0, -1, -1, -1, 0, 0, -128, -1, -1, 127, 0x56, 0x34, 0x12, 0, 1, 0};
        assertThat(f.bytes(2)).isEqualTo(raw.length);
        Driver.Block b = f.block(raw, 2, 1_000_000_000L);
        assertThat(b.time()).containsExactly(0.24, 0.2400025, 0.240005);
        assertThat(b.counts()[0]).containsExactly(1, -8388608, 0x123456);
        assertThat(b.counts()[1]).containsExactly(-1, 8388607, 256);
    }

    @Test
    void headersThatMakeNoSenseAnnounceNothing() {
        for (String bad : new String[] {
            "% 1 2 3",
            "% a 1 1 1",
            "% 1 0 5 2",
            "% 1 1 5 9",
            "% -5 1 1 1",
            "% 1 1 2000000000 4",
            ": 1 2 3 4",
            "% 9223372036854775807 1 1 1"
        }) {
            assertThat(Frame.announced(bad, 4)).as(bad).isNull();
        }
    }

    @Test
    void everyCountOfAFastLoggerArrivesAsItWasSent() throws Exception {
        List<Driver.Block> blocks = Collections.synchronizedList(new ArrayList<>());
        try (WaveStandIn logger = new WaveStandIn(16);
                LineDriver driver = new LineDriver("127.0.0.1", logger.port())) {
            assertThat(driver.open().channels()).hasSize(16);
            driver.configure(100_000);
            driver.start(new Driver.Sink() {
                @Override
                public void block(Driver.Block block) {
                    blocks.add(block);
                }

                @Override
                public void state(Driver.State state, String sentence) {}
            });
            long until = System.nanoTime() + 20_000_000_000L;
            while (System.nanoTime() < until
                    && List.copyOf(blocks).stream().mapToInt(Driver.Block::size).sum() < 50_000) {
                Thread.sleep(20);
            }
            driver.stop();
            assertThat(driver.unreadable()).isZero();
        }
        long at = 0;
        for (Driver.Block b : List.copyOf(blocks)) {
            for (int i = 0; i < b.size(); i++, at++) {
                assertThat(b.time()[i]).isEqualTo(at * 10_000 / 1e9);
                for (int c = 0; c < 16; c++) {
                    if (b.counts()[c][i] != WaveStandIn.count(c, at)) {
                        throw new AssertionError("channel " + c + ", sample " + at);
                    }
                }
            }
        }
        assertThat(at).isGreaterThanOrEqualTo(50_000);
    }
}

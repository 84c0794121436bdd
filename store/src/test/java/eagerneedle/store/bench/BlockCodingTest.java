package eagerneedle.store.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import java.util.zip.DataFormatException;
import org.junit.jupiter.api.Test;

class BlockCodingTest {
    private static void same(double[] v) throws DataFormatException {
        double[] back = BlockCoding.unpack(BlockCoding.pack(v));
        assertThat(back).hasSameSizeAs(v);
        for (int i = 0; i < v.length; i++) {
            assertThat(Double.doubleToRawLongBits(back[i]))
                    .as("value %d, %s", i, v[i])
                    .isEqualTo(Double.doubleToRawLongBits(v[i]));
        }
    }

    @Test
    void everyKindOfColumnComesBackBitForBit() throws DataFormatException {
        same(new double[0]);
        same(new double[] {5});
        same(new double[] {-0.0});
        same(new double[] {0, -0.0, Double.NaN, Double.POSITIVE_INFINITY, Double.MIN_VALUE, -Double.MAX_VALUE});
        same(new double[] {1e15, -1e15, 4503599627370495.0, -4503599627370495.0, 0});
        Random random = new Random(11);
        for (int trial = 0; trial < 300; trial++) {
            int n = 1 + random.nextInt(400);
            double[] v = new double[n];
            double scale = Math.pow(10, random.nextInt(14) - 4);
            int kind = random.nextInt(5);
            long tick = random.nextInt(1000000);
            for (int i = 0; i < n; i++) {
                tick += 1 + (kind == 2 ? 0 : random.nextInt(50));
                v[i] = switch (kind) {
                    case 0 -> Math.rint(scale * random.nextGaussian());
                    case 1 -> tick / 1e6;
                    case 2 -> tick / 1e9;
                    case 3 -> scale * random.nextGaussian();
                    default -> Double.longBitsToDouble(random.nextLong());
                };
            }
            same(v);
        }
    }

    @Test
    void aClockTakesNextToNothingAndNoisyCountsLittleMoreThanTheirNoise() {
        int n = 30_000;
        double[] time = new double[n];
        double[] counts = new double[n];
        Random random = new Random(3);
        for (int i = 0; i < n; i++) {
            time[i] = i * 10 / 1e6;
            counts[i] = Math.rint(2000 * Math.sin(i / 500.0) + 3 * random.nextGaussian());
        }
        assertThat(BlockCoding.pack(time).length).isLessThan(200);
        // Two Gaussian draws with a spread of 3 differ by 4.1 bits of entropy; a byte is what one plane costs at most.
        assertThat(BlockCoding.pack(counts).length).isLessThan(n);
    }

    @Test
    void whatIsNotABlockIsSaid() {
        byte[] good = BlockCoding.pack(new double[] {1, 2, 3, 5, 8, 13, 21, 34, 55, 89});
        Random random = new Random(5);
        int refused = 0;
        for (int trial = 0; trial < 500; trial++) {
            byte[] bad = trial < good.length ? java.util.Arrays.copyOf(good, trial) : good.clone();
            if (trial >= good.length) {
                bad[random.nextInt(bad.length)] ^= (byte) (1 << random.nextInt(8));
            }
            try {
                BlockCoding.unpack(bad);
            } catch (DataFormatException e) {
                refused++;
            }
        }
        assertThat(refused)
                .as("nothing but the exception of a damaged block, and mostly that")
                .isGreaterThan(100);
        assertThatThrownBy(() -> BlockCoding.unpack(new byte[] {'I', 127, 127, 127, 127, 0, 0, 0, 1, 1}))
                .isInstanceOf(DataFormatException.class);
    }
}

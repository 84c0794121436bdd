package eagerneedle.rig.driver;

import java.util.regex.Pattern;
import java.util.zip.CRC32;
import org.jspecify.annotations.Nullable;

/**
 * Many samples in one message of the line protocol: a header line, then whole counts as raw bytes, little-endian and
 * signed, sample by sample.
 *
 * @param first ticks of the first sample, ns by the instrument's clock
 * @param period ns from sample to sample
 * @param n samples
 * @param width bytes of one count: 1 to 4
 * @param crc CRC-32 of the raw bytes; -1 when the header has none
 */
record Frame(long first, long period, int n, int width, long crc) {
    private static final int MOST_BYTES = 1 << 20;
    private static final double LONGEST = 2e9;
    private static final Pattern SPACES = Pattern.compile("\\s+");

    /** The frame that a line announces; null when it is not one. */
    static @Nullable Frame announced(String line, int channels) {
        if (!line.startsWith("%")) {
            return null;
        }
        String[] p = SPACES.split(line.substring(1).strip());
        try {
            Frame f = p.length != 4 && p.length != 5
                    ? null
                    : new Frame(
                            Math.multiplyExact(Long.parseLong(p[0]), 1000L),
                            Long.parseLong(p[1]),
                            Integer.parseInt(p[2]),
                            Integer.parseInt(p[3]),
                            p.length == 5 ? Long.parseLong(p[4], 16) : -1);
            boolean good = f != null
                    && f.first >= 0
                    && f.period > 0
                    && f.n > 0
                    && f.width >= 1
                    && f.width <= 4
                    && (long) f.n * channels * f.width <= MOST_BYTES;
            return good ? f : null;
        } catch (ArithmeticException | NumberFormatException e) {
            return null;
        }
    }

    /**
     * True for a frame that an instrument sampling at that rate can have sent: a line that only looks like a header is
     * seldom one.
     */
    boolean suits(double rate) {
        double expected = 1e9 / rate;
        return n * (double) period <= LONGEST && period > 0.5 * expected && period < 2 * expected;
    }

    /** True when the raw bytes are those that were sent, as far as the header tells. */
    boolean fits(byte[] raw) {
        if (crc < 0) {
            return true;
        }
        CRC32 sum = new CRC32();
        sum.update(raw);
        return sum.getValue() == crc;
    }

    int bytes(int channels) {
        return n * channels * width;
    }

    /** Ticks of the last sample, ns. */
    long last() {
        return first + (n - 1) * period;
    }

    /** The samples, times in s from {@code start} ns. */
    Driver.Block block(byte[] raw, int channels, long start) {
        double[] time = new double[n];
        double[][] counts = new double[channels][n];
        int at = 0;
        for (int i = 0; i < n; i++) {
            time[i] = (first - start + i * period) / 1e9;
            for (int c = 0; c < channels; c++) {
                int v = raw[at + width - 1];
                for (int b = width - 2; b >= 0; b--) {
                    v = v << 8 | raw[at + b] & 0xFF;
                }
                counts[c][i] = v;
                at += width;
            }
        }
        return new Driver.Block(time, counts);
    }
}

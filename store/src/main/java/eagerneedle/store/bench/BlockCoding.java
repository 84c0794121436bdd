package eagerneedle.store.bench;

import com.github.luben.zstd.Zstd;
import com.github.luben.zstd.ZstdException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.util.zip.CRC32C;
import java.util.zip.DataFormatException;
import org.jspecify.annotations.Nullable;

/**
 * Packs a column of doubles without loss for format 2 of the bench file: differences first, then Zstandard. What a
 * column is like decides how: times of a clock that ticks in micro- or nanoseconds by second differences of their
 * ticks, counts by first differences, anything else by the differing bits of neighbours. See
 * docs/formats/bench-file.md.
 */
final class BlockCoding {
    private static final int LEVEL = 1;
    private static final int MOST = 50_000_000;
    private static final double[] CLOCKS = {1e6, 1e9};
    private static final long EXACT = 1L << 52;

    private BlockCoding() {}

    static byte[] pack(double[] v) {
        long[] whole = ticks(v, 1);
        if (whole != null) {
            return packed('I', v.length, planes(differences(whole, 1)));
        }
        for (int clock = 0; clock < CLOCKS.length; clock++) {
            long[] ticks = ticks(v, CLOCKS[clock]);
            if (ticks != null) {
                return packed((char) ('0' + clock), v.length, planes(differences(ticks, 2)));
            }
        }
        return packed('D', v.length, bits(v));
    }

    /** Each value as whole ticks of a clock; null when one is not exactly a tick. */
    private static long @Nullable [] ticks(double[] v, double perSecond) {
        long[] out = new long[v.length];
        for (int i = 0; i < v.length; i++) {
            double k = Math.rint(v[i] * perSecond);
            if (!(Math.abs(k) < EXACT)
                    || Double.doubleToRawLongBits((long) k / perSecond) != Double.doubleToRawLongBits(v[i])) {
                return null;
            }
            out[i] = (long) k;
        }
        return out;
    }

    private static long[] differences(long[] x, int times) {
        for (int round = 0; round < times; round++) {
            for (int i = x.length - 1; i > 0; i--) {
                x[i] -= x[i - 1];
            }
        }
        return x;
    }

    private static void sums(long[] x, int times) {
        for (int round = 0; round < times; round++) {
            for (int i = 1; i < x.length; i++) {
                x[i] += x[i - 1];
            }
        }
    }

    /** Zigzagged numbers in as few byte planes as the largest needs, after the first two which may be large. */
    private static byte[] planes(long[] x) {
        int n = x.length;
        int head = Math.min(2, n);
        int width = 1;
        for (int i = head; i < n; i++) {
            long z = zigzag(x[i]);
            while (width < 8 && z >>> (8 * width) != 0) {
                width++;
            }
        }
        ByteBuffer out = ByteBuffer.allocate(1 + 8 * head + width * (n - head));
        out.put((byte) width);
        for (int i = 0; i < head; i++) {
            out.putLong(x[i]);
        }
        byte[] bytes = out.array();
        int from = out.position();
        int m = n - head;
        for (int i = head; i < n; i++) {
            long z = zigzag(x[i]);
            for (int b = 0; b < width; b++) {
                bytes[from + b * m + i - head] = (byte) (z >>> (8 * b));
            }
        }
        return bytes;
    }

    private static long zigzag(long v) {
        return v << 1 ^ v >> 63;
    }

    private static long[] unplaned(byte[] bytes, int n) {
        ByteBuffer in = ByteBuffer.wrap(bytes);
        int width = in.get();
        int head = Math.min(2, n);
        long[] x = new long[n];
        for (int i = 0; i < head; i++) {
            x[i] = in.getLong();
        }
        int from = in.position();
        int m = n - head;
        for (int i = 0; i < m; i++) {
            long z = 0;
            for (int b = 0; b < width; b++) {
                z |= (bytes[from + b * m + i] & 0xFFL) << (8 * b);
            }
            x[head + i] = z >>> 1 ^ -(z & 1);
        }
        return x;
    }

    private static byte[] bits(double[] v) {
        int n = v.length;
        byte[] out = new byte[8 * n];
        long before = 0;
        for (int i = 0; i < n; i++) {
            long now = Double.doubleToRawLongBits(v[i]);
            long x = now ^ before;
            before = now;
            for (int b = 0; b < 8; b++) {
                out[b * n + i] = (byte) (x >>> (56 - 8 * b));
            }
        }
        return out;
    }

    private static byte[] packed(char how, int n, byte[] plain) {
        byte[] small = Zstd.compress(plain, LEVEL);
        return ByteBuffer.allocate(13 + small.length)
                .put((byte) how)
                .putInt(n)
                .putInt(plain.length)
                .putInt(checksum(how, n, plain))
                .put(small)
                .array();
    }

    /** So that one flipped bit on the disk is an error and not another number. */
    private static int checksum(char how, int n, byte[] plain) {
        CRC32C crc = new CRC32C();
        crc.update(how);
        crc.update(n);
        crc.update(n >>> 8);
        crc.update(plain);
        return (int) crc.getValue();
    }

    /** @throws DataFormatException when the bytes are not what {@link #pack} made */
    static double[] unpack(byte[] packed) throws DataFormatException {
        try {
            ByteBuffer in = ByteBuffer.wrap(packed);
            char how = (char) in.get();
            int n = in.getInt();
            int size = in.getInt();
            int sum = in.getInt();
            if (n < 0 || n > MOST || size < 0 || size > 8L * n + 17) {
                throw new DataFormatException("impossible length");
            }
            byte[] small = new byte[in.remaining()];
            in.get(small);
            byte[] plain = new byte[size];
            if (size > 0 && Zstd.decompressByteArray(plain, 0, size, small, 0, small.length) != size) {
                throw new DataFormatException("cut short");
            }
            if (checksum(how, n, plain) != sum) {
                throw new DataFormatException("altered");
            }
            double[] v = new double[n];
            if (how == 'D') {
                long before = 0;
                for (int i = 0; i < n; i++) {
                    long x = 0;
                    for (int b = 0; b < 8; b++) {
                        x = x << 8 | plain[b * n + i] & 0xFF;
                    }
                    before ^= x;
                    v[i] = Double.longBitsToDouble(before);
                }
                return v;
            }
            long[] x = unplaned(plain, n);
            int clock = how - '0';
            if (how != 'I' && (clock < 0 || clock >= CLOCKS.length)) {
                throw new DataFormatException("unknown coding");
            }
            sums(x, how == 'I' ? 1 : 2);
            double perSecond = how == 'I' ? 1 : CLOCKS[clock];
            for (int i = 0; i < n; i++) {
                v[i] = x[i] / perSecond;
            }
            return v;
        } catch (BufferUnderflowException | IndexOutOfBoundsException | ZstdException e) {
            DataFormatException broken = new DataFormatException("not samples");
            broken.initCause(e);
            throw broken;
        }
    }
}

package eagerneedle.store.bench;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.util.zip.DataFormatException;
import java.util.zip.Deflater;
import java.util.zip.Inflater;

/**
 * Packs doubles without loss: each is combined bitwise with the one before, the bytes are regrouped by significance (so
 * that the zeros of slowly changing numbers stand together), and DEFLATE does the rest. See docs/formats/bench-file.md.
 */
final class SampleCoding {
    private SampleCoding() {}

    static byte[] pack(double[] values) {
        int n = values.length;
        byte[] planes = new byte[8 * n];
        long previous = 0;
        for (int i = 0; i < n; i++) {
            long bits = Double.doubleToRawLongBits(values[i]);
            long x = bits ^ previous;
            previous = bits;
            for (int b = 0; b < 8; b++) {
                planes[b * n + i] = (byte) (x >>> (56 - 8 * b));
            }
        }
        Deflater deflater = new Deflater(Deflater.BEST_SPEED, true);
        deflater.setInput(planes);
        deflater.finish();
        ByteArrayOutputStream out = new ByteArrayOutputStream(n * 3 + 16);
        out.writeBytes(ByteBuffer.allocate(4).putInt(n).array());
        byte[] buffer = new byte[8192];
        while (!deflater.finished()) {
            out.write(buffer, 0, deflater.deflate(buffer));
        }
        deflater.end();
        return out.toByteArray();
    }

    /** @throws DataFormatException when the bytes are not what {@link #pack} made */
    static double[] unpack(byte[] packed) throws DataFormatException {
        if (packed.length < 4) {
            throw new DataFormatException("too short");
        }
        int n = ByteBuffer.wrap(packed).getInt();
        if (n < 0 || n > 50_000_000) {
            throw new DataFormatException("impossible length");
        }
        byte[] planes = new byte[8 * n];
        Inflater inflater = new Inflater(true);
        inflater.setInput(packed, 4, packed.length - 4);
        int at = 0;
        while (at < planes.length) {
            int got = inflater.inflate(planes, at, planes.length - at);
            if (got == 0) {
                break;
            }
            at += got;
        }
        inflater.end();
        if (at < planes.length) {
            throw new DataFormatException("cut short");
        }
        double[] values = new double[n];
        long previous = 0;
        for (int i = 0; i < n; i++) {
            long x = 0;
            for (int b = 0; b < 8; b++) {
                x = x << 8 | planes[b * n + i] & 0xFF;
            }
            previous ^= x;
            values[i] = Double.longBitsToDouble(previous);
        }
        return values;
    }
}

package eagerneedle.core.quantity;

/**
 * A 64-bit digest of numbers and texts (FNV-1a with a final mix), by which readings and directions among them are told
 * apart.
 */
public final class Digest {
    private long h = 0xcbf29ce484222325L;

    public void add(double v) {
        add(Double.doubleToLongBits(v == 0 ? 0.0 : v));
    }

    public void add(double[] values) {
        for (double v : values) {
            add(v);
        }
    }

    public void add(String s) {
        for (int i = 0; i < s.length(); i++) {
            add(s.charAt(i));
        }
        add(-1L);
    }

    private void add(long v) {
        h = (h ^ v) * 0x100000001b3L;
        h ^= h >>> 29;
    }

    @Override
    public String toString() {
        long z = (h ^ (h >>> 30)) * 0xbf58476d1ce4e5b9L;
        return Long.toHexString(z ^ (z >>> 27));
    }
}

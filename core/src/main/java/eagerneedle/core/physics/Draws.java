package eagerneedle.core.physics;

/**
 * Random numbers that are keyed by what they are for and not by when they are asked for, so that a session with one
 * difference draws all the rest alike.
 *
 * <p>A key and the seed are hashed (FNV-1a, 64 bit) into the start of a SplitMix64 generator (Steele, Lea and Flood
 * 2014), whose numbers are turned normal after Box and Muller (1958) with strict arithmetic: the same on every machine.
 */
public final class Draws {
    private static final long FNV_START = 0xcbf29ce484222325L;
    private static final long FNV_PRIME = 0x100000001b3L;
    private static final long GOLDEN = 0x9e3779b97f4a7c15L;

    /** The seed with which nothing is drawn: everything is what it is written to be. */
    public static final long NOTHING = Long.MIN_VALUE;

    private final long seed;
    private final boolean still;

    public Draws(long seed) {
        this.seed = mixed(seed * GOLDEN + 1);
        this.still = seed == NOTHING;
    }

    /** A standard normal number, always the same for the same key. */
    public double normal(String key) {
        return stream(key).normal();
    }

    /** A number between -1 and 1, always the same for the same key. */
    public double even(String key) {
        return stream(key).even();
    }

    /** Numbers one after the other, always the same for the same key. */
    public Stream stream(String key) {
        long h = FNV_START;
        for (int i = 0; i < key.length(); i++) {
            h = (h ^ key.charAt(i)) * FNV_PRIME;
        }
        return new Stream(mixed(h ^ seed), still);
    }

    private static long mixed(long value) {
        long z = value;
        z = (z ^ (z >>> 30)) * 0xbf58476d1ce4e5b9L;
        z = (z ^ (z >>> 27)) * 0x94d049bb133111ebL;
        return z ^ (z >>> 31);
    }

    /** Numbers one after the other. */
    public static final class Stream {
        private long state;
        private double spare = Double.NaN;
        private final boolean still;

        private Stream(long start, boolean still) {
            state = start;
            this.still = still;
        }

        private double unit() {
            state += GOLDEN;
            return (mixed(state) >>> 11) * 0x1.0p-53;
        }

        /** Evenly between -1 and 1. */
        public double even() {
            return still ? 0 : 2 * unit() - 1;
        }

        /** Standard normal. */
        public double normal() {
            if (still) {
                return 0;
            }
            if (!Double.isNaN(spare)) {
                double s = spare;
                spare = Double.NaN;
                return s;
            }
            double r = StrictMath.sqrt(-2 * StrictMath.log(1 - unit()));
            double a = 2 * Math.PI * unit();
            spare = r * StrictMath.sin(a);
            return r * StrictMath.cos(a);
        }
    }
}

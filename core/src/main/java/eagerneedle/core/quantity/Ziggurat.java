package eagerneedle.core.quantity;

import java.util.Arrays;

/**
 * Normal draws by the ziggurat of Marsaglia and Tsang (2000, The Ziggurat Method for Generating Random Variables), with
 * 256 layers and the 53 bits of Doornik's form (2005, An Improved Ziggurat Method), on the generator of Steele, Lea and
 * Flood (2014, Fast Splittable Pseudorandom Number Generators). A whole row is filled in one loop without a call.
 */
final class Ziggurat {
    private static final int LAYERS = 256;
    /** Where the tail begins, and the area of every layer. */
    private static final double TAIL = 3.6541528853610088;

    private static final double AREA = 0.00492867323399;
    private static final long STEP = 0x9e3779b97f4a7c15L;
    private static final double[] EDGE = new double[LAYERS + 1];
    /** By layer: below which of the 2^52 steps to each side a point is surely inside, and how wide a step is. */
    private static final long[] INSIDE = new long[LAYERS];

    private static final double[] WIDTH = new double[LAYERS];
    /** Of the normal curve at each edge, where it is 1 in the middle. */
    private static final double[] HEIGHT = new double[LAYERS + 1];

    static {
        double f = Math.exp(-0.5 * TAIL * TAIL);
        EDGE[0] = AREA / f;
        EDGE[1] = TAIL;
        for (int i = 2; i < LAYERS; i++) {
            EDGE[i] = Math.sqrt(-2 * Math.log(AREA / EDGE[i - 1] + f));
            f = Math.exp(-0.5 * EDGE[i] * EDGE[i]);
        }
        Arrays.setAll(HEIGHT, i -> Math.exp(-0.5 * EDGE[i] * EDGE[i]));
        for (int i = 0; i < LAYERS; i++) {
            INSIDE[i] = (long) (0x1p52 * (EDGE[i + 1] / EDGE[i]));
            WIDTH[i] = 0x1p-52 * EDGE[i];
        }
    }

    private Ziggurat() {}

    /**
     * Fills the first n places with independent draws of the standard normal distribution.
     *
     * @param seed the same seed gives the same draws
     */
    static void fill(long seed, double[] row, int n) {
        long state = seed;
        for (int i = 0; i < n; i++) {
            state += STEP;
            long bits = mixed(state);
            int layer = (int) bits & (LAYERS - 1);
            long at = bits >> 11;
            if (Math.abs(at) < INSIDE[layer]) {
                row[i] = at * WIDTH[layer];
            } else {
                state = rejected(state, layer, at, row, i);
            }
        }
    }

    /** One draw in a hundred: the edge of a layer, or the tail. The state of the generator afterwards is returned. */
    private static long rejected(long before, int firstLayer, long firstAt, double[] row, int i) {
        long state = before;
        int layer = firstLayer;
        long at = firstAt;
        while (true) {
            if (layer == 0) {
                double x;
                double y;
                do {
                    state += STEP;
                    x = Math.log(unit(state)) / TAIL;
                    state += STEP;
                    y = Math.log(unit(state));
                } while (-2 * y < x * x);
                row[i] = at < 0 ? x - TAIL : TAIL - x;
                return state;
            }
            double x = at * WIDTH[layer];
            state += STEP;
            double height = HEIGHT[layer + 1] + unit(state) * (HEIGHT[layer] - HEIGHT[layer + 1]);
            if (height < Math.exp(-0.5 * x * x)) {
                row[i] = x;
                return state;
            }
            state += STEP;
            long bits = mixed(state);
            layer = (int) bits & (LAYERS - 1);
            at = bits >> 11;
            if (Math.abs(at) < INSIDE[layer]) {
                row[i] = at * WIDTH[layer];
                return state;
            }
        }
    }

    /** Above 0 and up to 1. */
    private static double unit(long state) {
        return ((mixed(state) >>> 11) + 1) * 0x1p-53;
    }

    /** The finaliser of SplitMix64. */
    static long mixed(long state) {
        long z = state;
        z = (z ^ (z >>> 30)) * 0xbf58476d1ce4e5b9L;
        z = (z ^ (z >>> 27)) * 0x94d049bb133111ebL;
        return z ^ (z >>> 31);
    }
}

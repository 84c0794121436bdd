package eagerneedle.core.trace;

import java.util.function.IntFunction;
import java.util.stream.IntStream;

/**
 * Long arrays in blocks that stay in a processor's cache, several of them at a time. What the blocks give comes back in
 * their order, so that sums do not depend on who worked them out.
 */
final class Tiles {
    private static final int SIZE = 1 << 16;
    private static final int WORTH_SHARING = 4;

    private Tiles() {}

    /** What a span of an array gives. */
    interface Work<T> {
        /** Looks at the elements from one index up to, and without, another. */
        T of(int from, int to);
    }

    /** The results of all blocks of an array of n elements, in order. */
    static <T> T[] map(int n, Work<T> work, IntFunction<T[]> array) {
        int blocks = Math.max(1, (n + SIZE - 1) / SIZE);
        IntStream all = IntStream.range(0, blocks);
        return (blocks < WORTH_SHARING ? all : all.parallel())
                .mapToObj(b -> work.of(b * SIZE, Math.min(n, (b + 1) * SIZE)))
                .toArray(array);
    }
}

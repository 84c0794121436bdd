package eagerneedle.rig.driver;

/**
 * Tells samples of the sampling before from those of this one: they may still be under way when it starts, and their
 * clock has not started anew.
 */
final class EarlierSampling {
    /** Whatever is under way arrives within this time. */
    private static final long UNDER_WAY_NS = 1_000_000_000L;

    private volatile long last = Long.MIN_VALUE;
    private volatile boolean awaited;
    private volatile long endedAt;

    /** From this moment on, in ns, another sampling is wanted. */
    void ended(long now) {
        awaited = last != Long.MIN_VALUE;
        endedAt = now;
    }

    /**
     * True for samples that belong to it.
     *
     * @param from first stamp of the instrument's clock, in ns
     * @param to last stamp
     * @param now when they came, in ns
     */
    boolean sent(long from, long to, long now) {
        awaited = awaited && from >= last && now - endedAt < UNDER_WAY_NS;
        if (!awaited) {
            last = to;
        }
        return awaited;
    }
}

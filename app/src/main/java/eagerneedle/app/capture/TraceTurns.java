package eagerneedle.app.capture;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.LongSupplier;

/**
 * Whose turn it is of many that cannot all be shown in one frame. So many at once while frames come in time; half as
 * many after one that came late, and one more after each that did not. A computer that is busy with other things, as it
 * is in the first second when the program's own code is still slow, then shows each of them less often, and the window
 * never sticks. One at least, so that nobody waits for ever.
 *
 * <p>Halving at once and growing slowly is how senders share a line that has no room for all of them (D.-M. Chiu and R.
 * Jain, Computer Networks and ISDN Systems 17, 1989, 1-14).
 */
final class TraceTurns {
    private final int most;
    private final long late;
    private final LongSupplier clock;
    private int next;
    private int now;
    private long before = Long.MIN_VALUE;

    /**
     * Turns.
     *
     * @param most at once
     * @param late ns between two frames after which the second came late
     * @param clock ns
     */
    TraceTurns(int most, long late, LongSupplier clock) {
        this.most = most;
        this.now = most;
        this.late = late;
        this.clock = clock;
    }

    /** Does it for those whose turn it is in a frame that begins now. */
    <T> void take(List<T> all, Consumer<T> each) {
        long began = clock.getAsLong();
        if (before != Long.MIN_VALUE) {
            now = began - before > late ? Math.max(1, now / 2) : Math.min(most, now + 1);
        }
        before = began;
        for (int i = 0; i < Math.min(now, all.size()); i++) {
            next = (next + 1) % all.size();
            each.accept(all.get(next));
        }
    }
}

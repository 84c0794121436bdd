package eagerneedle.rig.driver;

import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;

/**
 * What every driver keeps: how it stands, where samples go, what could not be understood, and the thread that fetches
 * them.
 */
abstract class Sampler implements Driver {
    private static final int JOIN_MS = 2000;

    volatile State state = State.CLOSED;
    volatile @Nullable Sink sink;
    volatile long unreadable;
    private @Nullable Thread worker;
    private volatile LongSupplier time = System::nanoTime;

    @Override
    public final State state() {
        return state;
    }

    @Override
    public final long unreadable() {
        return unreadable;
    }

    /** Tells whoever listens how it stands now. */
    final void tell(String sentence) {
        Sink to = sink;
        if (to != null) {
            to.state(state, sentence);
        }
    }

    final void tell(State now, String sentence) {
        state = now;
        tell(sentence);
    }

    /** The time by which silence is judged, ns. */
    final long now() {
        return time.getAsLong();
    }

    /** From here on time passes as it is told, not as it does on this computer; in ns. */
    final void timedBy(LongSupplier nanoseconds) {
        time = nanoseconds;
    }

    /** Begins a thread that lives until {@link #endWork}. */
    final void work(String name, Runnable task) {
        worker = new Thread(task, name);
        worker.setDaemon(true);
        worker.start();
    }

    /** No samples go anywhere from here on, and the thread has ended. */
    final void endWork() {
        sink = null;
        Thread w = worker;
        worker = null;
        if (w != null && w != Thread.currentThread()) {
            w.interrupt();
            try {
                w.join(JOIN_MS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        }
    }

    @Override
    public void close() {
        stop();
        state = State.CLOSED;
    }
}

package eagerneedle.app.widget;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * One calculation at a time while the window goes on: for what is said of samples that keep coming. Nothing waits in
 * line: whoever finds it busy asks again a frame later, with newer samples.
 *
 * <p>All of them share one thread. In the first second after a program starts its code is slow, and a frame that waits
 * for arithmetic is a frame that is seen to stick; a sentence or a mean that comes a frame later is not.
 */
public final class Meanwhile {
    private static final ExecutorService HAND = Executors.newSingleThreadExecutor(r -> {
        Thread t = new Thread(r, "meanwhile");
        t.setDaemon(true);
        return t;
    });

    private final Executor here;
    private final AtomicReference<@Nullable CompletableFuture<?>> running = new AtomicReference<>();

    /** @param here shows what was worked out: where the window's own thread runs what it is given */
    public Meanwhile(Executor here) {
        this.here = here;
    }

    /** True when nothing is being worked out. */
    public boolean isFree() {
        return running.get() == null;
    }

    /**
     * Works something out and shows it, unless it is forgotten before. What goes wrong goes wrong where it would have
     * been shown.
     *
     * @param work of nothing that the window changes
     */
    public <T> void work(Supplier<T> work, Consumer<T> show) {
        CompletableFuture<T> mine = CompletableFuture.supplyAsync(work, HAND);
        running.set(mine);
        mine.whenComplete((t, failed) -> here.execute(() -> {
            if (!running.compareAndSet(mine, null)) {
                return;
            }
            if (failed != null) {
                throw failed instanceof CompletionException e && e.getCause() instanceof RuntimeException cause
                        ? cause
                        : new CompletionException(failed);
            }
            show.accept(t);
        }));
    }

    /** What is being worked out is shown no more. */
    public void forget() {
        running.set(null);
    }
}

package eagerneedle.app.workbench;

import java.util.ConcurrentModificationException;
import java.util.List;
import java.util.NoSuchElementException;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutionException;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.slf4j.LoggerFactory;

/**
 * Tells what the program itself did wrong from what it was given. What it was given is answered in one sentence at the
 * place where it was given. What it did wrong is told as every uncaught error is, with a file to send; such an
 * exception has words for programmers only, and to show these as if they were advice would be worse than silence.
 */
public final class Fault {
    /**
     * Thrown by the language and its library where a program was not careful; no part of this one throws them itself.
     */
    private static final List<Class<? extends RuntimeException>> CARELESS = List.of(
            NullPointerException.class,
            NoSuchElementException.class,
            IndexOutOfBoundsException.class,
            ClassCastException.class,
            ConcurrentModificationException.class,
            ArrayStoreException.class,
            NegativeArraySizeException.class,
            UnsupportedOperationException.class);

    private Fault() {}

    /** True for what no input should bring about. */
    public static boolean isOurs(Throwable e) {
        return CARELESS.stream().anyMatch(c -> c.isInstance(e));
    }

    /**
     * The sentence to show for what an act threw. A fault of the program is handed to whoever watches for uncaught
     * errors; the causes of all others are written to the log, by their kind and place, without what they say of data.
     */
    public static String said(Throwable thrown) {
        boolean wrapped = thrown instanceof CompletionException || thrown instanceof ExecutionException;
        Throwable e = wrapped && thrown.getCause() != null ? thrown.getCause() : thrown;
        if (isOurs(e)) {
            Thread now = Thread.currentThread();
            now.getUncaughtExceptionHandler().uncaughtException(now, e);
            return "Something went wrong in the program itself; what was kept stays as it was.";
        }
        if (e.getCause() != null) {
            LoggerFactory.getLogger(Fault.class)
                    .info("Told as a sentence: {}", causes(e).collect(Collectors.joining(", from ")));
        }
        return e.getMessage() == null || e.getMessage().isBlank() ? "That did not work." : e.getMessage();
    }

    /**
     * A sentence that says more to the person than what was thrown does; that stands in the log. A fault of the program
     * is told as such.
     */
    public static String said(Throwable thrown, String better) {
        if (isOurs(thrown)) {
            return said(thrown);
        }
        LoggerFactory.getLogger(Fault.class)
                .info("Told as a sentence: {}", causes(thrown).collect(Collectors.joining(", from ")));
        return better;
    }

    private static Stream<String> causes(Throwable e) {
        return Stream.iterate(e, t -> t != null, Throwable::getCause)
                .limit(10)
                .map(t -> t.getClass().getName() + (t.getStackTrace().length > 0 ? " at " + t.getStackTrace()[0] : ""));
    }
}

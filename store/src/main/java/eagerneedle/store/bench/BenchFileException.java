package eagerneedle.store.bench;

import org.jspecify.annotations.Nullable;

/** A bench file cannot be read or written; the message is one sentence that says what to do. Nothing was changed. */
public final class BenchFileException extends RuntimeException {
    private static final long serialVersionUID = 1;

    private final boolean damaged;

    BenchFileException(String message, boolean damaged) {
        this(message, damaged, null);
    }

    BenchFileException(String message, boolean damaged, @Nullable Throwable cause) {
        super(message, cause);
        this.damaged = damaged;
    }

    /** True when {@link BenchFile#repair} may save what can still be read. */
    public boolean damaged() {
        return damaged;
    }
}

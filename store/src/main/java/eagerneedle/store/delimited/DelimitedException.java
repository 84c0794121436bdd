package eagerneedle.store.delimited;

/** A delimited text cannot be read; the message is one sentence with file, line and what to do. */
public final class DelimitedException extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    DelimitedException(String message) {
        super(message);
    }
}

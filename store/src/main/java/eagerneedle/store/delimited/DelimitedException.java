package eagerneedle.store.delimited;

/** A delimited text cannot be read; the message is one sentence with file, line and what to do. */
public final class DelimitedException extends IllegalArgumentException {
    DelimitedException(String message) {
        super(message);
    }
}

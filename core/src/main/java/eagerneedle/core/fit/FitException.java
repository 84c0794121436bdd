package eagerneedle.core.fit;

/** A fit that cannot be made or did not converge; the message is one sentence and there is no number. */
public final class FitException extends IllegalArgumentException {
    public FitException(String message) {
        super(message);
    }
}

package eagerneedle.core.fit;

import java.util.Objects;

/** A fit that could not be made; the message is one sentence for the user. */
public final class FitException extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    private final boolean tooFew;

    public FitException(String message) {
        this(message, false);
    }

    /** @param cause what went wrong below */
    public FitException(String message, Throwable cause) {
        super(message, cause);
        this.tooFew = false;
    }

    private FitException(String message, boolean tooFew) {
        super(message);
        this.tooFew = tooFew;
    }

    /** There are fewer points than the model needs, whatever their values. */
    static FitException tooFew(String message) {
        return new FitException(message, true);
    }

    @Override
    public String getMessage() {
        return Objects.requireNonNull(super.getMessage());
    }

    /** True when the data were too few to begin with; false when the fit was tried and did not come to an end. */
    public boolean isTooFew() {
        return tooFew;
    }
}

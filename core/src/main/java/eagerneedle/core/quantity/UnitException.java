package eagerneedle.core.quantity;

import java.util.Objects;

/** A unit that is not known, or that does not fit; the message is one sentence for the person at the bench. */
public final class UnitException extends IllegalArgumentException {
    private static final long serialVersionUID = 1;

    public UnitException(String message) {
        super(message);
    }

    @Override
    public String getMessage() {
        return Objects.requireNonNull(super.getMessage());
    }
}

package eagerneedle.app.eye;

import eagerneedle.core.formula.Written;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * What a reading that is being made must be.
 *
 * @param label what is read
 * @param unit what it must fit
 */
record WantedReading(String label, LabUnit unit) {
    /** What a reading looks like, as written, decides the unit. */
    static WantedReading like(String label, String expected) {
        return new WantedReading(
                label,
                Written.quantity(expected, "expected", "expected", "expected").unit());
    }

    private Quantity made(Supplier<String> written) {
        return Written.quantity(written.get(), "reading", label, "reading");
    }

    /** What comes of a text; absent where it is no reading. */
    Optional<Quantity> quantity(Supplier<String> written) {
        try {
            return Optional.of(made(written));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** Why a text is no such reading yet; empty when it is one. */
    String problem(Supplier<String> written) {
        try {
            Quantity q = made(written);
            return q.unit().fits(unit)
                    ? ""
                    : label + " is in " + unit.named() + ", not in " + q.unit().named() + ".";
        } catch (IllegalArgumentException e) {
            return Objects.requireNonNullElse(e.getMessage(), "This is no reading yet.");
        }
    }
}

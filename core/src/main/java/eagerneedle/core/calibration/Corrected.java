package eagerneedle.core.calibration;

import eagerneedle.core.quantity.Quantity;
import java.util.Optional;

/** Puts a reference right. */
@FunctionalInterface
public interface Corrected {
    /** What it is in truth, given its point and what it was taken to be; empty where it was right. */
    Optional<Quantity> of(CalibrationPoint point, Quantity was);
}

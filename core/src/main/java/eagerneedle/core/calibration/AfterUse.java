package eagerneedle.core.calibration;

import java.time.Instant;
import java.util.List;

/**
 * A check after use: the zero or one point repeated, and what is made of the drift found.
 *
 * @param taken when
 * @param points as taken, with the relation of the calibration still to be applied to their indications
 * @param use what is made of it
 */
public record AfterUse(Instant taken, List<CalibrationPoint> points, Use use) {
    /** What is made of a drift: taken out in proportion to time, kept as an influence of that size, or only told. */
    public enum Use {
        CORRECT,
        INFLUENCE,
        TELL
    }

    public AfterUse {
        points = List.copyOf(points);
    }
}

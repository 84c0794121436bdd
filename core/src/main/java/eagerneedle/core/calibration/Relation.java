package eagerneedle.core.calibration;

import com.fasterxml.jackson.annotation.JsonCreator;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * What kind of relation a calibration gives between indication and measurand. What is done at the bench is told by the
 * sheet in words; these few relations serve every kind.
 */
public enum Relation {
    /** Measurand = indication + offset: zero, tare, ice point. */
    OFFSET(1, "offset"),
    /** Measurand = factor × indication: known length or time, absolute count. */
    FACTOR(1, "factor"),
    /** Measurand = intercept + slope × indication: reference values, shunt, two fixed points, blank and dark. */
    LINE(2, "straight line"),
    PARABOLA(3, "parabola"),
    CUBIC(4, "cubic"),
    /** Measurand = indication: an indicator adjusted until zero and span hold. */
    ADJUSTED(2, "adjusted indicator"),
    /** Errors of every interval of two divided circles. */
    CLOSURE(9, "closure of two circles");

    private final int fewest;
    private final String label;

    Relation(int fewest, String label) {
        this.fewest = fewest;
        this.label = label;
    }

    /** Fewest points it can be found from. */
    public int fewest() {
        return fewest;
    }

    public String label() {
        return label;
    }

    /** With its article, for a sentence. */
    String article() {
        return this == OFFSET ? "an offset" : "a " + label;
    }

    /** Degree of the polynomial, -1 for those that are none. */
    int degree() {
        return switch (this) {
            case LINE -> 1;
            case PARABOLA -> 2;
            case CUBIC -> 3;
            default -> -1;
        };
    }

    /** By the name a sheet gives; a straight line when it gives none. */
    @JsonCreator
    public static Relation named(@Nullable String name) {
        return name == null ? LINE : valueOf(name.toUpperCase(Locale.ROOT));
    }
}

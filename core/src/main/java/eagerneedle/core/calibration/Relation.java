package eagerneedle.core.calibration;

import com.fasterxml.jackson.annotation.JsonCreator;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.fit.FitException;
import eagerneedle.core.fit.FitOptions;
import eagerneedle.core.fit.Points;
import eagerneedle.core.fit.PolynomialFit;
import eagerneedle.core.fit.Scatter;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Locale;
import java.util.stream.IntStream;
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

    /**
     * The relation through points: what a reference is against what is indicated. Parameter k is the coefficient of the
     * k-th power, an offset alone for {@link #OFFSET}.
     *
     * @param x indications
     * @param y references, as many, in a unit of their kind
     * @param origin root of the ids of its influences
     * @param label what these are called
     * @throws FitException for relations that are no curve
     */
    Fit through(List<Quantity> x, List<Quantity> y, String origin, String label) {
        FitOptions known = new FitOptions(Scatter.FROM_UNCERTAINTIES, origin, label);
        return switch (this) {
            case OFFSET -> {
                List<Quantity> exactly =
                        x.stream().map(q -> Quantity.exact(q.value(), q.unit())).toList();
                List<Quantity> differences = IntStream.range(0, x.size())
                        .mapToObj(i -> y.get(i).minus(x.get(i)))
                        .toList();
                yield PolynomialFit.ofPoints(Points.of(exactly, differences), 0, known);
            }
            case FACTOR -> PolynomialFit.throughOrigin(Points.of(x, y), known);
            case ADJUSTED, CLOSURE -> throw new FitException("A calibration by " + article() + " has no fitted line.");
            default -> PolynomialFit.ofPoints(Points.of(x, y), degree(), known);
        };
    }

    /** By the name a sheet gives; a straight line when it gives none. */
    @JsonCreator
    public static Relation named(@Nullable String name) {
        return name == null ? LINE : valueOf(name.toUpperCase(Locale.ROOT));
    }
}

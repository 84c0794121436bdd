package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;

/**
 * A display that wanders: the lowest and the highest that were seen; the middle, with half the range as largest error.
 *
 * @param low lowest value seen
 * @param high highest value seen, in a unit that fits
 */
public record WanderingDisplay(Quantity low, Quantity high) {
    public WanderingDisplay {
        if (high.minus(low).value() < 0) {
            throw new IllegalArgumentException(
                    "The highest value seen, " + high + ", is below the lowest, " + low + ".");
        }
    }

    /** The middle of what was seen. */
    public Quantity quantity(String origin, String label) {
        Quantity top = high.to(low.unit());
        Quantity middle = Quantity.exact((low.value() + top.value()) / 2, low.unit());
        return middle.with(
                Leaf.typeB(origin + "#wander", label + ": wandering display", "reading", Distribution.RECTANGULAR),
                (top.value() - low.value()) / 2 / Math.sqrt(3));
    }
}

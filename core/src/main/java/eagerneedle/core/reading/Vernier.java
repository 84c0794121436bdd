package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;

/**
 * A main scale with a vernier: the mark of the main scale before the zero, and which mark of the vernier coincides.
 *
 * @param main main scale
 * @param mark coinciding vernier mark, 0 to {@code marks}; a half where two marks coincide equally well
 * @param division division of the main scale
 * @param marks how many parts the vernier splits a division into
 */
public record Vernier(Quantity main, double mark, Quantity division, int marks) {
    public Vernier {
        if (marks < 2 || mark < 0 || mark > marks) {
            throw new IllegalArgumentException(
                    "The coinciding mark lies between 0 and " + marks + ", not at " + mark + ".");
        }
    }

    /** Main scale plus vernier; half a vernier step is the largest error of judging. */
    public Quantity quantity(String origin, String label) {
        double step = Difference.in(division, main.unit()) / marks;
        return main.plus(Quantity.exact(mark * step, main.unit().difference()))
                .with(
                        Leaf.typeB(
                                origin + "#vernier", label + ": vernier", "vernier reading", Distribution.RECTANGULAR),
                        step / 2 / Math.sqrt(3));
    }
}

package eagerneedle.core.marking;

import java.util.List;

/**
 * What may have made a number of a student's data.
 *
 * @param label in words, as the sheet or the slip is called
 * @param says why it is wrong
 * @param value what it gives, in the unit of the right result
 * @param nearness how much likelier it is than coincidence; 0 while nothing is held against it
 */
public record Explanation(Change.Kind kind, String id, String label, String says, double value, double nearness) {
    /** True where whoever is told it can reckon the right number from the wrong one. */
    public boolean givesAway() {
        return kind == Change.Kind.SLIP
                && (id.startsWith("factor-")
                        || List.of("sign", "reciprocal", "minutes", "seconds").contains(id));
    }

    Explanation near(double odds) {
        return new Explanation(kind, id, label, says, value, odds);
    }
}

package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.List;

/**
 * A length read on a divided scale by lining up edges.
 *
 * <p>Each edge is judged to a fraction of the division, so it may be wrong by half of that fraction either way. A hard
 * stop at zero leaves one edge to judge, a rule laid freely two, and every time the rule is moved and lengths are added
 * two more. A start mark other than zero is subtracted; both marks then carry the same rule, so a worn end plays no
 * part.
 *
 * @param end mark at the end
 * @param start mark at the start, in a unit that fits
 * @param division distance of two marks
 * @param judged fraction of a division that can be judged, above 0, at most 1: 1/2, 1/4, 1/5, 1/10
 * @param edges edges lined up, 1 or more
 */
public record ScaleReading(Quantity end, Quantity start, Quantity division, double judged, int edges) {
    private static final double SMALLEST = 0.05;

    public ScaleReading {
        if (!(judged >= SMALLEST && judged <= 1)) {
            throw new IllegalArgumentException(
                    "A division can be judged to a fraction between 1/20 and 1, not " + judged + ".");
        }
        if (edges < 1 || edges > 100) {
            throw new IllegalArgumentException("Between 1 and 100 edges can be lined up, not " + edges + ".");
        }
        if (!(division.value() > 0)) {
            throw new IllegalArgumentException("A division is longer than zero, not " + division + ".");
        }
    }

    /** The edges of a rule: one at a hard stop, else two, and two more for each time it was moved. */
    public static int edges(boolean hardStop, int moved) {
        return (hardStop ? 1 : 2) + 2 * moved;
    }

    /** Largest error of one edge, in the unit of the reading. */
    public double edgeLimit() {
        return Difference.in(division, end.unit()) * judged / 2;
    }

    /** End minus start, with a leaf an edge. */
    public Quantity quantity(String origin, String label) {
        LabUnit unit = end.unit();
        if (unit.isAffine() && start.value() != 0) {
            throw new IllegalArgumentException(
                    "A thermometer is read at one mark; a rise is the difference of two readings.");
        }
        Quantity q = unit.isAffine() ? end : end.minus(start.to(unit));
        List<Quantity> parts = new ArrayList<>(List.of(q));
        for (int e = 1; e <= edges; e++) {
            Leaf leaf = Leaf.typeB(
                    origin + "#edge" + e,
                    label + (edges == 1 ? ": edge" : ": edges"),
                    "scale reading",
                    Distribution.RECTANGULAR);
            parts.add(Quantity.of(0, edgeLimit() / Math.sqrt(3), unit, leaf));
        }
        double[] ones = new double[parts.size()];
        java.util.Arrays.fill(ones, 1);
        return Quantity.combination(parts, ones, q.value(), unit);
    }
}

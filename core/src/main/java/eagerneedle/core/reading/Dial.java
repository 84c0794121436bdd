package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;

/**
 * A main scale with a hand or a drum that goes round once while the main scale goes on by one turn: a dial, a
 * micrometer screw, a drum with a vernier beside it.
 *
 * @param main main scale, whole turns only
 * @param hand where the hand or the drum stands, in its divisions; with a vernier the last whole one
 * @param turn by how much the main scale goes on in one turn, in a unit that fits
 * @param divisions how many divisions a turn has
 * @param judged fraction of the finest division that can be judged, above 0, at most 1
 * @param mark coinciding vernier mark; 0 without a vernier
 * @param marks how many parts a vernier splits a division into; 0 without a vernier
 */
public record Dial(Quantity main, double hand, Quantity turn, int divisions, double judged, double mark, int marks) {
    public Dial {
        if (divisions < 2 || hand < 0 || hand > divisions) {
            throw new IllegalArgumentException(
                    "The hand stands between 0 and " + divisions + " divisions, not at " + hand + ".");
        }
        if (marks < 0 || marks == 1 || mark < 0 || mark > marks) {
            throw new IllegalArgumentException(
                    "The coinciding mark lies between 0 and " + marks + ", not at " + mark + ".");
        }
        if (!(judged > 0 && judged <= 1)) {
            throw new IllegalArgumentException("A division can be judged to a fraction up to 1, not " + judged + ".");
        }
        if (!(turn.value() > 0)) {
            throw new IllegalArgumentException("A turn is more than nothing, not " + turn + ".");
        }
    }

    /** The finest division, in the unit of the turn. */
    public double step() {
        return turn.value() / divisions / Math.max(1, marks);
    }

    /** Main scale plus hand plus vernier; half of what can be judged of the finest division is the largest error. */
    public Quantity quantity(String origin, String label) {
        LabUnit difference = main.unit().difference();
        double beyond = turn.value() / divisions * hand + step() * mark;
        Quantity sum =
                main.plus(Quantity.exact(Difference.in(Quantity.exact(beyond, turn.unit()), main.unit()), difference));
        double limit = Difference.in(Quantity.exact(step(), turn.unit()), main.unit()) * judged / 2;
        return sum.with(
                Leaf.typeB(origin + "#dial", label + ": dial", "dial reading", Distribution.RECTANGULAR),
                limit / Math.sqrt(3));
    }
}

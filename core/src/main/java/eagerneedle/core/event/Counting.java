package eagerneedle.core.event;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Shape;
import java.util.Arrays;
import org.hipparchus.distribution.continuous.ChiSquaredDistribution;

/**
 * Random events counted: Poisson uncertainty, rates with dead time and prescaler, and whether repeated counts scatter
 * as they should.
 */
public final class Counting {
    private Counting() {}

    /**
     * A count with its Poisson uncertainty √n.
     *
     * @param n counts, 0 or more; a count of 0 has the uncertainty of a count of 1
     */
    public static Quantity count(double n, String leafId, String label) {
        return Quantity.of(
                n, Math.sqrt(Math.max(1, n)), LabUnit.ONE, Leaf.typeB(leafId, label, "counting", Shape.count(n)));
    }

    /**
     * True rate behind a prescaler and a dead time that ignores events (non-paralysable): r = m / (1 - m d).
     *
     * @param displayed count on the display
     * @param prescale events per displayed count, 1 or more; what the display cuts off is a rectangular influence
     * @param time counting time
     * @param deadTime per event, 0 for none
     * @return in 1/s
     * @throws ArithmeticException when the counter would be dead all the time
     */
    public static Quantity rate(double displayed, double prescale, Quantity time, Quantity deadTime, String origin) {
        if (!(displayed >= 0) || !(prescale >= 1)) {
            throw new ArithmeticException(
                    "A count is 0 or more and a prescaler 1 or more, not " + displayed + " and " + prescale + ".");
        }
        Quantity events = count(displayed * prescale, origin + "#count", "counting statistics");
        if (prescale > 1) {
            events = events.with(
                    Leaf.typeB(origin + "#prescale", "prescaler", "counting", Distribution.RECTANGULAR),
                    prescale / Math.sqrt(12));
        }
        Quantity seen = events.dividedBy(time.to(LabUnit.SECOND));
        if (deadTime.isExact() && deadTime.value() == 0) {
            return seen;
        }
        Quantity alive = Quantity.number(1).minus(seen.times(deadTime));
        if (!(alive.value() > 0)) {
            throw new ArithmeticException("With a dead time of " + deadTime
                    + " the counter would be dead all the time at " + seen + "; check the dead time.");
        }
        return seen.dividedBy(alive);
    }

    /**
     * Whether repeated counts scatter as Poisson's law says.
     *
     * @param index variance over mean, 1 on average
     * @param chance of a scatter at least this far out, either way, 0 to 1
     */
    public record Dispersion(double index, double chance) {
        /** One sentence. */
        public String sentence() {
            return chance > 0.05
                    ? Notation.sentence("The counts scatter as random events do (dispersion %.2f).", index)
                    : index > 1
                            ? Notation.sentence(
                                    "The counts scatter more than random events do (dispersion %.2f): something "
                                            + "drifted or disturbed them.",
                                    index)
                            : Notation.sentence(
                                    "The counts scatter less than random events do (dispersion %.2f): they are not "
                                            + "independent, or a dead time is large.",
                                    index);
        }
    }

    /** The index of dispersion test on at least 2 counts taken for equal times. */
    public static Dispersion dispersion(double[] counts) {
        int n = counts.length;
        double mean = Arrays.stream(counts).average().orElse(0);
        if (n < 2 || !(mean > 0)) {
            throw new IllegalArgumentException("A test of the scatter needs at least 2 counts that are not all zero.");
        }
        double index = Arrays.stream(counts).map(c -> (c - mean) * (c - mean)).sum() / (n - 1) / mean;
        double below = new ChiSquaredDistribution(n - 1).cumulativeProbability(index * (n - 1));
        return new Dispersion(index, 2 * Math.min(below, 1 - below));
    }
}

package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;

/**
 * What an instrument's specification allows it to be wrong by: a share of the reading, a share of the range, some
 * digits and a fixed part, added up as largest errors.
 *
 * <p>The instrument is one leaf, shared by all its readings: a rule that is long is long in every reading, so the error
 * cancels in a ratio of two of them and does not shrink by repeating. Digits are rounding of the display and belong to
 * one reading.
 *
 * @param instrument identity of the instrument, root of the shared leaf's id
 * @param ofReading share of the reading, 0.005 for half a percent
 * @param ofRange share of the range
 * @param range the range, in a unit that fits the reading
 * @param digits digits of the last place
 * @param digit value of one digit of the last place
 * @param fixed fixed largest error
 */
public record Accuracy(
        String instrument,
        double ofReading,
        double ofRange,
        Quantity range,
        double digits,
        Quantity digit,
        Quantity fixed) {
    public Accuracy {
        if (ofReading < 0 || ofRange < 0 || digits < 0) {
            throw new IllegalArgumentException("An accuracy is given by numbers above zero.");
        }
    }

    /** Largest error of a reading from what its readings share, in the reading's unit. */
    public double sharedLimit(Quantity reading) {
        return ofReading * Math.abs(reading.value())
                + ofRange * Math.abs(Difference.in(range, reading.unit()))
                + Math.abs(Difference.in(fixed, reading.unit()));
    }

    /** The reading with the instrument's influences. */
    public Quantity applied(Quantity reading, String origin) {
        Quantity q = reading;
        double shared = sharedLimit(reading);
        if (shared > 0) {
            q = q.with(
                    Leaf.typeB(
                            "instrument:" + instrument,
                            instrument + ": accuracy",
                            instrument,
                            Distribution.RECTANGULAR),
                    shared / Math.sqrt(3));
        }
        double own = digits * Math.abs(Difference.in(digit, reading.unit()));
        return own > 0
                ? q.with(
                        Leaf.typeB(origin + "#digits", instrument + ": digits", instrument, Distribution.RECTANGULAR),
                        own / Math.sqrt(3))
                : q;
    }
}

package eagerneedle.core.judge;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.UnitException;

/** The percentages of the percent school, each under its own name, so that they are never mixed. */
public final class Percent {
    private static final LabUnit PERCENT = LabUnit.parse("%");

    private Percent() {}

    /** Percent error against a reference: (result - reference) / |reference|, signed. */
    public static Quantity error(Quantity result, Quantity reference) {
        requireZero(reference);
        Quantity d = result.minus(reference);
        Quantity r = reference.value() < 0 ? reference.negate() : reference;
        return d.dividedBy(r).to(PERCENT);
    }

    private static void requireZero(Quantity q) {
        if (q.unit().isAffine()) {
            throw new UnitException("A percentage of the temperature " + q
                    + " says nothing, since its zero is arbitrary; write both in K, or state the difference.");
        }
    }

    /** Percent difference of two measurements, neither of them a reference: |a - b| over the mean of their sizes. */
    public static Quantity difference(Quantity a, Quantity b) {
        requireZero(b);
        Quantity d = a.minus(b);
        Quantity size = a.value() < 0 ? a.negate() : a;
        Quantity other = b.value() < 0 ? b.negate() : b;
        Quantity percent = d.dividedBy(size.plus(other).scaled(0.5)).to(PERCENT);
        return percent.value() < 0 ? percent.negate() : percent;
    }
}

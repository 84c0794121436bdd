package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;
import java.util.List;

/**
 * One thing read several times: the mean, s/√n with n - 1 degrees of freedom, and the display's rounding, which
 * repeating does not average away while all readings fall on the same digit.
 *
 * @param readings n readings, 2 or more; influences they share stay
 * @param resolution smallest step of the display, in a unit that fits; zero if not known
 */
public record Repeats(List<Quantity> readings, Quantity resolution) {
    public Repeats {
        readings = List.copyOf(readings);
        if (readings.size() < 2) {
            throw new IllegalArgumentException(
                    "Repeats need at least 2 readings; there " + (readings.size() == 1 ? "is 1." : "are none."));
        }
    }

    /** Mean with scatter and rounding as leaves; in the unit of the first reading. */
    public Quantity quantity(String origin, String label) {
        LabUnit unit = readings.get(0).unit();
        int n = readings.size();
        double[] share = new double[n];
        java.util.Arrays.fill(share, 1.0 / n);
        double mean = 0;
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (Quantity q : readings) {
            double v = q.in(unit);
            mean += v / n;
            low = Math.min(low, v);
            high = Math.max(high, v);
        }
        double squares = 0;
        for (Quantity q : readings) {
            squares += (q.in(unit) - mean) * (q.in(unit) - mean);
        }
        double u = Math.sqrt(squares / (n - 1) / n);
        Quantity q = Quantity.combination(readings.stream().map(r -> r.to(unit)).toList(), share, mean, unit);
        if (u > 0) {
            double halfRange = (high - low) / 2;
            q = q.with(
                    Leaf.typeA(origin + "#repeats", label + ": repeats", "repeated readings", n - 1)
                            .withLimitFactor(halfRange / u),
                    u);
        }
        double step = Math.abs(Difference.in(resolution, unit));
        return step > 0
                ? q.with(
                        Leaf.typeB(
                                origin + "#resolution",
                                label + ": resolution",
                                "repeated readings",
                                Distribution.RECTANGULAR),
                        step / Math.sqrt(12))
                : q;
    }
}

package eagerneedle.core.reading;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Leaf;
import eagerneedle.core.quantity.Quantity;

/**
 * A time taken by hand. Starting and stopping each scatter by the reaction; what is common to both cancels.
 *
 * @param shown time on the display
 * @param reaction standard deviation of one reaction, about 0.1 s for an expected event
 * @param resolution smallest step of the display
 */
public record Stopwatch(Quantity shown, Quantity reaction, Quantity resolution) {
    /** The time with a leaf for each end and one for the display; in the unit shown. */
    public Quantity quantity(String origin, String label) {
        LabUnit unit = shown.unit();
        double r = Math.abs(reaction.to(unit).value());
        double step = Math.abs(resolution.to(unit).value());
        Quantity q = shown;
        if (r > 0) {
            q = q.with(
                            Leaf.typeB(
                                    origin + "#start",
                                    label + ": reaction at the start",
                                    "stopwatch",
                                    Distribution.NORMAL),
                            r)
                    .with(
                            Leaf.typeB(
                                    origin + "#stop",
                                    label + ": reaction at the end",
                                    "stopwatch",
                                    Distribution.NORMAL),
                            r);
        }
        return step > 0
                ? q.with(
                        Leaf.typeB(origin + "#resolution", label + ": display", "stopwatch", Distribution.RECTANGULAR),
                        step / Math.sqrt(12))
                : q;
    }
}

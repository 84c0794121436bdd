package eagerneedle.core.reading;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;

/**
 * Divisions, steps and largest errors are differences, also where what is read has a zero of its own: a division of 0.2
 * K, written so or as 0.2 °C, is a fifth of a degree on a thermometer and not a temperature near absolute zero.
 */
final class Difference {
    private Difference() {}

    /** A difference in the unit of a reading, or for a temperature in that of its differences. */
    static double in(Quantity step, LabUnit reading) {
        LabUnit own = step.unit().difference();
        return own.convert(step.value(), reading.difference());
    }
}

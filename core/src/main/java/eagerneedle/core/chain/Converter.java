package eagerneedle.core.chain;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;

/**
 * Turns a continuous input into counts: count = round(input / step), from 0 to 2^bits - 1.
 *
 * @param label which instrument
 * @param input unit of what goes in
 * @param step  input that makes one count, in {@code input}
 * @param bits  1 to 32
 */
public record Converter(String label, LabUnit input, double step, int bits) {
    public Converter {
        if (!(step > 0) || bits < 1 || bits > 32) {
            throw new IllegalArgumentException("The converter " + label + " needs a step above 0 and 1 to 32 bits.");
        }
    }

    public double highestCount() {
        return Math.pow(2, bits) - 1;
    }

    /** The count for an input, held at the rails. */
    public double count(double in) {
        return Math.max(0, Math.min(highestCount(), Math.rint(in / step)));
    }

    public double input(double count) {
        return count * step;
    }

    public String transfer() {
        return Notation.plain(step, 4) + " " + input.pretty() + " a step, " + bits + " bit";
    }
}

package eagerneedle.core.chain;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;

/**
 * One linear stage of a chain: output = gain × input + offset.
 *
 * @param kind    sensor or conditioner
 * @param label   which instrument
 * @param input   unit of what goes in
 * @param output  unit of what comes out
 * @param gain    in {@code output} per {@code input}; not 0
 * @param offset  in {@code output}
 * @param lowest  smallest input it takes, in {@code input}; may be minus infinity
 * @param highest largest input it takes, in {@code input}; may be infinity
 */
public record Stage(String kind, String label, LabUnit input, LabUnit output, double gain, double offset, double lowest, double highest) {
    public Stage {
        if (gain == 0 || !(highest > lowest)) {
            throw new IllegalArgumentException("The stage " + label + " needs a gain other than 0 and a range that ends above where it starts.");
        }
    }

    public double forward(double in) {
        return gain * in + offset;
    }

    public double backward(double out) {
        return (out - offset) / gain;
    }

    /** The transfer as written on the ribbon, for instance "5.831 ms/m". */
    public String transfer() {
        String unit = output.pretty() + (input.symbol().isEmpty() ? "" : "/" + input.pretty());
        return Notation.plain(gain, 5) + " " + unit + (offset == 0 ? "" : (offset > 0 ? " + " : " − ") + Notation.plain(Math.abs(offset), 4) + " " + output.pretty());
    }
}

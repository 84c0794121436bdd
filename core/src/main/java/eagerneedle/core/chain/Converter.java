package eagerneedle.core.chain;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;

/**
 * Turns a continuous input into counts: count = round((input - offset) gain / step) counted from the start of the
 * range, held at the rails.
 *
 * @param link as written
 * @param label which instrument
 * @param input unit of what goes in
 * @param low input at the lowest count, in {@code input}
 * @param step input that makes one count, in {@code input}
 * @param bits 1 to 32
 * @param signed counts in two's complement rather than from 0
 * @param gain relative factor of the converter, 1 for a perfect one
 * @param offset input at which it reads nothing, in {@code input}
 */
public record Converter(
        Link link,
        String label,
        LabUnit input,
        double low,
        double step,
        int bits,
        boolean signed,
        double gain,
        double offset) {
    public Converter {
        if (!(step > 0) || bits < 1 || bits > 32) {
            throw new IllegalArgumentException("The converter " + label + " needs a step above 0 and 1 to 32 bits.");
        }
    }

    /** @throws IllegalArgumentException with one sentence when the link makes no sense */
    public static Converter of(Link link) {
        int bits = link.bits() == null ? 16 : link.bits();
        double n = Math.pow(2, bits);
        double gain = link.gain() == null ? 1 : ChainReading.of(link.gain(), "").value();
        double offset =
                link.offset() == null ? 0 : ChainReading.of(link.offset(), "").value();
        boolean signed = "signed".equals(link.coding());
        LabUnit unit = LabUnit.parse(link.from());
        if (link.range() == null) {
            double step = link.step() == null ? 1 : link.step();
            return new Converter(
                    link, link.label(), unit, signed ? -step * n / 2 : 0, step, bits, signed, gain, offset);
        }
        if (link.range().size() != 2 || !(link.range().get(1) > link.range().get(0))) {
            throw new IllegalArgumentException("the range of " + link.label() + " is written [lowest, highest].");
        }
        double span = link.range().get(1) - link.range().get(0);
        return new Converter(
                link,
                link.label(),
                unit,
                link.range().get(0),
                span / ("2^n - 1".equals(link.counts()) ? n - 1 : n),
                bits,
                signed,
                gain,
                offset);
    }

    public double lowestCount() {
        return signed ? -Math.pow(2, bits - 1) : 0;
    }

    public double highestCount() {
        return lowestCount() + Math.pow(2, bits) - 1;
    }

    /** The count for an input, held at the rails. */
    public double count(double in) {
        return Math.max(lowestCount(), Math.min(highestCount(), Math.rint(exactCount(in))));
    }

    /** The count before rounding, and beyond the rails if need be. */
    public double exactCount(double in) {
        return lowestCount() + (gain * (in - offset) - low) / step;
    }

    public double input(double count) {
        return ((count - lowestCount()) * step + low) / gain + offset;
    }

    public String transfer() {
        if (bits == 1) {
            return "two states, 1 bit";
        }
        double milli = input.symbol().equals("V") && step < 0.01 ? 1000 : 1;
        boolean micro = milli > 1 && step < 1e-3;
        String unit = micro ? "µV" : milli > 1 ? "mV" : input.pretty();
        return Notation.plain(step * (micro ? 1e6 : milli), 4) + " " + unit + " a step, " + bits + " bit";
    }
}

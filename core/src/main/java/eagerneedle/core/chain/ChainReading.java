package eagerneedle.core.chain;

import eagerneedle.core.quantity.Distribution;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;

/**
 * A constant of a link: a number as written, in the unit the link wants, with its standard uncertainty in that unit.
 */
record ChainReading(double value, double u, String unit, Distribution distribution) {
    /** @throws IllegalArgumentException with one sentence when the text is no number or its unit does not fit */
    static ChainReading of(String text, String unit) {
        Reading r = Reading.parse(text);
        LabUnit natural = LabUnit.parse(unit);
        boolean bare = r.unit().equals(LabUnit.ONE);
        if (unit.isEmpty() && !r.unit().isDimensionless()) {
            throw new IllegalArgumentException(
                    "'" + text + "' should be a plain number; its unit follows from the link.");
        }
        double v = bare ? r.value() : r.unit().convert(r.value(), natural);
        double u = bare ? r.u() : r.u() * r.unit().scaleTo(natural);
        return new ChainReading(v, u, unit, r.distribution());
    }

    static boolean isNumber(String text) {
        return !text.isEmpty() && (Character.isDigit(text.charAt(0)) || "+-.−".indexOf(text.charAt(0)) >= 0);
    }

    /** Written as an exact number, moved by k standard uncertainties. */
    String moved(double k) {
        return (value + k * u) + (unit.isEmpty() ? "" : " " + unit);
    }
}

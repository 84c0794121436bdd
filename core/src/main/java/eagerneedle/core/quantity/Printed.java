package eagerneedle.core.quantity;

import java.util.stream.Stream;

/**
 * A quantity as it is set in print, in parts that stand in different inks: the number, its standard uncertainty in
 * brackets, a power of ten where one cannot be avoided, the unit. Where the number would need a power, or begin with
 * three zeros, the unit takes another prefix first (JCGM 100, 7.2; SI brochure, 3).
 *
 * @param number digits with a proper minus sign, such as {@code −341.22}
 * @param uncertainty {@code (11)}; empty for an exact value
 * @param power exponent of ten; 0 for none
 */
public record Printed(String number, String uncertainty, int power, LabUnit unit) {
    private static final double SMALL = 1e-3;
    private static final double LARGE = 1e5;
    /** Between a number and what belongs to it. */
    public static final String THIN = "\u2009";

    /** How a quantity is written. */
    public static Printed of(Quantity q) {
        Printed plain = in(q);
        double size = Math.max(Math.abs(q.value()), q.u());
        boolean readable = plain.power == 0 && (size >= SMALL || size == 0);
        if (readable || !Double.isFinite(size) || q.unit().isAffine()) {
            return plain;
        }
        return Stream.concat(
                        q.unit().otherPrefixes().stream()
                                .map(q::to)
                                .filter(x -> Math.max(Math.abs(x.value()), x.u()) >= 0.1)
                                .map(Printed::in)
                                .filter(w -> w.power == 0),
                        Stream.of(plain))
                .findFirst()
                .orElse(plain);
    }

    /** How a quantity is written in its own unit. */
    public static Printed in(Quantity q) {
        return parts(Digits.bracketed(q.value(), q.u()), q.unit());
    }

    /** A plain number to so many digits, its unit with the prefix that makes it readable: {@code 0.69 mm}. */
    public static String plain(double value, int significant, LabUnit unit) {
        Quantity q = Quantity.exact(value, unit);
        double size = Math.abs(value);
        boolean readable = size >= SMALL && size < LARGE || size == 0 || !Double.isFinite(size) || unit.isAffine();
        Quantity shown = readable
                ? q
                : unit.otherPrefixes().stream()
                        .map(q::to)
                        .filter(x -> Math.abs(x.value()) >= 0.1 && Math.abs(x.value()) < LARGE)
                        .findFirst()
                        .orElse(q);
        return Notation.plain(shown.value(), significant)
                + (unit.symbol().isEmpty() ? "" : THIN + shown.unit().pretty());
    }

    private static Printed parts(String text, LabUnit unit) {
        int e = text.lastIndexOf('e');
        boolean powered = e > 0 && text.indexOf(' ') < 0;
        String digits = powered ? text.substring(0, e) : text;
        int bracket = digits.indexOf('(');
        return new Printed(
                Notation.set(bracket < 0 ? digits : digits.substring(0, bracket)),
                bracket < 0 ? "" : DecimalSign.inUse().shown(digits.substring(bracket)),
                powered ? Integer.parseInt(text.substring(e + 1)) : 0,
                unit);
    }

    /** {@code × 10⁻³}, or empty. */
    public String times() {
        return power == 0 ? "" : "×" + THIN + "10" + Notation.power(power);
    }

    /** Digits before the decimal point, the sign among them. */
    public int beforePoint() {
        int point = number.indexOf(DecimalSign.inUse().sign());
        return point < 0 ? number.length() : point;
    }

    /** The whole in one line: {@code 341.22(11) × 10³ m²}. */
    public String text() {
        return number
                + uncertainty
                + (power == 0 ? "" : THIN + times())
                + (unit.symbol().isEmpty() ? "" : THIN + unit.pretty());
    }
}

package eagerneedle.core.quantity;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How numbers are written for people: the {@link Digits} with a proper minus sign and the {@link DecimalSign} in use.
 * What a program reads again is written by {@link Digits}.
 */
public final class Notation {
    private static final Pattern SLOT = Pattern.compile("%[-#+ 0,(]*[0-9]*(?:[.][0-9]+)?[a-zA-Z%]");
    private static final Pattern POWER = Pattern.compile("(?<=[0-9)])e(-?[0-9]+)");
    private static final Object[] NOTHING = {};

    private Notation() {}

    /** {@code 2026-11-27}: the day of a moment, where the program runs. */
    public static String day(Instant moment) {
        return moment.atZone(ZoneId.systemDefault()).toLocalDate().toString();
    }

    /** {@code 4.127(38) N}: bracket form with unit. */
    public static String bracket(Quantity q) {
        return bracketed(q.value(), q.u()) + q.unit().afterNumber();
    }

    /** The same with a point, whatever is in use: the name of a number, the same everywhere and always. */
    public static String pointed(Quantity q) {
        return raised(minus(Digits.bracketed(q.value(), q.u()))) + q.unit().afterNumber();
    }

    /** {@code 4.127(38)}: the number alone, of a value and its standard uncertainty in one unit. */
    public static String bracketed(double value, double u) {
        return set(Digits.bracketed(value, u));
    }

    /** {@code 4.127 ± 0.038 N}. */
    public static String plusMinus(Quantity q) {
        return plusMinus(q.value(), q.u()) + q.unit().afterNumber();
    }

    /** {@code 4.127 ± 0.038}: a value and any half-width, the half-width to two digits. */
    public static String plusMinus(double value, double halfWidth) {
        return set(Digits.plusMinus(value, halfWidth));
    }

    /**
     * {@code 50.0012 to 50.0019}: two numbers to as many digits as tell them apart, the second digit of their distance.
     */
    public static String interval(double low, double high) {
        return set(Digits.interval(low, high));
    }

    /** A plain number to so many significant digits, without trailing zeros. */
    public static String plain(double value, int significant) {
        return set(Digits.plain(value, significant));
    }

    /**
     * A plain number to so many significant digits, trailing zeros kept: {@code 0.0020}. For uncertainties and
     * scatters.
     */
    public static String figures(double value, int significant) {
        return set(Digits.figures(value, significant));
    }

    /** A plain number with so many decimals, trailing zeros kept: {@code 12.50}. */
    public static String fixed(double value, int decimals) {
        return Double.isFinite(value)
                ? set(new BigDecimal(value)
                        .setScale(decimals, RoundingMode.HALF_UP)
                        .toPlainString())
                : set(Digits.plain(value, 1));
    }

    /**
     * A sentence by a format as {@link String#format} has it, its arguments in order: the same on every machine, its
     * decimals with the sign in use, thousands in groups by a thin space (ISO 80000-1, 7.3.1).
     */
    public static String sentence(String format, Object... arguments) {
        StringBuilder out = new StringBuilder();
        Matcher m = SLOT.matcher(format);
        int next = 0;
        while (m.find()) {
            String slot = m.group();
            String text =
                    String.format(Locale.ROOT, slot, slot.endsWith("%") ? NOTHING : new Object[] {arguments[next++]});
            boolean number = "dfge".indexOf(slot.charAt(slot.length() - 1)) >= 0;
            String spaced = number ? text.replace(",", Printed.THIN) : text;
            m.appendReplacement(out, Matcher.quoteReplacement(number ? set(spaced) : spaced));
        }
        return m.appendTail(out).toString();
    }

    /**
     * A reading as a file has it, for people: its digits as they are, its unit as print sets it, the sign in use. What
     * is no reading, such as a formula or words, stays.
     */
    public static String asWritten(String text) {
        String reading = text.strip();
        LabUnit unit;
        try {
            unit = Reading.parse(reading).unit();
        } catch (IllegalArgumentException noReading) {
            return text;
        }
        String digits = reading.endsWith(unit.symbol())
                ? reading.substring(0, reading.length() - unit.symbol().length())
                        .strip()
                : "";
        return digits.isEmpty()
                ? DecimalSign.inUse().shown(reading)
                : DecimalSign.inUse().shown(digits) + unit.afterNumber();
    }

    /** Digits as print sets them: {@code 1.25e-9} is 1.25 × 10⁻⁹. */
    static String set(String digits) {
        return raised(DecimalSign.inUse().shown(minus(digits)));
    }

    private static String raised(String digits) {
        return digits.indexOf('e') < 0
                ? digits
                : POWER.matcher(digits)
                        .replaceAll(
                                m -> Printed.THIN + "×" + Printed.THIN + "10" + power(Integer.parseInt(m.group(1))));
    }

    /** An exponent, raised. */
    static String power(int n) {
        StringBuilder b = new StringBuilder(n < 0 ? "⁻" : "");
        for (char c : Integer.toString(Math.abs(n)).toCharArray()) {
            b.append("⁰¹²³⁴⁵⁶⁷⁸⁹".charAt(c - '0'));
        }
        return b.toString();
    }

    /** With minus signs, but for that of a power of ten. */
    private static String minus(String digits) {
        StringBuilder out = new StringBuilder(digits.length());
        for (int i = 0; i < digits.length(); i++) {
            char c = digits.charAt(i);
            out.append(c == '-' && (i == 0 || digits.charAt(i - 1) != 'e') ? '−' : c);
        }
        return out.toString();
    }
}

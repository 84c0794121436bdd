package eagerneedle.core.quantity;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;

/**
 * How numbers are written where a program reads them again, in files, formulas and fields: the uncertainty to two
 * significant digits, the value to the same place (JCGM 100, 7.2.2 and 7.2.6), with a point and a hyphen for a minus
 * sign. What people read is written by {@link Notation}, which sets the same digits as print does.
 */
public final class Digits {
    private static final int EXACT_DIGITS = 10;
    private static final double ROUNDING = 1e-14;

    private Digits() {}

    /** {@code 4.127(38) N}, with the unit as it is typed. */
    public static String bracket(Quantity q) {
        return (bracketed(q.value(), q.u()) + " " + q.unit().symbol()).strip();
    }

    /** {@code 4.127(38)}: the number alone, of a value and its standard uncertainty in one unit. */
    public static String bracketed(double value, double u) {
        if (!Double.isFinite(value)) {
            return "no value";
        }
        // What is left of rounding in the last bits of a value is no uncertainty of it.
        boolean exact = u <= ROUNDING * Math.abs(value);
        if (exact || !Double.isFinite(u)) {
            return plain(value, EXACT_DIGITS) + (exact ? "" : "(?)");
        }
        int place = lastPlace(u);
        int exponent = exponentFor(value, u, place);
        BigDecimal v = rounded(value, place).scaleByPowerOfTen(-exponent);
        BigDecimal du = rounded(u, place);
        String digits =
                du.scaleByPowerOfTen(-place).setScale(0, RoundingMode.HALF_UP).toPlainString();
        return minus(v.setScale(Math.max(0, exponent - place), RoundingMode.HALF_UP)
                        .toPlainString()) + "(" + digits + ")" + (exponent == 0 ? "" : "e" + exponent);
    }

    /** {@code 4.127 ± 0.038}: a value and any half-width, the half-width to two digits. */
    public static String plusMinus(double value, double halfWidth) {
        if (halfWidth == 0 || !Double.isFinite(halfWidth) || !Double.isFinite(value)) {
            return plain(value, EXACT_DIGITS);
        }
        int place = lastPlace(halfWidth);
        int exponent = exponentFor(value, halfWidth, place);
        int decimals = Math.max(0, exponent - place);
        String v = minus(rounded(value, place)
                .scaleByPowerOfTen(-exponent)
                .setScale(decimals, RoundingMode.HALF_UP)
                .toPlainString());
        String h = rounded(halfWidth, place)
                .scaleByPowerOfTen(-exponent)
                .setScale(decimals, RoundingMode.HALF_UP)
                .toPlainString();
        return exponent == 0 ? v + " ± " + h : "(" + v + " ± " + h + ")e" + exponent;
    }

    /**
     * {@code 50.0012 to 50.0019}: two numbers to as many digits as tell them apart, the second digit of their distance.
     */
    public static String interval(double low, double high) {
        double width = high - low;
        if (!(width > 0) || !Double.isFinite(low) || !Double.isFinite(high)) {
            return plain(low, EXACT_DIGITS) + " to " + plain(high, EXACT_DIGITS);
        }
        int place = lastPlace(width);
        double size = Math.max(Math.abs(low), Math.abs(high));
        int exponent = exponentFor(size, width, place);
        int decimals = Math.max(0, exponent - place);
        String ten = exponent == 0 ? "" : "e" + exponent;
        return minus(rounded(low, place)
                        .scaleByPowerOfTen(-exponent)
                        .setScale(decimals, RoundingMode.HALF_UP)
                        .toPlainString())
                + ten + " to "
                + minus(rounded(high, place)
                        .scaleByPowerOfTen(-exponent)
                        .setScale(decimals, RoundingMode.HALF_UP)
                        .toPlainString())
                + ten;
    }

    /** A plain number to so many significant digits, without trailing zeros. */
    public static String plain(double value, int significant) {
        if (!Double.isFinite(value)) {
            return "no value";
        }
        if (value == 0) {
            return "0";
        }
        BigDecimal d = new BigDecimal(value)
                .round(new MathContext(significant, RoundingMode.HALF_UP))
                .stripTrailingZeros();
        int magnitude = d.precision() - d.scale() - 1;
        if (magnitude > significant || magnitude < -5) {
            String mantissa =
                    d.scaleByPowerOfTen(-magnitude).stripTrailingZeros().toPlainString();
            return minus(mantissa) + "e" + magnitude;
        }
        return minus(d.toPlainString());
    }

    /**
     * A plain number to so many significant digits, trailing zeros kept: {@code 0.0020}. For uncertainties and
     * scatters.
     */
    public static String figures(double value, int significant) {
        if (value == 0 || !Double.isFinite(value)) {
            return plain(value, significant);
        }
        BigDecimal d = new BigDecimal(value).round(new MathContext(significant, RoundingMode.HALF_UP));
        int magnitude = d.precision() - d.scale() - 1;
        return magnitude >= significant || magnitude < -5
                ? plain(value, significant)
                : minus(d.setScale(significant - 1 - magnitude, RoundingMode.HALF_UP)
                        .toPlainString());
    }

    private static int lastPlace(double u) {
        BigDecimal two = new BigDecimal(u).round(new MathContext(2, RoundingMode.HALF_UP));
        return two.precision() - two.scale() - 2;
    }

    private static int exponentFor(double value, double u, int place) {
        double magnitude = Math.max(Math.abs(value), u);
        int top = (int) Math.floor(Math.log10(magnitude));
        return place > 0 || top < -4 ? top : 0;
    }

    private static BigDecimal rounded(double x, int place) {
        return new BigDecimal(x).setScale(-place, RoundingMode.HALF_UP);
    }

    /** No sign before a zero. */
    private static String minus(String digits) {
        return digits.matches("-0*\\.?0*") ? digits.substring(1) : digits;
    }
}

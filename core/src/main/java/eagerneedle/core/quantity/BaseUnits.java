package eagerneedle.core.quantity;

import java.util.Locale;

/** The base units of the SI, and how products of their powers are written. Exponents are counted in twelfths. */
final class BaseUnits {
    static final String[] SYMBOLS = {"kg", "m", "s", "A", "K", "mol", "cd"};
    static final int TWELFTHS = 12;

    private BaseUnits() {}

    /** How many base units take part. */
    static int factors(int[] e) {
        int n = 0;
        for (int x : e) {
            n += x == 0 ? 0 : 1;
        }
        return n;
    }

    /** A product of powers of base units, such as {@code kg*m/s^2}. */
    static String spelled(int[] e) {
        StringBuilder top = new StringBuilder();
        StringBuilder bottom = new StringBuilder();
        for (int i = 0; i < e.length; i++) {
            if (e[i] > 0) {
                top.append(top.length() > 0 ? "*" : "").append(SYMBOLS[i]).append(power(e[i]));
            } else if (e[i] < 0) {
                bottom.append('/').append(SYMBOLS[i]).append(power(-e[i]));
            }
        }
        return top.length() == 0 && bottom.length() > 0 ? "1" + bottom : top.toString() + bottom;
    }

    private static String power(int twelfths) {
        if (twelfths == TWELFTHS) {
            return "";
        }
        double p = twelfths / (double) TWELFTHS;
        return "^"
                + (p == Math.rint(p)
                        ? Integer.toString((int) p)
                        : String.format(Locale.ROOT, "%.4g", p).replaceAll("0+$", ""));
    }
}

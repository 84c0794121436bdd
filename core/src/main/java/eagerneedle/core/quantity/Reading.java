package eagerneedle.core.quantity;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * A number as a person writes it: {@code 9.8123(4) m/s^2}, {@code 12.4 ± 0.3 mm}, {@code (1.60 ± 0.02)e-3 kg}, {@code 5
 * V}, {@code 60.0 limit 0.05 mm}.
 *
 * <p>Brackets and ± give a standard uncertainty; the word <em>limit</em> gives a largest believable error, which
 * becomes a rectangular distribution of that half-width (JCGM 100, 4.3.7).
 *
 * @param value in {@code unit}
 * @param u standard uncertainty in {@code unit}, 0 if none was written
 * @param unit as written; a pure number if none was
 * @param distribution rectangular for a limit, normal otherwise
 */
public record Reading(double value, double u, LabUnit unit, Distribution distribution) {
    private static final String NUMBER = "[+-]?(?:\\d+\\.?\\d*|\\.\\d+)";
    private static final Pattern RAISED = Pattern.compile("\\s*×\\s*10([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+)");
    private static final Pattern FORM = Pattern.compile(
            "(\\()?\\s*(" + NUMBER + ")(?:\\((\\d+\\.?\\d*)\\))?([eE][+-]?\\d+)?"
                    + "\\s*(?:(±|\\+/-|\\+-|limit)\\s*(\\d+\\.?\\d*(?:[eE][+-]?\\d+)?|\\.\\d+)\\s*)?(\\))?(?:\\s*[·×x*]?\\s*(?:10\\^|[eE])([+-]?\\d+))?\\s*(.*)");

    /**
     * Reads a quantity as written.
     *
     * @throws IllegalArgumentException with one sentence that says what would fit
     */
    public static Reading parse(String text) {
        String clean =
                lowered(text.strip().replace('−', '-').replace('\u00a0', ' ').replace('\u2009', ' '));
        Matcher m = FORM.matcher(clean);
        if (clean.isEmpty() || !m.matches() || (m.group(1) == null) != (m.group(7) == null)) {
            throw new IllegalArgumentException("'" + text.strip()
                    + DecimalSign.inUse()
                            .shown("' is not a number with a unit; write for instance 842.3(6) mm or 842.3 ± 0.6 mm."));
        }
        if (m.group(3) != null && m.group(6) != null) {
            throw new IllegalArgumentException("'" + text.strip() + "' gives its uncertainty twice; write it once.");
        }
        if (m.group(9).matches("^,\\d.*")) {
            throw new IllegalArgumentException("'" + text.strip() + "' has a decimal comma; write a decimal point.");
        }
        String digits = m.group(2);
        double ten = exponent(m.group(4)) * (m.group(8) == null ? 1 : Math.pow(10, Integer.parseInt(m.group(8))));
        double value = m.group(8) == null && m.group(4) != null
                ? Double.parseDouble(digits + m.group(4))
                : scaled(digits, m.group(8));
        double u = 0;
        if (m.group(3) != null) {
            u = bracket(digits, m.group(3)) * ten;
        } else if (m.group(6) != null) {
            u = Double.parseDouble(m.group(6)) * (m.group(8) == null ? 1 : ten);
        }
        if (!Double.isFinite(value) || !Double.isFinite(u)) {
            throw new IllegalArgumentException("'" + text.strip() + "' is too large to compute with.");
        }
        boolean limit = "limit".equals(m.group(5));
        return new Reading(
                value,
                limit ? u / Math.sqrt(3) : u,
                LabUnit.parse(m.group(9)),
                limit ? Distribution.RECTANGULAR : Distribution.NORMAL);
    }

    /** Powers as the program prints them, × 10⁻⁹, as they are typed. */
    private static String lowered(String text) {
        return text.indexOf('×') < 0
                ? text
                : RAISED.matcher(text)
                        .replaceAll(m -> "e"
                                + m.group(1)
                                        .chars()
                                        .mapToObj(c -> c == '⁻' ? "-" : "" + "⁰¹²³⁴⁵⁶⁷⁸⁹".indexOf(c))
                                        .collect(Collectors.joining()));
    }

    private static double scaled(String digits, String exponent) {
        return Double.parseDouble(exponent == null ? digits : digits + "e" + exponent);
    }

    private static double exponent(String e) {
        return e == null ? 1 : Math.pow(10, Integer.parseInt(e.substring(1)));
    }

    private static double bracket(String digits, String inside) {
        if (inside.contains(".")) {
            return Double.parseDouble(inside);
        }
        int dot = digits.indexOf('.');
        int decimals = dot < 0 ? 0 : digits.length() - dot - 1;
        return new java.math.BigDecimal(inside).scaleByPowerOfTen(-decimals).doubleValue();
    }

    /** The quantity of this reading, resting on one type B leaf with the given identity. */
    public Quantity toQuantity(String leafId, String label, String source) {
        return u == 0
                ? Quantity.exact(value, unit)
                : Quantity.of(value, u, unit, Leaf.typeB(leafId, label, source, distribution));
    }

    /** Another number read in the same way: with the unit and uncertainty of this one. */
    public Reading again(double number) {
        return new Reading(number, u, unit, distribution);
    }

    /** The reading written back so that {@link #parse} gives the same again, as far as two digits of uncertainty go. */
    public String text() {
        String number = distribution == Distribution.RECTANGULAR && u > 0
                ? Digits.plusMinus(value, u * Math.sqrt(3)).replace("±", "limit")
                : Digits.bracketed(value, u);
        return (number + " " + unit.symbol()).strip();
    }
}

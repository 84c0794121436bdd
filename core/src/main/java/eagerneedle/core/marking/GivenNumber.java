package eagerneedle.core.marking;

import eagerneedle.core.quantity.Reading;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A number with the digits it was written with. Zeros at the end of a whole number may be digits or may only hold the
 * place: they are taken to hold the place as long as two digits are left, unless the uncertainty says otherwise.
 *
 * @param value as written
 * @param step what one more in its last digit is worth
 * @param u standard uncertainty; NaN for none
 * @param unit as written; empty for none
 */
public record GivenNumber(double value, double step, double u, String unit) {
    private static final Pattern NUMBER = Pattern.compile("[+-]?(\\d*)(?:\\.(\\d*))?");
    private static final Pattern POWER = Pattern.compile("(?:[eE]|[·×x*]\\s*10\\^?)\\s*([+-]?\\d+)");

    /** True where an uncertainty was written. */
    public boolean hasU() {
        return !Double.isNaN(u);
    }

    /**
     * Reads what was handed in.
     *
     * @throws IllegalArgumentException with one sentence where it is no number
     */
    public static GivenNumber of(HandIn h) {
        String text = plain(h.value());
        Reading read = Reading.parse(text);
        Matcher m = NUMBER.matcher(text.startsWith("(") ? text.substring(1).strip() : text);
        if (!m.lookingAt()) {
            throw new IllegalArgumentException("'" + h.value() + "' is not a number.");
        }
        String whole = m.group(1);
        String decimals = m.group(2);
        Matcher p = POWER.matcher(text);
        double power = p.find() ? Math.pow(10, Integer.parseInt(p.group(1))) : 1;
        double finest = (decimals == null ? 1 : Math.pow(10, -decimals.length())) * power;
        double u = u(h, read);
        double step = decimals == null ? Math.pow(10, zerosAtEnd(whole)) * power : finest;
        if (decimals == null && !Double.isNaN(u) && u < step) {
            step = finest;
        }
        String unit = h.unit().isBlank() ? read.unit().symbol() : h.unit().strip();
        return new GivenNumber(read.value(), step, u, unit);
    }

    private static double u(HandIn h, Reading read) {
        if (!h.u().isBlank()) {
            String text = plain(h.u());
            if (text.endsWith("%")) {
                return Math.abs(
                        Reading.parse(text.substring(0, text.length() - 1)).value() / 100 * read.value());
            }
            return Math.abs(Reading.parse(text).value());
        }
        return read.u() > 0 ? read.u() : Double.NaN;
    }

    private static int zerosAtEnd(String whole) {
        int n = 0;
        while (n < whole.length() - 2 && whole.charAt(whole.length() - 1 - n) == '0') {
            n++;
        }
        return n;
    }

    /** Marks that keyboards and word processors put for others, and a decimal comma. */
    private static String plain(String text) {
        String t = text.strip()
                .replace('−', '-')
                .replace('–', '-')
                .replace('\u00a0', ' ')
                .replace('\u2009', ' ')
                .replaceFirst("^([+-]?\\d+),(\\d+)", "$1.$2");
        return t.replaceFirst("^([+-]?[\\d.]+)\\s*[xX×·*]\\s*10\\^?\\(?([+-]?\\d+)\\)?", "$1e$2");
    }
}

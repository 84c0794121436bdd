package eagerneedle.core.quantity;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Numbers below each other stand on their decimal point: blanks before and behind make up for digits that others have.
 * In figures of one width this holds however the column is aligned, and a copied number loses nothing but blanks.
 */
public final class OnPoint {
    private static final Pattern NUMBER = Pattern.compile("[-+−]?\\d+");

    private OnPoint() {}

    /** The texts of a column with blanks; what holds no number stays as it is. */
    public static List<String> of(List<String> column) {
        int before = column.stream().mapToInt(OnPoint::point).max().orElse(0);
        int behind = column.stream()
                .filter(t -> point(t) >= 0)
                .mapToInt(t -> t.length() - point(t))
                .max()
                .orElse(0);
        List<String> out = new ArrayList<>();
        for (String t : column) {
            int at = point(t);
            out.add(at < 0 ? t : " ".repeat(before - at) + t + " ".repeat(behind - t.length() + at));
        }
        return out;
    }

    /** Where the point of the first number of a text stands, or would; -1 where there is no number. */
    public static int point(String text) {
        Matcher m = NUMBER.matcher(text);
        return m.find() ? m.end() : -1;
    }
}

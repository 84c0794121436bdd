package eagerneedle.store.delimited;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What a column is called and the unit it states; empty where it states none. */
public record Heading(String name, String unit) {
    private static final Pattern WITH_UNIT =
            Pattern.compile("(.*?)\\s*(?:\\[(.*)]|\\((.*)\\)|\\s/\\s*(\\S+)|/\\s(\\S+))\\s*");

    /**
     * Takes a heading such as {@code Position [mm]}, {@code Time (minutes)} or {@code v / m/s} apart. What stands in
     * brackets is a unit even if it is not known here: it must be asked for, and is never taken for the one that was
     * expected. The name then stays whole.
     */
    public static Heading of(String title) {
        Matcher m = WITH_UNIT.matcher(title);
        if (!m.matches()) {
            return new Heading(title.strip(), "");
        }
        String stated = java.util.stream.Stream.of(m.group(2), m.group(3), m.group(4), m.group(5))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .orElse("")
                .strip();
        if (isUnit(stated)) {
            return new Heading(m.group(1).strip(), stated);
        }
        boolean bracketed = m.group(2) != null || m.group(3) != null;
        return new Heading(title.strip(), bracketed && stated.codePoints().anyMatch(Character::isLetter) ? stated : "");
    }

    static String stripped(String unit) {
        return unit.strip().replaceAll("^[\\[(]|[\\])]$", "");
    }

    static boolean isUnit(String s) {
        try {
            LabUnit.parse(s);
            return !s.isBlank();
        } catch (UnitException e) {
            return false;
        }
    }
}

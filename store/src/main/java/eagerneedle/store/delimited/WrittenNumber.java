package eagerneedle.store.delimited;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A number as people and programs write it: with its thousands in groups, or with its uncertainty behind it.
 *
 * @param value what it is
 * @param grouped true where its thousands stood in groups
 * @param uncertain true where an uncertainty stood behind it, which a table has no place for
 */
record WrittenNumber(double value, boolean grouped, boolean uncertain) {
    private static final String EXPONENT = "([eE][+-]?\\d+)?";
    private static final Pattern POINT = Pattern.compile("[+-]?(\\d+\\.?\\d*|\\.\\d+)" + EXPONENT);
    private static final Pattern COMMA = Pattern.compile("[+-]?(\\d+,?\\d*|,\\d+)" + EXPONENT);
    private static final Pattern GROUPS_POINT =
            Pattern.compile("[+-]?\\d{1,3}(?:([,'\u2019 \u00a0\u2009\u202f])\\d{3})(?:\\1\\d{3})*(\\.\\d*)?");
    private static final Pattern GROUPS_COMMA =
            Pattern.compile("[+-]?\\d{1,3}(?:([.'\u2019 \u00a0\u2009\u202f])\\d{3})(?:\\1\\d{3})*(,\\d*)?");
    private static final Pattern BRACKETED = Pattern.compile("(.*\\d)\\s?\\(\\d+(?:[.,]\\d+)?\\)" + EXPONENT);
    private static final Pattern PLUS_MINUS =
            Pattern.compile("(.*\\d)\\s*(?:\u00b1|\\+/-|\\+-)\\s*[\\d.,]+" + EXPONENT);

    /** Of a cell; empty where it is none. */
    static Optional<WrittenNumber> of(String cell, boolean comma) {
        String c = cell.strip().replace('\u2212', '-');
        if (c.isEmpty()) {
            return Optional.empty();
        }
        for (Pattern uncertain : new Pattern[] {BRACKETED, PLUS_MINUS}) {
            Matcher m = uncertain.matcher(c);
            if (m.matches()) {
                String exponent = m.group(2) == null ? "" : m.group(2);
                return of(m.group(1) + exponent, comma).map(n -> new WrittenNumber(n.value, n.grouped, true));
            }
        }
        boolean plain = (comma ? COMMA : POINT).matcher(c).matches();
        boolean grouped =
                !plain && (comma ? GROUPS_COMMA : GROUPS_POINT).matcher(c).matches();
        if (!plain && !grouped) {
            return Optional.empty();
        }
        String text = grouped ? without(c, comma) : c;
        return Optional.ofNullable(parsed(comma ? text.replace(',', '.') : text))
                .map(v -> new WrittenNumber(v, grouped, false));
    }

    private static String without(String c, boolean comma) {
        String signs = "['\u2019 \u00a0\u2009\u202f" + (comma ? "." : ",") + "]";
        return c.replaceAll(signs, "");
    }

    private static @Nullable Double parsed(String text) {
        try {
            return Double.valueOf(text);
        } catch (NumberFormatException e) {
            return null;
        }
    }
}

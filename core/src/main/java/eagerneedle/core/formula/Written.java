package eagerneedle.core.formula;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reading.Repeats;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A value as someone writes it into a box or a sheet: a reading such as {@code 842.3(6) mm}, or one that is built, such
 * as {@code reading(842 mm, division: 1 mm, edges: 2)}, or several of one thing: {@code 9.79; 9.83; 9.81 s}.
 */
public final class Written {
    private static final Pattern CALL = Pattern.compile("\\s*[A-Za-z_][A-Za-z0-9_]*\\s*\\(.*", Pattern.DOTALL);
    private static final Pattern SEVERAL = Pattern.compile("\\s*;\\s*");
    private static final Pattern DECIMALS = Pattern.compile("[+-]?\\d*(?:\\.(\\d+))?(.*)", Pattern.DOTALL);

    private Written() {}

    /**
     * The mean of several readings, written with semicolons between them: each may have its unit, or the last has it
     * for all. The step of the display is that of the last decimal written.
     */
    private static Quantity several(String text, String id, String label, String source) {
        String[] parts = SEVERAL.split(text.strip().replaceAll(";\\s*$", ""));
        LabUnit unit = quantity(parts[parts.length - 1], id, label, source).unit();
        List<Quantity> readings = new ArrayList<>();
        double step = Double.POSITIVE_INFINITY;
        for (int i = 0; i < parts.length; i++) {
            String part = parts[i].strip();
            boolean bare = !CALL.matcher(part).matches()
                    && Reading.parse(part).unit().symbol().isEmpty();
            String whole = bare ? (part + " " + unit.symbol()).strip() : part;
            Quantity q = quantity(whole, id + "#" + (i + 1), label, source);
            readings.add(q);
            Matcher m = DECIMALS.matcher(part);
            if (m.matches() && !CALL.matcher(part).matches() && !m.group(2).matches("(?s).*(?:[eE]|10\\^).*")) {
                int decimals = m.group(1) == null ? 0 : m.group(1).length();
                step = Math.min(step, q.unit().difference().convert(Math.pow(10, -decimals), unit.difference()));
            }
        }
        if (readings.size() == 1) {
            return readings.get(0);
        }
        return new Repeats(readings, Quantity.exact(Double.isInfinite(step) ? 0 : step, unit.difference()))
                .quantity(id, label);
    }

    /**
     * The quantity written.
     *
     * @param id identity of what is read, root of its leaves' ids
     * @param label what budgets call it
     * @param source the instrument or place it came from
     * @throws IllegalArgumentException with one sentence that says what would fit
     */
    public static Quantity quantity(String text, String id, String label, String source) {
        if (text.indexOf(';') >= 0) {
            return several(text, id, label, source);
        }
        if (!CALL.matcher(text).matches()) {
            return Reading.parse(text).toQuantity(id, label, source);
        }
        try {
            if (Formula.parse(text).evaluate(Scope.labelled(id, label)) instanceof Value.Scalar s) {
                return s.quantity();
            }
        } catch (FormulaException e) {
            throw new IllegalArgumentException(e.getMessage(), e);
        }
        throw new IllegalArgumentException("'" + text.strip() + "' does not give one quantity.");
    }

    /** Checks that a text can be read. */
    public static void check(String text) {
        quantity(text, "check", "check", "check");
    }

    /**
     * The text itself, when it can be read; nothing written is as good.
     *
     * @param text may be null
     */
    public static @Nullable String checked(@Nullable String text) {
        if (text != null) {
            check(text);
        }
        return text;
    }
}

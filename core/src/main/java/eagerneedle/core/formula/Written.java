package eagerneedle.core.formula;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import java.util.regex.Pattern;

/**
 * A value as someone writes it into a box or a sheet: a reading such as {@code 842.3(6) mm}, or one that is built, such
 * as {@code reading(842 mm, division: 1 mm, edges: 2)}.
 */
public final class Written {
    private static final Pattern CALL = Pattern.compile("\\s*[A-Za-z_][A-Za-z0-9_]*\\s*\\(.*", Pattern.DOTALL);

    private Written() {}

    /**
     * The quantity written.
     *
     * @param id identity of what is read, root of its leaves' ids
     * @param label what budgets call it
     * @param source the instrument or place it came from
     * @throws IllegalArgumentException with one sentence that says what would fit
     */
    public static Quantity quantity(String text, String id, String label, String source) {
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
    public static String checked(String text) {
        if (text != null) {
            check(text);
        }
        return text;
    }
}

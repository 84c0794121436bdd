package eagerneedle.app.widget;

import eagerneedle.core.quantity.DecimalSign;
import java.util.regex.Pattern;
import javafx.scene.control.TextInputControl;

/**
 * Numbers and readings in fields: shown and understood with the decimal sign in use, handed on as files have them.
 * Formulas are not typed through here: in them a comma parts arguments.
 */
public final class Typing {
    private static final Pattern POWER = Pattern.compile("\\s*[×·]\\s*10([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+)");
    private static final Pattern RAISED = Pattern.compile(".");

    private Typing() {}

    /** What stands in a field, as files have it. */
    public static String in(TextInputControl field) {
        return of(field.getText());
    }

    /** What was typed, or pasted as the program writes it (1.25 × 10⁻⁹), as files have it. */
    public static String of(String typed) {
        String powers = POWER.matcher(typed)
                .replaceAll(m -> "e"
                        + RAISED.matcher(m.group(1))
                                .replaceAll(c -> c.group().equals("⁻") ? "-" : "" + "⁰¹²³⁴⁵⁶⁷⁸⁹".indexOf(c.group())));
        return DecimalSign.inUse().typed(powers);
    }

    /** Puts a reading into a field, as people write it. */
    public static void show(TextInputControl field, String reading) {
        field.setText(as(reading));
    }

    /** A reading out of a file, as people write it. */
    public static String as(String reading) {
        return DecimalSign.inUse().shown(reading);
    }
}

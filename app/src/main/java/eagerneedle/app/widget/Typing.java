package eagerneedle.app.widget;

import eagerneedle.core.quantity.DecimalSign;
import javafx.scene.control.TextInputControl;

/**
 * Numbers and readings in fields: shown and understood with the decimal sign in use, handed on as files have them.
 * Formulas are not typed through here: in them a comma parts arguments.
 */
public final class Typing {
    private Typing() {}

    /** What stands in a field, as files have it. */
    public static String in(TextInputControl field) {
        return of(field.getText());
    }

    /** What was typed or pasted, as files have it. */
    public static String of(String typed) {
        return DecimalSign.inUse().typed(typed);
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

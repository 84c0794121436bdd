package eagerneedle.app.widget;

import eagerneedle.core.quantity.DecimalSign;
import java.util.regex.Pattern;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;

/** Tables on their way to a spreadsheet, which reads numbers with the sign of the person who pastes them. */
public final class Copied {
    /** A cell that is a number and nothing else. */
    private static final Pattern NUMBER =
            Pattern.compile("(?m)(?<=^|\t)([-+]?[0-9]+)[.]([0-9]+(?:[eE][-+]?[0-9]+)?)(?=\t|$)");

    private Copied() {}

    /** Puts a table on the clipboard. */
    public static void table(String tabbed) {
        ClipboardContent c = new ClipboardContent();
        c.putString(cells(tabbed, DecimalSign.inUse()));
        Clipboard.getSystemClipboard().setContent(c);
    }

    /** The same table with a decimal sign in those cells that are numbers; names and words stay as they are. */
    static String cells(String tabbed, DecimalSign sign) {
        return sign == DecimalSign.POINT ? tabbed : NUMBER.matcher(tabbed).replaceAll("$1,$2");
    }
}

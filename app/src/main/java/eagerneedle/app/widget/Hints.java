package eagerneedle.app.widget;

import javafx.scene.Node;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;

/**
 * What a thing says of itself when the pointer rests on it.
 *
 * <p>A tooltip is a window with a scene and styles of its own; one for each of several hundred controls took a fifth of
 * the time in which a session opens. There is one for all of them, and it takes the words of the thing that the pointer
 * comes upon.
 */
public final class Hints {
    private static final String WORDS = "eagerneedle.hint";
    private static Tooltip shared;

    private Hints() {}

    /** Gives a node its words, in place of those that it had; none with an empty text. */
    public static void give(Node node, String words) {
        boolean had = node.getProperties().put(WORDS, words) != null;
        if (!had) {
            node.addEventFilter(MouseEvent.MOUSE_ENTERED, e -> meet(node));
        }
    }

    /** The words of a node; empty when it has none. */
    public static String of(Node node) {
        return node.getProperties().get(WORDS) instanceof String s ? s : "";
    }

    private static void meet(Node node) {
        if (shared == null) {
            shared = new Tooltip();
            shared.setWrapText(true);
            shared.setMaxWidth(Theme.px(420));
        }
        String words = of(node);
        if (words.isEmpty()) {
            Tooltip.uninstall(node, shared);
        } else {
            shared.setText(words);
            Tooltip.install(node, shared);
        }
    }
}

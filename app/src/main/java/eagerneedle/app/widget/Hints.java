package eagerneedle.app.widget;

import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.control.Tooltip;
import javafx.scene.input.MouseEvent;
import org.jspecify.annotations.Nullable;

/**
 * What a thing says of itself when the pointer rests on it.
 *
 * <p>A tooltip is a window with a scene and styles of its own; one for each of several hundred controls took a fifth of
 * the time in which a session opens. There is one for all of them, and it takes the words of the thing that the pointer
 * comes upon.
 */
public final class Hints {
    private static final String WORDS = "eagerneedle.hint";
    private static @Nullable Tooltip shared;

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

    /**
     * From now on words that are cut in this scene are said whole when the pointer rests on them, unless they have a
     * hint of their own.
     */
    public static void wholeWords(Scene scene) {
        scene.addEventFilter(MouseEvent.MOUSE_ENTERED_TARGET, e -> {
            Node at = e.getTarget() instanceof Node n ? n : null;
            while (at != null && !(at instanceof Labeled)) {
                at = at.getParent();
            }
            if (at instanceof Labeled l && of(l).isEmpty()) {
                if (isCut(l)) {
                    tooltip().setText(l.getText());
                    Tooltip.install(l, shared);
                } else if (shared != null) {
                    Tooltip.uninstall(l, shared);
                }
            }
        });
    }

    /** True where the words of a label do not fit into it. */
    public static boolean isCut(Labeled l) {
        return l.isWrapText() ? l.prefHeight(l.getWidth()) > l.getHeight() + 1.5 : l.prefWidth(-1) > l.getWidth() + 1.5;
    }

    private static Tooltip tooltip() {
        if (shared == null) {
            shared = new Tooltip();
            shared.setWrapText(true);
            shared.setMaxWidth(Theme.px(420));
        }
        return shared;
    }

    private static void meet(Node node) {
        Tooltip shown = tooltip();
        String words = of(node);
        if (words.isEmpty()) {
            Tooltip.uninstall(node, shown);
        } else {
            shown.setText(words);
            Tooltip.install(node, shown);
        }
    }
}

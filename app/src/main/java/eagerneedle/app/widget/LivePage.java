package eagerneedle.app.widget;

import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;
import org.jspecify.annotations.Nullable;

/**
 * A page that is scrolled to and on which something moves.
 *
 * <p>The library keeps a scrolled page as one picture, which serves what stands still. Where traces and needles move,
 * the whole page was drawn into that picture with every frame, and the picture into the window: three times the work of
 * drawing what changes. And when only something out of sight changes, it finds nothing to draw and draws the whole
 * window for it: what moves asks first whether it is {@link #isSeen}.
 */
public class LivePage extends ScrollPane {
    private @Nullable Node frame;

    public LivePage() {
        skinProperty().addListener((o, was, is) -> drawOnlyWhatChanges());
    }

    public LivePage(Node page) {
        this();
        setContent(page);
    }

    private void drawOnlyWhatChanges() {
        frame = lookup(".viewport");
        if (frame != null) {
            frame.setCache(false);
        }
    }

    /** False for what is scrolled out of sight on the page that it stands on, if it stands on one. */
    public static boolean isSeen(Node node) {
        for (Node n = node.getParent(); n != null; n = n.getParent()) {
            if (n instanceof LivePage page && page.frame != null) {
                return inScene(page.frame).intersects(inScene(node));
            }
        }
        return true;
    }

    private static Bounds inScene(Node node) {
        return node.localToScene(node.getLayoutBounds());
    }
}

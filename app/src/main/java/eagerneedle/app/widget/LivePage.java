package eagerneedle.app.widget;

import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import javafx.application.Platform;
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
        return page(node)
                .map(page -> inScene(Objects.requireNonNull(page.frame)).intersects(inScene(node)))
                .orElse(true);
    }

    /** Scrolls to what has just come up, once it is laid out, if it is out of sight. */
    public static void scrollTo(Node node) {
        Platform.runLater(() -> page(node).filter(page -> !isSeen(node)).ifPresent(page -> {
            double top = page.getContent().sceneToLocal(inScene(node)).getMinY();
            double beyond = page.getContent().getLayoutBounds().getHeight()
                    - page.getViewportBounds().getHeight();
            page.setVvalue(page.getVmax() * Math.max(0, Math.min(1, top / Math.max(1, beyond))));
        }));
    }

    private static Optional<LivePage> page(Node node) {
        return Stream.iterate(node.getParent(), n -> n != null, Node::getParent)
                .filter(LivePage.class::isInstance)
                .map(LivePage.class::cast)
                .filter(page -> page.frame != null)
                .findFirst();
    }

    private static Bounds inScene(Node node) {
        return node.localToScene(node.getLayoutBounds());
    }
}

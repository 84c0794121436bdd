package eagerneedle.app.widget;

import javafx.scene.Node;
import javafx.scene.control.ScrollPane;

/**
 * A page that is scrolled to and on which something moves.
 *
 * <p>The library keeps a scrolled page as one picture, which serves what stands still. Where traces and needles move,
 * the whole page was drawn into that picture with every frame, and the picture into the window: three times the work of
 * drawing what changes.
 */
public class LivePage extends ScrollPane {
    public LivePage() {
        skinProperty().addListener((o, was, is) -> drawOnlyWhatChanges());
    }

    public LivePage(Node page) {
        this();
        setContent(page);
    }

    private void drawOnlyWhatChanges() {
        Node page = lookup(".viewport");
        if (page != null) {
            page.setCache(false);
        }
    }
}

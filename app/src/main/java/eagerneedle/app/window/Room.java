package eagerneedle.app.window;

import eagerneedle.app.widget.LivePage;
import javafx.scene.Node;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** Where the surface stands. With large text in a small window it is scrolled to, and nothing leaves the window. */
final class Room extends LivePage {
    Room(Node surface) {
        super(surface);
        setId("room");
        getStyleClass().add("bare");
        setFitToWidth(true);
        setFitToHeight(true);
        setMinSize(0, 0);
        setFocusTraversable(false);
        VBox.setVgrow(this, Priority.ALWAYS);
    }

    /** Whatever is pressed in it keeps the keyboard: arrows move edges and cursors, not the page. */
    @Override
    public void requestFocus() {}
}

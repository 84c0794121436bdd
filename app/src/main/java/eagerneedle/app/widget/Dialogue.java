package eagerneedle.app.widget;

import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.layout.VBox;
import javafx.stage.Modality;
import javafx.stage.Stage;

/** A small window over another, dressed as it is. */
public final class Dialogue {
    private Dialogue() {}

    /** Opens a window that holds a box; {@code around} may put something around it, such as a scroll pane. */
    public static void open(
            Stage stage, Node owner, String title, VBox box, Parent around, double width, double height) {
        stage.initOwner(owner.getScene().getWindow());
        stage.initModality(Modality.WINDOW_MODAL);
        stage.setTitle(title);
        box.setPadding(new Insets(18));
        box.getStyleClass().add("root");
        Scene scene = new Scene(around, width, height);
        scene.getStylesheets().setAll(owner.getScene().getStylesheets());
        Hints.wholeWords(scene);
        stage.setScene(scene);
        stage.show();
    }
}

package eagerneedle.app.window;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Workbench;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** What may be done at any station: take back, do again, find, and the menu of the session. */
final class Toolbar extends VBox {
    private final Button undo = new Button("Undo");
    private final Button redo = new Button("Redo");

    /** @param step takes the last act back with true, does it again with false */
    Toolbar(List<MenuAct> acts, Consumer<Boolean> step, Runnable find) {
        super(8);
        undo.setId("undo");
        redo.setId("redo");
        undo.getStyleClass().add("quiet-button");
        redo.getStyleClass().add("quiet-button");
        Labels.explained(undo, "Take the last act back (Ctrl+Z)");
        Labels.explained(redo, "Do it again (Ctrl+Shift+Z)");
        undo.setOnAction(e -> step.accept(true));
        redo.setOnAction(e -> step.accept(false));
        MenuButton menu = new MenuButton("Session");
        menu.setId("session-menu");
        for (MenuAct a : acts) {
            MenuItem item = new MenuItem(a.label() + (a.shown().isEmpty() ? "" : "   " + a.shown()));
            item.setOnAction(e -> a.run().run());
            menu.getItems().add(item);
        }
        Button search = new Button("Find");
        search.setId("find");
        search.getStyleClass().add("quiet-button");
        Labels.explained(search, "Find anything by a word or two (/)");
        search.setOnAction(e -> find.run());
        getChildren().addAll(menu, new HBox(2, undo, redo, search));
        setPadding(new Insets(14, 16, 0, 8));
        setMinWidth(Theme.px(176));
    }

    void refresh(Workbench bench) {
        undo.setDisable(!bench.canUndo());
        redo.setDisable(!bench.canRedo());
    }
}

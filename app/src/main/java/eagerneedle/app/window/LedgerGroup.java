package eagerneedle.app.window;

import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.window.LedgerModel.Line;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** The heading of a group in the ledger: a press folds it or opens it; it says how many it has and what moved in it. */
final class LedgerGroup extends HBox {
    private final Button name = new Button();
    private final Label count = Labels.quiet("");

    LedgerGroup(Runnable fold) {
        super(6);
        name.getStyleClass().add("ledger-group");
        name.setMinWidth(0);
        name.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(name, Priority.ALWAYS);
        name.setOnAction(e -> fold.run());
        count.setMinWidth(USE_PREF_SIZE);
        setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(name, count);
    }

    void show(Line.Group g) {
        name.setId("ledger-group-" + g.label().replaceAll("[^A-Za-z0-9]+", "-"));
        name.setText((g.folded() ? "▸ " : "▾ ") + g.label());
        name.setAccessibleText(g.label() + ", " + g.count() + (g.folded() ? ", folded" : ", open"));
        Hints.give(name, g.folded() ? "Open this group" : "Fold this group");
        count.setText((g.fresh() > 0 ? "● " + g.fresh() + " moved   " : "") + (g.folded() ? g.count() : ""));
        Labels.styled(count, "needle-ink", g.fresh() > 0);
    }
}

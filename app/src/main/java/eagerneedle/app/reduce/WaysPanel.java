package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What can be reckoned in several ways: the one that is taken, and beside every other what it would give. */
final class WaysPanel extends ScrollPane {
    private final WaysModel model;
    private final VBox all = new VBox(10);
    private final Rows<WaysModel.Choice> choices = new Rows<>(all, this::choice);

    WaysPanel(Desk desk) {
        model = new WaysModel(desk);
        all.setId("ways");
        setContent(all);
        setFitToWidth(true);
        getStyleClass().add("bare");
    }

    WaysModel model() {
        return model;
    }

    void refresh() {
        choices.show(model.choices());
    }

    private Node choice(WaysModel.Choice c) {
        VBox card = Labels.card(Labels.section(TraceModel.capital(c.label())));
        card.setSpacing(6);
        Label usual = Labels.wrapped(c.usual());
        usual.getStyleClass().add("quiet");
        card.getChildren().add(usual);
        c.ways().forEach(w -> card.getChildren().add(way(w)));
        return card;
    }

    private Node way(WaysModel.Way w) {
        Label name = Labels.styled(w.name(), w.taken() ? "good" : "plain");
        name.setMinWidth(Region.USE_PREF_SIZE);
        Label gives = Labels.wrapped(w.gives());
        gives.getStyleClass().add("figure-small");
        VBox words = new VBox(1, name, gives);
        HBox.setHgrow(words, Priority.ALWAYS);
        Button take = new Button(w.taken() ? "taken" : "take this way");
        take.setId(("take-" + w.key() + "-" + w.name()).replaceAll("[ .]", "-"));
        take.setAccessibleText(w.label() + ", " + w.name() + (w.taken() ? ": taken" : ": take this way"));
        take.getStyleClass().add("quiet-button");
        take.setDisable(w.taken());
        take.setMinWidth(Region.USE_PREF_SIZE);
        take.setOnAction(e -> Notices.attempt(this, () -> model.take(w)));
        HBox row = new HBox(10, words, take);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }
}

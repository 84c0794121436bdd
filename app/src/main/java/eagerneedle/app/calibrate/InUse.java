package eagerneedle.app.calibrate;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What the instruments of a session owe, an entry each; what is due stands first. */
final class InUse extends VBox {
    private static final double MOST = 66;
    private final InUseModel model;
    private final FlowPane entries = new FlowPane(18, 6);
    private final Rows<InUseModel.Used> rows = new Rows<>(entries, InUse::entry);

    InUse(Desk desk) {
        super(6);
        model = new InUseModel(desk);
        setId("in-use");
        Button stock = new Button("Stockroom");
        stock.getStyleClass().add("quiet-button");
        stock.setOnAction(e -> desk.showStockroom());
        Labels.explained(stock, "All instruments with their specifications and calibrations");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, Labels.section("Instruments in use"), gap, stock);
        head.setAlignment(Pos.CENTER_LEFT);
        ScrollPane scroll = new ScrollPane(entries);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setMaxHeight(Theme.px(MOST));
        entries.heightProperty()
                .addListener((o, was, is) -> scroll.setMinHeight(Math.min(Theme.px(MOST), is.doubleValue() + 2)));
        getChildren().addAll(head, scroll);
        setMinHeight(USE_PREF_SIZE);
    }

    private static Node entry(InUseModel.Used u) {
        Label name = Labels.styled((u.owes() ? "▲ " : "") + u.id(), "figure");
        Label standing = Labels.quiet(u.owes() ? u.standing() : u.name() + ", " + u.standing());
        standing.setMaxWidth(Theme.px(330));
        Hints.give(standing, u.name() + " " + u.id() + ": " + u.standing());
        Labels.styled(name, "attention", u.owes());
        Labels.styled(standing, "attention", u.owes());
        HBox both = new HBox(8, name, standing);
        both.setAlignment(Pos.BASELINE_LEFT);
        return both;
    }

    void refresh() {
        rows.showOrHide(model.used());
        setVisible(!entries.getChildren().isEmpty());
        setManaged(isVisible());
    }
}

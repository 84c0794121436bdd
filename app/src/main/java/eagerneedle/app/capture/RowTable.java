package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.CellGrid;
import eagerneedle.app.widget.Copied;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.VBox;

/** Shows a {@link RowsModel}, and copies it to the clipboard. */
final class RowTable extends VBox {
    private final RowsModel model;
    private final CellGrid grid = new CellGrid();
    private RowsModel.Shown shown = new RowsModel.Shown(List.of(), List.of());

    RowTable(Desk desk) {
        super(4);
        model = new RowsModel(desk.bench());
        grid.getStyleClass().add("table-cells");
        grid.setId("row-table");
        Button copy = new Button("Copy table");
        copy.setId("copy-rows");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> {
            Copied.table(shown.tabbed());
            Notices.tell(this, "The table is on the clipboard; paste it into a spreadsheet.");
        });
        Labels.explained(copy, "The table with full figures, for pasting into a spreadsheet");
        ScrollPane scroll = new ScrollPane(grid);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        scroll.setMaxHeight(Theme.px(190));
        getChildren().addAll(scroll, copy);
    }

    /** Shows the rows of a capture. */
    void show(String capture) {
        shown = model.of(capture);
        grid.show(shown.cells());
        Labels.shown(this, shown.isAny());
    }
}

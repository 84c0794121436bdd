package eagerneedle.app.reduce;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.picture.Layer;
import eagerneedle.picture.Plot;
import java.util.Optional;
import javafx.scene.control.ChoiceBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/** A picture over the runs with its residuals; a click on a point takes its run in hand. */
final class ColumnsPanel extends VBox {
    private final ReduceModel model;
    private final Runnable picked;
    private final PlotView columns = new PlotView("Columns over runs");
    private final PlotView residuals = new PlotView("Residuals over runs");
    private final ChoiceBox<String> which = new ChoiceBox<>();

    /** @param picked is called when the run behind a point was taken in hand */
    ColumnsPanel(ReduceModel model, Runnable picked) {
        this.model = model;
        this.picked = picked;
        columns.emptySays("The line appears when two runs take part.");
        columns.setId("columns");
        columns.onPoint(this::pick);
        residuals.share(columns);
        columns.showTimeAxis(false);
        residuals.setPrefHeight(Theme.px(86));
        residuals.setMinHeight(Theme.px(78));
        VBox.setVgrow(columns, Priority.ALWAYS);
        getChildren().addAll(columns, residuals);
        setPrefWidth(Theme.px(330));
        setMinWidth(Theme.px(245));
        which.setId("which-picture");
        which.setAccessibleText("Picture of columns over runs");
        offer();
    }

    /** The pictures that the sheet has at this moment. */
    private void offer() {
        if (!which.getItems().equals(model.pictures())) {
            which.setOnAction(null);
            which.getItems().setAll(model.pictures());
            which.getSelectionModel().selectFirst();
            which.setOnAction(e -> refresh());
        }
        which.setVisible(which.getItems().size() > 1);
        which.setManaged(which.isVisible());
        setVisible(!which.getItems().isEmpty());
        setManaged(isVisible());
    }

    /** Chooses among the pictures; not there when there is only one. */
    ChoiceBox<String> choice() {
        return which;
    }

    private void pick(Layer.Points layer, int index) {
        if (model.choosePoint(layer, index)) {
            picked.run();
        }
    }

    void refresh() {
        offer();
        columns.plot(model.columns(which.getValue()).orElse(null), false);
        Optional<Plot> rest = model.columnResiduals(which.getValue());
        residuals.plot(rest.orElse(null), false);
        Labels.shown(residuals, rest.isPresent());
        columns.showTimeAxis(rest.isEmpty());
    }
}

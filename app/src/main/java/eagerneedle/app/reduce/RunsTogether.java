package eagerneedle.app.reduce;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Cell;
import eagerneedle.app.widget.CellGrid;
import java.util.List;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * All runs of a capture over each other, time counted from the beginning of each one's window, and what the runs of one
 * level give together.
 */
final class RunsTogether extends VBox {
    private final TogetherModel model;
    private final PlotView overlay = new PlotView("All runs of the capture");
    private final CellGrid words = new CellGrid((label, column) -> label.setMinWidth(column < 2 ? USE_PREF_SIZE : 0));
    private String shown = "";

    RunsTogether(Desk desk) {
        super(6);
        model = new TogetherModel(desk);
        overlay.setId("overlay");
        overlay.emptySays("There are no traces of this capture yet.");
        overlay.setFocusTraversable(true);
        VBox.setVgrow(overlay, Priority.ALWAYS);
        words.setId("together-says");
        words.getStyleClass().add("table-cells");
        getChildren().addAll(overlay, words);
    }

    void refresh() {
        String capture = model.capture();
        overlay.plot(model.overlay(capture).orElse(null), capture.equals(shown));
        shown = capture;
        words.show(model.together(capture).stream()
                .map(t -> List.of(
                        new Cell(t.level(), Cell.Look.SECTION, ""), Cell.figure(t.mean()), Cell.quiet(t.says())))
                .toList());
    }
}

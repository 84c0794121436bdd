package eagerneedle.app.reduce;

import eagerneedle.app.plot.PlotView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import java.util.List;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;

/**
 * All runs of a capture over each other, time counted from the beginning of each one's window, and what the runs of one
 * level give together.
 */
final class RunsTogether extends VBox {
    private final TogetherModel model;
    private final PlotView overlay = new PlotView("All runs of the capture");
    private final GridPane words = new GridPane();
    private List<TogetherModel.Together> levels = List.of();
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
        List<TogetherModel.Together> now = model.together(capture);
        if (!now.equals(levels)) {
            levels = now;
            words.getChildren().clear();
            for (int row = 0; row < now.size(); row++) {
                Label level = Labels.section(now.get(row).level());
                Label mean = Labels.figure(now.get(row).mean());
                Label says = Labels.quiet(now.get(row).says());
                level.setMinWidth(USE_PREF_SIZE);
                mean.setMinWidth(USE_PREF_SIZE);
                says.setMinWidth(0);
                words.addRow(row, level, mean, says);
            }
            Labels.onPoints(words);
        }
    }
}

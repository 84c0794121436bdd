package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;

/**
 * What stands beside the run in hand: the levels to take, a stopwatch, and the doors for what was recorded elsewhere.
 */
final class CaptureAside extends VBox {
    /** @param owner the station, over whose window dialogues open */
    CaptureAside(Desk desk, CaptureModel model, Node owner, CaptureSchedule schedule, StopwatchPanel stopwatch) {
        super(10);
        Button bring = new Button("Import a file...");
        bring.setId("import");
        bring.setOnAction(e -> new ImportDialog(desk, model.capture(), model.level()).show(owner));
        Labels.explained(
                bring, "Bring in a run recorded elsewhere, from delimited text; or drop the file on the window");
        Button paste = new Button("Paste a table...");
        paste.setId("paste-table");
        paste.getStyleClass().add("quiet-button");
        paste.setOnAction(e -> new ImportDialog(desk, model.capture(), model.level()).paste(owner));
        Labels.explained(paste, "Bring in a run from cells copied in a spreadsheet");
        bring.setMinWidth(USE_PREF_SIZE);
        paste.setMinWidth(USE_PREF_SIZE);
        getChildren().addAll(schedule, stopwatch, new FlowPane(6, 4, bring, paste));
        setPrefWidth(Theme.px(235));
        setMinWidth(Theme.px(225));
    }
}

package eagerneedle.app.plan;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/** Asks what it would take to reach a target uncertainty; it is worked out off the interface thread. */
final class TargetPanel extends VBox {
    private final TargetModel model;
    private final TextField target = new TextField();
    private final Label says = Labels.wrapped("");
    private final Button apply = new Button("Plan it so");
    private final Button work = new Button("What would it take?");
    private TargetModel.@Nullable Way way;

    TargetPanel(Desk desk) {
        super(6);
        model = new TargetModel(desk);
        target.setId("target");
        target.setPrefWidth(Theme.px(110));
        target.setPromptText(Typing.as("0.2 %"));
        target.setAccessibleText("Target standard uncertainty");
        Labels.explained(
                target,
                Typing.as(
                        "Target standard uncertainty of the main result: a share such as 0.2 %, or a value with its unit"));
        target.setOnAction(e -> work());
        work.setId("target-work");
        work.setMinWidth(USE_PREF_SIZE);
        work.setOnAction(e -> work());
        Labels.explained(work, "Tries every instrument of the stockroom and more runs, and names the cheapest change");
        apply.setId("target-apply");
        apply.setVisible(false);
        apply.setOnAction(e -> apply());
        Labels.explained(apply, "Takes these changes into the plan; each can be undone");
        says.setId("target-says");
        HBox row = new HBox(8, Labels.quiet("target u"), target, work, apply);
        row.setAlignment(Pos.CENTER_LEFT);
        getChildren().addAll(row, says);
    }

    private void work() {
        if (work.isDisabled()) {
            return;
        }
        Supplier<TargetModel.Way> search;
        try {
            search = model.search(Typing.in(target));
        } catch (IllegalArgumentException e) {
            says.setText(e.getMessage());
            return;
        }
        says.setText("Trying every change ...");
        work.setDisable(true);
        Thread t = new Thread(
                () -> {
                    try {
                        TargetModel.Way found = search.get();
                        Platform.runLater(() -> show(found));
                    } catch (IllegalArgumentException e) {
                        Platform.runLater(() -> says.setText(e.getMessage()));
                    } finally {
                        Platform.runLater(() -> work.setDisable(false));
                    }
                },
                "what would it take");
        t.setDaemon(true);
        t.start();
    }

    private void show(TargetModel.Way found) {
        way = found;
        says.setText(found.says());
        apply.setVisible(!found.changes().isEmpty());
    }

    private void apply() {
        TargetModel.Way found = way;
        if (found != null) {
            Notices.attempt(this, () -> model.plan(found));
        }
        apply.setVisible(false);
        work();
    }
}

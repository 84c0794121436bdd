package eagerneedle.app.eye;

import eagerneedle.app.widget.Dialogue;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Photographs;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.stage.Stage;

/**
 * A window in which a kept run is put right: renamed, put at another level, its readings by eye mended, a picture
 * added; what stood there before and the reason stay in the notebook.
 */
public final class RunCorrection {
    private final Workbench bench;
    private final CorrectionModel model;
    private final TextField name = new TextField();
    private final ChoiceBox<String> level;
    private final EyeFields fields = new EyeFields(this::keep);
    private final TextField why = new TextField();
    private final Label pictures = Labels.quiet("");
    private final Label problem = Labels.attention("");
    private final Stage stage = new Stage();
    private Run now;

    private RunCorrection(Workbench bench, Run run) {
        this.bench = bench;
        this.model = new CorrectionModel(bench, run);
        this.now = run;
        this.level = OneOf.of(
                "correct-level",
                "Level of the run",
                List.copyOf(model.levels().keySet()),
                l -> model.levels().get(l));
    }

    /** Opens the window for a run. */
    public static void open(Node owner, Workbench bench, Run run) {
        new RunCorrection(bench, run).show(owner);
    }

    private void show(Node owner) {
        Run run = model.run();
        name.setId("correct-name");
        name.setText(run.name());
        name.setAccessibleText("Name of the run");
        level.setValue(run.level());
        fields.show(bench, run, "correct-");
        why.setId("correct-why");
        why.setPromptText("why? it goes into the notebook with what stood there before");
        why.setAccessibleText("Reason of the correction");
        why.setPrefWidth(Theme.px(420));
        why.setOnAction(e -> keep());
        Button picture = new Button("Picture...");
        picture.setId("correct-picture");
        picture.getStyleClass().add("quiet-button");
        picture.setOnAction(e -> {
            File f = new FileChooser().showOpenDialog(stage);
            if (f != null) {
                attach(f.toPath());
            }
        });
        Labels.explained(
                picture, "Attach a picture to this run; or drop it here. Lengths and angles can be measured on it");
        problem.setId("correct-problem");
        Button keep = new Button("Keep as corrected");
        keep.setId("correct-keep");
        keep.setOnAction(e -> keep());
        Button cancel = new Button("Cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> stage.close());
        HBox first = new HBox(10, Labels.quiet("name"), name, Labels.quiet("level"), level);
        HBox pictured = new HBox(8, picture, pictures);
        HBox foot = new HBox(10, keep, cancel);
        List.of(first, pictured, foot).forEach(b -> b.setAlignment(Pos.CENTER_LEFT));
        VBox box = new VBox(12, Labels.heading("Correct " + run.name()), first, fields, pictured, why, problem, foot);
        box.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        box.setOnDragDropped(e -> {
            attach(e.getDragboard().getFiles().get(0).toPath());
            e.setDropCompleted(true);
            e.consume();
        });
        Labels.says(problem, "");
        counted();
        Dialogue.open(stage, owner, "Correct " + run.name(), box, box, 640, model.isRead() ? 330 : 260);
        if (model.isRead()) {
            fields.first();
        } else {
            name.requestFocus();
        }
    }

    private void counted() {
        int n = now.entries().pictures().size();
        pictures.setText(
                n == 0
                        ? "no picture yet"
                        : String.join(
                                ", ",
                                now.entries().pictures().stream()
                                        .map(p -> p.name())
                                        .toList()));
    }

    private void attach(Path file) {
        attempt(() -> {
            now = now.entered(now.entries().pictured(Photographs.keep(bench.file(), file)));
            fields.pictured(bench, now);
            counted();
        });
    }

    private void keep() {
        attempt(() -> {
            Run corrected = fields.entered(now.named(name.getText().strip()), false);
            model.keep(corrected, level.getValue(), why.getText());
            stage.close();
        });
    }

    /** A sentence about what is wrong stands in this window, not behind it. */
    private void attempt(Runnable act) {
        try {
            act.run();
            Labels.says(problem, "");
        } catch (IllegalArgumentException bad) {
            Labels.says(problem, "▲ " + Objects.requireNonNullElse(bad.getMessage(), "That did not work."));
            if (why.getText().isBlank() && problem.getText().contains("why")) {
                why.requestFocus();
            }
        }
    }
}

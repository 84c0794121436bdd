package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Photographs;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.io.File;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;

/**
 * What a person says of a run that has just ended: its name, what was read by eye, a picture; keep it, or void it with
 * a reason.
 */
final class RunVerdict extends VBox {
    private final Desk desk;
    private final TextField name = new TextField();
    private final TextField reason = new TextField();
    private final Button keep = new Button("Keep");
    private final Button discard = new Button("Void");
    private final Button picture = new Button("Picture...");
    private final FlowPane byEye = new FlowPane(10, 4);
    private final Map<String, TextField> fields = new LinkedHashMap<>();
    private final Label refusal = new Label();
    private Run run;

    /** @param kept is given the run as it is to be kept, or voided with its reason */
    RunVerdict(Desk desk, Consumer<Run> kept) {
        super(5);
        this.desk = desk;
        keep.setId("keep-run");
        keep.setOnAction(e -> Notices.attempt(this, () -> kept.accept(entered())));
        Labels.explained(keep, "Keep this run in the session (K)");
        discard.setId("discard-run");
        discard.setOnAction(e -> Notices.attempt(
                this,
                () -> kept.accept(run.named(named())
                        .discarded(
                                reason.getText().isBlank()
                                        ? "voided at capture"
                                        : reason.getText().strip()))));
        Labels.explained(discard, "Void this run (D); its samples stay in the bench file, and it can be taken back");
        name.setId("run-name");
        name.setPrefWidth(120);
        name.setAccessibleText("Name of the run");
        name.setOnAction(e -> keep.fire());
        reason.setId("void-reason");
        reason.setPrefWidth(150);
        reason.setPromptText("why, when voided");
        reason.setAccessibleText("Reason to void the run");
        picture.setId("attach-picture");
        picture.getStyleClass().add("quiet-button");
        picture.setOnAction(e -> {
            File f = new FileChooser().showOpenDialog(getScene().getWindow());
            if (f != null) {
                attach(f.toPath());
            }
        });
        Labels.explained(picture, "Attach a picture to this run; or drop it here");
        setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()
                    && Photographs.isPicture(e.getDragboard().getFiles().get(0).getName())) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        setOnDragDropped(e -> {
            attach(e.getDragboard().getFiles().get(0).toPath());
            e.setDropCompleted(true);
            e.consume();
        });
        HBox row = new HBox(8, name, keep, picture, reason, discard);
        row.setAlignment(Pos.CENTER_LEFT);
        byEye.setAlignment(Pos.CENTER_LEFT);
        refusal.setId("refusal");
        refusal.setWrapText(true);
        refusal.getStyleClass().add("attention");
        getChildren().addAll(refusal, byEye, row);
        show(null, null);
    }

    /** Says why the sheet would not keep the run; nothing where it would. */
    void refuse(String why) {
        refusal.setText(why);
        refusal.setManaged(!why.isEmpty());
        refusal.setVisible(!why.isEmpty());
        keep.setText(why.startsWith("Not to be kept") ? "Keep nevertheless" : "Keep");
        reason.setText(why.isEmpty() ? "" : why.replaceFirst("^[^:]*: ", ""));
    }

    /** Asks about a run; null for nothing to ask. */
    void show(Run ended, Capture plan) {
        refuse("");
        run = ended;
        setVisible(ended != null);
        setManaged(ended != null);
        byEye.getChildren().clear();
        fields.clear();
        reason.clear();
        picture.setText("Picture...");
        if (ended == null) {
            return;
        }
        name.setText(ended.name());
        plan.byEye().forEach((key, input) -> {
            TextField f = new TextField();
            f.setId("by-eye-" + key);
            f.setPrefWidth(110);
            f.setPromptText(input.value());
            f.setAccessibleText(input.label() + ", by eye");
            Labels.explained(
                    f,
                    (input.by() == null ? "Read by eye" : "By " + input.by())
                            + ": value with its uncertainty and unit, for instance " + input.value());
            f.setOnAction(e -> keep.fire());
            fields.put(key, f);
            byEye.getChildren().add(labelled(input, f));
        });
        byEye.setManaged(!fields.isEmpty());
        if (!fields.isEmpty()) {
            fields.values().iterator().next().requestFocus();
        }
    }

    private static HBox labelled(Sheet.Input input, TextField f) {
        Label l = Labels.quiet(input.label());
        HBox box = new HBox(6, l, f);
        box.setAlignment(Pos.CENTER_LEFT);
        return box;
    }

    /** Changes the run in hand, as when a late reading is added to it. */
    void replace(Run now) {
        run = now;
    }

    Run run() {
        return run;
    }

    private String named() {
        return name.getText().isBlank() ? run.name() : name.getText().strip();
    }

    private Run entered() {
        Run r = run.named(named());
        Capture plan = desk.bench().sheet().captures().get(r.capture());
        for (Map.Entry<String, TextField> f : fields.entrySet()) {
            String text = f.getValue().getText().strip();
            if (text.isEmpty()) {
                f.getValue().requestFocus();
                throw new IllegalArgumentException(
                        "Enter " + plan.byEye().get(f.getKey()).label() + " first, as read by eye.");
            }
            LabUnit wanted = Reading.parse(plan.byEye().get(f.getKey()).value()).unit();
            Reading read = Reading.parse(text);
            if (!read.unit().fits(wanted)) {
                f.getValue().requestFocus();
                throw new IllegalArgumentException(plan.byEye().get(f.getKey()).label() + " is in " + wanted.named()
                        + ", not in " + read.unit().named() + "; write for instance "
                        + plan.byEye().get(f.getKey()).value() + ".");
            }
            r = r.entered(r.entries().read(f.getKey(), text));
        }
        return r;
    }

    /** Keeps a picture with the run in hand. */
    void attach(Path file) {
        Notices.attempt(this, () -> {
            run = run.entered(
                    run.entries().pictured(Photographs.keep(desk.bench().file(), file)));
            picture.setText(run.entries().pictures().size()
                    + (run.entries().pictures().size() == 1 ? " picture" : " pictures"));
        });
    }

    void fireKeep() {
        keep.fire();
    }

    void fireVoid() {
        discard.fire();
    }
}

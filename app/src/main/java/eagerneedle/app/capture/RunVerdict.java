package eagerneedle.app.capture;

import eagerneedle.app.eye.EyeFields;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.LivePage;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Photographs;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import java.io.File;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import javafx.geometry.VPos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;

/**
 * What a person says of a run that has just ended: its name, what was read by eye, a picture; keep it, or void it with
 * a reason.
 */
final class RunVerdict extends VBox {
    private final Desk desk;
    private final TextField name = new TextField();
    private final TextField reason = new TextField();
    private final Button keep = new Button("Keep");
    private final Button discard = new Button("Leave out");
    private final Button picture = new Button("Picture...");
    private final EyeFields byEye = new EyeFields(this::fireKeep);
    private final Label refusal = new Label();
    private final Label watched = Labels.attention("");
    private @Nullable Run run;

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
                () -> kept.accept(inHand().named(named())
                        .discarded(
                                reason.getText().isBlank()
                                        ? "left out at capture"
                                        : reason.getText().strip()))));
        Labels.explained(
                discard,
                "Leave this run out of everything (D); its samples stay in the bench file, and it can be taken in again");
        name.setId("run-name");
        name.setPrefWidth(Theme.px(120));
        name.setAccessibleText("Name of the run");
        name.setOnAction(e -> keep.fire());
        reason.setId("void-reason");
        reason.setPrefWidth(Theme.px(150));
        reason.setPromptText("why, when left out");
        reason.setAccessibleText("Reason to leave the run out");
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
        FlowPane row = new FlowPane(8, 6, name, keep, picture, reason, discard);
        row.setRowValignment(VPos.CENTER);
        refusal.setId("refusal");
        refusal.setWrapText(true);
        refusal.getStyleClass().add("attention");
        watched.setId("run-watched");
        getChildren().addAll(refusal, watched, byEye, row);
        show(null, null);
    }

    /** Says why the sheet would not keep the run; nothing where it would. */
    void refuse(String why) {
        Labels.says(refusal, why);
        keep.setText(why.startsWith("Not to be kept") ? "Keep nevertheless" : "Keep");
        reason.setText(why.isEmpty() ? "" : why.replaceFirst("^[^:]*: ", ""));
    }

    /** Says what the watches find in the run, while it can still be taken again. */
    void watched(List<String> found) {
        Labels.says(watched, found.isEmpty() ? "" : "▲ " + String.join("\n▲ ", found));
    }

    /** Asks about a run; null for nothing to ask. */
    void show(@Nullable Run ended, @Nullable Capture plan) {
        refuse("");
        watched(List.of());
        run = ended;
        setVisible(ended != null);
        setManaged(ended != null);
        reason.clear();
        if (ended == null || plan == null) {
            byEye.clear();
            return;
        }
        pictures();
        name.setText(ended.name());
        boolean eye = plan.isByEye();
        Labels.shown(reason, !eye);
        Labels.shown(discard, !eye);
        byEye.show(desk.bench(), ended, "by-eye-");
        byEye.focus();
        LivePage.scrollTo(this);
    }

    /** Takes the keyboard to the first reading that is missing. */
    void focus() {
        byEye.focus();
    }

    /** A time taken with the stopwatch; true when a reading waited for one. */
    boolean stopped(double seconds) {
        return isVisible() && byEye.stopped(seconds);
    }

    /** What to do with several rows of pasted cells. */
    void onRows(Consumer<String> act) {
        byEye.onRows(act);
    }

    /** Changes the run in hand, as when a late reading is added to it. */
    void replace(Run now) {
        run = now;
    }

    /** The run that is asked about; null while there is none. */
    @Nullable
    Run run() {
        return run;
    }

    private Run inHand() {
        return Objects.requireNonNull(run);
    }

    private String named() {
        return name.getText().isBlank() ? inHand().name() : name.getText().strip();
    }

    private Run entered() {
        return byEye.entered(inHand().named(named()), true);
    }

    /** Keeps a picture with the run in hand. */
    void attach(Path file) {
        Notices.attempt(this, () -> {
            run = inHand().entered(inHand().entries()
                    .pictured(Photographs.keep(desk.bench().file(), file)));
            byEye.pictured(desk.bench(), inHand());
            pictures();
        });
    }

    private void pictures() {
        int n = inHand().entries().pictures().size();
        picture.setText(n == 0 ? "Picture..." : n + (n == 1 ? " picture" : " pictures"));
    }

    void fireKeep() {
        keep.fire();
    }

    void fireVoid() {
        discard.fire();
    }
}

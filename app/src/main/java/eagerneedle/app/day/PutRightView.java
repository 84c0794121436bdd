package eagerneedle.app.day;

import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Sentence;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import java.io.File;
import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;

/** A standard that was wrong: by how much, in which sessions; what would move is listed before anything is changed. */
public final class PutRightView implements StationView {
    private final RightModel model;
    private final BorderPane all = new BorderPane();
    private final GridPane grid = new GridPane();
    private final TextField standard = field("right-standard", "its serial, TH-CM-01", "Standard that was wrong");
    private final TextField times = field("right-times", "1.0021(3)", "What its value is multiplied by");
    private final TextField plus = field("right-plus", "0.12(2) K", "What is added to its value");
    private final TextField at = field(
            "right-at", "only where a calibration had several standards", "References that were of this standard");
    private final TextField why = field("right-why", "why; the notebooks keep it", "Why it is corrected");
    private final TextField by = field("right-by", "who says so", "Who says so");
    private final TextField folder = field("right-folder", "folder of the sessions", "Folder of the sessions");
    private final ProgressBar bar = new ProgressBar(0);
    private final Label state = Labels.wrapped("");
    private final VBox list = new VBox(6);
    private final Rows<Sentence> lines = new Rows<>(list, Labels::of);
    private final Button look = new Button("Look");
    private final Button write = new Button("Put them right");

    /**
     * For a standard.
     *
     * @param serial which; may be changed
     * @param who says so at first
     * @param back leads to the session again
     */
    public PutRightView(String serial, String who, Clock clock, Runnable back) {
        model = new RightModel(clock);
        all.getStyleClass().add("surface");
        all.setId("right");
        standard.setText(serial);
        by.setText(who);
        grid.setHgap(10);
        grid.setVgap(6);
        row("standard", standard, "its serial");
        row("times", times, Typing.as("what its value is multiplied by, as 1.0021(3)"));
        row("plus", plus, Typing.as("what is then added, as 0.12(2) K"));
        row("only at", at, "references that were of it, where a calibration had several; apart by ;");
        row("because", why, "every notebook keeps it");
        row("said by", by, "");
        Button choose = new Button("Choose...");
        choose.setOnAction(e -> choose());
        HBox where = new HBox(8, folder, choose);
        HBox.setHgrow(folder, Priority.ALWAYS);
        grid.add(Labels.quiet("sessions in"), 0, grid.getRowCount());
        grid.add(where, 1, grid.getRowCount() - 1);
        look.setId("right-look");
        look.getStyleClass().add("default-act");
        look.setOnAction(e -> look());
        write.setId("right-write");
        write.setOnAction(e -> write());
        Labels.explained(write, "Keeps it in every session that the standard reached; it can be undone in each");
        Button close = new Button("Back");
        close.setId("right-back");
        close.getStyleClass().add("quiet-button");
        close.setOnAction(e -> back.run());
        FlowPane acts = new FlowPane(8, 6, look, write, close);
        state.setId("right-state");
        bar.setMaxWidth(Double.MAX_VALUE);
        list.setId("right-list");
        VBox top = new VBox(10, Labels.heading("A standard was wrong"), grid, acts, bar, state);
        top.setPadding(new javafx.geometry.Insets(0, 0, 10, 0));
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        all.setTop(top);
        all.setCenter(scroll);
        for (TextField f : List.of(standard, times, plus, at, why, by, folder)) {
            f.textProperty().addListener((o, was, is) -> changed());
        }
        show();
    }

    private static TextField field(String id, String prompt, String says) {
        TextField f = new TextField();
        f.setId(id);
        f.setPromptText(Typing.as(prompt));
        f.setAccessibleText(says);
        f.setPrefWidth(Theme.px(300));
        return f;
    }

    private void row(String words, TextField field, String hint) {
        int n = grid.getRowCount();
        grid.add(Labels.quiet(words), 0, n);
        grid.add(field, 1, n);
        grid.add(Labels.quiet(hint), 2, n);
    }

    private void changed() {
        model.changed();
        show();
    }

    private void choose() {
        File f = new DirectoryChooser().showDialog(all.getScene().getWindow());
        if (f != null) {
            folder.setText(f.toString());
        }
    }

    private RightModel.Fields fields() {
        return new RightModel.Fields(
                standard.getText(),
                Typing.in(times),
                Typing.in(plus),
                Typing.in(at),
                why.getText(),
                by.getText(),
                folder.getText());
    }

    private void look() {
        Notices.attempt(all, () -> {
            RightModel.Look begun = model.look(fields());
            bar.setProgress(0);
            CompletableFuture.supplyAsync(() ->
                            begun.through((n, of) -> Platform.runLater(() -> bar.setProgress((double) n / of))))
                    .whenComplete((seen, failed) -> Platform.runLater(() -> {
                        if (model.found(begun, seen, failed)) {
                            show();
                        }
                    }));
        });
        show();
    }

    private void write() {
        Notices.attempt(all, model::write);
        show();
    }

    private void show() {
        Labels.shown(bar, model.isLooking());
        look.setDisable(model.isLooking());
        write.setDisable(!model.mayWrite());
        state.setText(model.state());
        lines.show(model.lines());
    }

    /** The serial of the standard as it is written. */
    public String standard() {
        return standard.getText().strip();
    }

    @Override
    public void left() {
        model.leave();
        show();
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(standard.getText().isEmpty() ? standard : times);
    }

    @Override
    public void refresh() {
        // What would move is of the folder, not of the session at the window.
    }

    @Override
    public void tick() {
        // Nothing moves by itself.
    }
}

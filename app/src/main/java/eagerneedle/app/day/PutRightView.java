package eagerneedle.app.day;

import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.stockroom.Correction;
import java.io.File;
import java.nio.file.Path;
import java.time.Clock;
import java.time.temporal.ChronoUnit;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.atomic.AtomicBoolean;
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
import org.jspecify.annotations.Nullable;

/** A standard that was wrong: by how much, in which sessions; what would move is listed before anything is changed. */
public final class PutRightView implements StationView {
    private final Clock clock;
    private final BorderPane all = new BorderPane();
    private final GridPane fields = new GridPane();
    private final TextField standard = field("right-standard", "its serial, TH-CM-01", "Standard that was wrong");
    private final TextField times = field("right-times", "1.0021(3)", "What its value is multiplied by");
    private final TextField plus = field("right-plus", "0.12(2) K", "What is added to its value");
    private final TextField at = field(
            "right-at", "only where a calibration had several standards", "References that were of this standard");
    private final TextField why = field("right-why", "why; the notebooks keep it", "Why it is corrected");
    private final TextField by = field("right-by", "who says so", "Who says so");
    private final TextField folder = field("right-folder", "folder of the sessions", "Folder of the sessions");
    private final ProgressBar bar = new ProgressBar(0);
    private final Label state = Labels.wrapped("Nothing is changed until it is written.");
    private final VBox list = new VBox(6, Labels.quiet("What would move is listed here, session by session."));
    private final Button look = new Button("Look");
    private final Button write = new Button("Put them right");
    private final AtomicBoolean going = new AtomicBoolean();
    private @Nullable FolderRight found;

    /**
     * For a standard.
     *
     * @param serial which; may be changed
     * @param who says so at first
     * @param back leads to the session again
     */
    public PutRightView(String serial, String who, Clock clock, Runnable back) {
        this.clock = clock;
        all.getStyleClass().add("surface");
        all.setId("right");
        standard.setText(serial);
        by.setText(who);
        fields.setHgap(10);
        fields.setVgap(6);
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
        fields.add(Labels.quiet("sessions in"), 0, fields.getRowCount());
        fields.add(where, 1, fields.getRowCount() - 1);
        look.setId("right-look");
        look.getStyleClass().add("default-act");
        look.setOnAction(e -> look());
        write.setId("right-write");
        write.setDisable(true);
        write.setOnAction(e -> write());
        Labels.explained(write, "Keeps it in every session that the standard reached; it can be undone in each");
        Button close = new Button("Back");
        close.setId("right-back");
        close.getStyleClass().add("quiet-button");
        close.setOnAction(e -> back.run());
        FlowPane acts = new FlowPane(8, 6, look, write, close);
        state.setId("right-state");
        Labels.shown(bar, false);
        bar.setMaxWidth(Double.MAX_VALUE);
        list.setId("right-list");
        VBox top = new VBox(10, Labels.heading("A standard was wrong"), fields, acts, bar, state);
        top.setPadding(new javafx.geometry.Insets(0, 0, 10, 0));
        ScrollPane scroll = new ScrollPane(list);
        scroll.setFitToWidth(true);
        scroll.getStyleClass().add("bare");
        all.setTop(top);
        all.setCenter(scroll);
        for (TextField f : List.of(standard, times, plus, at, why, by, folder)) {
            f.textProperty().addListener((o, was, is) -> forget());
        }
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
        int n = fields.getRowCount();
        fields.add(Labels.quiet(words), 0, n);
        fields.add(field, 1, n);
        fields.add(Labels.quiet(hint), 2, n);
    }

    private void forget() {
        found = null;
        write.setDisable(true);
    }

    private void choose() {
        File f = new DirectoryChooser().showDialog(all.getScene().getWindow());
        if (f != null) {
            folder.setText(f.toString());
        }
    }

    private static @Nullable String reading(TextField f) {
        return f.getText().isBlank() ? null : Typing.in(f).strip();
    }

    private void look() {
        if (folder.getText().isBlank()) {
            Notices.warn(all, "Say in which folder the sessions are.");
            return;
        }
        Correction c = new Correction(
                standard.getText().strip(),
                reading(times),
                reading(plus),
                clock.instant().truncatedTo(ChronoUnit.MILLIS),
                by.getText().isBlank() ? "staff" : by.getText().strip(),
                why.getText().strip());
        List<String> only = at.getText().isBlank()
                ? List.of()
                : Arrays.stream(Typing.in(at).split(";")).map(String::strip).toList();
        if (!Notices.attempt(all, c::checked) || !going.compareAndSet(false, true)) {
            return;
        }
        Path where = Path.of(folder.getText().strip());
        busy(true);
        CompletableFuture.supplyAsync(() -> FolderRight.look(where, c, only, (n, of) -> {
                    Platform.runLater(() -> bar.setProgress((double) n / of));
                    return going.get();
                }))
                .whenComplete((seen, failed) -> Platform.runLater(() -> {
                    going.set(false);
                    busy(false);
                    show(seen, failed);
                }));
    }

    private void busy(boolean is) {
        bar.setProgress(0);
        Labels.shown(bar, is);
        look.setDisable(is);
        write.setDisable(true);
    }

    private void show(@Nullable FolderRight seen, @Nullable Throwable failed) {
        list.getChildren().clear();
        if (seen == null) {
            Throwable cause =
                    failed instanceof CompletionException && failed.getCause() != null ? failed.getCause() : failed;
            state.setText(cause == null || cause.getMessage() == null ? "It was stopped." : cause.getMessage());
            return;
        }
        found = seen;
        write.setDisable(seen.reached().isEmpty() || !seen.problems().isEmpty());
        state.setText(sessions(seen.reached().size()) + " would be put right, "
                + sessions(seen.untouched().size())
                + " had nothing to do with it"
                + (seen.problems().isEmpty()
                        ? "."
                        : "; " + sessions(seen.problems().size()) + " stand in the way."));
        seen.problems().forEach(p -> {
            Label l = Labels.attention("▲ " + p);
            l.setWrapText(true);
            list.getChildren().add(l);
        });
        for (FolderRight.Reached r : seen.reached()) {
            list.getChildren().add(Labels.section(seen.relative(r.file())));
            list.getChildren().add(Labels.wrapped("corrected: " + String.join("; ", r.parts())));
            r.seen().forEach(s -> list.getChildren().add(Labels.wrapped(s)));
            r.verdicts().forEach(v -> list.getChildren().add(Labels.attention("▲ " + v)));
        }
    }

    private static String sessions(int n) {
        return n + (n == 1 ? " session" : " sessions");
    }

    private void write() {
        FolderRight seen = found;
        if (seen != null && Notices.attempt(all, seen::write)) {
            write.setDisable(true);
            state.setText("Put right: " + sessions(seen.reached().size())
                    + ". Every notebook says so; marks of a class are worked out anew when it is marked again.");
        }
    }

    @Override
    public void left() {
        going.set(false);
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

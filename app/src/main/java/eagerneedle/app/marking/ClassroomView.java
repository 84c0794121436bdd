package eagerneedle.app.marking;

import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.BesideOrBelow;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.store.FileName;
import eagerneedle.store.classroom.ClassFolder;
import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.TextField;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.BorderPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import org.jspecify.annotations.Nullable;

/** The classroom: data are given out, and what comes back is marked on a matrix of students and quantities. */
public final class ClassroomView implements StationView {
    private final MarkingModel model;
    private final BorderPane all = new BorderPane();
    private final TextField folder = new TextField();
    private final TextField handIns = new TextField();
    private final PasswordField passphrase = new PasswordField();
    private final Button mark = new Button("Mark");
    private final ProgressBar bar = new ProgressBar(0);
    private final Label state = Labels.quiet("");
    private final MarkingMatrix matrix;
    private final MarkDetail detail;
    private final VBox classWide = new VBox(8);
    private final Rows<MarkingModel.Part> classParts = new Rows<>(classWide, MarkDetail::part);
    private final Button undo = new Button("Undo mark");
    private final Button redo = new Button("Redo mark");
    private final AtomicBoolean going = new AtomicBoolean();
    private final Runnable back;
    private final Supplier<String> sheet;
    private final Clock clock;
    private MarkingModel.@Nullable Cell open;

    /**
     * The classroom beside a session.
     *
     * @param sheet the text of the session's sheet, whose data can be given out
     * @param back leads to the session again
     */
    public ClassroomView(Supplier<String> sheet, Clock clock, Runnable back) {
        this.sheet = sheet;
        this.clock = clock;
        this.back = back;
        model = new MarkingModel(clock);
        matrix = new MarkingMatrix(model, this::open, this::points);
        matrix.setMinHeight(Theme.px(220));
        detail = new MarkDetail(model, this::refresh);
        all.getStyleClass().add("surface");
        all.setId("classroom");
        folder.setId("marking-folder");
        handIns.setId("marking-hand-ins");
        passphrase.setId("marking-passphrase");
        mark.setId("marking-begin");
        mark.setOnAction(e -> mark());
        state.setId("marking-state");
        state.setWrapText(true);
        bar.setVisible(false);
        bar.setMaxWidth(Double.MAX_VALUE);
        undo.setId("marking-undo");
        undo.setOnAction(e -> step(true));
        redo.setId("marking-redo");
        redo.setOnAction(e -> step(false));
        all.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        all.setOnDragDropped(e -> {
            e.getDragboard().getFiles().forEach(f -> dropped(f.toPath()));
            e.consume();
        });
        beginning();
    }

    /** What is dropped here is a class, or what it handed in. */
    void dropped(Path p) {
        (ClassFolder.is(p) ? folder : handIns).setText(p.toString());
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public Optional<Node> focus() {
        return Optional.of(folder);
    }

    @Override
    public void refresh() {
        if (model.isMarked() && all.getCenter() == matrix) {
            matrix.refresh();
            detail.show(open);
            classParts.show(model.classWide());
            undo.setDisable(!model.canUndo());
            redo.setDisable(!model.canRedo());
        }
    }

    private Button back() {
        Button b = new Button("Back");
        b.setId("classroom-back");
        b.getStyleClass().add("quiet-button");
        b.setMinWidth(Region.USE_PREF_SIZE);
        b.setOnAction(e -> back.run());
        return b;
    }

    /** Both things that are done with a class. */
    private void beginning() {
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox top = new HBox(10, Labels.heading("Classroom"), gap, back());
        top.setAlignment(Pos.CENTER_LEFT);
        VBox marking = new VBox(
                8,
                Labels.section("Mark"),
                Labels.wrapped(
                        "Each number is held against what that student's own data give: right, right by another way,"
                                + " wrong and by which mistake, or following from an earlier number."),
                new Fields()
                        .with("folder of the class", folder, new Fields.Choosing("Choose...", this::askFolder))
                        .with(
                                "what was handed in",
                                handIns,
                                new Fields.Choosing(
                                        "A table...", () -> Files.askToOpen(all, "hand-ins", "*.csv", "*.xlsx")),
                                new Fields.Choosing("A folder of forms...", this::askFolder))
                        .with("passphrase of the key", passphrase),
                new FlowPane(8, 6, mark),
                bar,
                state);
        marking.getStyleClass().add("card");
        BesideOrBelow both = new BesideOrBelow(marking, new GiveOutPanel(sheet, clock));
        marking.setPrefWidth(Theme.px(480));
        VBox page = new VBox(14, top, both);
        all.setTop(null);
        all.setRight(null);
        all.setBottom(null);
        all.setCenter(page);
    }

    private @Nullable Path askFolder() {
        File chosen = new DirectoryChooser().showDialog(all.getScene().getWindow());
        return chosen == null ? null : chosen.toPath();
    }

    private void mark() {
        if (going.get()) {
            going.set(false);
            return;
        }
        if (folder.getText().isBlank() || handIns.getText().isBlank()) {
            Notices.warn(all, "Name the folder of the class and what was handed in: a CSV, or a folder of forms.");
            return;
        }
        mark(
                Path.of(folder.getText().strip()),
                Path.of(handIns.getText().strip()),
                passphrase.getText().strip());
    }

    /** Marks a class; nothing is in the way meanwhile. */
    public CompletableFuture<?> mark(Path of, Path handedIn, String words) {
        going.set(true);
        mark.setText("Stop");
        bar.setVisible(true);
        bar.setProgress(0);
        state.setText("");
        return CompletableFuture.supplyAsync(() -> model.mark(of, handedIn, words, (done, n) -> {
                    Platform.runLater(() -> bar.setProgress((double) done / n));
                    return going.get();
                }))
                .whenComplete((loaded, failed) -> Platform.runLater(() -> {
                    going.set(false);
                    mark.setText("Mark");
                    bar.setVisible(false);
                    if (failed == null) {
                        model.show(loaded);
                        marked();
                    } else {
                        state.setText(GiveOutPanel.said(failed));
                    }
                }));
    }

    private void marked() {
        CheckBox hide = new CheckBox("Names hidden");
        hide.setId("marking-hide");
        hide.setOnAction(e -> {
            model.hideNames(hide.isSelected());
            refresh();
        });
        TextField who = new TextField();
        who.setId("marking-by");
        who.setPromptText("marker");
        who.setAccessibleText("Who is marking");
        who.setPrefWidth(Theme.px(96));
        who.textProperty().addListener((o, was, is) -> model.marker(is));
        CheckBox closed = new CheckBox("with what the data give");
        closed.setId("marking-closed");
        Labels.explained(closed, "Only once nothing can be handed in again: the pages then tell the right values");
        Button table = new Button("Table...");
        table.setId("marking-table");
        table.setOnAction(e -> table());
        Button pages = new Button("Feedback pages...");
        pages.setId("marking-pages");
        pages.setOnAction(e -> pages(closed.isSelected()));
        Button other = new Button("Another class");
        other.getStyleClass().add("quiet-button");
        other.setOnAction(e -> beginning());
        FlowPane acts = new FlowPane(8, 6, hide, who, undo, redo, table, pages, closed, other, back());
        acts.setRowValignment(javafx.geometry.VPos.CENTER);
        VBox top = new VBox(8, Labels.heading("Marking: " + model.title()), acts);
        top.setPadding(new javafx.geometry.Insets(0, 0, 10, 0));
        javafx.scene.control.ScrollPane wide = new javafx.scene.control.ScrollPane(classWide);
        wide.setFitToWidth(true);
        wide.getStyleClass().add("bare");
        wide.setPrefHeight(Theme.px(150));
        wide.setMinHeight(Theme.px(80));
        wide.setId("class-wide");
        VBox foot = new VBox(wide);
        foot.setPadding(new javafx.geometry.Insets(10, 0, 0, 0));
        VBox.setVgrow(wide, Priority.ALWAYS);
        open = null;
        matrix.show();
        all.setTop(top);
        all.setCenter(matrix);
        all.setBottom(foot);
        BorderPane.setMargin(detail, new javafx.geometry.Insets(0, 0, 0, 16));
        all.setRight(detail);
        refresh();
    }

    private void open(MarkingModel.Cell c) {
        open = c;
        matrix.light(c);
        detail.show(c);
    }

    private void points(int quantity, String text) {
        if (Notices.attempt(all, () -> model.points(quantity, text))) {
            refresh();
        }
    }

    /** Undo here means the last mark, not the last act of the session behind. */
    @Override
    public boolean step(boolean back) {
        if (!model.isMarked() || all.getCenter() != matrix) {
            return false;
        }
        if (back ? model.canUndo() : model.canRedo()) {
            Notices.tell(all, (back ? "Taken back: " : "Done again: ") + (back ? model.undo() : model.redo()));
            refresh();
        }
        return true;
    }

    private void table() {
        Path to = Files.askFor(all, "class.csv", "*.csv", "*.xlsx");
        if (to != null) {
            writeTable(to);
        }
    }

    /** Writes the table of the class. */
    public void writeTable(Path to) {
        Notices.attempt(all, () -> {
            try {
                model.table(to);
                Notices.tell(all, "Wrote " + FileName.of(to) + ".");
            } catch (IOException e) {
                throw new IllegalArgumentException(FileName.of(to) + " cannot be written there.", e);
            }
        });
    }

    private void pages(boolean closed) {
        Path to = askFolder();
        if (to != null) {
            writePages(to, closed);
        }
    }

    /** Writes a page for each student. */
    public CompletableFuture<Integer> writePages(Path to, boolean closed) {
        Notices.tell(all, "The pages are being set...");
        return CompletableFuture.supplyAsync(() -> {
                    try {
                        return model.feedback(to, closed, (n, of) -> true);
                    } catch (IOException e) {
                        throw new UncheckedIOException(FileName.of(to) + " cannot be written there.", e);
                    }
                })
                .whenComplete((n, failed) -> Platform.runLater(() -> {
                    if (failed == null) {
                        Notices.tell(all, "Wrote pages for " + n + " students into " + FileName.of(to) + ".");
                    } else {
                        Notices.warn(all, GiveOutPanel.said(failed));
                    }
                }));
    }
}

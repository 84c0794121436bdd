package eagerneedle.app.record;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Photographs;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.StepCard;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.NotebookLine;
import java.io.ByteArrayInputStream;
import java.io.File;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.TransferMode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;
import javafx.stage.FileChooser;
import org.jspecify.annotations.Nullable;

/** Record: the report as it will print and everything that leaves the program; the notebook, free notes, the finish. */
public final class RecordStation implements StationView {
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("d MMM HH:mm:ss")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());
    private final Desk desk;
    private final RecordModel model;
    private final HBox all = new HBox(26);
    private final ListView<NotebookLine> notebook = new ListView<>();
    private final TextField note = new TextField();
    private final VBox finishBox = new VBox(8);
    private final Rows<Sheet.Step> finish;
    private final PagesView pages;
    private final Label attached = Labels.quiet("");
    private final FlowPane shelfPane = new FlowPane(8, 8);
    private final Rows<RecordModel.Shelved> shelf = new Rows<>(shelfPane, this::shelved);

    public RecordStation(Desk desk) {
        this.desk = desk;
        model = new RecordModel(desk);
        finish = new Rows<>(
                finishBox, s -> new StepCard(desk.bench(), s, desk.site().staff()));
        all.getStyleClass().add("surface");
        pages = new PagesView(desk.bench()::paper);
        all.getChildren().addAll(leaving(), notes());
    }

    private VBox notes() {
        notebook.setId("notebook");
        notebook.setCellFactory(v -> new ListCell<>() {
            @Override
            protected void updateItem(NotebookLine act, boolean empty) {
                super.updateItem(act, empty);
                setText(empty || act == null ? null : STAMP.format(act.at()) + "   " + act.text());
                setWrapText(true);
                setPrefWidth(Theme.px(200));
            }
        });
        VBox.setVgrow(notebook, Priority.ALWAYS);
        note.setId("note");
        note.setPromptText("Write a note and press Enter");
        note.setAccessibleText("A free note");
        note.setOnAction(e -> write());
        Button picture = new Button("Picture...");
        picture.setId("note-picture");
        picture.getStyleClass().add("quiet-button");
        picture.setMinWidth(Region.USE_PREF_SIZE);
        picture.setOnAction(e -> {
            File f = new FileChooser().showOpenDialog(all.getScene().getWindow());
            if (f != null) {
                attach(f.toPath());
            }
        });
        Labels.explained(picture, "A picture that goes with the note; or drop it on the notebook. Enter keeps both");
        attached.setId("note-pictures");
        HBox.setHgrow(note, Priority.ALWAYS);
        HBox writing = new HBox(8, note, attached, picture);
        writing.setAlignment(Pos.CENTER_LEFT);
        shelfPane.setId("note-shelf");
        VBox left = new VBox(
                10,
                Labels.heading("Notebook"),
                Labels.quiet("Every act is kept here as it is made, undone ones too."),
                notebook,
                shelfPane,
                writing);
        left.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()
                    && Photographs.isPicture(e.getDragboard().getFiles().get(0).getName())) {
                e.acceptTransferModes(TransferMode.COPY);
                e.consume();
            }
        });
        left.setOnDragDropped(e -> {
            attach(e.getDragboard().getFiles().get(0).toPath());
            e.setDropCompleted(true);
            e.consume();
        });
        left.getChildren().addAll(Labels.heading("Finish"), finishBox);
        left.setPrefWidth(Theme.px(350));
        left.setMinWidth(Theme.px(270));
        return left;
    }

    /** The report as it will print, and above it what may leave the program. */
    private VBox leaving() {
        Button report = button(
                "report",
                "Report as PDF or HTML...",
                "Question, method, rig, data, fits, results, uncertainty in symbols and numbers, choices, notebook; "
                        + "the ending chooses",
                this::report);
        report.getStyleClass().add("default-act");
        FlowPane exports = new FlowPane(
                4,
                2,
                quiet(
                        "ledger-csv",
                        "Ledger as CSV...",
                        "Every quantity at full precision",
                        () -> save(model.name() + " ledger.csv", model::ledger)),
                quiet(
                        "ledger-json",
                        "Results as JSON...",
                        "Quantities, comparisons and watches, as the command line prints them",
                        () -> save(model.name() + ".json", model::results)),
                quiet("runs-csv", "All runs as CSV...", "One file a run: clock, raw values and measurand", this::runs),
                quiet(
                        "export-session",
                        "Workbook, HDF5, data package...",
                        "The ending chooses: .xlsx with formulas, .h5 for long traces, .zip a data package with a "
                                + "descriptor, .json everything",
                        this::export),
                quiet(
                        "save-copy",
                        "Copy of the bench file...",
                        "The whole session in one file, to keep or to mail",
                        this::copy));
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(10, Labels.heading("Report"), gap, report);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(pages, Priority.ALWAYS);
        VBox left = new VBox(8, head, exports, Labels.quiet(model.keptAs()), pages);
        HBox.setHgrow(left, Priority.ALWAYS);
        left.setMinWidth(0);
        return left;
    }

    private Button quiet(String id, String text, String says, Runnable act) {
        Button b = button(id, text, says, act);
        b.getStyleClass().add("quiet-button");
        return b;
    }

    private void write() {
        if (Notices.attempt(all, () -> model.write(note.getText()))) {
            note.clear();
            attached.setText("");
        }
    }

    /** Takes a picture that goes with the note being written. */
    public void attach(Path file) {
        Notices.attempt(all, () -> {
            model.attach(Photographs.keep(desk.bench().file(), file));
            attached.setText(model.attached());
            note.requestFocus();
        });
    }

    /** A small view of a picture of a note. */
    private Node shelved(RecordModel.Shelved p) {
        Image image = new Image(new ByteArrayInputStream(model.bytes(p)), 120, 70, true, true);
        Label words = Labels.quiet(p.words());
        words.setMaxWidth(Theme.px(130));
        return new VBox(2, new ImageView(image), words);
    }

    private Button button(String id, String text, String says, Runnable act) {
        Button b = new Button(text);
        b.setId(id);
        b.setMinWidth(Region.USE_PREF_SIZE);
        b.setOnAction(e -> Notices.attempt(all, act));
        return Labels.explained(b, says);
    }

    private void save(String suggested, Supplier<byte[]> bytes) {
        keep(Files.ask(all.getScene().getWindow(), suggested), to -> Files.write(to, bytes.get()));
    }

    private void keep(@Nullable Path to, Consumer<Path> write) {
        if (to != null) {
            write.accept(to);
            Notices.tell(all, "Saved " + FileName.of(to) + ".");
        }
    }

    private void report() {
        keep(
                Files.askFor(all, model.name() + " report.pdf", "*.pdf", "*.html"),
                to -> Files.write(to, model.report(to)));
    }

    private void runs() {
        File folder = new DirectoryChooser().showDialog(all.getScene().getWindow());
        if (folder != null) {
            Notices.tell(all, model.runs(folder.toPath()));
        }
    }

    private void export() {
        keep(Files.askFor(all, model.name() + ".xlsx", model.exports().toArray(String[]::new)), model::export);
    }

    private void copy() {
        keep(Files.ask(all.getScene().getWindow(), model.name() + ".needle"), model::copy);
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public void refresh() {
        List<NotebookLine> acts = model.notebook();
        int common = 0;
        while (common < Math.min(acts.size(), notebook.getItems().size())
                && acts.get(common).equals(notebook.getItems().get(common))) {
            common++;
        }
        notebook.getItems().remove(common, notebook.getItems().size());
        notebook.getItems().addAll(acts.subList(common, acts.size()));
        // The cells have heights of their own, known only after they are laid out.
        Platform.runLater(() -> notebook.scrollTo(Math.max(0, acts.size() - 1)));
        pages.refresh(List.of(desk.bench().session(), acts.size()));
        List<RecordModel.Shelved> pictures = model.shelf();
        shelf.showOrHide(pictures);
        finish.show(model.finish());
        finishBox.getChildren().forEach(n -> ((StepCard) n).tick());
    }
}

package eagerneedle.app.record;

import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Files;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Photographs;
import eagerneedle.app.widget.StepCard;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Entries;
import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.LedgerCsv;
import eagerneedle.store.export.ReductionJson;
import eagerneedle.store.export.SessionExport;
import java.nio.file.Path;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.control.TextField;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.DirectoryChooser;

/** Record: the notebook, free notes, the finish, and everything that leaves the program. */
public final class RecordStation implements StationView {
    private static final DateTimeFormatter STAMP = DateTimeFormatter.ofPattern("d MMM HH:mm:ss")
            .withLocale(java.util.Locale.UK)
            .withZone(ZoneId.systemDefault());
    private final Desk desk;
    private final HBox all = new HBox(26);
    private final ListView<BenchFile.NotebookLine> notebook = new ListView<>();
    private final TextField note = new TextField();
    private final VBox finish = new VBox(8);
    private final Label attached = Labels.quiet("");
    private final FlowPane shelf = new FlowPane(8, 8);
    private List<Entries.Picture> pictures = List.of();

    public RecordStation(Desk desk) {
        this.desk = desk;
        all.getStyleClass().add("surface");
        notebook.setId("notebook");
        notebook.setCellFactory(v -> new ListCell<>() {
            @Override
            protected void updateItem(BenchFile.NotebookLine act, boolean empty) {
                super.updateItem(act, empty);
                setText(empty || act == null ? null : STAMP.format(act.at()) + "   " + act.text());
                setWrapText(true);
                setPrefWidth(200);
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
        picture.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        picture.setOnAction(e -> {
            java.io.File f =
                    new javafx.stage.FileChooser().showOpenDialog(all.getScene().getWindow());
            if (f != null) {
                attach(f.toPath());
            }
        });
        Labels.explained(picture, "A picture that goes with the note; or drop it on the notebook. Enter keeps both");
        attached.setId("note-pictures");
        HBox.setHgrow(note, Priority.ALWAYS);
        HBox writing = new HBox(8, note, attached, picture);
        writing.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        shelf.setId("note-shelf");
        VBox left = new VBox(
                10,
                Labels.heading("Notebook"),
                Labels.quiet("Every act is kept here as it is made, undone ones too."),
                notebook,
                shelf,
                writing);
        left.setOnDragOver(e -> {
            if (e.getDragboard().hasFiles()
                    && Photographs.isPicture(e.getDragboard().getFiles().get(0).getName())) {
                e.acceptTransferModes(javafx.scene.input.TransferMode.COPY);
                e.consume();
            }
        });
        left.setOnDragDropped(e -> {
            attach(e.getDragboard().getFiles().get(0).toPath());
            e.setDropCompleted(true);
            e.consume();
        });
        HBox.setHgrow(left, Priority.ALWAYS);
        VBox right = new VBox(
                10,
                Labels.heading("Report and export"),
                button(
                        "report",
                        "Report as PDF or HTML...",
                        "Question, method, rig, data, fits, results, uncertainty in symbols and numbers, "
                                + "choices, notebook; the ending chooses",
                        this::report),
                button(
                        "ledger-csv",
                        "Ledger as CSV...",
                        "Every quantity at full precision",
                        () -> Files.saveText(
                                all,
                                name() + " ledger.csv",
                                LedgerCsv.of(desk.bench().reduction().ledger()))),
                button(
                        "ledger-json",
                        "Results as JSON...",
                        "Quantities, comparisons and watches, as the command line prints them",
                        () -> Files.saveText(
                                all,
                                name() + ".json",
                                ReductionJson.of(
                                        desk.bench().reduction(), desk.bench().findings()))),
                button("runs-csv", "All runs as CSV...", "One file a run: clock, raw values and measurand", this::runs),
                button(
                        "export-session",
                        "Session as workbook, HDF5, data package...",
                        "The ending chooses: .xlsx with formulas, .h5 for long traces, .zip a data package with "
                                + "a descriptor, .json everything",
                        this::export),
                button(
                        "save-copy",
                        "Save a copy of the bench file...",
                        "The whole session in one file, to keep or to mail",
                        this::copy),
                Labels.quiet("Kept as " + FileName.of(desk.bench().file().path()) + ", saved with every act."),
                Labels.heading("Finish"),
                finish);
        right.setPrefWidth(330);
        right.setMinWidth(310);
        all.getChildren().addAll(left, right);
    }

    private void write() {
        if (Notices.attempt(
                all,
                () -> desk.bench()
                        .apply(new RecordCommand.AddNote(desk.bench().clock().instant(), note.getText(), pictures)))) {
            note.clear();
            pictures = List.of();
            attached.setText("");
        }
    }

    /** Takes a picture that goes with the note being written. */
    public void attach(Path file) {
        Notices.attempt(all, () -> {
            List<Entries.Picture> more = new java.util.ArrayList<>(pictures);
            more.add(Photographs.keep(desk.bench().file(), file));
            pictures = List.copyOf(more);
            attached.setText("with "
                    + String.join(
                            ", ", pictures.stream().map(Entries.Picture::name).toList()));
            note.requestFocus();
        });
    }

    /** Small views of the pictures of all notes. */
    private void shelve() {
        shelf.getChildren().clear();
        desk.bench()
                .session()
                .notes()
                .forEach(n -> n.pictures().forEach(p -> {
                    ImageView view = new ImageView(new Image(
                            new java.io.ByteArrayInputStream(desk.bench().file().attachment(p.attachment())),
                            120,
                            70,
                            true,
                            true));
                    Label words = Labels.quiet(n.text().isBlank() ? p.name() : n.text());
                    words.setMaxWidth(130);
                    shelf.getChildren().add(new VBox(2, view, words));
                }));
        shelf.setVisible(!shelf.getChildren().isEmpty());
        shelf.setManaged(shelf.isVisible());
    }

    private Button button(String id, String text, String says, Runnable act) {
        Button b = new Button(text);
        b.setId(id);
        b.setMaxWidth(Double.MAX_VALUE);
        b.setOnAction(e -> Notices.attempt(all, act));
        return Labels.explained(b, says);
    }

    private String name() {
        return desk.bench().sheet().id();
    }

    private void report() {
        Path to = Files.askFor(all, name() + " report.pdf", "*.pdf", "*.html");
        if (to != null) {
            Files.write(
                    to,
                    desk.bench()
                            .report(!FileName.of(to)
                                    .toLowerCase(java.util.Locale.ROOT)
                                    .endsWith(".html")));
            Notices.tell(all, "Saved " + FileName.of(to) + ".");
        }
    }

    private void runs() {
        java.io.File folder = new DirectoryChooser().showDialog(all.getScene().getWindow());
        if (folder != null) {
            int n = writeRuns(desk.bench().reduction(), folder.toPath());
            Notices.tell(all, "Saved " + n + " runs in " + folder.getName() + ".");
        }
    }

    /** Writes every kept run into a folder; how many is returned. */
    public static int writeRuns(Reduction r, Path folder) {
        List<Run> kept = r.runs().stream().filter(x -> x.discard() == null).toList();
        int n = 0;
        for (Run run : kept) {
            Capture capture = r.sheet().captures().get(run.capture());
            for (String channel : capture.channels()) {
                var trace = r.trace(run, channel);
                if (trace.isPresent()) {
                    Path to = folder.resolve(String.format(
                            java.util.Locale.ROOT,
                            "run-%02d-%s-%s-%s.csv",
                            run.id(),
                            run.capture(),
                            run.level(),
                            channel));
                    Files.write(
                            to,
                            LedgerCsv.of(run, channel, r.source().samples(run.id(), channel), trace.get())
                                    .getBytes(java.nio.charset.StandardCharsets.UTF_8));
                    n++;
                }
            }
        }
        return n;
    }

    private void export() {
        Path to = Files.askFor(
                all,
                name() + ".xlsx",
                SessionExport.endings().stream().map(x -> "*" + x).toArray(String[]::new));
        if (to != null) {
            SessionExport.write(desk.bench().reduction(), desk.bench().findings(), to);
            Notices.tell(all, "Saved " + FileName.of(to) + ".");
        }
    }

    private void copy() {
        Path to = Files.ask(all.getScene().getWindow(), name() + ".needle");
        if (to != null) {
            desk.bench().file().copyTo(to);
            Notices.tell(all, "Saved " + FileName.of(to) + ".");
        }
    }

    @Override
    public Node node() {
        return all;
    }

    @Override
    public void refresh() {
        List<BenchFile.NotebookLine> acts = desk.bench().file().acts();
        notebook.getItems().setAll(acts);
        // The cells have heights of their own, known only after they are laid out.
        javafx.application.Platform.runLater(() -> notebook.scrollTo(Math.max(0, acts.size() - 1)));
        shelve();
        finish.getChildren().clear();
        desk.bench().sheet().finish().forEach(step -> finish.getChildren().add(new StepCard(desk.bench(), step)));
    }
}

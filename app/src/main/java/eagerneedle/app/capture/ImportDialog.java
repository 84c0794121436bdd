package eagerneedle.app.capture;

import eagerneedle.app.eye.EyeReadings;
import eagerneedle.app.eye.RowsFile;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Cell;
import eagerneedle.app.widget.CellGrid;
import eagerneedle.app.widget.Dialogue;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.app.workbench.ColumnMapping;
import eagerneedle.app.workbench.Fault;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.FileName;
import eagerneedle.store.foreign.ForeignFile;
import java.io.File;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.stage.Stage;

/**
 * Shows an {@link ImportModel}: what was guessed of a file, lets it be put right, and brings it in as a run; of a
 * folder, every file as a run of its own with the same columns.
 */
public final class ImportDialog {
    private static final String NONE = "none";
    private static final int SHOWN = 7;
    private static final int WIDE = 6;
    private final Desk desk;
    private final ComboBox<String> captures = new ComboBox<>();
    private final ComboBox<String> levels = new ComboBox<>();
    private final ComboBox<String> time = new ComboBox<>();
    private final TextField timeUnit = new TextField();
    private final TextField ahead = new TextField("0");
    private final Map<String, ComboBox<String>> values = new LinkedHashMap<>();
    private final Map<String, TextField> units = new LinkedHashMap<>();
    private final ComboBox<String> separator = new ComboBox<>();
    private final CheckBox comma = new CheckBox("decimal comma");
    private final CheckBox schedule = new CheckBox("levels in the order of the schedule");
    private final Label says = Labels.wrapped("");
    private final Label problem = Labels.wrapped("");
    private final CellGrid preview = new CellGrid();
    private final GridPane choices = new GridPane();

    @SuppressWarnings("NullAway.Init") // of what is brought in, before anything is shown
    private ImportModel model;

    public ImportDialog(Desk desk, String capture, String level) {
        this.desk = desk;
        Sheet sheet = desk.bench().sheet();
        captures.getItems().setAll(sheet.captures().keySet());
        captures.setValue(capture);
        levels.getItems().setAll(sheet.capture(capture).levels().keySet());
        levels.setValue(level);
        captures.setOnAction(e -> {
            levels.getItems().setAll(sheet.capture(captures.getValue()).levels().keySet());
            levels.getSelectionModel().selectFirst();
            columns();
        });
    }

    /** Asks for files and opens the preview. */
    public void show(Node owner) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Import runs");
        List<File> chosen = chooser.showOpenMultipleDialog(owner.getScene().getWindow());
        if (chosen != null && !chosen.isEmpty()) {
            show(owner, chosen.stream().map(File::toPath).toList());
        }
    }

    /** Opens the preview of a file, or of all files of a folder. */
    public void show(Node owner, Path file) {
        show(owner, List.of(file));
    }

    /** Opens the preview of a table copied from a spreadsheet. */
    public void paste(Node owner) {
        Notices.attempt(owner, () -> {
            if (isByEye()) {
                Notices.tell(
                        owner,
                        EyeReadings.paste(
                                desk.bench(),
                                captures.getValue(),
                                Clipboard.getSystemClipboard().getString()));
                return;
            }
            model = ImportModel.ofClipboard(
                    desk.bench(), Clipboard.getSystemClipboard().getString());
            open(owner);
        });
    }

    /** Opens the preview of files, and of all files of a folder. */
    public void show(Node owner, List<Path> chosen) {
        Notices.attempt(owner, () -> {
            if (isByEye()) {
                rows(owner, chosen);
                return;
            }
            model = ImportModel.ofFiles(desk.bench(), chosen);
            open(owner);
        });
    }

    private boolean isByEye() {
        return desk.bench().sheet().capture(captures.getValue()).isByEye();
    }

    /** Rows of readings say themselves what they are: there is nothing to ask. What was decided is told. */
    private void rows(Node owner, List<Path> files) {
        for (Path file : files) {
            String name = FileName.of(file);
            Notices.tell(
                    owner,
                    RowsFile.bring(desk.bench(), captures.getValue(), null, name, ForeignFile.text(file))
                            .says(name));
        }
    }

    private void open(Node owner) {
        Stage stage = new Stage();
        String name = model.name();
        time.setId("import-time");
        timeUnit.setId("import-time-unit");
        timeUnit.setPrefWidth(Theme.px(80));
        ahead.setId("import-ahead");
        ahead.setPrefWidth(Theme.px(80));
        Labels.explained(
                ahead,
                "How many seconds the clock of the logger ran ahead of the session's: both then stand on one "
                        + "time line");
        problem.setId("import-problem");
        problem.getStyleClass().add("attention");
        says.setId("import-guess");
        separator.setId("import-separator");
        separator.getItems().setAll(ImportModel.separators());
        separator.setOnAction(e -> again());
        comma.setId("import-comma");
        comma.setOnAction(e -> again());
        schedule.setSelected(model.size() > 1);
        schedule.setVisible(model.size() > 1);
        schedule.setManaged(model.size() > 1);
        schedule.setId("import-schedule");
        choices.getStyleClass().add("table-cells");
        preview.getStyleClass().add("table-cells");
        HBox written = new HBox(10, Labels.quiet("separated by"), separator, comma);
        written.setAlignment(Pos.CENTER_LEFT);
        Labels.shown(written, model.isText());
        Button bring = new Button(model.size() == 1 ? "Import as a run" : "Import " + model.size() + " runs");
        bring.setId("import-go");
        bring.setDefaultButton(true);
        bring.setOnAction(e -> bring(stage));
        Button cancel = new Button("Cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> stage.close());
        shown();
        VBox box = new VBox(
                12,
                Labels.heading("Import " + name),
                says,
                written,
                preview,
                choices,
                schedule,
                problem,
                new HBox(10, bring, cancel));
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        Dialogue.open(stage, owner, "Import " + name, box, scroll, 680, 640);
    }

    /** Reads the text again as it was put right. */
    private void again() {
        if (model == null || !model.isText() || separator.getValue() == null) {
            return;
        }
        try {
            if (model.putRight(separator.getValue(), comma.isSelected())) {
                problem.setText("");
                shown();
            }
        } catch (IllegalArgumentException e) {
            problem.setText("▲ " + e.getMessage());
        }
    }

    private void shown() {
        if (model.isText()) {
            separator.setValue(model.separator());
            comma.setSelected(model.hasDecimalComma());
        }
        List<List<String>> rows = model.preview(SHOWN, WIDE);
        preview.show(IntStream.range(0, rows.size())
                .mapToObj(r -> rows.get(r).stream()
                        .map(r == 0 ? Cell::quiet : Cell::figure)
                        .toList())
                .toList());
        columns();
    }

    private void columns() {
        model.belongsTo(captures.getValue(), levels.getValue());
        ColumnMapping guess = model.guess();
        List<String> names = model.columns();
        time.getItems().setAll(names);
        time.setValue(names.get(guess.time()));
        timeUnit.setText(guess.timeUnit());
        values.clear();
        units.clear();
        choices.getChildren().clear();
        choices.addRow(0, Labels.quiet("time"), time, Labels.quiet("unit"), timeUnit);
        model.channels().forEach((name, channel) -> {
            ComboBox<String> column = new ComboBox<>();
            column.getItems().add(NONE);
            column.getItems().addAll(names);
            column.setValue(
                    guess.values().containsKey(name) ? names.get(guess.values().get(name)) : NONE);
            column.setId(values.isEmpty() ? "import-value" : "import-value-" + name);
            TextField unit = new TextField(guess.units().getOrDefault(name, channel.unit()));
            unit.setPrefWidth(Theme.px(80));
            unit.setId(values.isEmpty() ? "import-unit" : "import-unit-" + name);
            values.put(name, column);
            units.put(name, unit);
            choices.addRow(values.size(), Labels.quiet(channel.label()), column, Labels.quiet("unit"), unit);
        });
        int row = values.size() + 1;
        choices.addRow(row, Labels.quiet("belongs to"), captures, Labels.quiet("level"), levels);
        if (model.hasClock()) {
            choices.addRow(row + 1, Labels.quiet("its clock was ahead by"), ahead, Labels.quiet("s"));
        }
        says.setText(model.says());
    }

    /** What was chosen: the clock, and the column and unit of each channel. */
    private ColumnMapping chosen() {
        Map<String, Integer> from = new LinkedHashMap<>();
        Map<String, String> in = new LinkedHashMap<>();
        values.forEach((channel, column) -> {
            if (!column.getValue().equals(NONE)) {
                from.put(channel, column.getItems().indexOf(column.getValue()) - 1);
                in.put(
                        channel,
                        Objects.requireNonNull(units.get(channel)).getText().strip());
            }
        });
        return new ColumnMapping(
                time.getItems().indexOf(time.getValue()), timeUnit.getText().strip(), from, in, 0);
    }

    private void bring(Stage stage) {
        try {
            model.belongsTo(captures.getValue(), levels.getValue());
            ColumnMapping how = chosen();
            desk.choose(model.bring(how, Typing.in(ahead), schedule.isSelected()));
            Node behind = stage.getOwner().getScene().getRoot();
            stage.close();
            String remarks = model.remarks(how);
            if (!remarks.isEmpty()) {
                Notices.tell(behind, remarks);
            }
        } catch (RuntimeException e) {
            problem.setText("▲ " + Fault.said(e));
        }
    }
}

package eagerneedle.app.capture;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.ColumnMapping;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.store.FileName;
import eagerneedle.store.delimited.DelimitedText;
import eagerneedle.store.delimited.Dialect;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.foreign.ForeignFile;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.Scene;
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
import javafx.stage.Modality;
import javafx.stage.Stage;

/**
 * Shows what was guessed of a file, lets it be put right, and brings it in as a run; of a folder, every file as a run
 * of its own with the same columns.
 */
public final class ImportDialog {
    private static final String NONE = "none";
    private static final int SHOWN = 7;
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
    private final Label guess = Labels.wrapped("");
    private final Label problem = Labels.wrapped("");
    private final GridPane preview = new GridPane();
    private final GridPane choices = new GridPane();
    private List<Path> files = List.of();
    private DelimitedText text;
    private Dialect dialect;
    private Table table;

    public ImportDialog(Desk desk, String capture, String level) {
        this.desk = desk;
        Sheet sheet = desk.bench().sheet();
        captures.getItems().setAll(sheet.captures().keySet());
        captures.setValue(capture);
        levels.getItems().setAll(sheet.captures().get(capture).levels().keySet());
        levels.setValue(level);
        captures.setOnAction(e -> {
            levels.getItems()
                    .setAll(sheet.captures().get(captures.getValue()).levels().keySet());
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
            String copied = Clipboard.getSystemClipboard().getString();
            if (copied == null || copied.isBlank()) {
                throw new IllegalArgumentException(
                        "There is no table on the clipboard; copy its cells first, with their header.");
            }
            files = List.of(Path.of("table from the clipboard"));
            text = new DelimitedText("The table on the clipboard", copied);
            dialect = text.guess();
            table = text.read(dialect);
            open(owner);
        });
    }

    private void show(Node owner, List<Path> chosen) {
        Notices.attempt(owner, () -> {
            files = new ArrayList<>();
            for (Path p : chosen) {
                files.addAll(within(p));
            }
            if (files.isEmpty()) {
                throw new IllegalArgumentException(chosen.get(0).getFileName() + " holds no files.");
            }
            read();
            open(owner);
        });
    }

    private static List<Path> within(Path p) {
        if (!Files.isDirectory(p)) {
            return List.of(p);
        }
        try (Stream<Path> list = Files.list(p)) {
            return list.filter(f -> Files.isRegularFile(f) && !FileName.of(f).startsWith("."))
                    .sorted()
                    .toList();
        } catch (IOException e) {
            throw new IllegalArgumentException("The folder " + FileName.of(p) + " cannot be read.", e);
        }
    }

    private void read() {
        Path file = files.get(0);
        if (ForeignFile.isText(file)) {
            text = new DelimitedText(FileName.of(file), ForeignFile.text(file));
            dialect = text.guess();
            table = text.read(dialect);
        } else {
            text = null;
            table = ForeignFile.table(file);
        }
    }

    private void open(Node owner) {
        Stage stage = new Stage();
        stage.initOwner(owner.getScene().getWindow());
        stage.initModality(Modality.WINDOW_MODAL);
        String name = files.get(0).getFileName().toString()
                + (files.size() > 1 ? " and " + (files.size() - 1) + " more" : "");
        stage.setTitle("Import " + name);
        time.setId("import-time");
        timeUnit.setId("import-time-unit");
        timeUnit.setPrefWidth(80);
        ahead.setId("import-ahead");
        ahead.setPrefWidth(80);
        Labels.explained(
                ahead,
                "How many seconds the clock of the logger ran ahead of the session's: both then stand on one "
                        + "time line");
        problem.setId("import-problem");
        problem.getStyleClass().add("attention");
        guess.setId("import-guess");
        separator.setId("import-separator");
        separator.getItems().setAll("comma", "semicolon", "tab", "bar", "blank");
        separator.setOnAction(e -> again());
        comma.setId("import-comma");
        comma.setOnAction(e -> again());
        schedule.setSelected(files.size() > 1);
        schedule.setVisible(files.size() > 1);
        schedule.setManaged(files.size() > 1);
        schedule.setId("import-schedule");
        choices.getStyleClass().add("table-cells");
        preview.getStyleClass().add("table-cells");
        HBox written = new HBox(10, Labels.quiet("separated by"), separator, comma);
        written.setAlignment(Pos.CENTER_LEFT);
        written.setVisible(text != null);
        written.setManaged(text != null);
        Button bring = new Button(files.size() == 1 ? "Import as a run" : "Import " + files.size() + " runs");
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
                guess,
                written,
                preview,
                choices,
                schedule,
                problem,
                new HBox(10, bring, cancel));
        box.setPadding(new Insets(18));
        box.getStyleClass().add("root");
        if (Theme.isDark()) {
            box.getStyleClass().add("in-the-dark");
        }
        ScrollPane scroll = new ScrollPane(box);
        scroll.setFitToWidth(true);
        Scene scene = new Scene(scroll, 680, 640);
        scene.getStylesheets().setAll(owner.getScene().getStylesheets());
        stage.setScene(scene);
        stage.show();
    }

    /** Reads the text again as it was put right. */
    private void again() {
        if (text == null || dialect == null || separator.getValue() == null) {
            return;
        }
        char sign = switch (separator.getValue()) {
            case "comma" -> ',';
            case "semicolon" -> ';';
            case "tab" -> '\t';
            case "bar" -> '|';
            default -> ' ';
        };
        if (sign == dialect.separator() && comma.isSelected() == dialect.decimalComma()) {
            return;
        }
        try {
            dialect = text.as(sign, comma.isSelected());
            table = text.read(dialect);
            problem.setText("");
            shown();
        } catch (IllegalArgumentException e) {
            problem.setText("▲ " + e.getMessage());
        }
    }

    private void shown() {
        if (text != null) {
            separator.setValue(dialect.separatorName());
            comma.setSelected(dialect.decimalComma());
        }
        preview.getChildren().clear();
        int width = Math.min(6, table.names().size());
        for (int c = 0; c < width; c++) {
            preview.add(
                    Labels.quiet(table.names().get(c)
                            + (table.units().get(c).isEmpty()
                                    ? ""
                                    : " / " + table.units().get(c))),
                    c,
                    0);
        }
        if (text != null) {
            List<List<String>> rows = text.preview(dialect, SHOWN);
            for (int r = 0; r < rows.size(); r++) {
                for (int c = 0; c < Math.min(width, rows.get(r).size()); c++) {
                    preview.add(Labels.figure(rows.get(r).get(c)), c, r + 1);
                }
            }
        } else {
            for (int r = 0; r < Math.min(SHOWN, table.rows()); r++) {
                for (int c = 0; c < width; c++) {
                    preview.add(Labels.figure(Double.toString(table.columns()[c][r])), c, r + 1);
                }
            }
        }
        columns();
    }

    private void columns() {
        Sheet sheet = desk.bench().sheet();
        ColumnMapping b = ColumnMapping.guess(table, sheet, captures.getValue());
        List<String> names = new ArrayList<>();
        for (int c = 0; c < table.names().size(); c++) {
            names.add(
                    table.names().subList(0, c).contains(table.names().get(c))
                            ? table.names().get(c) + " (" + (c + 1) + ")"
                            : table.names().get(c));
        }
        time.getItems().setAll(names);
        time.setValue(names.get(b.time()));
        timeUnit.setText(b.timeUnit());
        values.clear();
        units.clear();
        choices.getChildren().clear();
        choices.addRow(0, Labels.quiet("time"), time, Labels.quiet("unit"), timeUnit);
        int row = 1;
        boolean assumed = false;
        for (String channel : sheet.captures().get(captures.getValue()).channels()) {
            ComboBox<String> column = new ComboBox<>();
            column.getItems().add(NONE);
            column.getItems().addAll(names);
            column.setValue(
                    b.values().containsKey(channel) ? names.get(b.values().get(channel)) : NONE);
            column.setId(row == 1 ? "import-value" : "import-value-" + channel);
            TextField unit = new TextField(b.units()
                    .getOrDefault(channel, sheet.channels().get(channel).unit()));
            unit.setPrefWidth(80);
            unit.setId(row == 1 ? "import-unit" : "import-unit-" + channel);
            assumed |= b.values().containsKey(channel)
                    && table.units().get(b.values().get(channel)).isEmpty();
            values.put(channel, column);
            units.put(channel, unit);
            choices.addRow(
                    row++, Labels.quiet(sheet.channels().get(channel).label()), column, Labels.quiet("unit"), unit);
        }
        choices.addRow(row++, Labels.quiet("belongs to"), captures, Labels.quiet("level"), levels);
        if (table.start() != null) {
            choices.addRow(row, Labels.quiet("its clock was ahead by"), ahead, Labels.quiet("s"));
        }
        guess.setText((text == null
                        ? "Read as " + table.names().size() + " columns"
                        : "Read as " + dialect.names().size() + " columns, separated by " + dialect.separatorName()
                                + ", decimal " + (dialect.decimalComma() ? "comma" : "point") + ", "
                                + (dialect.headerLines() == 0
                                        ? "no header"
                                        : dialect.headerLines() + " header "
                                                + (dialect.headerLines() == 1 ? "line" : "lines")))
                + (assumed ? "; where no unit is stated, the channel's is assumed" : "") + "; " + table.rows()
                + " rows." + (table.remarks().isEmpty() ? "" : " " + String.join(" ", table.remarks())));
    }

    private void bring(Stage stage) {
        try {
            Map<String, Integer> from = new LinkedHashMap<>();
            Map<String, String> in = new LinkedHashMap<>();
            values.forEach((channel, column) -> {
                if (!column.getValue().equals(NONE)) {
                    from.put(channel, column.getItems().indexOf(column.getValue()) - 1);
                    in.put(channel, units.get(channel).getText().strip());
                }
            });
            double early;
            try {
                early = Double.parseDouble(ahead.getText().strip());
            } catch (NumberFormatException e) {
                throw new IllegalArgumentException("'" + ahead.getText() + "' is not a number of seconds.", e);
            }
            ColumnMapping how = new ColumnMapping(
                    time.getItems().indexOf(time.getValue()), timeUnit.getText().strip(), from, in, early);
            Run last = null;
            for (int i = 0; i < files.size(); i++) {
                Table t = i == 0 ? table : ForeignFile.table(files.get(i));
                if (t.names().size() != table.names().size()) {
                    throw new IllegalArgumentException(files.get(i).getFileName() + " has "
                            + t.names().size() + " columns where the first file has "
                            + table.names().size() + "; " + i + " of " + files.size() + " files were brought in.");
                }
                String[] next = schedule.isSelected() ? desk.bench().next().orElse(null) : null;
                boolean follow = next != null && next[0].equals(captures.getValue());
                last = how.bring(
                        desk.bench(),
                        t,
                        files.get(i).getFileName().toString(),
                        captures.getValue(),
                        follow ? next[1] : levels.getValue());
            }
            desk.choose(last);
            stage.close();
        } catch (RuntimeException e) {
            problem.setText("▲ " + e.getMessage());
        }
    }
}

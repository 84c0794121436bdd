package eagerneedle.app.station;

import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.store.delimited.DelimitedText;
import eagerneedle.store.delimited.Dialect;
import java.io.File;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.stage.Modality;
import javafx.stage.Stage;

/** Shows what was guessed of a delimited file, lets it be put right, and brings it in as a run. */
public final class ImportDialog {
    private final Desk desk;
    private final ComboBox<String> captures = new ComboBox<>();
    private final ComboBox<String> levels = new ComboBox<>();
    private final ComboBox<String> time = new ComboBox<>();
    private final ComboBox<String> value = new ComboBox<>();
    private final TextField unit = new TextField();
    private final TextField timeUnit = new TextField();
    private final Label problem = Labels.wrapped("");
    private DelimitedText text;
    private Dialect dialect;
    private String fileName;

    public ImportDialog(Desk desk, String capture, String level) {
        this.desk = desk;
        Sheet sheet = desk.bench().sheet();
        captures.getItems().setAll(sheet.captures().keySet());
        captures.setOnAction(e -> levels.getItems().setAll(sheet.captures().get(captures.getValue()).levels().keySet()));
        captures.setValue(capture);
        levels.getItems().setAll(sheet.captures().get(capture).levels().keySet());
        levels.setValue(level);
    }

    /** Asks for a file and opens the preview. */
    public void show(Node owner) {
        FileChooser chooser = new FileChooser();
        chooser.setTitle("Import a run");
        File f = chooser.showOpenDialog(owner.getScene().getWindow());
        if (f != null) {
            show(owner, f.toPath());
        }
    }

    /** Opens the preview of a file. */
    public void show(Node owner, Path file) {
        Notices.attempt(owner, () -> {
            fileName = file.getFileName().toString();
            text = new DelimitedText(fileName, read(file));
            dialect = text.guess();
            open(owner);
        });
    }

    /** The text of a file, in UTF-8 or, failing that, Latin-1. */
    public static String read(Path file) {
        try {
            if (Files.size(file) > 500_000_000) {
                throw new IllegalArgumentException(file.getFileName() + " is larger than 500 MB; split it first.");
            }
            try {
                return Files.readString(file, StandardCharsets.UTF_8);
            } catch (MalformedInputException e) {
                return Files.readString(file, StandardCharsets.ISO_8859_1);
            }
        } catch (IOException e) {
            throw new IllegalArgumentException(file.getFileName() + " cannot be read; check its name and folder.");
        }
    }

    private void open(Node owner) {
        Stage stage = new Stage();
        stage.initOwner(owner.getScene().getWindow());
        stage.initModality(Modality.WINDOW_MODAL);
        stage.setTitle("Import " + fileName);
        time.getItems().setAll(dialect.names());
        value.getItems().setAll(dialect.names());
        int t = guessTime();
        int v = dialect.names().size() > 1 ? (t == 0 ? 1 : 0) : 0;
        time.setValue(dialect.names().get(t));
        value.setValue(dialect.names().get(v));
        time.setId("import-time");
        value.setId("import-value");
        unit.setId("import-unit");
        problem.setId("import-problem");
        problem.getStyleClass().add("attention");
        unit.setText(orDefault(dialect.units().get(v), channel().unit()));
        timeUnit.setText(orDefault(dialect.units().get(t), "s"));
        unit.setPrefWidth(80);
        timeUnit.setPrefWidth(80);
        Label guess = Labels.wrapped("Read as " + dialect.names().size() + " columns, separated by " + dialect.separatorName() + ", decimal "
                + (dialect.decimalComma() ? "comma" : "point") + ", " + (dialect.headerLines() == 0 ? "no header" : dialect.headerLines() + " header " + (dialect.headerLines() == 1 ? "line" : "lines"))
                + (dialect.units().get(v).isEmpty() ? "; no unit is stated, " + channel().unit() + " is assumed" : "") + ".");
        guess.setId("import-guess");
        GridPane choices = new GridPane();
        choices.getStyleClass().add("table-cells");
        choices.addRow(0, Labels.quiet("time"), time, Labels.quiet("unit"), timeUnit);
        choices.addRow(1, Labels.quiet(channel().label()), value, Labels.quiet("unit"), unit);
        choices.addRow(2, Labels.quiet("belongs to"), captures, Labels.quiet("level"), levels);
        Button bring = new Button("Import as a run");
        bring.setId("import-go");
        bring.setDefaultButton(true);
        bring.setOnAction(e -> bring(stage));
        Button cancel = new Button("Cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> stage.close());
        VBox box = new VBox(12, Labels.heading("Import " + fileName), guess, preview(), choices, problem, new HBox(10, bring, cancel));
        box.setPadding(new Insets(18));
        box.getStyleClass().add("root");
        if (eagerneedle.app.window.Theme.isDark()) {
            box.getStyleClass().add("in-the-dark");
        }
        Scene scene = new Scene(box, 620, 560);
        scene.getStylesheets().setAll(owner.getScene().getStylesheets());
        stage.setScene(scene);
        stage.show();
    }

    private Sheet.Channel channel() {
        return desk.bench().sheet().channels().get(channelName());
    }

    private String channelName() {
        return desk.bench().sheet().captures().get(captures.getValue()).channels().get(0);
    }

    private int guessTime() {
        for (int i = 0; i < dialect.names().size(); i++) {
            if (dialect.names().get(i).toLowerCase(java.util.Locale.ROOT).matches("t|time.*|.*clock.*|.*seconds.*|zeit.*")) {
                return i;
            }
        }
        return 0;
    }

    private static String orDefault(String s, String otherwise) {
        return s.isEmpty() ? otherwise : s;
    }

    private Node preview() {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("table-cells");
        for (int c = 0; c < Math.min(6, dialect.names().size()); c++) {
            grid.add(Labels.quiet(dialect.names().get(c) + (dialect.units().get(c).isEmpty() ? "" : " / " + dialect.units().get(c))), c, 0);
        }
        List<List<String>> rows = text.preview(dialect, 8);
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < Math.min(6, rows.get(r).size()); c++) {
                grid.add(Labels.figure(rows.get(r).get(c)), c, r + 1);
            }
        }
        return grid;
    }

    private void bring(Stage stage) {
        try {
            double[][] columns = text.columns(dialect);
            double[] t = columns[dialect.names().indexOf(time.getValue())];
            double[] v = columns[dialect.names().indexOf(value.getValue())];
            LabUnit seconds = LabUnit.parse(timeUnit.getText().strip());
            LabUnit.parse(unit.getText().strip()).convert(0, channel().labUnit());
            double first = seconds.convert(t[0], LabUnit.SECOND);
            double[] clock = new double[t.length];
            for (int i = 0; i < t.length; i++) {
                clock[i] = seconds.convert(t[i], LabUnit.SECOND) - first;
                if (i > 0 && !(clock[i] > clock[i - 1])) {
                    throw new IllegalArgumentException("The times in column '" + time.getValue() + "' do not rise at row " + (i + 1) + "; choose another time column.");
                }
            }
            Run run = desk.bench().importRun(captures.getValue(), levels.getValue(), channelName(), fileName, unit.getText().strip(), new RawSamples(clock, v));
            desk.choose(run);
            stage.close();
        } catch (RuntimeException e) {
            problem.setText("▲ " + e.getMessage());
        }
    }
}

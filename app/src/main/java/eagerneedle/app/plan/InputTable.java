package eagerneedle.app.plan;

import eagerneedle.app.eye.ReadingField;
import eagerneedle.app.plan.InputsModel.Column;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.sheet.Sheet;
import java.util.LinkedHashMap;
import java.util.Map;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;

/** The inputs, a line each: name and instrument, as planned, as measured. */
final class InputTable extends GridPane {
    /** A cell of the table. */
    private record Cell(String key, Column column) {}

    private final InputsModel model;
    private final Map<Cell, CellField> cells = new LinkedHashMap<>();
    private final Map<String, MenuButton> ties = new LinkedHashMap<>();
    private final Map<String, Node> rows = new LinkedHashMap<>();

    InputTable(InputsModel model) {
        this.model = model;
        getStyleClass().add("table-cells");
        setStyle("-fx-vgap: 2;");
        ColumnConstraints name = new ColumnConstraints();
        name.setHgrow(Priority.ALWAYS);
        name.setMinWidth(Theme.px(120));
        getColumnConstraints().addAll(name, new ColumnConstraints(90, 170, 180), new ColumnConstraints(140, 220, 230));
        addRow(
                0,
                Labels.quiet("input, and what it is read with"),
                Labels.quiet("planned"),
                Labels.quiet("as measured"));
        int row = 1;
        for (Map.Entry<String, Sheet.Input> e : model.inputs().entrySet()) {
            String key = e.getKey();
            CellField read = field(key, e.getValue(), Column.MEASURED);
            read.setPromptText("not read yet");
            addRow(
                    row++,
                    tied(key, e.getValue()),
                    field(key, e.getValue(), Column.PLANNED),
                    new ReadingField(
                            read,
                            e.getValue().label(),
                            e.getValue().value(),
                            () -> commit(read, key, Column.MEASURED)));
        }
        for (Map.Entry<String, Sheet.Input> e : model.onlyPlanned().entrySet()) {
            addRow(
                    row++,
                    label(e.getValue()),
                    field(e.getKey(), e.getValue(), Column.PLANNED),
                    Labels.quiet("only for planning"));
        }
        getChildren().forEach(n -> GridPane.setValignment(n, VPos.CENTER));
    }

    /** The lines onto which an instrument may be dropped, by input. */
    Map<String, Node> rows() {
        return rows;
    }

    private static Node label(Sheet.Input input) {
        Label l = new Label(input.label());
        Label by = Labels.quiet(input.by() == null ? "" : input.by());
        by.setMinWidth(0);
        l.setMinWidth(USE_PREF_SIZE);
        HBox box = new HBox(8, l, by);
        box.setPadding(new Insets(3, 0, 0, 0));
        return box;
    }

    /** An input's name with the instrument it is read with, which can be picked or dropped here. */
    private Node tied(String key, Sheet.Input input) {
        Label l = new Label(input.label());
        l.setMinWidth(USE_PREF_SIZE);
        MenuButton by = new MenuButton();
        by.setId("tie-" + key);
        by.getStyleClass().add("quiet-button");
        by.setMinWidth(0);
        by.setMaxWidth(Double.MAX_VALUE);
        by.setAccessibleText("Instrument for " + input.label());
        Labels.explained(by, "Pick the instrument this is read with, best first; or drag one here from below");
        by.getItems().add(new MenuItem("..."));
        by.setOnShowing(e -> offer(key, input, by));
        ties.put(key, by);
        HBox box = new HBox(4, l, by);
        HBox.setHgrow(by, Priority.ALWAYS);
        box.setAlignment(Pos.CENTER_LEFT);
        box.setId("input-" + key);
        rows.put(key, box);
        return box;
    }

    private void offer(String key, Sheet.Input input, MenuButton by) {
        by.getItems().clear();
        for (InputsModel.Choice c : model.choices(key)) {
            MenuItem item = new MenuItem(c.words());
            item.setOnAction(e -> Notices.attempt(this, () -> model.tie(key, c.serial())));
            by.getItems().add(item);
        }
        if (by.getItems().isEmpty()) {
            MenuItem none = new MenuItem("No hand instrument in the stockroom reads this.");
            none.setDisable(true);
            by.getItems().add(none);
        }
        MenuItem sheet = new MenuItem("as the sheet says" + (input.by() == null ? "" : ": " + input.by()));
        sheet.setDisable(!model.isTied(key));
        sheet.setOnAction(e -> Notices.attempt(this, () -> model.untie(key)));
        by.getItems().addAll(new SeparatorMenuItem(), sheet);
    }

    private CellField field(String key, Sheet.Input input, Column column) {
        boolean plan = column == Column.PLANNED;
        CellField f = new CellField();
        f.onCells(pasted -> Notices.attempt(this, () -> Notices.tell(this, model.paste(key, column, pasted))));
        f.setId((plan ? "plan-" : "read-") + key);
        f.setAccessibleText(input.label() + (plan ? ", planned" : ", as measured"));
        Labels.explained(
                f,
                "Write a value with its uncertainty and unit: 842.3(6) mm, or 20.02 limit 0.05 mm for a largest "
                        + "believable error.");
        f.setOnAction(e -> commit(f, key, column));
        f.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                commit(f, key, column);
            }
        });
        cells.put(new Cell(key, column), f);
        return f;
    }

    private void commit(CellField f, String key, Column column) {
        boolean same = f.getText().strip().equals(model.cell(key, column));
        f.taken();
        Labels.styled(f, "wrong", !same && !Notices.attempt(f, () -> model.write(key, column, f.getText())));
    }

    void refresh() {
        cells.forEach((cell, f) -> {
            f.setDisable(model.isHidden(cell.key()));
            if (!f.isFocused() || !f.getStyleClass().contains("wrong")) {
                f.says(model.cell(cell.key(), cell.column()));
                Labels.styled(f, "wrong", false);
            }
        });
        ties.forEach((key, by) -> by.setText(model.readWith(key)));
    }
}

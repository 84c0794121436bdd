package eagerneedle.app.plan;

import eagerneedle.app.eye.ReadingField;
import eagerneedle.app.plan.InputsModel.Column;
import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.BudgetPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.Lettering;
import eagerneedle.picture.Surface;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Consumer;
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
import javafx.scene.layout.Region;

/** The inputs, a line each: name and instrument, as planned, as measured. */
final class InputTable extends GridPane {
    /** A cell of the table. */
    private record Cell(String key, Column column) {}

    /** What stands beside each other in a wide table, and on two lines in a narrow one. */
    private record Line(Node name, Node planned, Node measured, Node share) {}

    private static final double WIDE = 600;

    private final InputsModel model;
    private final List<Line> lines = new ArrayList<>();
    private boolean narrow;
    private final Map<Cell, CellField> cells = new LinkedHashMap<>();
    private final Map<String, MenuButton> ties = new LinkedHashMap<>();
    private final Map<String, Node> rows = new LinkedHashMap<>();
    private final Map<String, PictureView> bars = new LinkedHashMap<>();

    InputTable(InputsModel model) {
        this.model = model;
        getStyleClass().add("table-cells");
        setStyle("-fx-vgap: 3; -fx-hgap: 10;");
        lines.add(new Line(
                Labels.quiet("input, and what it is read with"),
                Labels.quiet("planned"),
                Labels.quiet("as measured"),
                Labels.quiet("share of u²")));
        for (Map.Entry<String, Sheet.Input> e : model.inputs().entrySet()) {
            String key = e.getKey();
            CellField read = field(key, e.getValue(), Column.MEASURED);
            read.setPromptText("not read yet");
            lines.add(new Line(
                    tied(key, e.getValue()),
                    field(key, e.getValue(), Column.PLANNED),
                    new ReadingField(
                            read, e.getValue().label(), e.getValue().value(), () -> commit(read, key, Column.MEASURED)),
                    share(key, e.getValue())));
        }
        for (Map.Entry<String, Sheet.Input> e : model.onlyPlanned().entrySet()) {
            lines.add(new Line(
                    label(e.getValue()),
                    field(e.getKey(), e.getValue(), Column.PLANNED),
                    Labels.quiet("only for planning"),
                    new Region()));
        }
        arrange(false);
    }

    /** The room there is: where the four columns have none, a line becomes two. */
    void room(double width) {
        boolean now = width < Theme.px(WIDE);
        if (now != narrow) {
            arrange(now);
        }
    }

    private void arrange(boolean now) {
        narrow = now;
        getChildren().clear();
        ColumnConstraints name = new ColumnConstraints();
        name.setHgrow(Priority.ALWAYS);
        name.setMinWidth(Theme.px(130));
        getColumnConstraints()
                .setAll(
                        now
                                ? List.of(name, column(170, 232))
                                : List.of(name, column(150, 186), column(196, 232), column(56, 110)));
        int row = 0;
        for (Line l : lines) {
            if (now) {
                addRow(row++, l.name(), l.share());
                addRow(row++, l.planned(), l.measured());
            } else {
                addRow(row++, l.name(), l.planned(), l.measured(), l.share());
            }
        }
        getChildren().forEach(n -> GridPane.setValignment(n, VPos.CENTER));
    }

    private static ColumnConstraints column(double least, double wanted) {
        return new ColumnConstraints(Theme.px(least), Theme.px(wanted), Theme.px(wanted + 10));
    }

    /** Tells {@code listener} the input that is pointed at or written in; an empty text for none. */
    void onPoint(Consumer<String> listener) {
        rows.forEach((key, row) -> {
            row.setOnMouseEntered(e -> listener.accept(key));
            row.setOnMouseExited(e -> listener.accept(""));
        });
        cells.forEach(
                (cell, f) -> f.focusedProperty().addListener((o, was, is) -> listener.accept(is ? cell.key() : "")));
    }

    /** Lights the line of an input that is pointed at elsewhere; none with an empty text. */
    void light(String key) {
        rows.forEach((k, row) -> Labels.styled(row, "lit", k.equals(key)));
    }

    /** How much of what is uncertain about the result comes from an input, as a bar. */
    private PictureView share(String key, Sheet.Input input) {
        PictureView bar = new PictureView("Share of " + input.label(), null);
        bar.setMinHeight(Theme.px(22));
        bar.setMaxHeight(Theme.px(22));
        bars.put(key, bar);
        return bar;
    }

    private void show(PictureView bar, Sheet.Input input, double share) {
        String words = BudgetPicture.share(share);
        bar.setAccessibleText(input.label() + " has " + words + " of the variance of the result");
        Hints.give(bar, input.label() + ": " + words + " of the variance of the predicted result");
        bar.show((s, w, h) -> {
            double room = w - 58;
            s.rectangle(0, 5, Math.max(0, room), 12, Ink.REACH, null, 2);
            if (share > 0) {
                s.rectangle(0, 5, Math.max(1.5, room * Math.min(1, share)), 12, Ink.TRACE1, null, 2);
            }
            s.text(words, w - 2, 15, Surface.Align.RIGHT, Lettering.figures(11.5), Ink.QUIET);
        });
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
        f.onCells(pasted -> Notices.attempt(
                this,
                () -> Notices.tell(
                        this,
                        model.paste(key, column, pasted.stream().map(Typing::of).toList()))));
        f.setId((plan ? "plan-" : "read-") + key);
        f.setAccessibleText(input.label() + (plan ? ", planned" : ", as measured"));
        Labels.explained(
                f,
                Typing.as(
                        "Write a value with its uncertainty and unit: 842.3(6) mm, or 20.02 limit 0.05 mm for a largest "
                                + "believable error."));
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
        boolean same = f.getText().strip().equals(Typing.as(model.cell(key, column)));
        f.taken();
        Labels.styled(f, "wrong", !same && !Notices.attempt(f, () -> model.write(key, column, Typing.in(f))));
    }

    void refresh() {
        cells.forEach((cell, f) -> {
            f.setDisable(model.isHidden(cell.key()));
            if (!f.isFocused() || !f.getStyleClass().contains("wrong")) {
                f.says(Typing.as(model.cell(cell.key(), cell.column())));
                Labels.styled(f, "wrong", false);
            }
        });
        ties.forEach((key, by) -> {
            by.setText(model.readWith(key));
            Labels.explained(
                    by, by.getText() + ". Pick the instrument this is read with, best first; or drag one here");
        });
        Map<String, Double> shares = model.shares();
        bars.forEach((key, bar) ->
                show(bar, Objects.requireNonNull(model.inputs().get(key)), shares.getOrDefault(key, 0.0)));
    }
}

package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Copied;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.session.Run;
import java.util.List;
import java.util.function.Function;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.geometry.Pos;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/**
 * The runs of a capture as a table, one column a quantity; columns and results can be added by formula and copied to a
 * spreadsheet.
 */
final class RunTable extends VBox {
    private final Desk desk;
    private final TableModel model;
    private final TableView<Run> table = new TableView<>();
    private final ChoiceBox<String> where = new ChoiceBox<>();
    private final TextField name = new TextField();
    private final TextField formula = new TextField();
    private final TextField unit = new TextField();
    private final FlowPane ownPane = new FlowPane(10, 4);
    private final Rows<TableModel.Own> own = new Rows<>(ownPane, this::own);
    private List<TableModel.Column> shown = List.of();
    private boolean choosing;

    RunTable(Desk desk) {
        super(8);
        this.desk = desk;
        model = new TableModel(desk);
        table.setId("run-table");
        table.setFixedCellSize(27);
        table.setPlaceholder(Labels.quiet("No runs of this capture yet."));
        table.getSelectionModel().selectedItemProperty().addListener((o, was, is) -> {
            if (is != null && !choosing) {
                desk.choose(is);
            }
        });
        table.setOnKeyPressed(e -> {
            if (e.isShortcutDown() && e.getCode() == KeyCode.C) {
                copy();
                e.consume();
            }
        });
        VBox.setVgrow(table, Priority.ALWAYS);
        where.getItems().setAll("a column of the runs", "a result of the session");
        where.getSelectionModel().selectFirst();
        where.setId("own-where");
        where.setAccessibleText("Where the quantity belongs");
        field(name, "own-name", "name, such as a_half", 130);
        field(formula, "own-formula", "formula, such as a / 2 or mean(slopes.a)", 260);
        field(unit, "own-unit", "unit", 80);
        Button add = new Button("Add");
        add.setId("own-add");
        add.setMinWidth(Region.USE_PREF_SIZE);
        add.setOnAction(e -> add());
        formula.setOnAction(e -> add());
        unit.setOnAction(e -> add());
        Labels.explained(
                add,
                "Adds the quantity to this session: it is worked out for every run, stands in the ledger and the "
                        + "report, and can be undone");
        Button copy = new Button("Copy table");
        copy.setId("copy-table");
        copy.getStyleClass().add("quiet-button");
        copy.setOnAction(e -> copy());
        Labels.explained(copy, "Full figures with standard uncertainties, for a spreadsheet (Ctrl+C)");
        copy.setMinWidth(Region.USE_PREF_SIZE);
        FlowPane form = new FlowPane(8, 6, where, name, Labels.quiet("="), formula, unit, add, copy);
        form.setRowValignment(VPos.CENTER);
        getChildren().addAll(table, form, ownPane);
    }

    private static void field(TextField f, String id, String prompt, double width) {
        f.setId(id);
        f.setPromptText(prompt);
        f.setAccessibleText(prompt);
        f.setPrefWidth(width);
        f.setMinWidth(Theme.px(50));
    }

    void refresh() {
        List<Run> runs = model.runs();
        List<TableModel.Column> columns = model.columns();
        choosing = true;
        if (!columns.equals(shown) || table.getColumns().isEmpty()) {
            shown = columns;
            table.getColumns().setAll(List.of(column("run", 64, Run::name), column("level", 84, model::level)));
            columns.forEach(c -> table.getColumns()
                    .add(column(c.title(), 126, run -> c.cells().getOrDefault(run.id(), "—"))));
        }
        if (!table.getItems().equals(runs)) {
            table.getItems().setAll(runs);
        }
        desk.run()
                .flatMap(x -> runs.stream().filter(k -> k.id() == x.id()).findFirst())
                .ifPresent(x -> table.getSelectionModel().select(x));
        choosing = false;
        own.show(model.own());
    }

    private static TableColumn<Run, String> column(String title, double width, Function<Run, String> text) {
        TableColumn<Run, String> c = new TableColumn<>();
        Label head = Labels.wrapped(title);
        head.getStyleClass().add("quiet");
        head.setPrefWidth(width - 16);
        c.setGraphic(head);
        c.setPrefWidth(width);
        c.setReorderable(false);
        c.setSortable(false);
        c.setCellValueFactory(f -> new ReadOnlyStringWrapper(text.apply(f.getValue())));
        return c;
    }

    private void add() {
        boolean ofRuns = where.getSelectionModel().getSelectedIndex() == 0;
        if (Notices.attempt(this, () -> model.add(ofRuns, name.getText().strip(), formula.getText(), unit.getText()))) {
            name.clear();
            formula.clear();
            unit.clear();
        }
    }

    /** A quantity that was added, with a way to take it away. */
    private Node own(TableModel.Own o) {
        Button away = new Button("Take away");
        away.setId("own-away-" + o.name());
        away.getStyleClass().add("quiet-button");
        away.setOnAction(x -> Notices.attempt(this, () -> model.takeAway(o)));
        HBox row = new HBox(4, Labels.quiet(o.words()), away);
        row.setAlignment(Pos.CENTER_LEFT);
        return row;
    }

    private void copy() {
        Copied.table(model.tabbed());
        Notices.tell(this, "The table is on the clipboard; paste it into a spreadsheet.");
    }
}

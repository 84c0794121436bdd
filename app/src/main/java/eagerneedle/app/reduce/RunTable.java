package eagerneedle.app.reduce;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.ReduceCommand;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.SessionPlots;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
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
    private final TableView<Run> table = new TableView<>();
    private final ChoiceBox<String> where = new ChoiceBox<>();
    private final TextField name = new TextField();
    private final TextField formula = new TextField();
    private final TextField unit = new TextField();
    private final FlowPane own = new FlowPane(10, 4);
    private boolean choosing;

    RunTable(Desk desk) {
        super(8);
        this.desk = desk;
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
        form.setRowValignment(javafx.geometry.VPos.CENTER);
        getChildren().addAll(table, form, own);
    }

    private static void field(TextField f, String id, String prompt, double width) {
        f.setId(id);
        f.setPromptText(prompt);
        f.setAccessibleText(prompt);
        f.setPrefWidth(width);
        f.setMinWidth(50);
    }

    private Optional<String> capture() {
        return desk.run()
                .map(Run::capture)
                .or(() -> desk.bench().sheet().captures().keySet().stream().findFirst());
    }

    void refresh() {
        Reduction r = desk.bench().reduction();
        String capture = capture().orElse("");
        List<Run> kept = r.runs().stream()
                .filter(x -> x.discard() == null && x.capture().equals(capture))
                .toList();
        choosing = true;
        table.getColumns()
                .setAll(List.of(
                        column("run", 64, run -> run.name()),
                        column(
                                "level",
                                84,
                                run -> SessionPlots.levelLabel(r, run)
                                        + (run.leftOut() == null ? "" : " (left out)"))));
        for (Ledger.Entry e : kept.isEmpty() ? List.<Ledger.Entry>of() : r.ofRun(kept.get(0))) {
            String key = e.name().substring(e.name().indexOf("]."));
            Map<Integer, String> cells = new java.util.HashMap<>();
            kept.forEach(run -> cells.put(
                    run.id(),
                    r.ofRun(run).stream()
                            .filter(x -> x.name().endsWith(key))
                            .findFirst()
                            .map(RunTable::cell)
                            .orElse("—")));
            int left = cells.values().stream().mapToInt(RunTable::point).max().orElse(0);
            table.getColumns()
                    .add(column(
                            e.label()
                                    + e.quantity()
                                            .map(q -> q.unit().symbol().isEmpty()
                                                    ? ""
                                                    : ", " + q.unit().pretty())
                                            .orElse(""),
                            126,
                            run -> {
                                String text = cells.getOrDefault(run.id(), "—");
                                return " ".repeat(Math.max(0, left - point(text))) + text;
                            }));
        }
        table.getItems().setAll(kept);
        desk.run()
                .flatMap(x -> kept.stream().filter(k -> k.id() == x.id()).findFirst())
                .ifPresent(x -> table.getSelectionModel().select(x));
        choosing = false;
        added(capture);
    }

    private static String cell(Ledger.Entry e) {
        return e.quantity()
                .map(q -> Notation.bracketed(q.value(), q.u()))
                .orElse(e.outcome().value() == null ? "—" : e.instead());
    }

    /** Where the decimal point of a number stands, or would. */
    private static int point(String number) {
        int i = 0;
        while (i < number.length() && "-−0123456789".indexOf(number.charAt(i)) >= 0) {
            i++;
        }
        return i;
    }

    private static TableColumn<Run, String> column(
            String title, double width, java.util.function.Function<Run, String> text) {
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
        String to = ofRuns ? capture().orElse(Session.RESULTS) : Session.RESULTS;
        String n = name.getText().strip();
        Notices.attempt(this, () -> {
            Sheet sheet = desk.bench().sheet();
            if (ofRuns
                    ? sheet.captures().get(to).quantities().containsKey(n)
                    : sheet.results().containsKey(n) || sheet.inputs().containsKey(n)) {
                throw new IllegalArgumentException("There is a quantity " + n + " already; take another name.");
            }
            Sheet.Derived d = new Sheet.Derived(
                    n.replace('_', ' '),
                    null,
                    ofRuns ? null : "Added",
                    unit.getText().isBlank() ? null : unit.getText().strip(),
                    formula.getText().strip(),
                    null);
            ReduceCommand.AddQuantity act = new ReduceCommand.AddQuantity(to, n, d);
            Reduction tried = desk.bench().whatIf(act);
            Key key = ofRuns
                    ? tried.runs().stream()
                            .filter(x -> x.capture().equals(to) && x.takesPart())
                            .findFirst()
                            .map(x -> Key.of(x, n))
                            .orElse(null)
                    : new Key.Global(n);
            if (key != null && tried.outcome(key).problem() != null) {
                throw new IllegalArgumentException(tried.outcome(key).problem());
            }
            desk.bench().apply(act);
            name.clear();
            formula.clear();
            unit.clear();
        });
    }

    /** The quantities that were added, each with a way to take it away. */
    private void added(String capture) {
        own.getChildren().clear();
        for (Map.Entry<String, Map<String, Sheet.Derived>> e :
                desk.bench().session().own().entrySet()) {
            if (!e.getKey().equals(capture) && !e.getKey().equals(Session.RESULTS)) {
                continue;
            }
            e.getValue().forEach((n, d) -> {
                Label words = Labels.quiet(n + " = " + d.formula());
                Button away = new Button("Take away");
                away.setId("own-away-" + n);
                away.getStyleClass().add("quiet-button");
                away.setOnAction(x -> Notices.attempt(
                        this, () -> desk.bench().apply(new ReduceCommand.AddQuantity(e.getKey(), n, null))));
                HBox row = new HBox(4, words, away);
                row.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
                own.getChildren().add(row);
            });
        }
    }

    private void copy() {
        ClipboardContent c = new ClipboardContent();
        c.putString(tabbed(desk.bench().reduction(), capture().orElse("")));
        Clipboard.getSystemClipboard().setContent(c);
        Notices.tell(this, "The table is on the clipboard; paste it into a spreadsheet.");
    }

    /** Every quantity of every kept run of a capture, one row a run, with tabs between cells; empty without runs. */
    static String tabbed(Reduction r, String capture) {
        List<Run> kept = r.runs().stream()
                .filter(x -> x.discard() == null && x.capture().equals(capture))
                .toList();
        if (kept.isEmpty()) {
            return "";
        }
        StringBuilder b = new StringBuilder("run\tlevel\ttakes part");
        r.ofRun(kept.get(0))
                .forEach(e -> b.append('\t')
                        .append(e.label())
                        .append(e.quantity()
                                .map(q -> q.unit().symbol().isEmpty()
                                        ? ""
                                        : " / " + q.unit().symbol())
                                .orElse(""))
                        .append("\tu"));
        b.append('\n');
        for (Run run : kept) {
            b.append(run.name())
                    .append('\t')
                    .append(SessionPlots.levelLabel(r, run))
                    .append('\t')
                    .append(run.takesPart() ? "yes" : "no");
            r.ofRun(run)
                    .forEach(e -> b.append('\t')
                            .append(e.quantity()
                                    .map(q -> q.value() + "\t" + q.u())
                                    .orElse("\t")));
            b.append('\n');
        }
        return b.toString();
    }
}

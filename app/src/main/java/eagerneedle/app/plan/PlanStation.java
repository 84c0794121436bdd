package eagerneedle.app.plan;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.station.StationView;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.plan.Spread;
import eagerneedle.core.plan.TimeLine;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.quantity.Reading;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.PlanCommand;
import eagerneedle.core.session.RigCommand;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.picture.BudgetPicture;
import eagerneedle.picture.FormulaPicture;
import eagerneedle.picture.Ink;
import eagerneedle.picture.TimeLinePicture;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import javafx.geometry.Insets;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** Plan: what is to be found, by which equation, from which inputs, and how uncertain it will be. */
public final class PlanStation implements StationView {
    private static final int MOST_LINES = 6;
    private final Desk desk;
    private final ScrollPane scroll = new ScrollPane();
    private final Map<String, TextField> planned = new LinkedHashMap<>();
    private final Map<String, TextField> measured = new LinkedHashMap<>();
    private final Label predicted = Labels.styled("", "figure-big");
    private final Label coverage = Labels.quiet("");
    private final PictureView budget = new PictureView("Predicted uncertainty budget", null);
    private final Label schedule = Labels.wrapped("");
    private final Label materials = Labels.wrapped("");
    private final VBox cautions = new VBox(4);
    private final InstrumentChips hand;
    private final Map<String, MenuButton> ties = new LinkedHashMap<>();
    private final Map<String, Node> rows = new LinkedHashMap<>();

    public PlanStation(Desk desk) {
        this.desk = desk;
        this.hand = new InstrumentChips(
                desk,
                rows,
                (key, instrument) -> tie(key, desk.bench().sheet().inputs().get(key), instrument.id()));
        Sheet sheet = desk.bench().sheet();
        VBox left = new VBox(10);
        left.setPrefWidth(360);
        left.setMinWidth(210);
        left.getChildren()
                .addAll(
                        Labels.heading("To be found"),
                        Labels.wrapped(sheet.question()),
                        Labels.section("By which equations"));
        sheet.principle().forEach(p -> left.getChildren().add(equation(p)));
        left.getChildren().addAll(Labels.section("Runs to take"), schedule);
        if (!sheet.materials().isEmpty()) {
            left.getChildren().addAll(Labels.section("To have ready"), materials);
        }
        left.getChildren().addAll(Labels.section("Cautions"), cautions);
        Button stock = new Button("Stockroom");
        stock.setId("plan-stockroom");
        stock.getStyleClass().add("quiet-button");
        stock.setOnAction(e -> desk.showStockroom());
        Labels.explained(stock, "All instruments with their specifications and calibrations");
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox head = new HBox(8, Labels.heading("Inputs"), gap, stock);
        head.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        VBox right = new VBox(7);
        HBox.setHgrow(right, Priority.ALWAYS);
        right.getChildren()
                .addAll(
                        Labels.heading("Predicted before anything is switched on"),
                        predictedLine(),
                        new TargetPanel(desk),
                        head,
                        hand,
                        inputs(sheet),
                        Labels.heading("Where the predicted uncertainty comes from"),
                        budget);
        predicted.setId("predicted");
        HBox columns = new HBox(28, left, right);
        VBox all = new VBox(14, columns);
        if (!sheet.timeline().isEmpty()) {
            TimeLine line = TimeLine.of(
                    sheet.timeline().stream().map(Sheet.Task::toTask).toList());
            PictureView picture = new PictureView("Time line", (s, w, h) -> TimeLinePicture.paint(s, line, w));
            picture.setPrefHeight(TimeLinePicture.height(line));
            picture.setMinHeight(TimeLinePicture.height(line));
            all.getChildren()
                    .addAll(
                            Labels.heading("Time line: " + Math.round(line.total()) + " min with one pair of hands"),
                            Labels.quiet("filled: somebody has to be at it; hollow: runs by itself; red: a delay of "
                                    + "it delays the end"),
                            picture);
        }
        all.getStyleClass().add("surface");
        scroll.setContent(all);
        scroll.setFitToWidth(true);
    }

    private Node predictedLine() {
        predicted.setMinWidth(Region.USE_PREF_SIZE);
        coverage.setMinWidth(0);
        return new HBox(14, predicted, coverage);
    }

    private static Node equation(Sheet.Principle p) {
        PictureView view = new PictureView(p.formula(), (s, w, h) -> {
            FormulaPicture.Size size = FormulaPicture.measure(s, p.formula(), 16);
            FormulaPicture.paint(s, p.formula(), 14, (h + size.ascent() - size.descent()) / 2, 16, Ink.INK);
        });
        view.setMinHeight(40);
        view.setPrefHeight(44);
        Label text = Labels.quiet(p.text() == null ? "" : p.text());
        text.setWrapText(true);
        return new VBox(0, text, view);
    }

    private Node inputs(Sheet sheet) {
        GridPane grid = new GridPane();
        grid.getStyleClass().add("table-cells");
        grid.setStyle("-fx-vgap: 2;");
        ColumnConstraints name = new ColumnConstraints();
        name.setHgrow(Priority.ALWAYS);
        name.setMinWidth(120);
        grid.getColumnConstraints()
                .addAll(name, new ColumnConstraints(90, 150, 168), new ColumnConstraints(90, 150, 168));
        grid.addRow(
                0,
                Labels.quiet("input, and what it is read with"),
                Labels.quiet("planned"),
                Labels.quiet("as measured"));
        int row = 1;
        for (Map.Entry<String, Sheet.Input> e : sheet.inputs().entrySet()) {
            TextField plan = field(
                    "plan-" + e.getKey(),
                    e.getKey(),
                    e.getValue(),
                    (k, v) -> new PlanCommand.SetPlanned(k, e.getValue().label(), v));
            TextField read = field(
                    "read-" + e.getKey(),
                    e.getKey(),
                    e.getValue(),
                    (k, v) -> new PlanCommand.SetMeasured(k, e.getValue().label(), v));
            planned.put(e.getKey(), plan);
            measured.put(e.getKey(), read);
            read.setPromptText("not read yet");
            grid.addRow(row++, tied(e.getKey(), e.getValue()), plan, read);
        }
        for (Map.Entry<String, Sheet.Input> e : sheet.planned().entrySet()) {
            TextField plan = field(
                    "plan-" + e.getKey(),
                    e.getKey(),
                    e.getValue(),
                    (k, v) -> new PlanCommand.SetPlanned(k, e.getValue().label(), v));
            planned.put(e.getKey(), plan);
            grid.addRow(row++, label(e.getValue()), plan, Labels.quiet("only for planning"));
        }
        grid.getChildren().forEach(n -> GridPane.setValignment(n, VPos.CENTER));
        return grid;
    }

    private static Node label(Sheet.Input input) {
        Label l = new Label(input.label());
        Label by = Labels.quiet(input.by() == null ? "" : input.by());
        HBox box = new HBox(8, l, by);
        by.setMinWidth(0);
        l.setMinWidth(Region.USE_PREF_SIZE);
        box.setPadding(new Insets(3, 0, 0, 0));
        return box;
    }

    /** An input's name with the instrument it is read with, which can be picked or dropped here. */
    private Node tied(String key, Sheet.Input input) {
        Label l = new Label(input.label());
        l.setMinWidth(Region.USE_PREF_SIZE);
        MenuButton by = new MenuButton();
        by.setId("tie-" + key);
        by.getStyleClass().add("quiet-button");
        by.setMinWidth(0);
        by.setMaxWidth(Double.MAX_VALUE);
        by.setAccessibleText("Instrument for " + input.label());
        Labels.explained(by, "Pick the instrument this is read with, best first; or drag one here from below");
        by.getItems().add(new MenuItem("..."));
        by.setOnShowing(e -> choices(key, input, by));
        ties.put(key, by);
        HBox box = new HBox(4, l, by);
        HBox.setHgrow(by, Priority.ALWAYS);
        box.setAlignment(javafx.geometry.Pos.CENTER_LEFT);
        box.setId("input-" + key);
        rows.put(key, box);
        return box;
    }

    private void choices(String key, Sheet.Input input, MenuButton by) {
        Sheet.Comparison main = desk.bench().sheet().mainComparison();
        by.getItems().clear();
        for (Improvements.Choice c : desk.bench()
                .improvements(desk.stockroom().all(), main == null ? key : main.result())
                .instrumentsFor(key)) {
            String objection = c.instrument()
                    .objection(desk.bench().clock().instant())
                    .map(o -> "  ▲ " + o)
                    .orElse("");
            MenuItem item = new MenuItem(c.instrument().name() + " "
                    + c.instrument().id() + ":  u = "
                    + Notation.figures(c.reading().u(), 2) + " "
                    + (c.reading().unit().isAffine() ? "K" : c.reading().unit().pretty())
                    + (c.result() == null || main == null
                            ? ""
                            : ",  result u = " + Notation.figures(c.result().u(), 2) + " "
                                    + c.result().unit().pretty())
                    + objection);
            item.setOnAction(e -> tie(key, input, c.instrument().id()));
            by.getItems().add(item);
        }
        if (by.getItems().isEmpty()) {
            MenuItem none = new MenuItem("No hand instrument in the stockroom reads this.");
            none.setDisable(true);
            by.getItems().add(none);
        }
        MenuItem sheet = new MenuItem("as the sheet says" + (input.by() == null ? "" : ": " + input.by()));
        sheet.setDisable(!desk.bench().session().tied().containsKey(key));
        sheet.setOnAction(e ->
                Notices.attempt(scroll, () -> desk.bench().apply(new PlanCommand.TieInput(key, input.label(), null))));
        by.getItems().addAll(new SeparatorMenuItem(), sheet);
    }

    private void tie(String key, Sheet.Input input, String serial) {
        Notices.attempt(scroll, () -> {
            Instrument i = desk.stockroom()
                    .find(serial)
                    .orElseThrow(() ->
                            new IllegalArgumentException("There is no instrument " + serial + " in the stockroom."));
            Quantity nominal = desk.bench()
                    .plan()
                    .quantity(key)
                    .orElseThrow(() -> new IllegalArgumentException(input.label() + " has no planned value yet."));
            if (!i.reads(nominal)) {
                throw new IllegalArgumentException(i.name() + " " + i.id() + " does not read "
                        + nominal.unit().pretty() + " at " + Notation.plain(nominal.value(), 4) + ": its range is "
                        + String.join(" to ", i.range()) + ".");
            }
            desk.bench().apply(new PlanCommand.TieInput(key, input.label(), i));
        });
    }

    private TextField field(String id, String key, Sheet.Input input, BiFunction<String, String, Command> command) {
        CellField f = new CellField();
        f.onCells(cells -> pasted(key, cells, id.startsWith("plan")));
        f.setId(id);
        f.setAccessibleText(input.label() + (id.startsWith("plan") ? ", planned" : ", as measured"));
        Labels.explained(
                f,
                "Write a value with its uncertainty and unit: 842.3(6) mm, or 20.02 limit 0.05 mm for a largest "
                        + "believable error.");
        Runnable commit = () -> {
            String text = f.getText().strip();
            String before = shown(id, key, input);
            f.getStyleClass().remove("wrong");
            if (!text.equals(before)) {
                boolean good =
                        Notices.attempt(f, () -> desk.bench().apply(command.apply(key, text.isEmpty() ? null : text)));
                if (!good) {
                    f.getStyleClass().add("wrong");
                }
            }
        };
        f.setOnAction(e -> commit.run());
        f.focusedProperty().addListener((o, was, is) -> {
            if (!is) {
                commit.run();
            }
        });
        return f;
    }

    /**
     * Takes pasted cells into the inputs from one on. A bare number has the unit and the uncertainty that were planned
     * for its input.
     */
    private void pasted(String from, List<String> cells, boolean plan) {
        List<String> keys = desk.bench().sheet().inputs().keySet().stream()
                .dropWhile(k -> !k.equals(from))
                .toList();
        Notices.attempt(scroll, () -> {
            if (keys.size() < cells.size()) {
                throw new IllegalArgumentException(cells.size() + " cells were pasted, but there are only "
                        + keys.size() + " inputs from here on; nothing was taken.");
            }
            List<Command> acts = new java.util.ArrayList<>();
            for (int i = 0; i < cells.size(); i++) {
                String key = keys.get(i);
                Sheet.Input input = desk.bench().sheet().inputs().get(key);
                if (!cells.get(i).isEmpty()) {
                    Reading r = Reading.parse(cells.get(i));
                    Reading planned =
                            Reading.parse(desk.bench().session().planned().getOrDefault(key, input.value()));
                    String text = r.u() == 0 && r.unit().isDimensionless()
                            ? planned.again(r.value()).text()
                            : cells.get(i);
                    acts.add(
                            plan
                                    ? new PlanCommand.SetPlanned(key, input.label(), text)
                                    : new PlanCommand.SetMeasured(key, input.label(), text));
                }
            }
            desk.bench()
                    .apply(new Command.Together(
                            "Pasted " + acts.size() + " readings from "
                                    + desk.bench().sheet().inputs().get(from).label() + " on.",
                            acts));
            Notices.tell(
                    scroll,
                    acts.size()
                            + " readings were pasted; bare numbers have the unit and uncertainty that were planned.");
        });
    }

    private String shown(String id, String key, Sheet.Input input) {
        return desk.bench().reduction().isHidden(key)
                ? "hidden"
                : id.startsWith("plan-")
                        ? desk.bench().session().planned().getOrDefault(key, input.value())
                        : desk.bench().session().measured().getOrDefault(key, "");
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public void refresh() {
        Sheet sheet = desk.bench().sheet();
        planned.forEach((k, f) -> set(
                f,
                shown(
                        "plan-",
                        k,
                        sheet.inputs().containsKey(k)
                                ? sheet.inputs().get(k)
                                : sheet.planned().get(k))));
        measured.forEach((k, f) -> set(f, shown("read-", k, sheet.inputs().get(k))));
        schedule.setText(runs(sheet));
        StringBuilder ready = new StringBuilder();
        for (Sheet.Material m : sheet.materials()) {
            String amount;
            try {
                Quantity q = desk.bench().plan().evaluate(m.amount(), m.label(), m.label());
                Quantity shown = m.unit() == null ? q : q.to(LabUnit.parse(m.unit()));
                amount = shown.isExact()
                        ? Notation.plain(shown.value(), 4) + " " + shown.unit().pretty()
                        : shown.toString();
            } catch (IllegalArgumentException e) {
                amount = e.getMessage();
            }
            ready.append(ready.isEmpty() ? "" : "\n")
                    .append(m.label())
                    .append(": ")
                    .append(amount);
        }
        materials.setText(ready.toString());
        cautions.getChildren().clear();
        for (int i = 0; i < sheet.cautions().size(); i++) {
            String caution = sheet.cautions().get(i);
            String id = "caution-" + (i + 1);
            CheckBox read = new CheckBox("▲ " + caution);
            read.setId(id);
            read.setWrapText(true);
            read.setMinHeight(Region.USE_PREF_SIZE);
            read.setSelected(desk.bench().session().signOffs().containsKey(id));
            read.getStyleClass().add(read.isSelected() ? "quiet" : "attention");
            Labels.explained(read, "Tick it when it was read and understood; the notebook keeps when");
            read.setOnAction(e -> desk.bench()
                    .apply(new RigCommand.SignOff(
                            id,
                            "caution read: " + caution,
                            read.isSelected() ? desk.bench().clock().instant() : null)));
            cautions.getChildren().add(read);
        }
        ties.forEach((k, by) -> {
            Instrument i = desk.bench().session().tied().get(k);
            String sheets = sheet.inputs().get(k).by();
            by.setText(i == null ? sheets == null ? "by ..." : sheets : i.name() + " " + i.id());
        });
        hand.refresh();
        Sheet.Comparison main = sheet.mainComparison();
        Optional<Quantity> q =
                main == null ? Optional.empty() : desk.bench().plan().quantity(main.result());
        if (q.isEmpty()) {
            predicted.setText("—");
            coverage.setText(
                    main == null
                            ? "The sheet compares nothing."
                            : desk.bench().plan().outcome(main.result()).problem());
            budget.show(null);
            return;
        }
        Budget lines = Budget.of(q.get());
        String label = sheet.results().get(main.result()) == null
                ? main.result()
                : sheet.results().get(main.result()).label();
        predicted.setText(Notation.bracket(q.get()));
        coverage.setText(label + ", ± " + Notation.figures(Coverage.DEFAULT.expanded(q.get()), 2) + " "
                + q.get().unit().pretty() + " at 95 %\n"
                + (lines.lines().isEmpty()
                        ? "Nothing is uncertain."
                        : "Largest contributor: " + lines.lines().get(0).label()));
        budget.setPrefHeight(BudgetPicture.height(lines, MOST_LINES));
        budget.setMinHeight(BudgetPicture.height(lines, MOST_LINES));
        budget.show((s, w, h) -> BudgetPicture.paint(s, lines, 0, 0, w, MOST_LINES));
    }

    /** Runs to take, and levels spread evenly in what will be plotted. */
    private String runs(Sheet sheet) {
        StringBuilder b = new StringBuilder();
        sheet.captures().forEach((name, c) -> {
            int n = desk.bench().session().repeats(sheet, name);
            b.append(b.length() > 0 ? "\n" : "")
                    .append(c.label())
                    .append(": ")
                    .append(c.levels().size() > 1 ? c.levels().size() + " levels, " : "")
                    .append(n)
                    .append(n == 1 ? " run" : " runs")
                    .append(c.levels().size() > 1 ? " each" : "");
            if (c.spread() != null) {
                b.append("\n").append(spread(c.spread()));
            }
        });
        return b.toString();
    }

    private String spread(Capture.SpreadPlan p) {
        Reading from = Reading.parse(p.from());
        Reading to = Reading.parse(p.to());
        try {
            double[] levels = Spread.levels(
                    x -> desk.bench()
                            .plan()
                            .evaluate(Formula.parse(p.plotted()), Map.of(p.set(), Quantity.exact(x, from.unit())))
                            .value(),
                    from.value(),
                    to.unit().convert(to.value(), from.unit()),
                    p.count());
            List<String> words = java.util.Arrays.stream(levels)
                    .mapToObj(v -> Notation.plain(v, 4))
                    .toList();
            return "evenly spread in " + p.plotted() + ": " + p.set() + " = " + String.join(", ", words) + " "
                    + from.unit().pretty();
        } catch (IllegalArgumentException e) {
            return e.getMessage();
        }
    }

    private static void set(TextField f, String text) {
        f.setDisable(text.equals("hidden"));
        if (!f.isFocused() || !f.getStyleClass().contains("wrong")) {
            if (!f.getText().equals(text)) {
                f.setText(text);
            }
            f.getStyleClass().remove("wrong");
        }
    }
}

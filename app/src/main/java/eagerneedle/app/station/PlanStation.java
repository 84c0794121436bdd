package eagerneedle.app.station;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.window.Labels;
import eagerneedle.app.window.Notices;
import eagerneedle.core.quantity.Budget;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.Command;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.report.picture.BudgetPicture;
import eagerneedle.report.picture.FormulaPicture;
import eagerneedle.report.picture.Ink;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import javafx.geometry.Insets;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
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

    public PlanStation(Desk desk) {
        this.desk = desk;
        Sheet sheet = desk.bench().sheet();
        VBox left = new VBox(10);
        left.setPrefWidth(360);
        left.setMinWidth(210);
        left.getChildren().addAll(Labels.heading("To be found"), Labels.wrapped(sheet.question()), Labels.section("By which equations"));
        sheet.principle().forEach(p -> left.getChildren().add(equation(p)));
        left.getChildren().addAll(Labels.section("Runs to take"), schedule, Labels.section("Cautions"));
        for (String caution : sheet.cautions()) {
            Label l = Labels.wrapped("▲ " + caution);
            l.getStyleClass().add("attention");
            left.getChildren().add(l);
        }
        VBox right = new VBox(7);
        HBox.setHgrow(right, Priority.ALWAYS);
        right.getChildren().addAll(Labels.heading("Inputs"), inputs(sheet), Labels.heading("Predicted before anything is switched on"),
                predictedLine(), budget);
        predicted.setId("predicted");
        HBox all = new HBox(28, left, right);
        all.getStyleClass().add("surface");
        scroll.setContent(all);
        scroll.setFitToWidth(true);
        refresh();
    }

    private Node predictedLine() {
        predicted.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
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
        grid.getColumnConstraints().addAll(name, new ColumnConstraints(100, 168, 168), new ColumnConstraints(100, 168, 168));
        grid.addRow(0, Labels.quiet("input, and how it is read"), Labels.quiet("planned"), Labels.quiet("as measured"));
        int row = 1;
        for (Map.Entry<String, Sheet.Input> e : sheet.inputs().entrySet()) {
            TextField plan = field("plan-" + e.getKey(), e.getKey(), e.getValue(), (k, v) -> new Command.SetPlanned(k, e.getValue().label(), v));
            TextField read = field("read-" + e.getKey(), e.getKey(), e.getValue(), (k, v) -> new Command.SetMeasured(k, e.getValue().label(), v));
            planned.put(e.getKey(), plan);
            measured.put(e.getKey(), read);
            read.setPromptText("not read yet");
            grid.addRow(row++, label(e.getValue()), plan, read);
        }
        for (Map.Entry<String, Sheet.Input> e : sheet.planned().entrySet()) {
            TextField plan = field("plan-" + e.getKey(), e.getKey(), e.getValue(), (k, v) -> new Command.SetPlanned(k, e.getValue().label(), v));
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
        l.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        box.setPadding(new Insets(3, 0, 0, 0));
        return box;
    }

    private TextField field(String id, String key, Sheet.Input input, BiFunction<String, String, Command> command) {
        TextField f = new TextField();
        f.setId(id);
        f.setAccessibleText(input.label() + (id.startsWith("plan") ? ", planned" : ", as measured"));
        Labels.explained(f, "Write a value with its uncertainty and unit: 842.3(6) mm, or 20.02 limit 0.05 mm for a largest believable error.");
        Runnable commit = () -> {
            String text = f.getText().strip();
            String before = shown(id, key, input);
            f.getStyleClass().remove("wrong");
            if (!text.equals(before)) {
                boolean good = Notices.attempt(f, () -> desk.bench().apply(command.apply(key, text.isEmpty() ? null : text)));
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

    private String shown(String id, String key, Sheet.Input input) {
        return id.startsWith("plan-") ? desk.bench().session().planned().getOrDefault(key, input.value())
                : desk.bench().session().measured().getOrDefault(key, "");
    }

    @Override
    public Node node() {
        return scroll;
    }

    @Override
    public void refresh() {
        Sheet sheet = desk.bench().sheet();
        planned.forEach((k, f) -> set(f, shown("plan-", k, sheet.inputs().containsKey(k) ? sheet.inputs().get(k) : sheet.planned().get(k))));
        measured.forEach((k, f) -> set(f, shown("read-", k, sheet.inputs().get(k))));
        StringBuilder b = new StringBuilder();
        sheet.captures().forEach((name, c) -> b.append(b.length() > 0 ? "\n" : "").append(c.label()).append(": ")
                .append(c.levels().size() > 1 ? c.levels().size() + " levels, " : "").append(c.repeats()).append(c.levels().size() > 1 ? " runs each" : " runs"));
        schedule.setText(b.toString());
        Sheet.Comparison main = sheet.mainComparison();
        Optional<Quantity> q = main == null ? Optional.empty() : desk.bench().plan().quantity(main.result());
        if (q.isEmpty()) {
            predicted.setText("—");
            coverage.setText(main == null ? "The sheet compares nothing." : desk.bench().plan().outcome(main.result()).problem());
            budget.show(null);
            return;
        }
        Budget lines = Budget.of(q.get());
        String label = sheet.results().get(main.result()) == null ? main.result() : sheet.results().get(main.result()).label();
        predicted.setText(Notation.bracket(q.get()));
        coverage.setText(label + ", ± " + Notation.figures(Coverage.DEFAULT.expanded(q.get()), 2) + " " + q.get().unit().pretty() + " at 95 %\n"
                + (lines.lines().isEmpty() ? "Nothing is uncertain." : "Largest contributor: " + lines.lines().get(0).label()));
        budget.setPrefHeight(BudgetPicture.height(lines, MOST_LINES));
        budget.setMinHeight(BudgetPicture.height(lines, MOST_LINES));
        budget.show((s, w, h) -> BudgetPicture.paint(s, lines, 0, 0, w, MOST_LINES));
    }

    private static void set(TextField f, String text) {
        if (!f.isFocused() || !f.getStyleClass().contains("wrong")) {
            if (!f.getText().equals(text)) {
                f.setText(text);
            }
            f.getStyleClass().remove("wrong");
        }
    }
}

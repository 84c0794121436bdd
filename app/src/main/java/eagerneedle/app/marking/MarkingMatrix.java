package eagerneedle.app.marking;

import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.marking.Verdict;
import java.util.HashMap;
import java.util.Map;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** Students down, quantities across, a verdict in every cell; the arrow keys walk it. */
final class MarkingMatrix extends ScrollPane {
    private static final double NAME = 130;
    private static final double CELL = 92;

    private final MarkingModel model;
    private final Consumer<MarkingModel.Cell> open;
    private final BiConsumer<Integer, String> points;
    private final GridPane grid = new GridPane();
    private final Map<MarkingModel.Cell, Button> cells = new HashMap<>();
    private final Map<Integer, Label> names = new HashMap<>();
    private final Map<Integer, Label> totals = new HashMap<>();
    private final Map<Integer, TextField> worth = new HashMap<>();

    /**
     * @param open a cell that was chosen
     * @param points a quantity is worth other points
     */
    MarkingMatrix(MarkingModel model, Consumer<MarkingModel.Cell> open, BiConsumer<Integer, String> points) {
        this.model = model;
        this.open = open;
        this.points = points;
        setId("marking-matrix");
        setContent(grid);
        setFitToWidth(true);
        getStyleClass().add("bare");
        grid.setHgap(4);
        grid.setVgap(3);
    }

    /** Lays the class out. */
    void show() {
        grid.getChildren().clear();
        grid.getColumnConstraints().clear();
        cells.clear();
        names.clear();
        totals.clear();
        worth.clear();
        int columns = model.asked().size();
        grid.getColumnConstraints().add(column(NAME, false));
        for (int q = 0; q < columns; q++) {
            grid.getColumnConstraints().add(column(CELL, true));
            head(q);
        }
        grid.getColumnConstraints().add(column(56, false));
        Label together = Labels.quiet("together");
        grid.add(together, columns + 1, 0);
        grid.add(Labels.quiet("points each"), 0, 1);
        for (int s = 0; s < model.students(); s++) {
            Label name = new Label();
            names.put(s, name);
            grid.add(name, 0, s + 2);
            for (int q = 0; q < columns; q++) {
                cell(new MarkingModel.Cell(s, q));
            }
            Label total = Labels.figure("");
            total.setId("together-" + s);
            total.setMaxWidth(Double.MAX_VALUE);
            total.setAlignment(Pos.CENTER_RIGHT);
            totals.put(s, total);
            grid.add(total, columns + 1, s + 2);
        }
        refresh();
    }

    private static ColumnConstraints column(double width, boolean grows) {
        ColumnConstraints c = new ColumnConstraints(Theme.px(width));
        c.setHgrow(grows ? Priority.ALWAYS : Priority.NEVER);
        c.setFillWidth(true);
        if (grows) {
            c.setMinWidth(Theme.px(width * 0.7));
            c.setMaxWidth(Double.MAX_VALUE);
        }
        return c;
    }

    private void head(int q) {
        Label l = Labels.wrapped(model.asked().get(q).label());
        l.getStyleClass().add("quiet");
        l.setMinHeight(Region.USE_PREF_SIZE);
        grid.add(l, q + 1, 0);
        TextField f = new TextField();
        f.setId("points-" + q);
        f.setAccessibleText("Points for " + model.asked().get(q).label());
        f.setPrefWidth(Theme.px(56));
        f.setMaxWidth(Theme.px(56));
        f.setOnAction(e -> decide(q, f));
        f.focusedProperty().addListener((o, was, is) -> {
            if (!is && !f.getText().equals(model.points(q))) {
                decide(q, f);
            }
        });
        worth.put(q, f);
        grid.add(f, q + 1, 1);
    }

    /** Its words are said now, not half-written any more. */
    private void decide(int q, TextField f) {
        f.setUserData(f.getText());
        points.accept(q, Typing.in(f));
    }

    /** Shows what a quantity is worth, unless somebody is writing something else there. */
    private void worth(int q, TextField f) {
        if (!f.isFocused() || f.getText().equals(f.getUserData())) {
            f.setText(model.points(q));
            f.setUserData(f.getText());
        }
    }

    private void cell(MarkingModel.Cell c) {
        Button b = new Button();
        b.setId("mark-" + c.student() + "-" + c.quantity());
        b.getStyleClass().setAll("button", "mark-cell");
        b.setMaxWidth(Double.MAX_VALUE);
        b.setMinWidth(0);
        b.setAlignment(Pos.CENTER_LEFT);
        b.setOnAction(e -> open.accept(c));
        cells.put(c, b);
        grid.add(b, c.quantity() + 1, c.student() + 2);
    }

    /** Brings verdicts, names and points up to now. */
    void refresh() {
        names.forEach((s, l) -> l.setText(model.name(s) + (model.late(s).isEmpty() ? "" : " (late)")));
        worth.forEach(this::worth);
        totals.forEach((s, l) -> l.setText(model.total(s)));
        cells.forEach((c, b) -> {
            Verdict v = model.verdict(c);
            b.setText(model.words(c) + (model.isOverruled(c) ? " *" : ""));
            b.setAccessibleText(model.name(c.student()) + ", "
                    + model.asked().get(c.quantity()).label() + ": " + v.words());
            Hints.give(b, model.words(c));
            Labels.styled(b, "mark-good", v.isRightNumber());
            Labels.styled(b, "mark-near", v == Verdict.UNIT || v == Verdict.POWER);
            Labels.styled(b, "mark-wrong", v == Verdict.EXPLAINED || v == Verdict.UNEXPLAINED);
            Labels.styled(b, "mark-none", v == Verdict.MISSING);
            Labels.styled(b, "mark-settled", model.isSettled(c));
        });
    }

    /** Shows which one is open. */
    void light(MarkingModel.Cell c) {
        cells.forEach((k, b) -> Labels.styled(b, "mark-open", k.equals(c)));
    }
}

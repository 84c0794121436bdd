package eagerneedle.app.reduce;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.reduce.ReduceModel.Line;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** The runs of the session with their headline values; a click or the arrow keys take one in hand. */
final class RunList extends ScrollPane {
    /** One run in the list. */
    private static final class Row extends VBox {
        private final Label name = Labels.styled("", "section");
        private final Label value = Labels.figure("");
        private final Label about = Labels.quiet("");

        /** @param sketch its course beside what is said of it; empty for none */
        Row(Optional<RunSketch> sketch) {
            name.setMinWidth(0);
            value.setMinWidth(USE_PREF_SIZE);
            Region gap = new Region();
            HBox.setHgrow(gap, Priority.ALWAYS);
            about.setMinWidth(0);
            about.setMaxWidth(Double.MAX_VALUE);
            HBox.setHgrow(about, Priority.ALWAYS);
            HBox below = new HBox(4, about);
            sketch.ifPresent(course -> {
                PictureView view = new PictureView("Course of the run", course::paint);
                view.setMinSize(Theme.px(54), Theme.px(18));
                view.setPrefSize(Theme.px(54), Theme.px(18));
                below.getChildren().add(view);
            });
            getChildren().addAll(new HBox(4, name, gap, value), below);
            getStyleClass().add("run-row");
            setFocusTraversable(true);
        }

        void show(Line.Taken run) {
            name.setText(run.name());
            value.setText(run.value());
            about.setText(run.about());
            setAccessibleText(run.name() + ", " + run.value());
            Labels.styled(this, "left-out", run.leftOut());
            Labels.styled(this, "chosen", run.chosen());
        }
    }

    private final ReduceModel model;
    private final VBox box = new VBox(1);
    private Runnable correct = () -> {};
    private final Label none = Labels.quiet("No runs yet.");
    private final Rows<Line> rows = Rows.changing(box, RunList::key, this::row, RunList::show);

    RunList(ReduceModel model) {
        this.model = model;
        setContent(new VBox(box, none));
        setFitToWidth(true);
        getStyleClass().add("bare");
    }

    /** What F2 does to the run it is pressed on. */
    void onCorrect(Runnable act) {
        correct = act;
    }

    private static Object key(Line line) {
        return line instanceof Line.Taken t ? t.id() : line;
    }

    private Node row(Line line) {
        if (line instanceof Line.Taken t) {
            Row row = new Row(model.sketch(t.id()));
            row.setId("run-" + t.id());
            row.setOnMouseClicked(e -> model.choose(t.id()));
            row.setOnKeyPressed(e -> key(e, t.id()));
            return row;
        }
        return Labels.styled(((Line.Group) line).label(), "group");
    }

    private static void show(Node node, Line line) {
        if (line instanceof Line.Taken t) {
            ((Row) node).show(t);
        }
    }

    private void key(KeyEvent e, int id) {
        if (e.getCode() == KeyCode.ENTER) {
            model.choose(id);
        } else if (e.getCode() == KeyCode.F2) {
            model.choose(id);
            correct.run();
        } else if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
            model.step(id, e.getCode() == KeyCode.DOWN ? 1 : -1)
                    .map(next -> box.lookup("#run-" + next))
                    .ifPresent(Node::requestFocus);
        } else {
            return;
        }
        e.consume();
    }

    void refresh() {
        List<Line> lines = model.lines();
        rows.show(lines);
        Labels.shown(none, lines.isEmpty());
    }
}

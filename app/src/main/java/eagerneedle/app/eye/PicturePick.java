package eagerneedle.app.eye;

import eagerneedle.app.widget.Dialogue;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Typing;
import java.io.ByteArrayInputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.stage.Stage;

/**
 * A window over an attached picture in which points are picked: dragged, or moved by the arrow keys one picture point
 * at a time (with Shift ten); + and − make the picture larger and smaller.
 */
final class PicturePick {
    private static final double LARGEST = 16;

    private final PickModel model;
    private final Consumer<String> taken;
    private final ImageView view = new ImageView();
    private final Pane board = new Pane();
    private final List<Group> handles = new ArrayList<>();
    private final Line object = new Line();
    private final Line other = new Line();
    private final Label says = Labels.styled("", "figure");
    private final Label problem = Labels.attention("");
    private final Button take = new Button("Take this reading");
    private final TextField length = new TextField();
    private final TextField pick = new TextField();
    private final TextField parallax = new TextField();
    private final HBox ofLength = new HBox(6);
    private double zoom;

    private PicturePick(PickModel model, Image image, Consumer<String> taken) {
        this.model = model;
        this.taken = taken;
        view.setImage(image);
        zoom = Math.min(1, Math.min(840 / image.getWidth(), 460 / image.getHeight()));
    }

    /**
     * Opens the window.
     *
     * @param bytes the picture as it is attached
     * @param taken is given the reading as a formula
     * @throws IllegalArgumentException with one sentence when it is no picture
     */
    static void open(
            Node owner, String label, String expected, String text, int picture, byte[] bytes, Consumer<String> taken) {
        Image image = new Image(new ByteArrayInputStream(bytes));
        if (image.isError() || image.getWidth() < 1) {
            throw new IllegalArgumentException("This attachment cannot be shown as a picture.");
        }
        new PicturePick(
                        new PickModel(label, expected, text, picture, image.getWidth(), image.getHeight()),
                        image,
                        taken)
                .show(owner);
    }

    private void show(Node owner) {
        Stage stage = new Stage();
        ChoiceBox<PickModel.Kind> kinds =
                OneOf.of("pick-kind", "What is measured", PickModel.kinds(), PickModel.Kind::label);
        kinds.setValue(model.kind());
        kinds.setOnAction(e -> {
            model.choose(kinds.getValue());
            handles();
            refresh();
        });
        field(length, "pick-length", model.length(), "true length of the scale", 110);
        field(pick, "pick-error", model.pick(), "how far off you may pick, in picture points", 60);
        field(parallax, "pick-parallax", model.parallax(), "largest error from unequal distances", 70);
        ofLength.getChildren()
                .setAll(Labels.quiet("scale is"), length, Labels.quiet("distances differ by up to"), parallax);
        ofLength.setAlignment(Pos.CENTER_LEFT);
        Button larger = new Button("+");
        larger.setId("pick-larger");
        larger.setOnAction(e -> zoomed(zoom * 1.5));
        Labels.explained(larger, "Larger (+)");
        Button smaller = new Button("−");
        smaller.setId("pick-smaller");
        smaller.setOnAction(e -> zoomed(zoom / 1.5));
        Labels.explained(smaller, "Smaller (−)");
        HBox picking = new HBox(6, Labels.quiet("picked to within"), pick, Labels.quiet("points"));
        picking.setAlignment(Pos.CENTER_LEFT);
        FlowPane head = new FlowPane(12, 6, Labels.heading(model.label()), kinds, ofLength, picking, larger, smaller);
        head.setAlignment(Pos.CENTER_LEFT);
        object.getStyleClass().add("pick-object");
        other.getStyleClass().add("pick-scale");
        List.of(object, other).forEach(l -> l.setMouseTransparent(true));
        ScrollPane scroll = new ScrollPane(board);
        scroll.setPannable(false);
        VBox.setVgrow(scroll, Priority.ALWAYS);
        says.setId("pick-says");
        problem.setId("pick-problem");
        take.setId("pick-take");
        take.setDefaultButton(true);
        take.setOnAction(e -> {
            taken.accept(model.written());
            stage.close();
        });
        Button cancel = new Button("Cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> stage.close());
        HBox foot = new HBox(12, take, cancel, says);
        foot.setAlignment(Pos.CENTER_LEFT);
        VBox box = new VBox(
                10,
                head,
                Labels.wrapped(
                        "Drag each mark to its place, or press Tab for the next mark and the arrow keys to move it by "
                                + "one picture point (Shift: ten)."),
                scroll,
                problem,
                foot);
        box.addEventHandler(KeyEvent.KEY_TYPED, e -> {
            if (!(e.getTarget() instanceof TextField)) {
                switch (e.getCharacter()) {
                    case "+" -> zoomed(zoom * 1.5);
                    case "-" -> zoomed(zoom / 1.5);
                    default -> {}
                }
            }
        });
        handles();
        zoomed(zoom);
        Dialogue.open(stage, owner, "Measure on a picture: " + model.label(), box, box, 900, 680);
        handles.get(0).requestFocus();
    }

    private void field(TextField f, String id, String text, String says, double width) {
        f.setId(id);
        Typing.show(f, text);
        f.setPrefWidth(width);
        f.setAccessibleText(says);
        Labels.explained(f, says);
        f.textProperty().addListener((o, was, is) -> {
            model.know(Typing.in(length), Typing.in(pick), Typing.in(parallax));
            refresh();
        });
    }

    private void zoomed(double to) {
        zoom = Math.max(0.05, Math.min(LARGEST, to));
        view.setSmooth(zoom < 2);
        view.setFitWidth(view.getImage().getWidth() * zoom);
        view.setFitHeight(view.getImage().getHeight() * zoom);
        refresh();
    }

    /** A mark for each point: a ring whose middle stays open, so that what is picked can be seen. */
    private void handles() {
        handles.clear();
        board.getChildren().setAll(view, object, other);
        List<String> names = model.kind().points();
        for (int i = 0; i < names.size(); i++) {
            int point = i;
            Circle ring = new Circle(11);
            ring.getStyleClass().add("pick-ring");
            Line across = new Line(-4, 0, 4, 0);
            Line down = new Line(0, -4, 0, 4);
            across.getStyleClass().add("pick-cross");
            down.getStyleClass().add("pick-cross");
            Label name = Labels.styled(names.get(i), "pick-name");
            name.setLayoutX(13);
            name.setLayoutY(-22);
            name.setMouseTransparent(true);
            Group handle = new Group(ring, across, down, name);
            handle.setId("pick-" + i);
            handle.setFocusTraversable(true);
            handle.setAccessibleText("Mark: " + names.get(i));
            handle.focusedProperty().addListener((o, was, is) -> Labels.styled(ring, "in-hand", is));
            handle.setOnMousePressed(e -> {
                handle.requestFocus();
                e.consume();
            });
            handle.setOnMouseDragged(e -> {
                var at = board.sceneToLocal(e.getSceneX(), e.getSceneY());
                move(point, at.getX() / zoom, at.getY() / zoom);
                e.consume();
            });
            handle.setOnKeyPressed(e -> nudge(e, point));
            handles.add(handle);
            board.getChildren().add(handle);
        }
    }

    private void nudge(KeyEvent e, int point) {
        double step = e.isShiftDown() ? 10 : 1;
        PickModel.Spot s = model.spots().get(point);
        switch (e.getCode()) {
            case LEFT -> move(point, s.x() - step, s.y());
            case RIGHT -> move(point, s.x() + step, s.y());
            case UP -> move(point, s.x(), s.y() - step);
            case DOWN -> move(point, s.x(), s.y() + step);
            default -> {
                return;
            }
        }
        e.consume();
    }

    private void move(int point, double x, double y) {
        model.move(point, x, y);
        refresh();
    }

    private void refresh() {
        boolean lengths = model.kind() == PickModel.Kind.LENGTH;
        Labels.shown(ofLength, lengths);
        List<PickModel.Spot> s = model.spots();
        for (int i = 0; i < handles.size(); i++) {
            handles.get(i).setTranslateX(s.get(i).x() * zoom);
            handles.get(i).setTranslateY(s.get(i).y() * zoom);
        }
        line(object, s.get(0), s.get(1));
        line(other, lengths ? s.get(2) : s.get(0), lengths ? s.get(3) : s.get(2));
        String wrong = model.problem();
        Labels.says(problem, wrong.isEmpty() ? "" : "▲ " + wrong);
        says.setText(wrong.isEmpty() ? model.says() : "");
        take.setDisable(!wrong.isEmpty());
    }

    private void line(Line l, PickModel.Spot from, PickModel.Spot to) {
        l.setStartX(from.x() * zoom);
        l.setStartY(from.y() * zoom);
        l.setEndX(to.x() * zoom);
        l.setEndY(to.y() * zoom);
    }
}

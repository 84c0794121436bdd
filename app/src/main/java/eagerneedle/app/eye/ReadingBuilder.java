package eagerneedle.app.eye;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Dialogue;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.OneOf;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.reading.Face;
import eagerneedle.picture.Faces;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;

/** A window in which a reading is built before the face of its instrument, drawn as it should look. */
final class ReadingBuilder {
    private final BuilderModel model;
    private final Consumer<String> taken;
    private final GridPane gaps = new GridPane();
    private final PictureView drawn = new PictureView("The face of the instrument at this reading", null);
    private final Label says = Labels.wrapped("");
    private final Label problem = Labels.attention("");
    private final Button take = new Button("Take this reading");

    private ReadingBuilder(BuilderModel model, Consumer<String> taken) {
        this.model = model;
        this.taken = taken;
    }

    /**
     * Opens the window.
     *
     * @param taken is given the reading as a formula
     */
    static void open(Node owner, BuilderModel model, Consumer<String> taken) {
        new ReadingBuilder(model, taken).show(owner);
    }

    private void show(Node owner) {
        Stage stage = new Stage();
        ChoiceBox<Face> faces = OneOf.of("build-face", "Instrument", model.faces(), Face::label);
        faces.setValue(model.face());
        faces.setOnAction(e -> {
            model.choose(faces.getValue());
            fields();
        });
        gaps.setHgap(10);
        gaps.setVgap(6);
        ColumnConstraints name = new ColumnConstraints();
        name.setMinWidth(Theme.px(220));
        ColumnConstraints value = new ColumnConstraints();
        value.setHgrow(Priority.ALWAYS);
        gaps.getColumnConstraints().setAll(value, name);
        drawn.setPrefSize(520, 190);
        drawn.setMinHeight(Theme.px(150));
        drawn.setId("build-drawn");
        says.setId("build-says");
        problem.setId("build-problem");
        take.setId("build-take");
        take.setDefaultButton(true);
        take.setOnAction(e -> {
            taken.accept(model.written());
            stage.close();
        });
        Button cancel = new Button("Cancel");
        cancel.setCancelButton(true);
        cancel.setOnAction(e -> stage.close());
        HBox head = new HBox(10, Labels.heading(model.label()), Labels.quiet("read from a"), faces);
        head.setAlignment(Pos.CENTER_LEFT);
        VBox.setVgrow(drawn, Priority.ALWAYS);
        VBox box = new VBox(
                12,
                head,
                gaps,
                Labels.quiet("Does the instrument look like this?"),
                drawn,
                says,
                problem,
                new HBox(10, take, cancel));
        fields();
        Dialogue.open(stage, owner, "Build a reading: " + model.label(), box, box, 600, 620);
        gaps.getChildren().get(0).requestFocus();
    }

    private void fields() {
        gaps.getChildren().clear();
        int row = 0;
        for (Face.Gap g : model.face().gaps()) {
            TextField f = new TextField(Typing.as(model.values().getOrDefault(g.name(), "")));
            f.setId("build-" + g.name());
            f.setPrefWidth(Theme.px(150));
            f.setAccessibleText(g.says());
            f.textProperty().addListener((o, was, is) -> {
                model.say(g.name(), Typing.of(is));
                refresh();
            });
            gaps.addRow(row++, f, Labels.quiet(g.says()));
        }
        refresh();
    }

    private void refresh() {
        String wrong = model.problem();
        Labels.says(problem, wrong.isEmpty() ? "" : "▲ " + wrong);
        Labels.says(says, model.says());
        take.setDisable(!wrong.isEmpty());
        Face face = model.face();
        var values = model.values();
        drawn.show(wrong.isEmpty() ? (s, w, h) -> Faces.paint(s, w, h, face, values) : (s, w, h) -> {});
    }
}

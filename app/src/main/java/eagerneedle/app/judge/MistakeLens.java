package eagerneedle.app.judge;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.core.judge.School;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.picture.NeedlePicture;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.control.ToggleGroup;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import org.jspecify.annotations.Nullable;

/**
 * The mistake lens: a mistake that people make, made on the real data, and what it would have done to the answer.
 * Nothing is kept of it.
 */
final class MistakeLens extends VBox {
    private final MistakeModel model;
    private final Label says = Labels.wrapped("");
    private final VBox box = new VBox(4);
    private final Rows<MistakeModel.Consequence> consequences = new Rows<>(box, MistakeLens::consequence);
    private Sheet.@Nullable Mistake looking;

    MistakeLens(Desk desk) {
        super(6);
        model = new MistakeModel(desk);
        ToggleGroup group = new ToggleGroup();
        getChildren().add(Labels.heading("If a mistake had been made"));
        for (Sheet.Mistake m : model.mistakes()) {
            ToggleButton b = new ToggleButton(m.label());
            b.setId("mistake-" + m.id());
            b.getStyleClass().add("quiet-button");
            b.setToggleGroup(group);
            b.setMaxWidth(Double.MAX_VALUE);
            b.setAlignment(Pos.CENTER_LEFT);
            b.setWrapText(true);
            Labels.explained(
                    b,
                    "Reduces the same data with this mistake made, and shows what becomes of the answer; "
                            + "nothing is kept");
            b.setOnAction(e -> look(b.isSelected() ? m : null));
            getChildren().add(b);
        }
        VBox shown = new VBox(4, says, box);
        shown.setId("mistake-shown");
        getChildren().add(shown);
        look(null);
    }

    /** Shows it where there is something to make a mistake on; what is looked at is worked out anew. */
    void showWhen(boolean somethingToJudge) {
        setVisible(somethingToJudge && !model.mistakes().isEmpty());
        setManaged(isVisible());
        if (isVisible()) {
            look(looking);
        }
    }

    private void look(Sheet.@Nullable Mistake m) {
        looking = m;
        Labels.says(says, m == null ? "" : m.says());
        consequences.show(m == null ? List.of() : model.of(m));
    }

    private static Node consequence(MistakeModel.Consequence c) {
        if (c.judged().isEmpty()) {
            return Labels.wrapped(c.words());
        }
        PictureView arc = new PictureView(
                c.judged().get().label(),
                (s, w, h) -> NeedlePicture.paint(s, c.judged().get(), School.STANDARD, 0, 2, w, h - 2, true));
        arc.setMinSize(52, 30);
        arc.setPrefSize(52, 30);
        Label words = Labels.wrapped(c.words());
        HBox row = new HBox(10, arc, words);
        row.setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(words, Priority.ALWAYS);
        return row;
    }
}

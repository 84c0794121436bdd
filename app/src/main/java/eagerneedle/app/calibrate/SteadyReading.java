package eagerneedle.app.calibrate;

import eagerneedle.app.eye.ReadingField;
import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Typing;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;

/** Shows a {@link SteadyModel}; an instrument without an output has a field to type into instead. */
final class SteadyReading extends VBox {
    private final SteadyModel model;
    private final Label live = Labels.styled("—", "figure-big");
    private final Label steady = Labels.quiet("");
    private final TextField field = new TextField();

    SteadyReading(Desk desk, String name, double seconds, boolean typed) {
        super(2);
        model = new SteadyModel(desk, name, seconds, typed);
        live.setId("live-reading");
        steady.setId("steadiness");
        steady.setWrapText(true);
        field.setId("typed-reading");
        field.setPrefWidth(Theme.px(150));
        field.setPromptText(Typing.as("for instance 12.5(2)"));
        field.setAccessibleText("Indication as read from the display");
        String unit = model.channel().labUnit().pretty();
        Labels.explained(field, Typing.as("The display's reading with what can be told of it: 182.5(3), in ") + unit);
        if (typed) {
            String like = ("12.5(2) " + model.channel().labUnit().symbol()).strip();
            HBox row = new HBox(
                    8,
                    new ReadingField(field, model.channel().label() + ": reading", like, () -> {}),
                    Labels.quiet(unit));
            row.setAlignment(Pos.CENTER_LEFT);
            getChildren().addAll(row, Labels.quiet("typed: this instrument has no output"));
        } else {
            getChildren().addAll(live, steady);
        }
    }

    SteadyModel model() {
        return model;
    }

    TextField field() {
        return field;
    }

    /** Tells the bench what the hands do and starts the reading anew. */
    void arrange(Map<String, String> bench) {
        field.clear();
        model.arrange(bench);
        show();
    }

    /** @throws IllegalArgumentException with one sentence when there is nothing steady to take */
    SteadyModel.Taken take() {
        return model.take(System.nanoTime(), Typing.in(field));
    }

    /** Takes the newest samples in; true when something changed. */
    boolean tick() {
        boolean changed = model.look(System.nanoTime());
        if (changed) {
            show();
        }
        return changed;
    }

    private void show() {
        live.setText(model.live());
        steady.setText(model.state());
        steady.getStyleClass().remove("good");
        if (model.isSteady()) {
            steady.getStyleClass().add("good");
        }
    }
}

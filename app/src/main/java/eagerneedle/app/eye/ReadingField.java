package eagerneedle.app.eye;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Typing;
import eagerneedle.core.session.Entries;
import java.util.List;
import java.util.function.IntFunction;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;

/** A field for a reading, with a door to building it from its causes: the button behind it, or Ctrl+B in it. */
public final class ReadingField extends HBox {
    private final TextField field;
    private final String label;
    private final String expected;
    private final Runnable taken;
    private final Button build = new Button("build");
    private final MenuButton pictures = new MenuButton("on picture");

    /**
     * Around a field that exists.
     *
     * @param field where the reading stands as written
     * @param label what is read
     * @param expected what a reading looks like, as written
     * @param taken when a reading was built and stands in the field
     */
    public ReadingField(TextField field, String label, String expected, Runnable taken) {
        super(2, field);
        this.field = field;
        this.label = label;
        this.expected = expected;
        this.taken = taken;
        setAlignment(Pos.CENTER_LEFT);
        HBox.setHgrow(field, Priority.ALWAYS);
        build.setId("build-" + field.getId());
        build.getStyleClass().add("quiet-button");
        build.setMinWidth(Region.USE_PREF_SIZE);
        build.setFocusTraversable(false);
        build.setAccessibleText("Build the reading of " + label);
        Labels.explained(
                build,
                "Build this reading from what makes it uncertain, before the face of the instrument (Ctrl+B in the field)");
        build.setOnAction(e -> build());
        field.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.isShortcutDown() && e.getCode() == KeyCode.B) {
                build();
                e.consume();
            }
        });
        build.disableProperty().bind(field.disabledProperty());
        pictures.setId("picture-" + field.getId());
        pictures.getStyleClass().add("quiet-button");
        pictures.setMinWidth(Region.USE_PREF_SIZE);
        pictures.setAccessibleText("Measure " + label + " on a picture");
        Labels.explained(pictures, "Measure this on a picture that is attached: a length against a scale, or an angle");
        getChildren().add(build);
    }

    /**
     * Offers pictures to measure on.
     *
     * @param bytes of an attachment by its number
     */
    public void offer(List<Entries.Picture> attached, IntFunction<byte[]> bytes) {
        pictures.getItems().clear();
        for (Entries.Picture p : attached) {
            MenuItem item = new MenuItem(p.name());
            item.setOnAction(e -> Notices.attempt(
                    this,
                    () -> PicturePick.open(
                            this,
                            label,
                            expected,
                            Typing.in(field),
                            p.attachment(),
                            bytes.apply(p.attachment()),
                            this::take)));
            pictures.getItems().add(item);
        }
        getChildren().remove(pictures);
        if (!attached.isEmpty()) {
            getChildren().add(pictures);
        }
    }

    private void take(String text) {
        Typing.show(field, text);
        field.requestFocus();
        taken.run();
    }

    private void build() {
        Notices.attempt(
                this, () -> ReadingBuilder.open(this, new BuilderModel(label, expected, Typing.in(field)), this::take));
    }
}

package eagerneedle.app.widget;

import java.util.List;
import java.util.function.Function;
import javafx.scene.control.ChoiceBox;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.util.StringConverter;

/**
 * A box in which one of several things is chosen, each under the words that people have for it. The keys right and left
 * take the next and the one before without opening it.
 */
public final class OneOf {
    private OneOf() {}

    /**
     * A box in which the first is chosen.
     *
     * @param says what is chosen, for who cannot see it
     * @param words the words of a thing
     */
    public static <T> ChoiceBox<T> of(String id, String says, List<T> things, Function<T, String> words) {
        ChoiceBox<T> box = new ChoiceBox<>();
        box.setId(id);
        box.setAccessibleText(says);
        box.setConverter(new StringConverter<>() {
            @Override
            public String toString(T thing) {
                return thing == null ? "" : words.apply(thing);
            }

            @Override
            public T fromString(String text) {
                throw new UnsupportedOperationException("A thing is chosen, never typed.");
            }
        });
        box.getItems().setAll(things);
        box.getSelectionModel().selectFirst();
        box.addEventFilter(KeyEvent.KEY_PRESSED, e -> {
            if (e.getCode() == KeyCode.RIGHT || e.getCode() == KeyCode.LEFT) {
                if (e.getCode() == KeyCode.RIGHT) {
                    box.getSelectionModel().selectNext();
                } else {
                    box.getSelectionModel().selectPrevious();
                }
                e.consume();
            }
        });
        return box;
    }
}

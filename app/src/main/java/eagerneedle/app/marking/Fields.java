package eagerneedle.app.marking;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Theme;
import java.nio.file.Path;
import java.util.function.Supplier;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import org.jspecify.annotations.Nullable;

/** Fields with what they are, one below the other, and a button where a file can be chosen. */
final class Fields extends GridPane {
    private int row;

    /** A button that chooses a place. */
    record Choosing(String words, Supplier<@Nullable Path> ask) {}

    Fields() {
        setHgap(10);
        setVgap(6);
        ColumnConstraints name = new ColumnConstraints();
        name.setMinWidth(USE_PREF_SIZE);
        ColumnConstraints field = new ColumnConstraints();
        field.setHgrow(Priority.ALWAYS);
        field.setMinWidth(Theme.px(120));
        getColumnConstraints().addAll(name, field);
    }

    Fields with(String label, TextField f, Choosing... choosing) {
        f.setAccessibleText(label);
        f.setMinWidth(0);
        FlowPane buttons = new FlowPane(6, 4);
        for (Choosing c : choosing) {
            Button b = new Button(c.words());
            b.setMinWidth(USE_PREF_SIZE);
            b.setOnAction(e -> {
                Path p = c.ask().get();
                if (p != null) {
                    f.setText(p.toString());
                }
            });
            buttons.getChildren().add(b);
        }
        add(Labels.quiet(label), 0, row);
        add(f, 1, row++);
        if (choosing.length > 0) {
            add(buttons, 1, row++);
        }
        return this;
    }
}

package eagerneedle.app.widget;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Region;

/** A line of fields and an act that takes what stands in them; they are emptied when it could. */
public final class AddRow extends FlowPane {
    private final List<Supplier<String>> values = new ArrayList<>();
    private final List<Runnable> emptied = new ArrayList<>();
    private final Button act = new Button();
    private final String id;

    /**
     * @param id of the act; each field has one of its own
     * @param says what the act does
     * @param add takes the fields' values in order; an exception's sentence is told
     */
    public AddRow(String id, String words, String says, Consumer<List<String>> add) {
        super(8, 6);
        this.id = id;
        setRowValignment(VPos.CENTER);
        act.setId(id);
        act.setText(words);
        act.setMinWidth(Region.USE_PREF_SIZE);
        act.setOnAction(e -> {
            List<String> all =
                    values.stream().map(Supplier::get).map(String::strip).toList();
            if (Notices.attempt(this, () -> add.accept(all))) {
                emptied.forEach(Runnable::run);
            }
        });
        Labels.explained(act, says);
        getChildren().add(act);
    }

    private AddRow put(Node field) {
        getChildren().add(getChildren().size() - 1, field);
        return this;
    }

    /** A field for text. */
    public AddRow text(String name, String prompt, double width) {
        TextField f = new TextField();
        f.setId(id + "-" + name);
        f.setPromptText(prompt);
        f.setAccessibleText(prompt);
        f.setPrefWidth(Theme.px(width));
        f.setMinWidth(Theme.px(50));
        f.setOnAction(e -> act.fire());
        values.add(f::getText);
        emptied.add(f::clear);
        return put(f);
    }

    /** A field in which something else than what is offered may be written too. */
    public AddRow offer(String name, String prompt, double width, Supplier<List<String>> offered) {
        ComboBox<String> f = new ComboBox<>();
        f.setId(id + "-" + name);
        f.setEditable(true);
        f.setPromptText(prompt);
        f.setAccessibleText(prompt);
        f.setPrefWidth(Theme.px(width));
        f.getEditor().setAccessibleText(prompt);
        f.setOnShowing(e -> f.getItems().setAll(offered.get()));
        values.add(() -> f.getEditor().getText());
        emptied.add(() -> {
            f.setValue(null);
            f.getEditor().clear();
        });
        return put(f);
    }

    public AddRow words(String words) {
        return put(Labels.quiet(words));
    }
}

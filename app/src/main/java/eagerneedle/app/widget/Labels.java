package eagerneedle.app.widget;

import eagerneedle.core.quantity.OnPoint;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;

/** Words in the few sizes and inks that the window uses. */
public final class Labels {
    private Labels() {}

    public static Label heading(String text) {
        return styled(text, "heading");
    }

    public static Label section(String text) {
        return styled(text, "section");
    }

    public static Label quiet(String text) {
        return styled(text, "quiet");
    }

    public static Label figure(String text) {
        return styled(text, "figure");
    }

    public static Label wrapped(String text) {
        Label l = new Label(text);
        l.setWrapText(true);
        l.setMinHeight(javafx.scene.layout.Region.USE_PREF_SIZE);
        return l;
    }

    /** A sentence as its kind is set. */
    public static Label of(Sentence said) {
        Label l = wrapped(said.read());
        if (!said.kind().style().isEmpty()) {
            l.getStyleClass().add(said.kind().style());
        }
        return l;
    }

    public static Label styled(String text, String... classes) {
        Label l = new Label(text);
        l.getStyleClass().addAll(classes);
        return l;
    }

    /** Puts the numbers of a column on their decimal point. */
    public static void onPoint(List<Label> column) {
        List<String> texts =
                OnPoint.of(column.stream().map(l -> l.getText().strip()).toList());
        for (int i = 0; i < texts.size(); i++) {
            column.get(i).setText(texts.get(i));
        }
    }

    /** Puts the numbers of every column of a grid that are figures on their decimal point. */
    public static void onPoints(GridPane grid) {
        Map<Integer, List<Label>> columns = new TreeMap<>();
        for (Node n : grid.getChildren()) {
            if (n instanceof Label l && l.getStyleClass().contains("figure")) {
                columns.computeIfAbsent(GridPane.getColumnIndex(n), c -> new ArrayList<>())
                        .add(l);
            }
        }
        columns.values().forEach(Labels::onPoint);
    }

    /** Gives a label its words; one without words is taken out of the window. */
    public static void says(Label label, String words) {
        label.setText(words);
        label.setVisible(!words.isEmpty());
        label.setManaged(!words.isEmpty());
    }

    /** What calls for attention, wrapped; its words may come later. */
    public static Label attention(String text) {
        Label l = wrapped(text);
        l.getStyleClass().add("attention");
        return l;
    }

    /** Gives a node a style class, or takes it away. */
    public static void styled(Node node, String styleClass, boolean on) {
        if (on != node.getStyleClass().contains(styleClass)) {
            if (on) {
                node.getStyleClass().add(styleClass);
            } else {
                node.getStyleClass().remove(styleClass);
            }
        }
    }

    /** A white card with a thin rule. */
    public static VBox card(Node... children) {
        VBox box = new VBox(8, children);
        box.getStyleClass().add("card");
        return box;
    }

    /** Gives a control a tooltip that teaches and the same words for assistive technology. */
    public static <T extends javafx.scene.control.Control> T explained(T control, String says) {
        Hints.give(control, says);
        control.setAccessibleHelp(says);
        return control;
    }

    /** Shows something and makes room for it, or neither. */
    public static void shown(Node node, boolean on) {
        node.setVisible(on);
        node.setManaged(on);
    }
}

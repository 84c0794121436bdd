package eagerneedle.app.plan;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.core.stockroom.Instrument;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import javafx.geometry.Bounds;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.FlowPane;

/**
 * Hand instruments that read at least one input, as chips over the inputs, to be dragged onto a row. They are folded
 * away until somebody wants to drag: each input offers its own instruments too, best first.
 */
final class InstrumentChips extends FlowPane {
    private final Desk desk;
    private final Map<String, Node> rows;
    private final InputsModel model;
    private List<Instrument> shown = List.of();
    private boolean open;

    /** @param rows the rows onto which a chip may be dropped, by input */
    InstrumentChips(Desk desk, InputsModel model, Map<String, Node> rows) {
        super(6, 6);
        this.desk = desk;
        this.rows = rows;
        this.model = model;
        setId("at-hand");
        setVisible(false);
        setManaged(false);
    }

    /** The button that shows or folds them. */
    Button toggle() {
        Button b = new Button("Instruments at hand");
        b.setId("at-hand-show");
        b.getStyleClass().add("quiet-button");
        b.setMinWidth(USE_PREF_SIZE);
        b.setOnAction(e -> {
            open = !open;
            refresh();
        });
        return Labels.explained(
                b, "Shows the instruments of the stockroom that read one of these inputs, to be dragged onto it");
    }

    /** Made anew only when the instruments are others, so that a drag outlives a change of the session. */
    void refresh() {
        setVisible(open);
        setManaged(open);
        List<Instrument> now = open ? model.atHand() : shown;
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        getChildren().setAll(Labels.quiet("drag onto an input:"));
        now.forEach(i -> getChildren().add(chip(i)));
    }

    private Label chip(Instrument i) {
        Label chip = new Label(i.name() + " " + i.id());
        chip.getStyleClass().add("chip");
        i.objection(desk.bench().clock().instant()).ifPresent(o -> {
            chip.setText("▲ " + chip.getText());
            Hints.give(chip, o);
        });
        chip.setId("chip-" + i.id());
        chip.setOnMouseDragged(e -> {
            getScene().setCursor(Cursor.CLOSED_HAND);
            String at = under(e).orElse("");
            rows.forEach((key, row) -> row.setStyle(key.equals(at) ? "-fx-background-color: -chosen;" : ""));
        });
        chip.setOnMouseReleased(e -> {
            getScene().setCursor(Cursor.DEFAULT);
            rows.values().forEach(row -> row.setStyle(""));
            under(e).ifPresent(key -> Notices.attempt(this, () -> model.tie(key, i.id())));
        });
        return chip;
    }

    /**
     * The row under the pointer; a drag inside the window needs no help of the desktop, so it works on every display.
     */
    private Optional<String> under(MouseEvent e) {
        return rows.keySet().stream()
                .filter(key -> {
                    Bounds b = Objects.requireNonNull(rows.get(key))
                            .localToScreen(Objects.requireNonNull(rows.get(key)).getBoundsInLocal());
                    return b != null && b.contains(e.getScreenX(), e.getScreenY());
                })
                .findFirst();
    }
}

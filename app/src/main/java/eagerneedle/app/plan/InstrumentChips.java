package eagerneedle.app.plan;

import eagerneedle.app.station.Desk;
import eagerneedle.app.widget.Hints;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.stockroom.Instrument;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.geometry.Bounds;
import javafx.geometry.Pos;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.HBox;

/**
 * Hand instruments that read at least one input, as chips in one line over the inputs, to be dragged onto a row. The
 * line stands over the rows, so that chip and row are in sight together in a small window too; the wheel walks along
 * it.
 */
final class InstrumentChips extends ScrollPane {
    private final Desk desk;
    private final Map<String, Node> rows;
    private final InputsModel model;
    private final HBox chips = new HBox(6);
    private List<Instrument> shown = List.of();

    /** @param rows the rows onto which a chip may be dropped, by input */
    InstrumentChips(Desk desk, InputsModel model, Map<String, Node> rows) {
        this.desk = desk;
        this.rows = rows;
        this.model = model;
        setId("at-hand");
        setContent(chips);
        chips.setAlignment(Pos.CENTER_LEFT);
        getStyleClass().add("bare");
        setFitToHeight(true);
        setVbarPolicy(ScrollBarPolicy.NEVER);
        setMinHeight(Theme.px(40));
        setPrefHeight(Theme.px(40));
        setFocusTraversable(false);
        addEventFilter(ScrollEvent.SCROLL, e -> {
            double over = chips.getWidth() - getViewportBounds().getWidth();
            if (over > 0 && e.getDeltaX() == 0) {
                setHvalue(getHvalue() - e.getDeltaY() / over);
                e.consume();
            }
        });
    }

    /** Made anew only when the instruments are others, so that a drag outlives a change of the session. */
    void refresh() {
        List<Instrument> now = model.atHand();
        if (now.equals(shown)) {
            return;
        }
        shown = now;
        chips.getChildren().setAll(Labels.quiet("drag onto an input:"));
        now.forEach(i -> chips.getChildren().add(chip(i)));
        chips.getChildren().forEach(n -> ((Label) n).setMinWidth(USE_PREF_SIZE));
        setVisible(!now.isEmpty());
        setManaged(isVisible());
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
                    Bounds b = rows.get(key).localToScreen(rows.get(key).getBoundsInLocal());
                    return b != null && b.contains(e.getScreenX(), e.getScreenY());
                })
                .findFirst();
    }
}

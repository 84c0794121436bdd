package eagerneedle.app.widget;

import eagerneedle.core.quantity.OnPoint;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.ObjIntConsumer;
import javafx.geometry.HPos;
import javafx.scene.control.Label;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Region;

/**
 * A table of short texts. What is shown already stays where it is and is given its new words; only what is new is made.
 */
public final class CellGrid extends GridPane {
    private record Place(int row, int column) {}

    private final Map<Place, Label> shown = new HashMap<>();
    private final ObjIntConsumer<Label> made;

    public CellGrid() {
        this((label, column) -> {});
    }

    /** @param made is given each new label with its column, to say how wide it may be */
    public CellGrid(ObjIntConsumer<Label> made) {
        this.made = made;
    }

    /** Shows these rows, the numbers of each column on their decimal point. */
    public void show(List<List<Cell>> rows) {
        Map<Place, Cell> cells =
                new TreeMap<>(Comparator.comparingInt(Place::row).thenComparingInt(Place::column));
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < rows.get(r).size(); c++) {
                cells.put(new Place(r, c), rows.get(r).get(c));
            }
        }
        Map<Place, String> aligned = onPoints(cells);
        Set<Place> gone = new HashSet<>(shown.keySet());
        cells.forEach((place, cell) -> {
            gone.remove(place);
            set(shown.computeIfAbsent(place, this::label), cell, aligned.getOrDefault(place, cell.text()));
        });
        gone.forEach(place -> getChildren().remove(shown.remove(place)));
    }

    private static Map<Place, String> onPoints(Map<Place, Cell> cells) {
        Map<Integer, Map<Place, String>> columns = new TreeMap<>();
        cells.forEach((place, cell) -> {
            if (cell.look() == Cell.Look.FIGURE || cell.look() == Cell.Look.RIGHT) {
                columns.computeIfAbsent(place.column(), c -> new LinkedHashMap<>())
                        .put(place, cell.text());
            }
        });
        Map<Place, String> out = new HashMap<>();
        columns.values().forEach(column -> {
            Iterator<String> texts = OnPoint.of(List.copyOf(column.values())).iterator();
            column.keySet().forEach(place -> out.put(place, texts.next()));
        });
        return out;
    }

    private Label label(Place place) {
        Label label = new Label();
        made.accept(label, place.column());
        add(label, place.column(), place.row());
        return label;
    }

    private static void set(Label label, Cell cell, String text) {
        label.setText(text);
        for (Cell.Look look : Cell.Look.values()) {
            if (!look.style().isEmpty() && !look.style().equals(cell.look().style())) {
                label.getStyleClass().remove(look.style());
            }
        }
        if (!cell.look().style().isEmpty()) {
            Labels.styled(label, cell.look().style(), true);
        }
        label.setWrapText(cell.look() == Cell.Look.WRAPPED);
        if (label.isWrapText()) {
            label.setMinHeight(Region.USE_PREF_SIZE);
        }
        GridPane.setHalignment(label, cell.look() == Cell.Look.RIGHT ? HPos.RIGHT : HPos.LEFT);
        if (!Hints.of(label).equals(cell.says())) {
            Labels.explained(label, cell.says());
        }
    }
}

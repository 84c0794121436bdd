package eagerneedle.app.window;

import eagerneedle.app.find.Hit;
import eagerneedle.app.find.Search;
import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Rows;
import eagerneedle.app.widget.Theme;
import java.util.List;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;

/**
 * One field over the window that finds anything: stations, quantities, runs, steps, notes, instruments, methods, acts.
 */
public final class Finder extends StackPane {
    private static final int MOST = 11;
    private final Supplier<List<Hit>> all;
    private final TextField words = new TextField();
    private final VBox lines = new VBox(1);
    private final Label none = Labels.quiet("Nothing has all of these words. Try fewer, or a part of one.");
    private final Rows<Line> rows = Rows.changing(lines, Line::hit, this::row, Finder::show);
    private Search search = new Search(List.of());
    private List<Hit> shown = List.of();
    private int at;

    /** A hit in its line; one line is chosen. */
    private record Line(int number, Hit hit, boolean chosen) {}

    /** @param all everything that can be found, asked for whenever it is opened */
    Finder(Supplier<List<Hit>> all) {
        this.all = all;
        setId("finder");
        words.setId("find-words");
        words.setPromptText("Find a quantity, a run, a step, a note, an instrument, a method...");
        words.setAccessibleText("Words to find");
        words.textProperty().addListener((o, was, is) -> look());
        words.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
        // The character of the key that opened it still comes after it.
        words.addEventFilter(KeyEvent.KEY_TYPED, e -> {
            if (words.getText().isEmpty() && "/".equals(e.getCharacter())) {
                e.consume();
            }
        });
        lines.setId("find-hits");
        VBox box = new VBox(8, words, lines, none);
        box.getStyleClass().addAll("card", "finder");
        box.setMaxSize(640, Region.USE_PREF_SIZE);
        StackPane.setAlignment(box, Pos.TOP_CENTER);
        StackPane.setMargin(box, new javafx.geometry.Insets(70, 20, 20, 20));
        getChildren().add(box);
        setVisible(false);
        setOnMousePressed(e -> {
            if (e.getTarget() == this) {
                close();
            }
        });
    }

    void open() {
        search = new Search(all.get());
        setVisible(true);
        words.clear();
        look();
        words.requestFocus();
    }

    void close() {
        setVisible(false);
    }

    private void key(KeyEvent e) {
        if (e.getCode() == KeyCode.DOWN || e.getCode() == KeyCode.UP) {
            at = Math.max(0, Math.min(shown.size() - 1, at + (e.getCode() == KeyCode.DOWN ? 1 : -1)));
            draw();
            e.consume();
        } else if (e.getCode() == KeyCode.ENTER && at < shown.size()) {
            go(shown.get(at));
            e.consume();
        } else if (e.getCode() == KeyCode.ESCAPE) {
            close();
            e.consume();
        }
    }

    private void go(Hit hit) {
        close();
        hit.go().run();
    }

    private void look() {
        shown = search.of(words.getText(), MOST);
        at = 0;
        draw();
    }

    private void draw() {
        rows.showOrHide(IntStream.range(0, shown.size())
                .mapToObj(i -> new Line(i, shown.get(i), i == at))
                .toList());
        Labels.shown(none, shown.isEmpty());
    }

    private HBox row(Line line) {
        Hit h = line.hit();
        Label kind = Labels.quiet(h.kind());
        kind.setMinWidth(Theme.px(92));
        Label text = new Label(h.text());
        text.setMinWidth(Theme.px(60));
        Label more = Labels.quiet(h.more());
        more.setMinWidth(0);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox row = new HBox(8, kind, text, gap, more);
        row.setAlignment(Pos.CENTER_LEFT);
        row.getStyleClass().add("run-row");
        row.setAccessibleText(h.kind() + ": " + h.text());
        row.setOnMouseClicked(e -> go(h));
        return row;
    }

    private static void show(HBox row, Line line) {
        row.setId("hit-" + line.number());
        Labels.styled(row, "chosen", line.chosen());
    }
}

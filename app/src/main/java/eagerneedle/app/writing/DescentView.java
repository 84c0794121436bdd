package eagerneedle.app.writing;

import eagerneedle.app.plot.PictureView;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.sheet.Descent;
import eagerneedle.picture.DescentPicture;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import javafx.scene.Cursor;
import javafx.scene.control.Tooltip;
import javafx.scene.input.KeyCode;
import org.jspecify.annotations.Nullable;

/**
 * What follows from what: pointing at a quantity, or walking there with the arrows, lights what it hangs together with.
 */
final class DescentView extends PictureView {
    private final List<Descent.Item> items;
    private final Tooltip words = new Tooltip();
    private Descent.@Nullable Item lit;

    /** @param go where a press on a quantity, or Enter, leads */
    DescentView(List<Descent.Item> items, Consumer<Descent.Item> go) {
        super(said(items), (s, w, h) -> {});
        this.items = List.copyOf(items);
        setId("descent");
        show((s, w, h) -> DescentPicture.paint(s, this.items, w, lit));
        double height = Theme.px(DescentPicture.height(items.size()));
        setMinHeight(height);
        setPrefHeight(height);
        setFocusTraversable(true);
        setCursor(Cursor.HAND);
        Tooltip.install(this, words);
        setOnMouseMoved(e -> light(DescentPicture.at(e.getY() / scale(), items.size())));
        setOnMouseExited(e -> light(-1));
        setOnMouseClicked(e -> go(go));
        setOnKeyPressed(e -> {
            int at = lit == null ? -1 : this.items.indexOf(lit);
            if (e.getCode() == KeyCode.DOWN && at + 1 < items.size()) {
                light(at + 1);
                e.consume();
            } else if (e.getCode() == KeyCode.UP && at > 0) {
                light(at - 1);
                e.consume();
            } else if (e.getCode() == KeyCode.ENTER) {
                go(go);
                e.consume();
            }
        });
    }

    private void go(Consumer<Descent.Item> go) {
        if (lit != null) {
            go.accept(lit);
        }
    }

    private void light(int row) {
        Descent.Item now = row < 0 ? null : items.get(row);
        if (now != lit) {
            lit = now;
            words.setText(now == null ? "" : said(now));
            repaint();
        }
    }

    private static String said(Descent.Item item) {
        return item.name()
                + (item.label().isEmpty() ? "" : ": " + item.label())
                + (item.kind() == Descent.Kind.GIVEN
                        ? " (given)"
                        : item.from().isEmpty() ? ", from nothing else" : ", from " + String.join(", ", item.from()));
    }

    private static String said(List<Descent.Item> items) {
        return items.stream()
                .filter(i -> i.kind() != Descent.Kind.GIVEN)
                .map(DescentView::said)
                .collect(Collectors.joining("; "));
    }
}

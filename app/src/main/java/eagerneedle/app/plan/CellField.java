package eagerneedle.app.plan;

import java.util.List;
import java.util.function.Consumer;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;

/** A field of a column: cells of a spreadsheet pasted into it run on into the fields below. */
final class CellField extends TextField {
    private Consumer<List<String>> below = cells -> {};
    /** What was shown last; other text is being written. */
    private String said = "";

    /** What to do with several cells, the first of which belongs here. */
    void onCells(Consumer<List<String>> act) {
        below = act;
    }

    /** Shows what is known, unless somebody is writing here: news of something else must not take the words away. */
    void says(String text) {
        if (isFocused() && !getText().equals(said)) {
            return;
        }
        said = text;
        if (!getText().equals(text)) {
            setText(text);
        }
    }

    /** What is written here is being taken. */
    void taken() {
        said = getText();
    }

    @Override
    public void paste() {
        String text = Clipboard.getSystemClipboard().getString();
        List<String> cells = text == null
                ? List.of()
                : text.strip().lines().map(l -> l.split("\t")[0].strip()).toList();
        if (cells.size() > 1) {
            below.accept(cells);
        } else {
            super.paste();
        }
    }
}

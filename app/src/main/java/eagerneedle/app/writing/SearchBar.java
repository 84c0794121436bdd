package eagerneedle.app.writing;

import eagerneedle.app.widget.Labels;
import eagerneedle.app.widget.Notices;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.HBox;

/** Finds words in the text of a sheet and puts others in their place. */
final class SearchBar extends HBox {
    private final SheetEditor editor;
    private final TextField find = new TextField();
    private final TextField by = new TextField();

    SearchBar(SheetEditor editor) {
        super(8);
        this.editor = editor;
        find.setId("find-text");
        find.setPromptText("find");
        find.setAccessibleText("Find in the text");
        by.setId("replace-text");
        by.setPromptText("put in its place");
        by.setAccessibleText("Put in its place");
        find.setOnAction(e -> next());
        getChildren()
                .addAll(
                        find,
                        act("find-next", "Next", "The next place where it stands (Enter)", this::next),
                        by,
                        act("replace-one", "Replace", "Replaces the one that is chosen", this::replaceOne),
                        act("replace-all", "All", "Replaces all of them", this::replaceAll));
        setAlignment(Pos.CENTER_LEFT);
        show(false);
        setOnKeyPressed(e -> {
            if (e.getCode() == KeyCode.ESCAPE) {
                show(false);
                editor.requestFocus();
                e.consume();
            }
        });
    }

    private static Button act(String id, String words, String says, Runnable run) {
        Button b = new Button(words);
        b.setId(id);
        b.setMinWidth(USE_PREF_SIZE);
        b.getStyleClass().add("quiet-button");
        b.setOnAction(e -> run.run());
        return Labels.explained(b, says);
    }

    private void show(boolean there) {
        setVisible(there);
        setManaged(there);
    }

    /** Shows the bar with what is chosen in the text. */
    void open() {
        show(true);
        find.setText(editor.getSelectedText().isEmpty() ? find.getText() : editor.getSelectedText());
        find.requestFocus();
    }

    private void next() {
        String text = editor.getText();
        String wanted = find.getText();
        int at = wanted.isEmpty() ? -1 : text.indexOf(wanted, editor.getCaretPosition());
        at = at < 0 && !wanted.isEmpty() ? text.indexOf(wanted) : at;
        if (at < 0) {
            Notices.warn(this, "'" + wanted + "' does not stand in this sheet.");
        } else {
            editor.selectRange(at, at + wanted.length());
            editor.requestFollowCaret();
        }
    }

    private void replaceOne() {
        if (!find.getText().isEmpty() && editor.getSelectedText().equals(find.getText())) {
            editor.replaceSelection(by.getText());
        }
        next();
    }

    private void replaceAll() {
        if (!find.getText().isEmpty()) {
            editor.exchange(editor.getText().replace(find.getText(), by.getText()));
        }
    }
}

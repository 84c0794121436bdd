package eagerneedle.app.writing;

import eagerneedle.core.edit.Completion;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.function.BiFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.animation.PauseTransition;
import javafx.geometry.Bounds;
import javafx.scene.control.Label;
import javafx.scene.control.ListCell;
import javafx.scene.control.ListView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.VBox;
import javafx.stage.Popup;
import javafx.util.Duration;
import org.fxmisc.richtext.CodeArea;
import org.fxmisc.richtext.LineNumberFactory;
import org.fxmisc.richtext.model.StyleSpans;
import org.fxmisc.richtext.model.StyleSpansBuilder;

/**
 * The text of a sheet with its colours, line numbers, and what may be written at the caret.
 *
 * <p>Only the lines that were touched are coloured anew, so that a key press costs the same in a long sheet as in a
 * short one.
 */
final class SheetEditor extends CodeArea {
    private static final Pattern TOKEN = Pattern.compile("(?<comment>(?:^|(?<=\\s))#.*)"
            + "|(?<key>(?:^|(?<=[\\s{,-]))[\\p{L}_][\\p{L}\\p{N}_.-]*(?=:(?:\\s|$)))"
            + "|(?<string>\"(?:[^\"\\\\]|\\\\.)*\"?)"
            + "|(?<number>(?<![\\p{L}\\p{N}_])-?\\d+(?:\\.\\d+)?(?:\\(\\d+\\))?(?:e-?\\d+)?)");
    private static final int MOST_SHOWN = 200;

    private final BiFunction<String, Integer, List<Completion.Proposal>> proposing;
    private final PauseTransition soon = new PauseTransition(Duration.millis(90));
    private final Popup popup = new Popup();
    private final ListView<Completion.Proposal> proposals = new ListView<>();
    private final Label says = new Label();

    /** @param proposing what may stand in a text before a character of it */
    SheetEditor(BiFunction<String, Integer, List<Completion.Proposal>> proposing) {
        this.proposing = proposing;
        setId("sheet-text");
        getStyleClass().add("sheet-text");
        setParagraphGraphicFactory(LineNumberFactory.get(this));
        setAccessibleText("The text of the sheet");
        plainTextChanges().subscribe(c -> {
            int first = offsetToPosition(c.getPosition(), Bias.Backward).getMajor();
            int last = offsetToPosition(c.getInsertionEnd(), Bias.Forward).getMajor();
            for (int p = first; p <= Math.min(last, getParagraphs().size() - 1); p++) {
                colour(p);
            }
        });
        proposals.setId("proposals");
        proposals.setPrefSize(420, 190);
        proposals.setFocusTraversable(false);
        proposals.setCellFactory(l -> new ListCell<>() {
            @Override
            protected void updateItem(Completion.Proposal p, boolean empty) {
                super.updateItem(p, empty);
                setText(empty || p == null ? "" : p.words());
            }
        });
        proposals.setOnMouseClicked(e -> take());
        proposals
                .getSelectionModel()
                .selectedItemProperty()
                .addListener((o, was, is) -> says.setText(is == null ? "" : is.says()));
        says.setWrapText(true);
        says.setMaxWidth(410);
        says.getStyleClass().add("quiet");
        VBox box = new VBox(4, proposals, says);
        box.getStyleClass().add("proposals");
        popup.getContent().add(box);
        popup.setAutoHide(true);
        // Whoever types on does not wait for what might be proposed.
        soon.setOnFinished(e -> {
            if (isFocused()) {
                propose(false);
            }
        });
        addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        addEventHandler(KeyEvent.KEY_TYPED, e -> {
            String c = e.getCharacter();
            if (!c.isEmpty() && Character.isLetterOrDigit(c.charAt(0)) && wordBefore() >= 2 || popup.isShowing()) {
                soon.playFromStart();
            }
        });
    }

    /** Puts another text there; the change can be undone like any other. */
    void exchange(String text) {
        if (!text.equals(getText())) {
            int from = 0;
            String now = getText();
            while (from < Math.min(now.length(), text.length()) && now.charAt(from) == text.charAt(from)) {
                from++;
            }
            int end = 0;
            while (end < Math.min(now.length(), text.length()) - from
                    && now.charAt(now.length() - 1 - end) == text.charAt(text.length() - 1 - end)) {
                end++;
            }
            replaceText(from, now.length() - end, text.substring(from, text.length() - end));
        }
    }

    private void pressed(KeyEvent e) {
        if (e.getCode() == KeyCode.SPACE && e.isControlDown()) {
            propose(true);
            e.consume();
        } else if (popup.isShowing()) {
            switch (e.getCode()) {
                case DOWN, UP -> {
                    int by = e.getCode() == KeyCode.DOWN ? 1 : -1;
                    int to = Math.max(
                            0,
                            Math.min(
                                    proposals.getItems().size() - 1,
                                    proposals.getSelectionModel().getSelectedIndex() + by));
                    proposals.getSelectionModel().select(to);
                    proposals.scrollTo(Math.max(0, to - 3));
                    e.consume();
                }
                case ENTER, TAB -> {
                    take();
                    e.consume();
                }
                case ESCAPE -> {
                    popup.hide();
                    e.consume();
                }
                default -> {}
            }
        } else if (e.getCode() == KeyCode.ENTER && !e.isShortcutDown()) {
            replaceSelection("\n" + indent());
            requestFollowCaret();
            e.consume();
        } else if (e.getCode() == KeyCode.TAB && !e.isShiftDown() && !e.isControlDown()) {
            replaceSelection("  ");
            e.consume();
        }
    }

    /** The next line stands under this one; two further in where this one opens a block. */
    private String indent() {
        String line = getText(getCurrentParagraph()).substring(0, getCaretColumn());
        String blanks = line.replaceFirst("^( *(?:- )*).*$", "$1").replace('-', ' ');
        return line.stripTrailing().endsWith(":") ? blanks + "  " : blanks;
    }

    private int wordBefore() {
        String line = getText(getCurrentParagraph()).substring(0, getCaretColumn());
        int from = line.length();
        while (from > 0
                && (Character.isLetterOrDigit(line.charAt(from - 1)) || "_.".indexOf(line.charAt(from - 1)) >= 0)) {
            from--;
        }
        return line.length() - from;
    }

    /** Shows what may be written here; nothing where it is words for people, or is written out already. */
    void propose(boolean asked) {
        List<Completion.Proposal> all = proposing.apply(getText(), getCaretPosition());
        boolean done =
                all.isEmpty() || !asked && all.size() == 1 && all.get(0).words().length() == wordBefore();
        if (done) {
            popup.hide();
            return;
        }
        proposals.getItems().setAll(all.size() > MOST_SHOWN ? all.subList(0, MOST_SHOWN) : all);
        proposals.getSelectionModel().selectFirst();
        if (!popup.isShowing()) {
            requestFollowCaret();
            layout();
            Bounds at = getCaretBounds().orElseGet(() -> localToScreen(getBoundsInLocal()));
            if (at != null && getScene() != null) {
                popup.show(this, at.getMinX(), at.getMaxY() + 2);
            }
        }
    }

    private void take() {
        Completion.Proposal p = proposals.getSelectionModel().getSelectedItem();
        popup.hide();
        if (p != null) {
            int caret = getCaretPosition();
            replaceText(caret - wordBefore(), caret, p.insert());
        }
    }

    /** Folds the block that the caret stands in, or unfolds it. */
    void fold() {
        int first = getCurrentParagraph();
        int indent = indent(first);
        int last = first;
        while (last + 1 < getParagraphs().size() && (getText(last + 1).isBlank() || indent(last + 1) > indent)) {
            last++;
        }
        boolean folded =
                last > first && getParagraph(first + 1).getParagraphStyle().contains("collapse");
        if (folded) {
            unfoldParagraphs(first);
        } else if (last > first) {
            foldParagraphs(first, last);
        }
    }

    private int indent(int paragraph) {
        String line = getText(paragraph);
        return line.length() - line.stripLeading().length();
    }

    private void colour(int paragraph) {
        String line = getText(paragraph);
        if (!line.isEmpty()) {
            setStyleSpans(paragraph, 0, colours(line));
        }
    }

    static StyleSpans<Collection<String>> colours(String line) {
        Matcher m = TOKEN.matcher(line);
        StyleSpansBuilder<Collection<String>> b = new StyleSpansBuilder<>();
        int last = 0;
        while (m.find()) {
            String style = m.group("comment") != null
                    ? "sheet-comment"
                    : m.group("key") != null
                            ? "sheet-key"
                            : m.group("string") != null ? "sheet-string" : "sheet-number";
            b.add(Collections.emptyList(), m.start() - last);
            b.add(Collections.singleton(style), m.end() - m.start());
            last = m.end();
        }
        b.add(Collections.emptyList(), line.length() - last);
        return b.create();
    }
}

package eagerneedle.app.window;

import eagerneedle.app.station.Cautions;
import eagerneedle.app.widget.Theme;
import eagerneedle.core.sheet.SheetReader;
import java.util.List;
import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;
import org.jspecify.annotations.Nullable;

/**
 * Something the window does on request: it stands in the menu, has a key, and is found by its words.
 *
 * @param label what it is called
 * @param shortcut the key with a modifier; null for none
 * @param shown the key as the menu says it: the shortcut, or a single character
 * @param run does it
 */
record MenuAct(String label, @Nullable KeyCombination shortcut, String shown, Runnable run) {
    /**
     * @param key a single character, or a shortcut as {@link KeyCombination#valueOf} reads it, such as
     *     {@code Shortcut+O}
     */
    static MenuAct of(String label, String key, Runnable run) {
        return new MenuAct(
                label, key.length() == 1 ? null : KeyCombination.valueOf(key), key.replace("Shortcut", "Ctrl"), run);
    }

    /** A single character belongs to text fields while someone types. */
    boolean answers(KeyEvent e, boolean typing) {
        return shortcut != null
                ? shortcut.match(e)
                : !typing && !e.isShortcutDown() && !e.isAltDown() && shown.equalsIgnoreCase(e.getText());
    }

    /** Everything the window does on request, in the order of the menu. */
    static List<MenuAct> of(MainWindow w) {
        return List.of(
                MenuAct.of("Start page", "Shortcut+H", w::showStart),
                MenuAct.of(
                        "New session of this method",
                        "Shortcut+N",
                        () -> w.door()
                                .begin(
                                        SheetReader.read(
                                                w.bench().session().sheetText(),
                                                w.bench().sheet().id()),
                                        null)),
                MenuAct.of("Open a bench file...", "Shortcut+O", () -> w.door().ask()),
                MenuAct.of("Save a copy...", "Shortcut+S", () -> w.door().saveCopy()),
                MenuAct.of("Keep as a method...", "Shortcut+M", () -> w.door().askKeepAsMethod()),
                MenuAct.of(
                        "Method desk: write the sheet",
                        "Shortcut+E",
                        () -> w.aside().desk()),
                MenuAct.of(
                        "Classroom: give out and mark",
                        "Shortcut+G",
                        () -> w.aside().classroom()),
                MenuAct.of(
                        "All benches on one picture",
                        "Shortcut+U",
                        () -> w.aside().benches()),
                MenuAct.of(
                        "Training: read and hunt", "Shortcut+T", () -> w.aside().training()),
                MenuAct.of(
                        "The day: who is where", "Shortcut+J", () -> w.aside().day()),
                MenuAct.of("A standard was wrong", "Shortcut+P", () -> w.aside().putRight("")),
                MenuAct.of("Ready check of this bench", "Shortcut+L", w::showReady),
                MenuAct.of("Stockroom", "Shortcut+I", w::showStockroom),
                MenuAct.of("Find anything", "/", w::find),
                MenuAct.of(
                        "Staff takes the cautions over",
                        "Shortcut+K",
                        () -> new Cautions(w.bench()).takeOver(w.site().staff())),
                MenuAct.of(
                        "What if: try choices without making them",
                        "W",
                        () -> w.trial().toggle()),
                MenuAct.of(
                        "Large numbers for the class", "P", () -> w.projector().toggle()),
                MenuAct.of("Show or hide the ledger", "L", () -> w.side().toggle()),
                MenuAct.of("Walk round in two minutes", "F1", () -> w.guide().begin()),
                MenuAct.of("Settings", "Shortcut+Comma", () -> w.aside().settings()),
                MenuAct.of("Larger text", "Shortcut+Equals", () -> w.restyling().textSize(Theme.textSize() + 10)),
                MenuAct.of("Smaller text", "Shortcut+Minus", () -> w.restyling().textSize(Theme.textSize() - 10)),
                MenuAct.of("Text as it was", "Shortcut+0", () -> w.restyling().textSize(100)),
                MenuAct.of("Light or dark", "Shortcut+D", () -> w.kept().otherTheme()));
    }
}

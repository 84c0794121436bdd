package eagerneedle.app.window;

import javafx.scene.input.KeyCombination;
import javafx.scene.input.KeyEvent;

/**
 * Something the window does on request: it stands in the menu, has a key, and is found by its words.
 *
 * @param label what it is called
 * @param shortcut the key with a modifier; null for none
 * @param shown the key as the menu says it: the shortcut, or a single character
 * @param run does it
 */
record MenuAct(String label, KeyCombination shortcut, String shown, Runnable run) {
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
}

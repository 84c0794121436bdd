package eagerneedle.app.window;

import eagerneedle.app.widget.Theme;
import eagerneedle.app.workbench.Settings;
import java.nio.file.Path;

/** Size of text, theme and pins, found again next time; nothing is kept until a file is named. */
final class KeptSettings {
    private final MainWindow window;
    private final LedgerPane ledger;
    private Path file;

    KeptSettings(MainWindow window, LedgerPane ledger) {
        this.window = window;
        this.ledger = ledger;
    }

    /** Takes what is set in a file, and keeps there what is set from now on. */
    void in(Path settings) {
        Settings was = Settings.read(settings);
        file = settings;
        ledger.pinned(was.pinned());
        ledger.onPin(this::keep);
        Theme.dress(window.stage().getScene(), was.dark());
        if (was.textSize() != Theme.textSize()) {
            window.textSize(was.textSize());
        }
    }

    void keep() {
        if (file != null) {
            new Settings(Theme.textSize(), Theme.isDark(), ledger.pinned()).keep(file);
        }
    }

    /** Light or dark. */
    void otherTheme() {
        Theme.dress(window.stage().getScene(), !Theme.isDark());
        keep();
    }
}

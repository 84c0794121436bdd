package eagerneedle.app.window;

import eagerneedle.app.settings.SettingsView;
import eagerneedle.app.widget.SystemTheme;
import eagerneedle.app.widget.Theme;
import eagerneedle.app.widget.Tone;
import eagerneedle.app.workbench.Settings;
import eagerneedle.core.quantity.DecimalSign;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import javafx.stage.Screen;
import javafx.stage.Stage;
import org.jspecify.annotations.Nullable;

/** What a person set, found again next time; nothing is kept until a file is named. */
final class KeptSettings implements SettingsView.Kept {
    /** Of the window, so much has to lie on a screen, px. */
    private static final double SEEN = 120;

    private final MainWindow window;
    private final LedgerPane ledger;
    private Settings now = Settings.USUAL;
    private @Nullable Path file;

    KeptSettings(MainWindow window, LedgerPane ledger) {
        this.window = window;
        this.ledger = ledger;
    }

    /** Takes what is set in a file, and keeps there what is set from now on. */
    void in(Path settings) {
        Settings.rescued(settings).ifPresent(says -> window.say(says, true));
        now = Settings.read(settings);
        file = settings;
        ledger.pinned(now.pinned());
        ledger.onPin(this::keep);
        Theme.dress(window.stage().getScene(), now.asSystem() ? SystemTheme.isDark() : now.dark());
        if (now.textSize() != Theme.textSize()) {
            window.restyling().textSize(now.textSize());
        }
        numbers();
        behave();
        place();
        window.stage().setOnHiding(e -> keepPlace());
    }

    /** Where the window was, as far as it is still to be seen there. */
    private void place() {
        List<Double> at = now.window();
        if (at.size() == 4
                && Screen.getScreensForRectangle(at.get(0), at.get(1), SEEN, SEEN).stream()
                        .anyMatch(s -> s.getVisualBounds().contains(at.get(0) + SEEN / 2, at.get(1) + SEEN / 2))) {
            window.stage().setX(at.get(0));
            window.stage().setY(at.get(1));
            window.stage().setWidth(at.get(2));
            window.stage().setHeight(at.get(3));
        }
    }

    private void keepPlace() {
        Stage stage = window.stage();
        if (file != null && !stage.isIconified() && stage.getWidth() > SEEN) {
            now = Settings.read(file).placed(stage.getX(), stage.getY(), stage.getWidth(), stage.getHeight());
            now.keep(file);
        }
    }

    void keep() {
        write(now.looking(Theme.textSize(), Theme.isDark(), now.asSystem()).pinning(ledger.pinned()));
    }

    private void write(Settings s) {
        now = s;
        if (file != null) {
            now.keep(file);
        }
    }

    /** Light or dark, from now on whatever the desktop says. */
    void otherTheme() {
        look(!Theme.isDark(), false);
    }

    private void numbers() {
        DecimalSign own = now.numbers().decimal();
        DecimalSign wanted = own != null ? own : window.site().comma() ? DecimalSign.COMMA : DecimalSign.POINT;
        if (wanted != DecimalSign.inUse()) {
            DecimalSign.use(wanted);
            window.restyling().numbers();
        }
    }

    private void behave() {
        Tone.want(now.manner().sound());
        Theme.still(now.manner().still());
    }

    @Override
    public Settings now() {
        return now;
    }

    @Override
    public void look(boolean dark, boolean asSystem) {
        Theme.dress(window.stage().getScene(), asSystem ? SystemTheme.isDark() : dark);
        write(now.looking(Theme.textSize(), Theme.isDark(), asSystem));
    }

    @Override
    public void textSize(int percent) {
        window.restyling().textSize(percent);
    }

    @Override
    public void numbers(Settings.Numbers how) {
        write(now.writing(how));
        numbers();
    }

    @Override
    public void manner(Settings.Manner how) {
        write(now.behaving(how));
        behave();
    }

    @Override
    public void bench(String name) {
        write(now.at(name.strip()));
    }

    @Override
    public void folder(String path) {
        if (!path.isBlank()) {
            try {
                Files.createDirectories(Path.of(path.strip()));
            } catch (IOException | InvalidPathException e) {
                throw new IllegalArgumentException(
                        "Sessions cannot be kept in " + path + "; choose another folder.", e);
            }
        }
        write(now.keepingIn(path.strip()));
    }
}

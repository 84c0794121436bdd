package eagerneedle.app.widget;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;
import java.util.regex.Pattern;

/** Whether the desktop asks its programs to be dark; where that cannot be found out, they are light. */
public final class SystemTheme {
    private static final Pattern PREFERS =
            Pattern.compile("(?m)^\\s*gtk-application-prefer-dark-theme\\s*=\\s*(1|true)\\s*$");
    private static final Pattern NAMED = Pattern.compile("(?m)^\\s*gtk-theme-name\\s*=\\s*\\S*dark\\S*\\s*$");

    private SystemTheme() {}

    public static boolean isDark() {
        return isDark(
                System.getenv("GTK_THEME"),
                Path.of(System.getProperty("user.home"), ".config", "gtk-3.0", "settings.ini"));
    }

    /**
     * The same of what a desktop says.
     *
     * @param theme the variable by which one is forced; null for none
     * @param settings the file of the desktop's toolkit, which need not be there
     */
    static boolean isDark(String theme, Path settings) {
        if (theme != null && !theme.isBlank()) {
            return theme.toLowerCase(Locale.ROOT).contains("dark");
        }
        try {
            String said = Files.exists(settings) ? Files.readString(settings).toLowerCase(Locale.ROOT) : "";
            return PREFERS.matcher(said).find() || NAMED.matcher(said).find();
        } catch (IOException unreadable) {
            return false;
        }
    }
}

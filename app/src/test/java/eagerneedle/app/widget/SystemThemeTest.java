package eagerneedle.app.widget;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What desktops say of light and dark. */
class SystemThemeTest {
    @TempDir
    private Path folder;

    @Test
    void theDesktopIsAskedAndLightIsUsual() throws IOException {
        Path none = folder.resolve("none.ini");
        assertThat(SystemTheme.isDark(null, none)).isFalse();
        assertThat(SystemTheme.isDark("Plain:dark", none)).isTrue();
        assertThat(SystemTheme.isDark("Plain", none)).isFalse();
        Path asks = Files.writeString(folder.resolve("a.ini"), "[Settings]\ngtk-application-prefer-dark-theme = 1\n");
        assertThat(SystemTheme.isDark(null, asks)).isTrue();
        assertThat(SystemTheme.isDark("Plain", asks))
                .as("what is forced goes first")
                .isFalse();
        Path no = Files.writeString(folder.resolve("b.ini"), "gtk-application-prefer-dark-theme=0\n");
        assertThat(SystemTheme.isDark("", no)).isFalse();
        Path named = Files.writeString(folder.resolve("c.ini"), "gtk-theme-name=Plain-Dark\n");
        assertThat(SystemTheme.isDark(null, named)).isTrue();
    }
}

package eagerneedle.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a desktop hands over when a file is double-clicked. */
class LauncherTest {
    @TempDir
    private Path folder;

    @Test
    void aFileThatIsThereIsOpenedAndAnythingElseIsACommand() throws IOException {
        String bench = Files.writeString(folder.resolve("a b.needle"), "").toString();
        String sheet = Files.writeString(folder.resolve("s.yaml"), "").toString();
        String other = Files.writeString(folder.resolve("s.txt"), "").toString();
        assertThat(Launcher.opened(bench)).containsExactly("open", bench);
        assertThat(Launcher.opened(sheet)).containsExactly("open", sheet);
        assertThat(Launcher.opened(other)).containsExactly(other);
        assertThat(Launcher.opened(folder.resolve("gone.needle").toString())).hasSize(1);
        assertThat(Launcher.opened("eval", bench)).containsExactly("eval", bench);
        assertThat(Launcher.opened()).isEmpty();
    }
}

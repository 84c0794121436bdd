package eagerneedle.app.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What cannot be read is told and stays. */
class UnreadTest {
    @TempDir
    private Path folder;

    private static void refuse(Path file) throws IOException {
        throw new IOException("torn at " + file.getFileName());
    }

    @Test
    void whatCanBeReadStaysWhereItIs() throws IOException {
        Path file = Files.writeString(folder.resolve("a.json"), "good");
        assertThat(Unread.rescued(file, "What was set", Files::readString)).isEmpty();
        assertThat(file).hasContent("good");
        assertThat(Unread.rescued(folder.resolve("none.json"), "What was set", UnreadTest::refuse))
                .isEmpty();
    }

    @Test
    void everyTornFileIsKeptUnderANameOfItsOwn() throws IOException {
        for (int i = 1; i <= 3; i++) {
            Path file = Files.writeString(folder.resolve("a.json"), "torn " + i);
            String aside = i == 1 ? "a-unread.json" : "a-unread-" + i + ".json";
            assertThat(Unread.rescued(file, "What was set", UnreadTest::refuse).orElseThrow())
                    .isEqualTo("What was set cannot be read, and all is as in the beginning. The old file is kept as "
                            + aside + ": mend it and call it a.json again, or begin anew.");
            assertThat(file).doesNotExist();
        }
        assertThat(folder.resolve("a-unread.json")).hasContent("torn 1");
        assertThat(folder.resolve("a-unread-2.json")).hasContent("torn 2");
        assertThat(folder.resolve("a-unread-3.json")).hasContent("torn 3");
    }
}

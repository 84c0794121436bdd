package eagerneedle.store.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Bench files of others are read without touching them, and only when nobody writes them. */
class ClosedCopyTest {
    private static final Instant DAY = Instant.parse("2026-11-28T10:00:00Z");

    @TempDir
    private Path folder;

    private Path bench() {
        Path file = folder.resolve("bench.needle");
        BenchFile.create(file, Session.start(SheetReader.shippedText("baggage-chute"), "A session", DAY))
                .close();
        return file;
    }

    @Test
    void theFileIsLeftAsItIs() throws IOException {
        Path file = bench();
        byte[] before = Files.readAllBytes(file);
        String digest;
        try (ClosedCopy copy = ClosedCopy.of(file)) {
            assertThat(copy.file().session().title()).isEqualTo("A session");
            digest = copy.digest();
            copy.file().save(copy.file().session(), DAY, "Something done to the copy.");
        }
        assertThat(Files.readAllBytes(file)).isEqualTo(before);
        assertThat(ClosedCopy.digest(file)).isEqualTo(digest).hasSize(64);
        try (var all = Files.list(folder)) {
            assertThat(all).containsExactly(file);
        }
    }

    @Test
    void oneThatIsOpenIsRefusedAndTakenOnceItIsClosed() {
        Path file = bench();
        try (BenchFile open = BenchFile.open(file)) {
            Session s = new RecordCommand.AddNote(DAY, "a note").apply(open.session());
            open.save(s, DAY, "Note.");
            assertThatThrownBy(() -> ClosedCopy.of(file).close())
                    .isInstanceOf(BenchFileException.class)
                    .hasMessageContaining("bench.needle is in use");
        }
        try (ClosedCopy copy = ClosedCopy.of(file)) {
            assertThat(copy.file().session().notes()).hasSize(1);
        }
    }

    @Test
    void whatIsNoBenchFileOrIsDamagedIsSaidByItsOwnName() throws IOException {
        Path text = Files.writeString(folder.resolve("text.needle"), "no database");
        assertThatThrownBy(() -> ClosedCopy.of(text)).hasMessageContaining("text.needle is not a bench file");
        Path file = bench();
        byte[] bytes = Files.readAllBytes(file);
        Files.write(file, Arrays.copyOf(bytes, bytes.length / 2));
        assertThatThrownBy(() -> ClosedCopy.of(file).close()).hasMessageStartingWith("bench.needle is cut short");
        assertThatThrownBy(() -> ClosedCopy.of(folder.resolve("none.needle"))).hasMessageContaining("is not there");
    }
}

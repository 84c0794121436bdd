package eagerneedle.app.workbench;

import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/** Text that was written and not taken over yet, kept beside the program's other things so that nothing is lost. */
public record Draft(Path file) {
    /** The sheet of a session. */
    public static Draft of(Path benchFile) {
        return named(FileName.of(benchFile) + "-"
                + Integer.toHexString(benchFile.toAbsolutePath().hashCode()));
    }

    /** A text of which this person has one. */
    public static Draft named(String name) {
        return new Draft(Home.folder().resolve("drafts").resolve(name + ".yaml"));
    }

    /** What was left; empty where nothing was, or it cannot be read. */
    public Optional<String> read() {
        try {
            return Files.exists(file) ? Optional.of(Files.readString(file)) : Optional.empty();
        } catch (IOException unreadable) {
            return Optional.empty();
        }
    }

    /** @throws IllegalArgumentException with one sentence when it cannot be kept */
    public void keep(String text) {
        try {
            Files.createDirectories(FileName.folder(file));
            Beside.write(file, text);
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    "What is written here cannot be kept in " + FileName.folder(file)
                            + "; make room there, or save it.",
                    e);
        }
    }

    /** There is nothing left to bring back. */
    public void forget() {
        try {
            Files.deleteIfExists(file);
        } catch (IOException stays) {
            // It is offered again next time.
        }
    }
}

package eagerneedle.app.writing;

import eagerneedle.app.workbench.Home;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/** Text that was written and not taken over yet, kept beside the program's other things so that nothing is lost. */
record Draft(Path file) {
    static Draft of(Path benchFile) {
        return new Draft(Home.folder()
                .resolve("drafts")
                .resolve(FileName.of(benchFile) + "-"
                        + Integer.toHexString(benchFile.toAbsolutePath().hashCode()) + ".yaml"));
    }

    Optional<String> read() {
        try {
            return Files.exists(file) ? Optional.of(Files.readString(file)) : Optional.empty();
        } catch (IOException unreadable) {
            return Optional.empty();
        }
    }

    /** @throws IllegalArgumentException with one sentence when it cannot be kept */
    void keep(String text) {
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

    void forget() {
        try {
            Files.deleteIfExists(file);
        } catch (IOException stays) {
            // It is offered again next time.
        }
    }
}

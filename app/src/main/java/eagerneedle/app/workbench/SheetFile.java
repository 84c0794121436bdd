package eagerneedle.app.workbench;

import eagerneedle.core.sheet.StockedLinks;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;

/** Sheets taken from files, with the instruments that their chains take from the stockroom of this user. */
public final class SheetFile {
    private SheetFile() {}

    /** @throws IOException when the file is none, or no text */
    public static String text(Path file) throws IOException {
        return StockedLinks.written(Files.readString(file), SheetFile::instrument);
    }

    private static Optional<Instrument> instrument(String serial) {
        Path own = Home.folder().resolve("stockroom.db");
        try (Stockroom s = Files.exists(own) ? Stockroom.at(own) : Stockroom.demonstration()) {
            return s.find(serial);
        }
    }
}

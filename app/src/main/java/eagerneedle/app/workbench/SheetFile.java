package eagerneedle.app.workbench;

import eagerneedle.core.sheet.PooledSheet;
import eagerneedle.core.sheet.StockedLinks;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.store.FileName;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Sheets taken from files, with the instruments that their chains take from the stockroom of this user, and the sheet
 * that a pool takes from, which stands in the same folder.
 */
public final class SheetFile {
    /** How many files of a folder are looked at for a sheet. */
    private static final int MOST = 200;

    private static final int LARGEST = 1_000_000;

    private SheetFile() {}

    /** @throws IOException when the file is none, or no text */
    public static String text(Path file) throws IOException {
        return PooledSheet.written(stocked(file), id -> beside(file, id));
    }

    private static String stocked(Path file) throws IOException {
        return StockedLinks.written(Files.readString(file), SheetFile::instrument);
    }

    /** The text of the sheet of an id in the same folder; what cannot be read is no sheet. */
    private static Optional<String> beside(Path file, String id) {
        Path folder = FileName.folder(file);
        try (Stream<Path> all = Files.list(folder)) {
            List<Path> sheets = all.filter(p -> FileName.of(p).matches(".*\\.ya?ml"))
                    .sorted(Comparator.comparing(p -> !FileName.of(p).startsWith(id + ".")))
                    .limit(MOST)
                    .toList();
            for (Path sheet : sheets) {
                Optional<String> text = readable(sheet);
                if (text.flatMap(PooledSheet::idOf).filter(id::equals).isPresent()) {
                    return text;
                }
            }
        } catch (IOException none) {
            return Optional.empty();
        }
        return Optional.empty();
    }

    private static Optional<String> readable(Path sheet) {
        try {
            return Files.size(sheet) > LARGEST ? Optional.empty() : Optional.of(stocked(sheet));
        } catch (IOException none) {
            return Optional.empty();
        }
    }

    private static Optional<Instrument> instrument(String serial) {
        Path own = Home.stockroom();
        try (Stockroom s = Files.exists(own) ? Stockroom.at(own) : Stockroom.demonstration()) {
            return s.find(serial);
        }
    }
}

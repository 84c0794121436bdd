package eagerneedle.app.command;

import eagerneedle.app.workbench.SheetFile;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Sheets from files. */
final class Sessions {
    private Sessions() {}

    /** A sheet from a file, checked. */
    static SheetReader.Located sheet(Path file) {
        return SheetTrial.read(text(file), FileName.of(file));
    }

    /** A sheet by its file, or by the id of a method that ships: what looks like a file is one. */
    static SheetReader.Located named(Path file) {
        String name = FileName.of(file);
        return Files.exists(file) || name.contains(".") || file.getNameCount() > 1
                ? sheet(file)
                : SheetTrial.read(SheetReader.shippedText(name), name + ".yaml");
    }

    /** The text of a sheet. */
    static String text(Path file) {
        try {
            return SheetFile.text(file);
        } catch (MalformedInputException e) {
            throw new SheetException(FileName.of(file), 0, 0, "this is not a text file; a sheet is YAML in UTF-8.", e);
        } catch (IOException e) {
            throw new SheetException(
                    FileName.of(file),
                    0,
                    0,
                    Files.exists(file) ? "the file cannot be read." : "there is no such file.",
                    e);
        }
    }
}

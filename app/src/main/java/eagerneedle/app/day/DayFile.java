package eagerneedle.app.day;

import eagerneedle.app.workbench.SheetFile;
import eagerneedle.core.day.Afternoon;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;

/** An afternoon as it is written in a file, planned with what a stockroom has. */
public final class DayFile {
    private DayFile() {}

    /**
     * Plans it.
     *
     * @param plan the afternoon; sheets that it names lie beside it, or ship
     * @param stockroom where the instruments are kept; those of the demonstration where there is no such file
     * @throws IllegalArgumentException with one sentence where something cannot be read
     */
    public static DayPlan read(Path plan, Path stockroom) {
        return of(text(plan), FileName.of(plan), FileName.folder(plan), stockroom);
    }

    /**
     * Plans one of which the text is at hand.
     *
     * @param where what messages call it
     * @param folder where sheets that it names may lie
     */
    public static DayPlan of(String text, String where, Path folder, Path stockroom) {
        Afternoon day = Afternoon.read(text, where);
        Map<String, Sheet> sheets = new LinkedHashMap<>();
        for (String m : day.methods().keySet()) {
            Path beside = folder.resolve(m);
            if (Files.exists(beside)) {
                sheets.put(m, SheetTrial.read(text(beside), m).sheet());
            } else if (SheetReader.shipped().contains(m)) {
                sheets.put(m, SheetReader.read(SheetReader.shippedText(m), m).sheet());
            } else {
                sheets.put(m, SheetTrial.read(text(Path.of(m)), m).sheet());
            }
        }
        try (Stockroom room = Files.exists(stockroom) ? Stockroom.at(stockroom) : Stockroom.demonstration()) {
            return DayPlan.of(day, sheets, room.all());
        }
    }

    /** An afternoon to begin with. */
    public static String example() {
        try (InputStream in = DayFile.class.getResourceAsStream("afternoon.yaml")) {
            return new String(Objects.requireNonNull(in).readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The text of a file. @throws IllegalArgumentException with one sentence where it cannot be read */
    public static String text(Path file) {
        try {
            return SheetFile.text(file);
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    FileName.of(file)
                            + (Files.exists(file)
                                    ? " cannot be read; it should be text in UTF-8."
                                    : ": there is no such file."),
                    e);
        }
    }
}

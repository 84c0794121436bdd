package eagerneedle.picture;

import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The drawing of a method's apparatus with the words of its call-outs, which are the labels of the sheet, so that a
 * drawing never calls a thing by another name than its sheet.
 *
 * @param words what each call-out says, by its name
 */
public record Apparatus(Drawing drawing, Map<String, String> words) {
    private static final Map<String, Optional<Drawing>> READ = new ConcurrentHashMap<>();

    public Apparatus {
        words = Map.copyOf(words);
    }

    /** The apparatus of a sheet; empty where its method ships no drawing. */
    public static Optional<Apparatus> of(Sheet sheet) {
        return drawing(sheet.id()).map(d -> new Apparatus(d, words(sheet)));
    }

    /** The drawing of a method that ships, without words. */
    public static Optional<Apparatus> plain(String id) {
        return drawing(id).map(d -> new Apparatus(d, Map.of()));
    }

    private static Optional<Drawing> drawing(String id) {
        return READ.computeIfAbsent(id, i -> SheetReader.shippedDrawing(i).map(Drawing::read));
    }

    /** What channels, inputs and cautions are called on a drawing. */
    static Map<String, String> words(Sheet sheet) {
        Map<String, String> out = new LinkedHashMap<>();
        sheet.channels().forEach((name, c) -> out.put(name, c.label()));
        sheet.inputs().forEach((name, i) -> out.put(name, i.label()));
        for (int i = 1; i <= sheet.cautions().size(); i++) {
            out.put("caution-" + i, "▲ caution " + i);
        }
        return out;
    }
}

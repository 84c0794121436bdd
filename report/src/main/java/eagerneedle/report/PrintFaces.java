package eagerneedle.report;

import eagerneedle.picture.Fonts;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * The faces for paper, without their rules for ligatures (the table GSUB of an OpenType font). The writer of pages
 * compiles these rules anew for every piece of text, which took more than half of the time of a report, and measures
 * text without them: what it replaced would not be as wide as the place that was left for it.
 */
final class PrintFaces {
    private static final Map<String, byte[]> FACES = new ConcurrentHashMap<>();
    /** Of the table of tables, in bytes: where it begins, and how long an entry is. */
    private static final int TABLES = 12;

    private static final int ENTRY = 16;

    private PrintFaces() {}

    static InputStream open(String file) {
        return new ByteArrayInputStream(FACES.computeIfAbsent(file, PrintFaces::read));
    }

    private static byte[] read(String file) {
        try (InputStream in = Fonts.open(file)) {
            return without("GSUB", in.readAllBytes());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * A font whose table of tables does not name one of them; the others stay where they are (OpenType 1.9,
     * Organization of an OpenType Font).
     */
    static byte[] without(String table, byte[] font) {
        ByteBuffer out = ByteBuffer.wrap(font.clone());
        int tables = out.getShort(4);
        for (int i = 0; i < tables; i++) {
            int at = TABLES + i * ENTRY;
            if (new String(font, at, 4, StandardCharsets.US_ASCII).equals(table)) {
                out.put(at, font, at + ENTRY, (tables - 1 - i) * ENTRY);
                out.putShort(4, (short) (tables - 1));
            }
        }
        return out.array();
    }
}

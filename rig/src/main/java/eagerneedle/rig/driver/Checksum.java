package eagerneedle.rig.driver;

import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;

/**
 * The checksum of a line: CRC-16 with polynomial 0x1021 and initial value 0xFFFF (CCITT), of the bytes before the
 * asterisk.
 */
public final class Checksum {
    private Checksum() {}

    /** Four hexadecimal digits. */
    public static String of(String line) {
        int crc = 0xFFFF;
        for (byte b : line.getBytes(StandardCharsets.ISO_8859_1)) {
            crc ^= (b & 0xFF) << 8;
            for (int i = 0; i < 8; i++) {
                crc = (crc & 0x8000) != 0 ? crc << 1 ^ 0x1021 : crc << 1;
            }
        }
        return String.format("%04X", crc & 0xFFFF);
    }

    /** The line without its checksum; null when it has none or it does not fit. */
    static @Nullable String without(String line) {
        int at = line.lastIndexOf('*');
        return at >= 0 && line.length() == at + 5 && of(line.substring(0, at)).equalsIgnoreCase(line.substring(at + 1))
                ? line.substring(0, at)
                : null;
    }
}

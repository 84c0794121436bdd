package eagerneedle.app.workbench;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;

/** Which version of the program this is; the build writes it down. */
public final class Version {
    private Version() {}

    /** Such as {@code 0.2.0}. */
    public static String number() {
        try (InputStream in = Version.class.getResourceAsStream("version.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8).strip();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

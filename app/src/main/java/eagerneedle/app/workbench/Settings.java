package eagerneedle.app.workbench;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/**
 * What a person has set and finds again next time.
 *
 * @param textSize of text, in percent
 * @param dark true for the dark theme
 * @param pinned what stands at the top of the ledger, by method
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Settings(int textSize, boolean dark, Map<String, List<String>> pinned) {
    public static final Settings USUAL = new Settings(100, false, Map.of());
    private static final ObjectMapper JSON = new ObjectMapper();

    public Settings {
        textSize = textSize <= 0 ? 100 : textSize;
        pinned = pinned == null ? Map.of() : Map.copyOf(pinned);
    }

    /** What stands in a file; the usual where there is none, or nothing that can be read. */
    public static Settings read(Path file) {
        try {
            return Files.exists(file) ? JSON.readValue(file.toFile(), Settings.class) : USUAL;
        } catch (IOException unreadable) {
            return USUAL;
        }
    }

    /** Keeps them; where that cannot be done the program goes on as it is set, and next time as before. */
    public void keep(Path file) {
        try {
            Files.createDirectories(FileName.folder(file));
            Beside.write(file, JSON.writeValueAsString(this));
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(Settings.class).warn("The settings could not be kept", e);
        }
    }
}

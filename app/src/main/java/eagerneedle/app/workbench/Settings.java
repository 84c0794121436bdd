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
 * @param asSystem true where the theme is that of the desktop; {@code dark} is then what it was last
 * @param pinned what stands at the top of the ledger, by method
 * @param bench the bench of the laboratory to which this machine belongs; empty for none
 * @param folder where new sessions are kept; empty for the usual place
 * @param window left, top, width and height of the window on the desktop; empty where it was never moved
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Settings(
        int textSize,
        boolean dark,
        boolean asSystem,
        Map<String, List<String>> pinned,
        String bench,
        String folder,
        List<Double> window) {
    public static final Settings USUAL = new Settings(100, false, false, Map.of(), "", "", List.of());
    /** What the file is called in the user's folder. */
    public static final String FILE = "settings.json";

    private static final ObjectMapper JSON = new ObjectMapper();

    public Settings {
        textSize = textSize <= 0 ? 100 : textSize;
        pinned = pinned == null ? Map.of() : Map.copyOf(pinned);
        bench = bench == null ? "" : bench;
        folder = folder == null ? "" : folder;
        window = window == null || window.size() != 4 ? List.of() : List.copyOf(window);
    }

    public Settings looking(int size, boolean inTheDark, boolean likeSystem) {
        return new Settings(size, inTheDark, likeSystem, pinned, bench, folder, window);
    }

    public Settings pinning(Map<String, List<String>> what) {
        return new Settings(textSize, dark, asSystem, what, bench, folder, window);
    }

    public Settings at(String newBench) {
        return new Settings(textSize, dark, asSystem, pinned, newBench, folder, window);
    }

    public Settings keepingIn(String newFolder) {
        return new Settings(textSize, dark, asSystem, pinned, bench, newFolder, window);
    }

    public Settings placed(double x, double y, double width, double height) {
        return new Settings(textSize, dark, asSystem, pinned, bench, folder, List.of(x, y, width, height));
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

package eagerneedle.app.workbench;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.JudgeCommand;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What a person has set and finds again next time.
 *
 * @param textSize of text, in percent
 * @param dark true for the dark theme
 * @param asSystem true where the theme is that of the desktop; {@code dark} is then what it was last
 * @param pinned what stands at the top of the ledger, by method
 * @param bench the bench of the laboratory to which this machine belongs; empty for none
 * @param folder where new sessions are kept; empty for the usual place
 * @param numbers how numbers are written, and how new sessions judge them
 * @param manner what is heard and what moves
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
        Numbers numbers,
        Manner manner,
        List<Double> window) {
    public static final Settings USUAL =
            new Settings(100, false, false, Map.of(), "", "", Numbers.USUAL, Manner.USUAL, List.of());
    /** What the file is called in the user's folder. */
    public static final String FILE = "settings.json";

    private static final ObjectMapper JSON = new ObjectMapper();

    /**
     * How numbers are written, and how new sessions judge them.
     *
     * @param decimal the sign between whole and tenths; null for that of the laboratory
     * @param coverage the coverage probability with which sessions begin
     * @param school the school with which sessions begin; null for that of the sheet
     */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Numbers(
            @Nullable DecimalSign decimal,
            double coverage,
            @Nullable School school) {
        public static final Numbers USUAL = new Numbers(null, 0, null);

        public Numbers {
            coverage = coverage > 0.5 && coverage < 1 ? coverage : Coverage.DEFAULT.probability();
        }

        /** What a session is told when it begins; empty where all is as usual. */
        public Optional<Command> first() {
            List<Command> acts = new ArrayList<>();
            if (coverage != Coverage.DEFAULT.probability()) {
                acts.add(new JudgeCommand.ChooseCoverage(coverage));
            }
            if (school != null) {
                acts.add(new JudgeCommand.ChooseSchool(school));
            }
            return acts.isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Command.Together(
                            "As set on this machine: "
                                    + acts.stream().map(Command::says).collect(Collectors.joining(" ")),
                            acts));
        }
    }

    /**
     * What is heard and what moves.
     *
     * @param sound whether a tone is heard when a reading is due, and when a run is over
     * @param still whether nothing moves that need not
     */
    @JsonIgnoreProperties(ignoreUnknown = true)
    public record Manner(boolean sound, boolean still) {
        public static final Manner USUAL = new Manner(false, false);
    }

    public Settings {
        textSize = textSize <= 0 ? 100 : textSize;
        pinned = pinned == null ? Map.of() : Map.copyOf(pinned);
        bench = bench == null ? "" : bench;
        folder = folder == null ? "" : folder;
        numbers = numbers == null ? Numbers.USUAL : numbers;
        manner = manner == null ? Manner.USUAL : manner;
        window = window == null || window.size() != 4 ? List.of() : List.copyOf(window);
    }

    public Settings looking(int size, boolean inTheDark, boolean likeSystem) {
        return new Settings(size, inTheDark, likeSystem, pinned, bench, folder, numbers, manner, window);
    }

    public Settings pinning(Map<String, List<String>> what) {
        return new Settings(textSize, dark, asSystem, what, bench, folder, numbers, manner, window);
    }

    public Settings at(String newBench) {
        return new Settings(textSize, dark, asSystem, pinned, newBench, folder, numbers, manner, window);
    }

    public Settings keepingIn(String newFolder) {
        return new Settings(textSize, dark, asSystem, pinned, bench, newFolder, numbers, manner, window);
    }

    public Settings writing(Numbers how) {
        return new Settings(textSize, dark, asSystem, pinned, bench, folder, how, manner, window);
    }

    public Settings behaving(Manner how) {
        return new Settings(textSize, dark, asSystem, pinned, bench, folder, numbers, how, window);
    }

    public Settings placed(double x, double y, double width, double height) {
        return new Settings(
                textSize, dark, asSystem, pinned, bench, folder, numbers, manner, List.of(x, y, width, height));
    }

    /** What stands in a file; the usual where there is none, or nothing that can be read: see {@link #rescued}. */
    public static Settings read(Path file) {
        try {
            Settings there = Files.exists(file) ? JSON.readValue(file.toFile(), Settings.class) : null;
            return there == null ? USUAL : there;
        } catch (IOException unreadable) {
            return USUAL;
        }
    }

    /** What to say of a file that cannot be read, which is put aside; empty where it can, or there is none. */
    public static Optional<String> rescued(Path file) {
        return Unread.rescued(file, "What was set on this machine", f -> JSON.readValue(f.toFile(), Settings.class));
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

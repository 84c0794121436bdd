package eagerneedle.app.training;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.app.workbench.Unread;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * How somebody has done so far.
 *
 * @param faces readings by the name of the face
 * @param hunts faults that were hunted, the first one first
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record TrainingProgress(Map<String, Read> faces, List<Hunted> hunts) {
    public static final TrainingProgress NONE = new TrainingProgress(Map.of(), List.of());
    private static final ObjectMapper JSON = new ObjectMapper();

    /**
     * Readings of one face.
     *
     * @param asked how many
     * @param values how many values were right
     * @param uncertainties how many uncertainties were
     */
    public record Read(int asked, int values, int uncertainties) {}

    /**
     * One hunt.
     *
     * @param method id of the method
     * @param fault what was hidden; empty for nothing
     * @param found whether it was named
     * @param remedied whether the remedy was right
     * @param seconds how long it took
     */
    public record Hunted(String method, String fault, boolean found, boolean remedied, long seconds) {}

    public TrainingProgress(@Nullable Map<String, Read> faces, @Nullable List<Hunted> hunts) {
        this.faces = faces == null ? Map.of() : Map.copyOf(faces);
        this.hunts = hunts == null ? List.of() : List.copyOf(hunts);
    }

    /** With one reading more. */
    public TrainingProgress with(String face, boolean value, boolean u) {
        Map<String, Read> more = new LinkedHashMap<>(faces);
        Read was = more.getOrDefault(face, new Read(0, 0, 0));
        more.put(face, new Read(was.asked() + 1, was.values() + (value ? 1 : 0), was.uncertainties() + (u ? 1 : 0)));
        return new TrainingProgress(more, hunts);
    }

    /** With one hunt more. */
    public TrainingProgress with(Hunted hunt) {
        List<Hunted> more = new ArrayList<>(hunts);
        more.add(hunt);
        return new TrainingProgress(faces, more);
    }

    /** What stands in a file; none where there is no such file, or nothing that can be read. */
    public static TrainingProgress read(Path file) {
        try {
            TrainingProgress there = Files.exists(file) ? JSON.readValue(file.toFile(), TrainingProgress.class) : null;
            return there == null ? NONE : there;
        } catch (IOException unreadable) {
            return NONE;
        }
    }

    /** What to say of a file that cannot be read, which is put aside; empty where it can, or there is none. */
    public static Optional<String> rescued(Path file) {
        return Unread.rescued(file, "What was learned so far", f -> JSON.readValue(f.toFile(), TrainingProgress.class));
    }

    /** Keeps it; where that cannot be done it is told in the log. */
    public void keep(Path file) {
        try {
            Files.createDirectories(FileName.folder(file));
            Beside.write(file, JSON.writeValueAsString(this));
        } catch (IOException e) {
            org.slf4j.LoggerFactory.getLogger(TrainingProgress.class).warn("The progress could not be kept", e);
        }
    }
}

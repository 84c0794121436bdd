package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import eagerneedle.core.capture.Prompts;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What people enter with a run.
 *
 * @param marks prompted readings: when each was due, when it was taken; empty for a run of another kind
 * @param byEye readings by eye, as written, by name
 * @param pictures attached pictures
 * @param resumed when the run was continued
 * @param voided spans of the run whose samples do not count, with a reason each
 * @param outputs what outputs stood at, as written with their unit, by name
 * @param insisted true when somebody took the run in although a rule of the sheet leaves it out
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Entries(
        List<Prompts.Mark> marks,
        Map<String, String> byEye,
        List<Picture> pictures,
        List<Instant> resumed,
        List<Voided> voided,
        boolean insisted,
        Map<String, String> outputs) {
    /** A run with which nothing was entered. */
    public static final Entries NONE =
            new Entries(List.of(), Map.of(), List.of(), List.of(), List.of(), false, Map.of());

    /** A picture: its number among the attachments of the bench file, and its name. */
    public record Picture(int attachment, String name) {}

    /** Samples from one moment to another, in s, that do not count, and why. They stay in the file. */
    public record Voided(double from, double to, String reason) {
        public boolean holds(double t) {
            return t >= from && t <= to;
        }
    }

    public Entries {
        marks = marks == null ? List.of() : List.copyOf(marks);
        byEye = byEye == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(byEye));
        pictures = pictures == null ? List.of() : List.copyOf(pictures);
        resumed = resumed == null ? List.of() : List.copyOf(resumed);
        voided = voided == null ? List.of() : List.copyOf(voided);
        outputs = outputs == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(outputs));
    }

    /** With what outputs stood at while it was taken. */
    public Entries with(Map<String, String> stood) {
        return new Entries(marks, byEye, pictures, resumed, voided, insisted, stood);
    }

    public Entries marked(List<Prompts.Mark> newMarks) {
        return new Entries(newMarks, byEye, pictures, resumed, voided, insisted, outputs);
    }

    /** With a reading by eye; without it when {@code reading} is null. */
    public Entries read(String name, @Nullable String reading) {
        Map<String, String> more = new LinkedHashMap<>(byEye);
        if (reading == null) {
            more.remove(name);
        } else {
            more.put(name, reading);
        }
        return new Entries(marks, more, pictures, resumed, voided, insisted, outputs);
    }

    public Entries pictured(Picture p) {
        return new Entries(marks, byEye, plus(pictures, p), resumed, voided, insisted, outputs);
    }

    public Entries resumedAt(Instant now) {
        return new Entries(marks, byEye, pictures, plus(resumed, now), voided, insisted, outputs);
    }

    public Entries voiding(Voided v) {
        return new Entries(marks, byEye, pictures, resumed, plus(voided, v), insisted, outputs);
    }

    /** With a span taken in again. */
    public Entries counting(Voided v) {
        return new Entries(
                marks,
                byEye,
                pictures,
                resumed,
                voided.stream().filter(x -> !x.equals(v)).toList(),
                insisted,
                outputs);
    }

    /** Taken in whatever the rules say, or not. */
    public Entries insisting(boolean taken) {
        return new Entries(marks, byEye, pictures, resumed, voided, taken, outputs);
    }

    private static <T> List<T> plus(List<T> list, T item) {
        List<T> more = new ArrayList<>(list);
        more.add(item);
        return more;
    }
}

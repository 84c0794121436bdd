package eagerneedle.app.classroom;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import eagerneedle.core.marking.Verdict;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What a marker decided, as a notebook: a line for every act, undoing among them, only ever added to. What stands is
 * what remains when the lines are gone through again.
 */
public final class MarkingBook {
    public static final String FILE = "marking.jsonl";
    private static final ObjectMapper JSON = new ObjectMapper();

    /** What can be done. */
    public enum Act {
        /** A verdict put in place of the program's. */
        OVERRULE,
        /** The program's verdict was looked at and stands. */
        AGREE,
        /** What a second marker thinks; the first one's stands. */
        SECOND,
        /** How many points a quantity has. */
        POINTS,
        /** What share of them a verdict earns. */
        CREDIT,
        /** Work that came late, and how that is dealt with. */
        LATE,
        UNDO,
        REDO
    }

    /** One line of the notebook. */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    public record Line(
            String at,
            Act act,
            @Nullable String by,
            @Nullable String student,
            @Nullable String quantity,
            @Nullable String value,
            @Nullable String reason) {
        /** In words, for people. */
        public String says() {
            String cell = (student == null ? "" : student) + (quantity == null ? "" : ", " + quantity);
            return switch (act) {
                case OVERRULE -> cell + ": " + value + " (" + reason + ")";
                case AGREE -> cell + ": looked at";
                case SECOND -> cell + ": second view " + value + " (" + reason + ")";
                case POINTS -> quantity + ": " + value + " points";
                case CREDIT -> "'" + quantity + "' earns " + value;
                case LATE -> student + ": late, " + reason;
                case UNDO -> "undone";
                case REDO -> "done again";
            };
        }
    }

    private final Path file;
    private final Clock clock;
    private final List<Line> standing = new ArrayList<>();
    private final List<Line> undone = new ArrayList<>();

    private MarkingBook(Path file, Clock clock) {
        this.file = file;
        this.clock = clock;
    }

    /**
     * The notebook of a class folder; an empty one where none was begun.
     *
     * @throws IllegalArgumentException with one sentence where a line cannot be read
     */
    public static MarkingBook open(Path folder, Clock clock) {
        MarkingBook book = new MarkingBook(folder.resolve(FILE), clock);
        if (Files.exists(book.file)) {
            try {
                for (String line : Files.readAllLines(book.file)) {
                    if (!line.isBlank()) {
                        book.take(JSON.readValue(line, Line.class));
                    }
                }
            } catch (JsonProcessingException e) {
                throw new IllegalArgumentException(
                        FileName.of(book.file) + " has a line that cannot be read; mend or remove it.", e);
            } catch (IOException e) {
                throw new IllegalArgumentException(FileName.of(book.file) + " cannot be read.", e);
            }
        }
        return book;
    }

    private void take(Line line) {
        switch (line.act()) {
            case UNDO -> {
                if (!standing.isEmpty()) {
                    undone.add(standing.remove(standing.size() - 1));
                }
            }
            case REDO -> {
                if (!undone.isEmpty()) {
                    standing.add(undone.remove(undone.size() - 1));
                }
            }
            default -> {
                standing.add(line);
                undone.clear();
            }
        }
    }

    private void write(
            Act act,
            @Nullable String by,
            @Nullable String student,
            @Nullable String quantity,
            @Nullable String value,
            @Nullable String reason) {
        Line line = new Line(clock.instant().toString(), act, by, student, quantity, value, reason);
        try {
            Files.writeString(
                    file, JSON.writeValueAsString(line) + "\n", StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    FileName.of(file) + " cannot be written; make room or choose another folder.", e);
        }
        take(line);
    }

    /** @throws IllegalArgumentException when no reason is given */
    public void overrule(String student, String quantity, Verdict verdict, String reason, String by) {
        if (reason.isBlank()) {
            throw new IllegalArgumentException("Say why: the reason stands in the notebook, and the student reads it.");
        }
        write(Act.OVERRULE, by, student, quantity, verdict.id(), reason.strip());
    }

    public void agree(String student, String quantity, String by) {
        write(Act.AGREE, by, student, quantity, null, null);
    }

    /** @throws IllegalArgumentException when no reason is given */
    public void second(String student, String quantity, Verdict verdict, String reason, String by) {
        if (reason.isBlank()) {
            throw new IllegalArgumentException("Say why: the first marker is to understand it.");
        }
        write(Act.SECOND, by, student, quantity, verdict.id(), reason.strip());
    }

    /** @throws IllegalArgumentException for less than none, or no number */
    public void points(String quantity, String points) {
        write(Act.POINTS, null, null, quantity, share(points, 1000, "Points are"), null);
    }

    /** @throws IllegalArgumentException for what is not between 0 and 1 */
    public void credit(Verdict verdict, String share) {
        write(Act.CREDIT, null, null, verdict.id(), share(share, 1, "A share is"), null);
    }

    private static String share(String text, double most, String what) {
        try {
            double v = Double.parseDouble(text.strip().replace(',', '.'));
            if (v >= 0 && v <= most) {
                return String.valueOf(v);
            }
        } catch (NumberFormatException e) {
            // Said below.
        }
        throw new IllegalArgumentException(
                what + " a number from 0 to " + Math.round(most) + "; '" + text.strip() + "' is not.");
    }

    public void late(String student, String how) {
        write(Act.LATE, null, student, null, null, how.isBlank() ? "handed in late" : how.strip());
    }

    public boolean canUndo() {
        return !standing.isEmpty();
    }

    public boolean canRedo() {
        return !undone.isEmpty();
    }

    /** Takes the last act back and says what it was. */
    public String undo() {
        String was = standing.get(standing.size() - 1).says();
        write(Act.UNDO, null, null, null, null, null);
        return was;
    }

    public String redo() {
        String was = undone.get(undone.size() - 1).says();
        write(Act.REDO, null, null, null, null, null);
        return was;
    }

    private Optional<Line> last(Act act, @Nullable String student, @Nullable String quantity) {
        return standing.stream()
                .filter(l -> l.act() == act
                        && java.util.Objects.equals(l.student(), student)
                        && java.util.Objects.equals(l.quantity(), quantity))
                .reduce((a, b) -> b);
    }

    public Optional<Line> overruled(String student, String quantity) {
        return last(Act.OVERRULE, student, quantity);
    }

    public Optional<Line> secondView(String student, String quantity) {
        return last(Act.SECOND, student, quantity);
    }

    /** True where the marker looked at it and agreed, or overruled it. */
    public boolean isSettled(String student, String quantity) {
        return last(Act.AGREE, student, quantity).isPresent()
                || overruled(student, quantity).isPresent();
    }

    public double points(String quantity) {
        return last(Act.POINTS, null, quantity)
                .map(l -> Double.parseDouble(String.valueOf(l.value())))
                .orElse(1.0);
    }

    public Optional<String> late(String student) {
        return last(Act.LATE, student, null).map(l -> String.valueOf(l.reason()));
    }

    /** What share of the points each verdict earns. */
    public Map<Verdict, Double> credits() {
        Map<Verdict, Double> out = new EnumMap<>(Verdict.class);
        for (Verdict v : Verdict.values()) {
            out.put(
                    v,
                    last(Act.CREDIT, null, v.id())
                            .map(l -> Double.parseDouble(String.valueOf(l.value())))
                            .orElse(usual(v)));
        }
        return out;
    }

    private static double usual(Verdict v) {
        return switch (v) {
            case RIGHT, ANOTHER_WAY, FOLLOWED -> 1;
            case DIGITS -> 0.9;
            case UNCERTAINTY -> 0.8;
            case UNIT -> 0.7;
            case POWER -> 0.5;
            case EXPLAINED -> 0.3;
            case UNEXPLAINED, MISSING -> 0;
        };
    }

    /** Every act that stands, in order, in words. */
    public List<String> says() {
        return standing.stream().map(l -> l.at() + " " + l.says()).toList();
    }

    /** Acts that stand, by what they are about; for tests of replaying. */
    Map<Act, Long> counts() {
        Map<Act, Long> out = new LinkedHashMap<>();
        standing.forEach(l -> out.merge(l.act(), 1L, Long::sum));
        return out;
    }
}

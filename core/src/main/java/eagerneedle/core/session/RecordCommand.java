package eagerneedle.core.session;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** What was said of the work: answers to watches, and notes. */
public sealed interface RecordCommand extends Command {
    /** Says to a watch why its finding is known, or acknowledges it; null takes that back. */
    record Explain(String finding, String message, @Nullable String text) implements RecordCommand {
        @Override
        public Session apply(Session s) {
            return s.withExplained(finding, text == null ? null : text.strip());
        }

        @Override
        public String says() {
            return text == null
                    ? "Took back what was said to the watch: " + message
                    : text.isBlank()
                            ? "Acknowledged the watch: " + message
                            : "Explained the watch '" + message + "': " + text.strip() + ".";
        }
    }

    record AddNote(Instant at, String text, java.util.List<Entries.Picture> pictures) implements RecordCommand {
        public AddNote(Instant at, String text) {
            this(at, text, java.util.List.of());
        }

        @Override
        public Session apply(Session s) {
            if (text.isBlank() && pictures.isEmpty()) {
                throw new IllegalArgumentException("The note is empty.");
            }
            return s.withNote(new Note(at, text.strip(), pictures));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Note: " + text.strip()
                    + (pictures.isEmpty()
                            ? ""
                            : (text.isBlank() ? "" : " ") + "(with "
                                    + String.join(
                                            ", ",
                                            pictures.stream()
                                                    .map(Entries.Picture::name)
                                                    .toList()) + ").");
        }
    }
}

package eagerneedle.core.session;

import java.time.Instant;
import java.util.List;

/** A free note with its pictures. */
public record Note(Instant at, String text, List<Entries.Picture> pictures) {
    public Note {
        pictures = pictures == null ? List.of() : List.copyOf(pictures);
    }

    public Note(Instant at, String text) {
        this(at, text, List.of());
    }
}

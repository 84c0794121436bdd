package eagerneedle.archive;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.time.LocalDate;
import java.util.List;

/**
 * What was written together. A batch is there once the file that lists it is, whole; files that no batch lists are left
 * over from a run that was stopped, and count for nothing.
 *
 * @param batch its number, growing
 * @param sessions what it holds
 * @param files its files, within the archive
 */
@JsonIgnoreProperties(ignoreUnknown = true)
record Batch(long batch, List<Source> sessions, List<String> files) {
    /**
     * A session, or something else that was taken in as a whole.
     *
     * @param session what it is known by from run to run
     * @param digest of the bytes it came from
     * @param people who took part, by pseudonym
     * @param expires until when they are kept
     */
    @JsonIgnoreProperties(ignoreUnknown = true)
    record Source(String session, String digest, List<String> people, LocalDate expires) {
        Source {
            people = List.copyOf(people);
        }
    }

    Batch {
        sessions = List.copyOf(sessions);
        files = List.copyOf(files);
    }
}

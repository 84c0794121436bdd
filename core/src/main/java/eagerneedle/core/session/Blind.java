package eagerneedle.core.session;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.time.Instant;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Working without seeing what the result is held against: references are hidden until the result is locked.
 *
 * @param since when the references were hidden
 * @param lockedAt when the results were locked and the references shown; null while they are hidden
 * @param locked the results as they were when they were locked, by comparison, with their unit
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Blind(Instant since, @Nullable Instant lockedAt, Map<String, String> locked) {
    public Blind {
        locked = locked == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(locked));
    }
}

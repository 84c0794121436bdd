package eagerneedle.core.sheet;

import com.fasterxml.jackson.annotation.JsonCreator;
import eagerneedle.core.formula.RowLabels;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Rows that a sheet draws from sessions of another method: every session is reduced by its own sheet, and what is taken
 * of it comes with all its influences, so that what two sessions share stays correlated.
 *
 * <p>Rows carry the labels of where they come from: the session under {@link #NAME}, and below it runs and members. So
 * they combine like all others, and a family needs no entry of its own here.
 *
 * @param from id of the method whose sessions are taken
 * @param take a formula over the results and columns of that sheet, by the name it has here
 * @param shared inputs and channels of that sheet that are one physical thing in all sessions, and
 *     {@code NAME.reference} for what a channel is calibrated against
 * @param sessions the sessions that are expected, each with the readings it is planned with
 */
public record Pool(
        String from, Map<String, String> take, List<String> shared, Map<String, Map<String, String>> sessions) {
    /** What its columns are called by: {@code pool.w}. */
    public static final String NAME = RowLabels.POOL;

    /** What ends the name of a channel where the reference it is calibrated against is meant. */
    public static final String REFERENCE = ".reference";

    /** A sheet that takes nothing from others. */
    public static final Pool NONE = new Pool("", Map.of(), List.of(), Map.of());

    public Pool {
        from = Sheet.orEmpty(from);
        take = Collections.unmodifiableMap(new LinkedHashMap<>(Sheet.orEmpty(take)));
        shared = Sheet.orEmpty(shared);
        sessions = Collections.unmodifiableMap(new LinkedHashMap<>(Sheet.orEmpty(sessions)));
    }

    /** From the entries of the block; {@code sessions} may be no more than how many there are. */
    @JsonCreator
    @SuppressWarnings("unchecked")
    static Pool of(Map<String, Object> entries) {
        Map<String, Map<String, String>> sessions = new LinkedHashMap<>();
        Object expected = entries.get("sessions");
        if (expected instanceof Number n) {
            for (int i = 1; i <= n.intValue(); i++) {
                sessions.put("session " + i, Map.of());
            }
        } else if (expected instanceof Map<?, ?> m) {
            m.forEach((name, readings) -> sessions.put((String) name, texts(readings)));
        }
        return new Pool(
                Sheet.orEmpty((String) entries.get("from")),
                texts(entries.get("take")),
                Sheet.orEmpty((List<String>) entries.get("shared")),
                sessions);
    }

    private static Map<String, String> texts(@Nullable Object of) {
        Map<String, String> out = new LinkedHashMap<>();
        if (of instanceof Map<?, ?> m) {
            m.forEach((k, v) -> out.put((String) k, String.valueOf(v)));
        }
        return out;
    }

    /** True for a sheet that takes rows from sessions of another. */
    public boolean isThere() {
        return !from.isEmpty();
    }

    /** Names of its columns in formulas. */
    public List<String> columns() {
        return take.keySet().stream().map(n -> NAME + "." + n).toList();
    }
}

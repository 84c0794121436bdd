package eagerneedle.app.workbench;

import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Sheet;
import java.util.Optional;

/** The runs that a sheet asks for, and how many of them a session has. */
public record Schedule(Session session, Sheet sheet) {
    /** How many runs of a level take part or are left out, discarded ones not counted. */
    public long runsAt(String capture, String level) {
        return session.keptRuns().stream()
                .filter(r -> r.capture().equals(capture) && r.level().equals(level))
                .count();
    }

    /** The capture and level that come next; empty when all are done. */
    public Optional<String[]> next() {
        for (var c : sheet.captures().entrySet()) {
            for (String level : c.getValue().levels().keySet()) {
                if (runsAt(c.getKey(), level) < session.repeats(sheet, c.getKey())) {
                    return Optional.of(new String[] {c.getKey(), level});
                }
            }
        }
        return Optional.empty();
    }
}

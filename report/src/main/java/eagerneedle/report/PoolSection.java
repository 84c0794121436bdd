package eagerneedle.report;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.session.PoolSource;
import eagerneedle.core.session.Session;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** The sessions that a pool took its rows from: which files, as they were, and what each gave. */
final class PoolSection {
    private PoolSection() {}

    static List<Map<String, Object>> of(Session session) {
        return session.sources().stream().map(PoolSection::row).toList();
    }

    private static Map<String, Object> row(PoolSource s) {
        Map<String, Object> row = new LinkedHashMap<>();
        row.put("name", s.name());
        row.put("title", s.title());
        row.put("file", s.file());
        row.put("digest", s.digest().length() > 16 ? s.digest().substring(0, 16) : s.digest());
        row.put(
                "values",
                s.columns().keySet().stream()
                        .map(c -> s.labels().getOrDefault(c, c) + ": "
                                + s.quantities(c).stream()
                                        .map(Quantity::toString)
                                        .collect(Collectors.joining("; ")))
                        .toList());
        row.put("remarks", s.remarks());
        row.put("leftOut", s.leftOut() == null ? "" : s.leftOut());
        return row;
    }
}

package eagerneedle.core.formula;

import eagerneedle.core.fit.Occasions;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What the rows of a column are called: each is a run at a level, or a member of a set, or both, so that rows are
 * addressed by what they are and never by counting.
 *
 * @param capture the capture whose runs they are; empty where they are members of sets alone
 * @param rows one a row
 * @param levels all levels of the capture, in the order of the sheet
 */
public record RowLabels(String capture, List<Row> rows, List<String> levels) {
    /**
     * One row.
     *
     * @param run the run, such as {@code run 12}; empty for none
     * @param level its level; empty for none
     * @param labels what it is, by capture and by set: {@code pull: run 12, casting: disc}
     */
    public record Row(String run, String level, Map<String, String> labels) {
        public Row {
            // In the order given: what rows are called is read by people.
            labels = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(labels));
        }

        public Row(String run, String level) {
            this(run, level, Map.of());
        }

        /** A member of a set. */
        public static Row member(String set, String member) {
            return new Row("", "", Map.of(set, member));
        }

        /** Both in one: what this row is and what another one is. */
        public Row with(Row other) {
            Map<String, String> all = new LinkedHashMap<>(labels);
            other.labels.forEach(all::putIfAbsent);
            return new Row(run.isEmpty() ? other.run : run, level.isEmpty() ? other.level : level, all);
        }
    }

    public RowLabels {
        levels = List.copyOf(levels);
        rows = capture.isEmpty()
                ? List.copyOf(rows)
                : rows.stream()
                        .map(r -> r.run().isEmpty() || r.labels().containsKey(capture)
                                ? r
                                : new Row(r.run(), r.level(), Map.of(capture, r.run())).with(r))
                        .toList();
    }

    /** What rows that come from other sessions are of, in the place of a capture. */
    public static final String POOL = "pool";

    /** True for rows that come from other sessions. */
    boolean isPooled() {
        return capture.equals(POOL);
    }

    /** Of members of sets. */
    public static RowLabels ofMembers(List<Row> rows) {
        return new RowLabels("", rows, List.of());
    }

    /** Of some of the rows, in an order. */
    public RowLabels only(List<Integer> which) {
        return new RowLabels(capture, which.stream().map(rows::get).toList(), levels);
    }

    /** By what rows are told from each other: names of captures and of sets. */
    Set<String> axes() {
        return rows.isEmpty()
                ? capture.isEmpty() ? Set.of() : Set.of(capture)
                : rows.get(0).labels().keySet();
    }

    /** Which readings the rows are, for fits: what is read in one run is read together. */
    Occasions occasions() {
        return new Occasions(
                capture,
                rows.stream()
                        .map(r -> r.labels().size() < 2
                                ? r.run()
                                : String.join(" ", r.labels().values()))
                        .toList());
    }

    /**
     * The number of the row at a level.
     *
     * @throws IllegalArgumentException when no row is, or several are
     */
    public int at(String level) {
        if (!levels.contains(level)) {
            throw new IllegalArgumentException(
                    "The capture " + capture + " has no level " + level + NearName.hint(level, levels));
        }
        List<Row> there = rows.stream().filter(r -> r.level().equals(level)).toList();
        if (there.size() != 1) {
            throw new IllegalArgumentException(
                    there.isEmpty()
                            ? "No run of " + capture + " at " + level + " counts; capture one, or take one in again."
                            : "There are " + there.size() + " runs of " + capture + " at " + level
                                    + "; leave out all but one.");
        }
        return rows.indexOf(there.get(0));
    }
}

package eagerneedle.core.formula;

import eagerneedle.core.fit.Occasions;
import java.util.List;

/**
 * What the rows of a column are called: each is a run at a level, so that rows are addressed by what they are and never
 * by counting.
 *
 * @param capture the capture whose runs they are
 * @param rows one a row
 * @param levels all levels of the capture, in the order of the sheet
 */
public record RowLabels(String capture, List<Row> rows, List<String> levels) {
    /**
     * One row.
     *
     * @param run the run, such as {@code run 12}
     * @param level its level
     */
    public record Row(String run, String level) {}

    public RowLabels {
        rows = List.copyOf(rows);
        levels = List.copyOf(levels);
    }

    /** Of some of the rows, in an order. */
    public RowLabels only(List<Integer> which) {
        return new RowLabels(capture, which.stream().map(rows::get).toList(), levels);
    }

    /** Which readings the rows are, for fits: what is read in one run is read together. */
    Occasions occasions() {
        return new Occasions(capture, rows.stream().map(Row::run).toList());
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

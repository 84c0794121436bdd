package eagerneedle.store.delimited;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Columns of numbers that were brought in from elsewhere.
 *
 * @param names one for each column
 * @param units one for each column, empty text where none is stated; a clock's column is in s
 * @param columns one array for each column; NaN where a cell was empty
 * @param clock which column told the time of day or the date; -1 for none. Its first moment is 0
 * @param start the first moment of that column where it had dates; null otherwise
 * @param remarks what was passed over or decided while reading, one sentence each
 */
public record Table(
        List<String> names,
        List<String> units,
        double[][] columns,
        int clock,
        @Nullable Instant start,
        List<String> remarks) {
    public Table {
        names = List.copyOf(names);
        units = List.copyOf(units);
        remarks = List.copyOf(remarks);
    }

    public int rows() {
        return columns.length == 0 ? 0 : columns[0].length;
    }
}

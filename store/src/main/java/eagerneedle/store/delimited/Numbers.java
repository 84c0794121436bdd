package eagerneedle.store.delimited;

import ch.randelshofer.fastdoubleparser.JavaDoubleParser;
import java.util.Arrays;

/** Rows of numbers as they are read: plain lines the quick way, anything else cell by cell from outside. */
final class Numbers {
    private static final int LONGEST = 64;
    private final double[][] columns;
    private final double[] row;
    private final char[] cell = new char[LONGEST];
    private int rows;

    Numbers(int width, int expected) {
        columns = new double[width][expected];
        row = new double[width];
    }

    /** Takes a line that holds exactly one plain number in every cell; false, and nothing taken, for any other. */
    boolean plain(String line, Dialect dialect) {
        int width = row.length;
        char separator = dialect.separator();
        if (separator == ' ' || line.isEmpty()) {
            return false;
        }
        int from = 0;
        for (int c = 0; c < width; c++) {
            if (dialect.clocks().get(c) != Clock.NUMBER) {
                return false;
            }
            int end = line.indexOf(separator, from);
            if ((c < width - 1) == (end < 0)) {
                return false;
            }
            int to = end < 0 ? line.length() : end;
            int n = 0;
            for (int i = from; i < to; i++) {
                char k = line.charAt(i);
                if (dialect.decimalComma() && k == '.'
                        || !dialect.decimalComma() && k == ','
                        || n == LONGEST
                        || k > 'e'
                        || k == '"') {
                    return false;
                }
                cell[n++] = dialect.decimalComma() && k == ',' ? '.' : k;
            }
            if (n == 0 || !digits(n)) {
                return false;
            }
            try {
                row[c] = JavaDoubleParser.parseDouble(cell, 0, n);
            } catch (NumberFormatException e) {
                return false;
            }
            if (!Double.isFinite(row[c])) {
                return false;
            }
            from = to + 1;
        }
        next();
        return true;
    }

    /** No letter but an exponent's: what Java takes for a number is more than what people write. */
    private boolean digits(int n) {
        for (int i = 0; i < n; i++) {
            char k = cell[i];
            if (!(k >= '0' && k <= '9' || k == '.' || k == '-' || k == '+' || k == 'e' || k == 'E' || k == ' ')) {
                return false;
            }
        }
        return true;
    }

    void set(int column, double value) {
        row[column] = value;
    }

    /** The row is complete. */
    void next() {
        if (rows == columns[0].length) {
            for (int c = 0; c < columns.length; c++) {
                columns[c] = Arrays.copyOf(columns[c], 2 * rows + 16);
            }
        }
        for (int c = 0; c < row.length; c++) {
            columns[c][rows] = row[c];
        }
        rows++;
    }

    int rows() {
        return rows;
    }

    double[][] columns() {
        for (int c = 0; c < columns.length; c++) {
            columns[c] = Arrays.copyOf(columns[c], rows);
        }
        return columns;
    }
}

package eagerneedle.store.delimited;

import ch.randelshofer.fastdoubleparser.JavaDoubleParser;
import java.util.Arrays;

/** Rows of numbers as they are read: plain lines the quick way, anything else cell by cell from outside. */
final class Numbers {
    private static final int LONGEST = 1 << 16;
    private static final int LONGEST_EXPONENT = 4;
    private static final int MOST_DIGITS = 18;
    private static final long EXACT = 1L << 53;
    private static final double[] POWERS = new double[23];

    static {
        for (int k = 0; k < POWERS.length; k++) {
            POWERS[k] = Double.parseDouble("1e" + k);
        }
    }

    private final double[][] columns;
    private final char separator;
    private final char decimal;
    /** True where every column is numbers, and cells are told apart by a sign. */
    private final boolean numbersOnly;

    private final char[] chars = new char[LONGEST + 1];
    private int rows;

    Numbers(Dialect dialect, int expected) {
        int width = dialect.names().size();
        columns = new double[width][expected];
        separator = dialect.separator();
        decimal = dialect.decimalComma() ? ',' : '.';
        numbersOnly = separator != ' ' && dialect.clocks().stream().allMatch(c -> c == Clock.NUMBER);
    }

    /** Takes a line that holds exactly one plain number in every cell; false, and nothing taken, for any other. */
    boolean plain(Lines lines, int line) {
        int length = lines.length(line);
        if (!numbersOnly || length == 0 || length > LONGEST) {
            return false;
        }
        lines.copy(line, chars);
        // Nothing of a number: every loop over a cell ends here at the latest.
        chars[length] = '\n';
        makeRoom();
        int from = 0;
        for (int c = 0; c < columns.length; c++) {
            int end = cell(from, length, c);
            if (end < 0 || (c < columns.length - 1) == (end == length)) {
                return false;
            }
            from = end + 1;
        }
        rows++;
        return true;
    }

    /**
     * Reads the number of a cell that begins at a place in the line.
     *
     * @return where the cell ends; -1 where it holds anything else than a number
     */
    private int cell(int from, int length, int column) {
        char[] k = chars;
        int i = from;
        while (k[i] == ' ') {
            i++;
        }
        int first = i;
        boolean negative = k[i] == '-';
        if (negative || k[i] == '+') {
            i++;
        }
        long mantissa = 0;
        int start = i;
        int d = k[i] - '0';
        while (d >= 0 && d <= 9) {
            mantissa = 10 * mantissa + d;
            d = k[++i] - '0';
        }
        int digits = i - start;
        int power = 0;
        if (k[i] == decimal) {
            start = ++i;
            // Four digits at a time do not wait for each other.
            while (i + 3 < k.length && isDigit(k[i]) && isDigit(k[i + 1]) && isDigit(k[i + 2]) && isDigit(k[i + 3])) {
                mantissa = 10_000 * mantissa
                        + (1000 * (k[i] - '0') + 100 * (k[i + 1] - '0') + 10 * (k[i + 2] - '0') + (k[i + 3] - '0'));
                i += 4;
            }
            d = k[i] - '0';
            while (d >= 0 && d <= 9) {
                mantissa = 10 * mantissa + d;
                d = k[++i] - '0';
            }
            power = start - i;
            digits -= power;
        }
        int last = i;
        if (k[i] != separator && i < length) {
            if (k[i] == 'e' || k[i] == 'E') {
                last = exponentEnd(i + 1);
                power += last < 0 ? 0 : exponent(i + 1, last);
                i = last;
            }
            while (i >= 0 && k[i] == ' ') {
                i++;
            }
            if (i < 0 || k[i] != separator && i < length) {
                return -1;
            }
        }
        if (digits == 0) {
            return -1;
        }
        double v = digits <= MOST_DIGITS && mantissa <= EXACT && power <= 0 && power >= -22
                ? mantissa / POWERS[-power]
                : value(mantissa, digits, power, first, last);
        columns[column][rows] = negative ? -v : v;
        return Double.isFinite(v) ? i : -1;
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    /** Where the exponent behind an e ends; -1 where there is none. */
    private int exponentEnd(int from) {
        int i = from;
        i += chars[i] == '-' || chars[i] == '+' ? 1 : 0;
        int digits = i;
        while (chars[i] >= '0' && chars[i] <= '9') {
            i++;
        }
        return i == digits || i - digits > LONGEST_EXPONENT ? -1 : i;
    }

    private int exponent(int from, int end) {
        int sign = chars[from] == '-' ? -1 : 1;
        int v = 0;
        for (int i = from; i < end; i++) {
            v = chars[i] >= '0' ? 10 * v + (chars[i] - '0') : v;
        }
        return sign * v;
    }

    /**
     * The number without its sign. A whole number below 2^53 and a power of ten up to 10^22 are both exact, so that one
     * multiplication or division rounds just once (Clinger 1990); all others are left to the general parser.
     */
    private double value(long mantissa, int digits, int power, int first, int end) {
        if (digits <= MOST_DIGITS && mantissa <= EXACT && power <= 22 && power >= -22) {
            return power < 0 ? mantissa / POWERS[-power] : mantissa * POWERS[power];
        }
        for (int i = first; i < end; i++) {
            chars[i] = chars[i] == decimal ? '.' : chars[i];
        }
        return Math.abs(JavaDoubleParser.parseDouble(chars, first, end - first));
    }

    /** Sets a number of the row that is being read. */
    void set(int column, double value) {
        makeRoom();
        columns[column][rows] = value;
    }

    /** The row is complete. */
    void next() {
        rows++;
    }

    private void makeRoom() {
        if (rows == columns[0].length) {
            for (int c = 0; c < columns.length; c++) {
                columns[c] = Arrays.copyOf(columns[c], 2 * rows + 16);
            }
        }
    }

    int rows() {
        return rows;
    }

    double[][] columns() {
        for (int c = 0; c < columns.length; c++) {
            columns[c] = columns[c].length == rows ? columns[c] : Arrays.copyOf(columns[c], rows);
        }
        return columns;
    }
}

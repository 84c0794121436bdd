package eagerneedle.store.delimited;

import java.util.List;

/**
 * How a delimited text is written. What is guessed can be put right.
 *
 * @param separator between cells; a blank stands for any run of blanks
 * @param decimalComma true where 1,5 means one and a half
 * @param headerLines lines before the first row of numbers
 * @param names column names
 * @param units column units, empty text where none is stated
 * @param clocks how each column is written: a number, a date, a time of day
 */
public record Dialect(
        char separator,
        boolean decimalComma,
        int headerLines,
        List<String> names,
        List<String> units,
        List<Clock> clocks) {
    public Dialect {
        clocks = List.copyOf(clocks);
        names = List.copyOf(names);
        units = List.copyOf(units);
    }

    public String separatorName() {
        return switch (separator) {
            case ',' -> "comma";
            case ';' -> "semicolon";
            case '\t' -> "tab";
            case '|' -> "bar";
            default -> "blank";
        };
    }

    public Dialect withUnit(int column, String unit) {
        List<String> u = new java.util.ArrayList<>(units);
        u.set(column, unit);
        return new Dialect(separator, decimalComma, headerLines, names, u, clocks);
    }
}

package eagerneedle.store.delimited;

import eagerneedle.core.quantity.Notation;
import java.util.ArrayList;
import java.util.List;

/** A delimited text in memory: its guessed dialect, a preview, and its columns as numbers. */
public final class DelimitedText {

    private final String file;
    private final String text;
    private final Lines lines;
    private final DialectGuess guess;
    private String grouped = "";
    private String uncertain = "";

    /** @param file name used in messages */
    public DelimitedText(String file, String text) {
        this.file = file;
        this.text = text.startsWith("\uFEFF") ? text.substring(1) : text;
        this.lines = new Lines(this.text);
        this.guess = new DialectGuess(file, lines);
    }

    /**
     * Guesses how the text is written: the separator and decimal sign that turn most lines into equally many numbers.
     *
     * @throws DelimitedException if no line holds numbers
     */
    public Dialect guess() {
        return guess.guess(text);
    }

    /**
     * The dialect with a separator and decimal sign put right by hand; header and units are found anew.
     *
     * @throws DelimitedException if no line holds numbers when it is read like that
     */
    public Dialect as(char separator, boolean comma) {
        return guess.as(separator, comma);
    }

    /** The first rows as cells, header lines not among them. */
    public List<List<String>> preview(Dialect dialect, int rows) {
        return lines.stream()
                .skip(dialect.headerLines())
                .filter(l -> !l.isBlank())
                .limit(rows)
                .map(l -> Cells.of(l, dialect.separator()))
                .toList();
    }

    /**
     * The columns as numbers.
     *
     * @return one array for each column of the dialect
     * @throws DelimitedException for the first cell that is missing or not a number, with its line
     */
    public double[][] columns(Dialect dialect) {
        int width = dialect.names().size();
        List<double[]> rows = new ArrayList<>();
        for (int i = dialect.headerLines(); i < lines.size(); i++) {
            if (lines.get(i).isBlank()) {
                continue;
            }
            List<String> cells = Cells.of(lines.get(i), dialect.separator());
            if (cells.size() != width) {
                throw wrongWidth(i, cells.size(), width);
            }
            double[] row = new double[width];
            for (int c = 0; c < width; c++) {
                row[c] = value(cells.get(c), dialect, i + 1, c);
            }
            rows.add(row);
        }
        if (rows.isEmpty()) {
            throw new DelimitedException(file + " holds no rows of numbers; export it again with its data.");
        }
        double[][] columns = new double[width][rows.size()];
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < width; c++) {
                columns[c][r] = rows.get(r)[c];
            }
        }
        return columns;
    }

    /**
     * The columns as numbers, gaps and repeated headers allowed: an empty cell is NaN, a header that comes again and a
     * comment are passed over, a last line that was cut short is left off; each is said in a remark.
     *
     * @throws DelimitedException for the first cell that is neither, with its line
     */
    public Table read(Dialect dialect) {
        int width = dialect.names().size();
        Numbers numbers = new Numbers(dialect, Math.max(16, lines.size() - dialect.headerLines()));
        List<String> remarks = new ArrayList<>();
        grouped = "";
        uncertain = "";
        int headers = 0;
        int[] gaps = new int[width];
        String header = dialect.headerLines() > 0 ? lines.get(dialect.headerLines() - 1) : null;
        for (int i = dialect.headerLines(); i < lines.size(); i++) {
            if (numbers.plain(lines, i)) {
                continue;
            }
            String line = lines.get(i);
            if (line.isBlank() || line.startsWith("#")) {
                continue;
            }
            List<String> cells = Cells.of(line, dialect.separator());
            if (line.equals(header)
                    || cells.size() == width
                            && cells.stream().noneMatch(c -> Cells.isValue(c, dialect.decimalComma()))
                            && cells.stream().anyMatch(c -> !c.isBlank())
                            && repeats(cells, dialect)) {
                headers++;
                continue;
            }
            if (cells.size() == width + 1 && cells.get(width).isBlank()) {
                cells = cells.subList(0, width);
            }
            if (cells.size() != width) {
                if (i == lines.size() - 1 && cells.size() < width && !text.endsWith("\n")) {
                    remarks.add("The last line is cut short and was left off.");
                    continue;
                }
                throw wrongWidth(i, cells.size(), width);
            }
            for (int c = 0; c < width; c++) {
                boolean empty = cells.get(c).isBlank();
                gaps[c] += empty ? 1 : 0;
                numbers.set(c, empty ? Double.NaN : value(cells.get(c), dialect, i + 1, c));
            }
            numbers.next();
        }
        if (numbers.rows() == 0) {
            throw new DelimitedException(file + " holds no rows of numbers; export it again with its data.");
        }
        if (headers > 0) {
            remarks.add("The header comes again " + (headers == 1 ? "once" : headers + " times")
                    + "; those lines were passed over.");
        }
        for (int c = 0; c < width; c++) {
            if (gaps[c] > 0) {
                remarks.add("The column '" + dialect.names().get(c) + "' is empty in " + gaps[c]
                        + (gaps[c] == 1 ? " row." : " rows."));
            }
        }
        if (!grouped.isEmpty()) {
            double first = WrittenNumber.of(grouped, dialect.decimalComma())
                    .orElseThrow()
                    .value();
            remarks.add("Thousands stand in groups: '" + grouped + "' was read as " + Notation.plain(first, 12) + ".");
        }
        if (!uncertain.isEmpty()) {
            remarks.add("Uncertainties stand behind values of '" + uncertain
                    + "'; a table has no place for them, and they were left off.");
        }
        return timed(numbers.columns(), dialect, remarks);
    }

    /** A line of words only that are the column names again, or their units. */
    private static boolean repeats(List<String> cells, Dialect dialect) {
        for (int c = 0; c < cells.size(); c++) {
            String cell = cells.get(c).strip();
            if (!cell.startsWith(dialect.names().get(c))
                    && !Heading.stripped(cell).equals(dialect.units().get(c))
                    && !(cell.isBlank() && dialect.units().get(c).isEmpty())) {
                return false;
            }
        }
        return true;
    }

    private Table timed(double[][] columns, Dialect dialect, List<String> remarks) {
        return new TimeColumns(columns, dialect, remarks)
                .told((c, how) -> how != Clock.ISO
                        && Clock.ambiguous(
                                guess.sample(dialect.separator(), dialect.headerLines(), columns.length, c)));
    }

    private double value(String cell, Dialect dialect, int line, int column) {
        Clock clock = dialect.clocks().get(column);
        if (clock == Clock.NUMBER) {
            return number(cell, dialect, line, column);
        }
        return clock.seconds(cell)
                .orElseThrow(() -> new DelimitedException(
                        ("%s, line %d, column '%s': '%s' is not a moment like those above; correct the cell or "
                                        + "delete the line.")
                                .formatted(file, line, dialect.names().get(column), cell.strip())));
    }

    private DelimitedException wrongWidth(int i, int size, int width) {
        return new DelimitedException(
                "%s, line %d: %d %s where %d are expected; put the missing column right or choose another separator."
                        .formatted(file, i + 1, size, size == 1 ? "value" : "values", width));
    }

    private double number(String cell, Dialect dialect, int line, int column) {
        WrittenNumber n = WrittenNumber.of(cell, dialect.decimalComma()).orElse(null);
        if (n == null) {
            String hint = Cells.isNumber(cell, !dialect.decimalComma())
                    ? "; it looks like a decimal " + (dialect.decimalComma() ? "point" : "comma") + ", choose that"
                    : "; correct the cell or delete the line";
            throw new DelimitedException("%s, line %d, column '%s': '%s' is not a number%s."
                    .formatted(file, line, dialect.names().get(column), cell.strip(), hint));
        }
        if (!Double.isFinite(n.value())) {
            throw new DelimitedException(
                    "%s, line %d, column '%s': %s is too large to compute with; correct the cell or delete the line."
                            .formatted(file, line, dialect.names().get(column), cell.strip()));
        }
        if (n.grouped() && grouped.isEmpty()) {
            grouped = cell.strip();
        }
        if (n.uncertain() && uncertain.isEmpty()) {
            uncertain = dialect.names().get(column);
        }
        return n.value();
    }
}

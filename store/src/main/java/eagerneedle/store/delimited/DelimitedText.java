package eagerneedle.store.delimited;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import java.io.IOException;
import java.io.StringReader;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** A delimited text in memory: its guessed dialect, a preview, and its columns as numbers. */
public final class DelimitedText {
    private static final char[] SEPARATORS = {';', '\t', '|', ',', ' '};
    private static final int LOOK_AT = 60;
    private static final int MOST_COLUMNS = 4096;
    private static final Pattern WITH_UNIT =
            Pattern.compile("(.*?)\\s*(?:\\[(.*)]|\\((.*)\\)|\\s/\\s*(\\S+)|/\\s(\\S+))\\s*");

    private static final Pattern WITH_COMMA =
            Pattern.compile("[+-]?(\\d+|\\d{1,3}(\\.\\d{3})+)?(,\\d*)?([eE][+-]?\\d+)?");
    private static final Pattern WITH_POINT = Pattern.compile("[+-]?(\\d+\\.?\\d*|\\.\\d+)([eE][+-]?\\d+)?");

    private final String file;
    private final String text;
    private final Lines lines;

    /** @param file name used in messages */
    public DelimitedText(String file, String text) {
        this.file = file;
        this.text = text.startsWith("\uFEFF") ? text.substring(1) : text;
        this.lines = new Lines(this.text);
    }

    /**
     * Guesses how the text is written: the separator and decimal sign that turn most lines into equally many numbers.
     *
     * @throws DelimitedException if no line holds numbers
     */
    public Dialect guess() {
        if (text.indexOf('\0') >= 0) {
            throw new DelimitedException(file + " is not a text file; export it from its program as CSV first.");
        }
        checkWidth();
        double best = 0;
        Dialect found = null;
        for (char separator : SEPARATORS) {
            for (boolean comma : new boolean[] {false, true}) {
                if (comma && separator == ',') {
                    continue;
                }
                int header = headerLines(separator, comma);
                if (header < 0) {
                    continue;
                }
                double score = score(separator, comma, header);
                if (score > best) {
                    best = score;
                    found = describe(separator, comma, header);
                }
            }
        }
        if (found == null) {
            boolean header = lines.stream().anyMatch(l -> !l.isBlank());
            throw new DelimitedException(file
                    + (header
                            ? " holds no rows of numbers under its header; export it again with its data."
                            : " is empty; export it again."));
        }
        return found;
    }

    /** Looks at the width before the cells: taking a very wide line apart in every way would take long. */
    private void checkWidth() {
        for (String line : lines.subList(0, Math.min(lines.size(), LOOK_AT))) {
            for (char separator : new char[] {';', '\t', '|', ','}) {
                checkWidth(line.chars().filter(c -> c == separator).count() + 1);
            }
        }
    }

    private void checkWidth(long width) {
        if (width > MOST_COLUMNS) {
            throw new DelimitedException(String.format(
                    java.util.Locale.ROOT,
                    "%s has %d columns; at most %d are read. Export the ones that are wanted.",
                    file,
                    width,
                    MOST_COLUMNS));
        }
    }

    /**
     * The dialect with a separator and decimal sign put right by hand; header and units are found anew.
     *
     * @throws DelimitedException if no line holds numbers when it is read like that
     */
    public Dialect as(char separator, boolean comma) {
        int header = comma && separator == ',' ? -1 : headerLines(separator, comma);
        if (header < 0) {
            throw new DelimitedException(file + " holds no numbers when it is read like that.");
        }
        return describe(separator, comma, header);
    }

    private int headerLines(char separator, boolean comma) {
        for (int i = 0; i < Math.min(lines.size(), LOOK_AT); i++) {
            List<String> cells = cells(lines.get(i), separator);
            long numbers = cells.stream().filter(c -> isValue(c, comma)).count();
            if (numbers > 0 && 2 * numbers >= cells.size()) {
                return i;
            }
        }
        return -1;
    }

    private double score(char separator, boolean comma, int header) {
        int width = cells(lines.get(header), separator).size();
        double good = 0;
        double bad = 0;
        for (int i = header; i < Math.min(lines.size(), header + LOOK_AT); i++) {
            if (lines.get(i).isBlank()) {
                continue;
            }
            List<String> cells = cells(lines.get(i), separator);
            long numbers =
                    cells.stream().filter(c -> c.isBlank() || isValue(c, comma)).count();
            if (cells.size() == width && numbers == width) {
                good++;
            } else {
                bad++;
            }
        }
        double agreement = good / Math.max(1, good + bad);
        boolean headerFits =
                header > 0 && cells(lines.get(header - 1), separator).size() == width;
        boolean usedSign = lines.stream().skip(header).limit(LOOK_AT).anyMatch(l -> l.indexOf(comma ? ',' : '.') >= 0);
        return agreement
                * (width > 1 ? 1 : 0.3)
                * (headerFits || header == 0 ? 1 : 0.8)
                * (usedSign ? 1 : 0.95)
                * (separator == ' ' ? 0.9 : 1);
    }

    private Dialect describe(char separator, boolean comma, int header) {
        int width = cells(lines.get(header), separator).size();
        checkWidth(width);
        List<String> names = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<String> above = header > 0 ? cells(lines.get(header - 1), separator) : List.of();
        List<String> twoAbove = header > 1 ? cells(lines.get(header - 2), separator) : List.of();
        boolean unitRow = above.size() == width
                && twoAbove.size() == width
                && above.stream().allMatch(c -> c.isBlank() || isUnit(stripped(c)))
                && twoAbove.stream().anyMatch(c -> !c.isBlank());
        List<String> titles = unitRow ? twoAbove : above;
        for (int i = 0; i < width; i++) {
            String title = titles.size() == width ? titles.get(i).strip() : "";
            Heading heading = unitRow ? new Heading(title, stripped(above.get(i))) : heading(title);
            names.add(heading.name().isEmpty() ? "column " + (i + 1) : heading.name());
            units.add(heading.unit());
        }
        List<Clock> clocks = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            clocks.add(Clock.of(sample(separator, header, width, c)));
        }
        return new Dialect(separator, comma, header, names, units, clocks);
    }

    /** What a column is called and the unit it states; empty where it states none. */
    public record Heading(String name, String unit) {}

    /**
     * Takes a heading such as {@code Position [mm]}, {@code Time (minutes)} or {@code v / m/s} apart. What stands in
     * brackets is a unit even if it is not known here: it must be asked for, and is never taken for the one that was
     * expected. The name then stays whole.
     */
    public static Heading heading(String title) {
        Matcher m = WITH_UNIT.matcher(title);
        if (!m.matches()) {
            return new Heading(title.strip(), "");
        }
        String stated = java.util.stream.Stream.of(m.group(2), m.group(3), m.group(4), m.group(5))
                .filter(java.util.Objects::nonNull)
                .findFirst()
                .orElse("")
                .strip();
        if (isUnit(stated)) {
            return new Heading(m.group(1).strip(), stated);
        }
        boolean bracketed = m.group(2) != null || m.group(3) != null;
        return new Heading(title.strip(), bracketed && stated.codePoints().anyMatch(Character::isLetter) ? stated : "");
    }

    /** Cells of a column from its first rows that are not empty. */
    private List<String> sample(char separator, int header, int width, int column) {
        List<String> out = new ArrayList<>();
        for (int i = header; i < Math.min(lines.size(), header + LOOK_AT); i++) {
            List<String> cells = lines.get(i).isBlank() ? List.of() : cells(lines.get(i), separator);
            if (cells.size() == width
                    && !cells.get(column).isBlank()
                    && (isValue(cells.get(column), true) || isValue(cells.get(column), false))) {
                out.add(cells.get(column).strip());
            }
        }
        return out;
    }

    private static boolean isValue(String cell, boolean comma) {
        return isNumber(cell, comma) || Clock.isMoment(cell.strip());
    }

    private static String stripped(String unit) {
        return unit.strip().replaceAll("^[\\[(]|[\\])]$", "");
    }

    private static boolean isUnit(String s) {
        try {
            LabUnit.parse(s);
            return !s.isBlank();
        } catch (UnitException e) {
            return false;
        }
    }

    /** The first rows as cells, header lines not among them. */
    public List<List<String>> preview(Dialect dialect, int rows) {
        return lines.stream()
                .skip(dialect.headerLines())
                .filter(l -> !l.isBlank())
                .limit(rows)
                .map(l -> cells(l, dialect.separator()))
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
            List<String> cells = cells(lines.get(i), dialect.separator());
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
            List<String> cells = cells(line, dialect.separator());
            if (line.equals(header)
                    || cells.size() == width
                            && cells.stream().noneMatch(c -> isValue(c, dialect.decimalComma()))
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
        return timed(numbers.columns(), dialect, remarks);
    }

    /** A line of words only that are the column names again, or their units. */
    private static boolean repeats(List<String> cells, Dialect dialect) {
        for (int c = 0; c < cells.size(); c++) {
            String cell = cells.get(c).strip();
            if (!cell.startsWith(dialect.names().get(c))
                    && !stripped(cell).equals(dialect.units().get(c))
                    && !(cell.isBlank() && dialect.units().get(c).isEmpty())) {
                return false;
            }
        }
        return true;
    }

    private Table timed(double[][] columns, Dialect dialect, List<String> remarks) {
        int clock = -1;
        Instant start = null;
        List<String> units = new ArrayList<>(dialect.units());
        for (int c = columns.length - 1; c >= 0; c--) {
            Clock how = dialect.clocks().get(c);
            if (how == Clock.NUMBER) {
                continue;
            }
            if (how == Clock.TIME_OF_DAY) {
                Clock.overMidnight(columns[c]);
            } else if (how != Clock.ISO
                    && Clock.ambiguous(sample(dialect.separator(), dialect.headerLines(), columns.length, c))) {
                remarks.add("Dates of '" + dialect.names().get(c) + "' were read with "
                        + (how == Clock.DAY_FIRST ? "the day" : "the month") + " first.");
            }
            double first = columns[c][0];
            for (int i = 0; i < columns[c].length; i++) {
                // Dates are large numbers: what is left of the difference is rounded to the nanosecond that they can
                // hold.
                columns[c][i] = Math.rint((columns[c][i] - first) * 1e6) / 1e6;
            }
            units.set(c, "s");
            clock = c;
            start = how.hasDate() ? Instant.ofEpochMilli(Math.round(first * 1e3)) : start;
        }
        return new Table(dialect.names(), units, columns, clock, start, remarks);
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
        String plain = cell.strip().replace('\u2212', '-');
        if (!isNumber(plain, dialect.decimalComma())) {
            String hint = isNumber(plain, !dialect.decimalComma())
                    ? "; it looks like a decimal " + (dialect.decimalComma() ? "point" : "comma") + ", choose that"
                    : "; correct the cell or delete the line";
            throw new DelimitedException("%s, line %d, column '%s': '%s' is not a number%s."
                    .formatted(file, line, dialect.names().get(column), cell.strip(), hint));
        }
        double v = Double.parseDouble(
                dialect.decimalComma() ? plain.replace(".", "").replace(',', '.') : plain);
        if (!Double.isFinite(v)) {
            throw new DelimitedException(
                    "%s, line %d, column '%s': %s is too large to compute with; correct the cell or delete the line."
                            .formatted(file, line, dialect.names().get(column), cell.strip()));
        }
        return v;
    }

    private static boolean isNumber(String cell, boolean comma) {
        String c = cell.strip().replace('\u2212', '-');
        return (comma ? WITH_COMMA : WITH_POINT).matcher(c).matches()
                && c.chars().anyMatch(k -> k >= '0' && k <= '9');
    }

    /** A line without quotes needs no reader of its own. */
    private static List<String> plainCells(String line, char separator) {
        if (line.isEmpty()) {
            return List.of();
        }
        List<String> cells = new ArrayList<>();
        int from = 0;
        for (int end = line.indexOf(separator); end >= 0; end = line.indexOf(separator, from)) {
            cells.add(cell(line.substring(from, end), separator));
            from = end + 1;
        }
        cells.add(cell(line.substring(from), separator));
        return cells;
    }

    private static String cell(String text, char separator) {
        return separator == '\t' ? text : text.strip();
    }

    private static List<String> cells(String line, char separator) {
        if (separator == ' ') {
            return List.of(line.strip().split("\\s+"));
        }
        if (line.indexOf('"') < 0) {
            return plainCells(line, separator);
        }
        try (CSVParser parser = CSVFormat.DEFAULT
                .builder()
                .setDelimiter(separator)
                .setIgnoreSurroundingSpaces(separator != '\t')
                .get()
                .parse(new StringReader(line))) {
            List<CSVRecord> records = parser.getRecords();
            return records.isEmpty() ? List.of() : records.get(0).toList();
        } catch (IOException | IllegalStateException | IllegalArgumentException | java.io.UncheckedIOException e) {
            return List.of(line.split(Pattern.quote(String.valueOf(separator)), -1));
        }
    }
}

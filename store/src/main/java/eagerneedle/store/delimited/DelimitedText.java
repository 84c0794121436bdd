package eagerneedle.store.delimited;

import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.UnitException;
import java.io.IOException;
import java.io.StringReader;
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
    private static final Pattern WITH_UNIT = Pattern.compile("(.*?)\\s*(?:\\[(.*)]|\\((.*)\\)|\\s/\\s*(\\S+)|/\\s(\\S+))\\s*");

    private final String file;
    private final String text;
    private final List<String> lines;

    /** @param file name used in messages */
    public DelimitedText(String file, String text) {
        this.file = file;
        this.text = text.startsWith("\uFEFF") ? text.substring(1) : text;
        this.lines = this.text.lines().toList();
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
            throw new DelimitedException(file + (header ? " holds no rows of numbers under its header; export it again with its data." : " is empty; export it again."));
        }
        return found;
    }

    private int headerLines(char separator, boolean comma) {
        for (int i = 0; i < Math.min(lines.size(), LOOK_AT); i++) {
            List<String> cells = cells(lines.get(i), separator);
            long numbers = cells.stream().filter(c -> isNumber(c, comma)).count();
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
            long numbers = cells.stream().filter(c -> isNumber(c, comma)).count();
            if (cells.size() == width && numbers == width) {
                good++;
            } else {
                bad++;
            }
        }
        double agreement = good / Math.max(1, good + bad);
        boolean headerFits = header > 0 && cells(lines.get(header - 1), separator).size() == width;
        boolean usedSign = lines.stream().skip(header).limit(LOOK_AT).anyMatch(l -> l.indexOf(comma ? ',' : '.') >= 0);
        return agreement * (width > 1 ? 1 : 0.3) * (headerFits || header == 0 ? 1 : 0.8) * (usedSign ? 1 : 0.95) * (separator == ' ' ? 0.9 : 1);
    }

    private Dialect describe(char separator, boolean comma, int header) {
        int width = cells(lines.get(header), separator).size();
        List<String> names = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<String> above = header > 0 ? cells(lines.get(header - 1), separator) : List.of();
        List<String> twoAbove = header > 1 ? cells(lines.get(header - 2), separator) : List.of();
        boolean unitRow = above.size() == width && twoAbove.size() == width && above.stream().allMatch(c -> c.isBlank() || isUnit(stripped(c)))
                && twoAbove.stream().anyMatch(c -> !c.isBlank());
        List<String> titles = unitRow ? twoAbove : above;
        for (int i = 0; i < width; i++) {
            String title = titles.size() == width ? titles.get(i).strip() : "";
            Matcher m = WITH_UNIT.matcher(title);
            String unit = unitRow ? stripped(above.get(i)) : "";
            if (!unitRow && m.matches()) {
                String stated = java.util.stream.Stream.of(m.group(2), m.group(3), m.group(4), m.group(5)).filter(java.util.Objects::nonNull).findFirst().orElse("").strip();
                if (isUnit(stated)) {
                    unit = stated;
                    title = m.group(1).strip();
                }
            }
            names.add(title.isEmpty() ? "column " + (i + 1) : title);
            units.add(unit);
        }
        return new Dialect(separator, comma, header, names, units);
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
        return lines.stream().skip(dialect.headerLines()).filter(l -> !l.isBlank()).limit(rows).map(l -> cells(l, dialect.separator())).toList();
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
                throw new DelimitedException("%s, line %d: %d %s where %d are expected; put the missing column right or choose another separator."
                        .formatted(file, i + 1, cells.size(), cells.size() == 1 ? "value" : "values", width));
            }
            double[] row = new double[width];
            for (int c = 0; c < width; c++) {
                row[c] = number(cells.get(c), dialect, i + 1, c);
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

    private double number(String cell, Dialect dialect, int line, int column) {
        String plain = cell.strip().replace('\u2212', '-');
        if (!isNumber(plain, dialect.decimalComma())) {
            String hint = isNumber(plain, !dialect.decimalComma()) ? "; it looks like a decimal " + (dialect.decimalComma() ? "point" : "comma") + ", choose that"
                    : "; correct the cell or delete the line";
            throw new DelimitedException("%s, line %d, column '%s': '%s' is not a number%s.".formatted(file, line, dialect.names().get(column), cell.strip(), hint));
        }
        return Double.parseDouble(dialect.decimalComma() ? plain.replace(".", "").replace(',', '.') : plain);
    }

    private static boolean isNumber(String cell, boolean comma) {
        String c = cell.strip().replace('\u2212', '-');
        return c.matches(comma ? "[+-]?(\\d+|\\d{1,3}(\\.\\d{3})+)?(,\\d*)?([eE][+-]?\\d+)?" : "[+-]?(\\d+\\.?\\d*|\\.\\d+)([eE][+-]?\\d+)?") && c.matches(".*\\d.*");
    }

    private static List<String> cells(String line, char separator) {
        if (separator == ' ') {
            return List.of(line.strip().split("\\s+"));
        }
        try (CSVParser parser = CSVFormat.DEFAULT.builder().setDelimiter(separator).setIgnoreSurroundingSpaces(separator != '\t').get().parse(new StringReader(line))) {
            List<CSVRecord> records = parser.getRecords();
            return records.isEmpty() ? List.of() : records.get(0).toList();
        } catch (IOException | IllegalStateException | IllegalArgumentException | java.io.UncheckedIOException e) {
            return List.of(line.split(Pattern.quote(String.valueOf(separator)), -1));
        }
    }
}

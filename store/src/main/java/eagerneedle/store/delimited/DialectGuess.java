package eagerneedle.store.delimited;

import java.util.ArrayList;
import java.util.List;

/** Looks at the first lines of a text to tell how it is written. */
final class DialectGuess {
    private static final char[] SEPARATORS = {';', '\t', '|', ',', ' '};
    private static final int LOOK_AT = 60;
    private static final int MOST_COLUMNS = 4096;

    private final String file;
    private final List<String> lines;

    DialectGuess(String file, List<String> lines) {
        this.file = file;
        this.lines = lines;
    }

    /**
     * Guesses how the text is written: the separator and decimal sign that turn most lines into equally many numbers.
     *
     * @throws DelimitedException if no line holds numbers
     */
    Dialect guess(String text) {
        if (text.indexOf('\0') >= 0) {
            throw new DelimitedException(file + " is not a text file; export it from its program as CSV first.");
        }
        checkWidth();
        double best = 0;
        Dialect found = null;
        // Only in quotes can a comma be a decimal sign between commas.
        boolean quoted = lines.stream().limit(LOOK_AT).anyMatch(l -> l.indexOf('"') >= 0);
        for (char separator : SEPARATORS) {
            for (boolean comma : new boolean[] {false, true}) {
                if (comma && separator == ',' && !quoted) {
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
    Dialect as(char separator, boolean comma) {
        boolean quoted = lines.stream().limit(LOOK_AT).anyMatch(l -> l.indexOf('"') >= 0);
        int header = comma && separator == ',' && !quoted ? -1 : headerLines(separator, comma);
        if (header < 0) {
            throw new DelimitedException(file + " holds no numbers when it is read like that.");
        }
        return describe(separator, comma, header);
    }

    private int headerLines(char separator, boolean comma) {
        for (int i = 0; i < Math.min(lines.size(), LOOK_AT); i++) {
            List<String> cells = Cells.of(lines.get(i), separator);
            long numbers = cells.stream().filter(c -> Cells.isValue(c, comma)).count();
            if (numbers > 0 && 2 * numbers >= cells.size()) {
                return i;
            }
        }
        return -1;
    }

    private double score(char separator, boolean comma, int header) {
        int width = Cells.of(lines.get(header), separator).size();
        double good = 0;
        double bad = 0;
        for (int i = header; i < Math.min(lines.size(), header + LOOK_AT); i++) {
            if (lines.get(i).isBlank()) {
                continue;
            }
            List<String> cells = Cells.of(lines.get(i), separator);
            long numbers = cells.stream()
                    .filter(c -> c.isBlank() || Cells.isValue(c, comma))
                    .count();
            if (cells.size() == width && numbers == width) {
                good++;
            } else {
                bad++;
            }
        }
        double agreement = good / Math.max(1, good + bad);
        boolean headerFits =
                header > 0 && Cells.of(lines.get(header - 1), separator).size() == width;
        boolean usedSign = lines.stream().skip(header).limit(LOOK_AT).anyMatch(l -> l.indexOf(comma ? ',' : '.') >= 0);
        return agreement
                * (width > 1 ? 1 : 0.3)
                * (headerFits || header == 0 ? 1 : 0.8)
                * (usedSign ? 1 : 0.95)
                * (separator == ' ' ? 0.9 : 1);
    }

    /** Cells of a row; a separator at the end of every line, with nothing behind it, is none more. */
    private int width(char separator, int header) {
        int width = Cells.of(lines.get(header), separator).size();
        boolean ends = lines.stream()
                .skip(header)
                .limit(LOOK_AT)
                .filter(l -> !l.isBlank() && !l.startsWith("#"))
                .map(l -> Cells.of(l, separator))
                .allMatch(c -> c.size() != width || c.get(width - 1).isBlank());
        boolean named = header > 0
                && Cells.of(lines.get(header - 1), separator).size() == width
                && !Cells.of(lines.get(header - 1), separator).get(width - 1).isBlank();
        return ends && !named && width > 1 ? width - 1 : width;
    }

    private Dialect describe(char separator, boolean comma, int header) {
        int width = width(separator, header);
        checkWidth(width);
        List<String> names = new ArrayList<>();
        List<String> units = new ArrayList<>();
        List<String> above = header > 0 ? Cells.of(lines.get(header - 1), separator) : List.of();
        List<String> twoAbove = header > 1 ? Cells.of(lines.get(header - 2), separator) : List.of();
        boolean unitRow = above.size() == width
                && twoAbove.size() == width
                && above.stream().allMatch(c -> c.isBlank() || Heading.isUnit(Heading.stripped(c)))
                && twoAbove.stream().anyMatch(c -> !c.isBlank());
        List<String> titles = unitRow ? twoAbove : above;
        for (int i = 0; i < width; i++) {
            String title = titles.size() == width ? titles.get(i).strip() : "";
            Heading heading = unitRow ? new Heading(title, Heading.stripped(above.get(i))) : Heading.of(title);
            names.add(heading.name().isEmpty() ? "column " + (i + 1) : heading.name());
            units.add(heading.unit());
        }
        List<Clock> clocks = new ArrayList<>();
        for (int c = 0; c < width; c++) {
            clocks.add(Clock.of(sample(separator, header, width, c)));
        }
        return new Dialect(separator, comma, header, names, units, clocks);
    }

    /** Cells of a column from its first rows that are not empty. */
    List<String> sample(char separator, int header, int width, int column) {
        List<String> out = new ArrayList<>();
        for (int i = header; i < Math.min(lines.size(), header + LOOK_AT); i++) {
            List<String> cells = lines.get(i).isBlank() ? List.of() : Cells.of(lines.get(i), separator);
            if (cells.size() == width
                    && !cells.get(column).isBlank()
                    && (Cells.isValue(cells.get(column), true) || Cells.isValue(cells.get(column), false))) {
                out.add(cells.get(column).strip());
            }
        }
        return out;
    }
}

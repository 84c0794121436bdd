package eagerneedle.store.delimited;

import java.io.IOException;
import java.io.StringReader;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/** Lines taken apart into cells, and what a cell can be. */
final class Cells {
    private Cells() {}

    static List<String> of(String line, char separator) {
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

    static boolean isNumber(String cell, boolean comma) {
        return WrittenNumber.of(cell, comma).isPresent();
    }

    static boolean isValue(String cell, boolean comma) {
        return isNumber(cell, comma) || Clock.isMoment(cell.strip());
    }
}

package eagerneedle.store.classroom;

import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import eagerneedle.store.export.SpreadsheetCell;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** The table of a class, as CSV or as a workbook. */
public final class GradeTable {
    private GradeTable() {}

    /**
     * Writes it in the format that the ending of the file says.
     *
     * @throws IOException when it cannot be written
     * @throws IllegalArgumentException with one sentence for another ending
     */
    public static void write(List<String> head, List<List<Object>> rows, Path to) throws IOException {
        String name = FileName.of(to).toLowerCase(Locale.ROOT);
        if (name.endsWith(".csv")) {
            Beside.write(to, part -> csv(head, rows, part));
        } else if (name.endsWith(".xlsx")) {
            Beside.write(to, part -> workbook(head, rows, part));
        } else {
            throw new IllegalArgumentException(
                    "A table is CSV or a workbook; name it something.csv or something.xlsx.");
        }
    }

    private static void csv(List<String> head, List<List<Object>> rows, Path to) throws IOException {
        try (Writer out = Files.newBufferedWriter(to, StandardCharsets.UTF_8);
                CSVPrinter csv = new CSVPrinter(out, CSVFormat.DEFAULT)) {
            csv.printRecord(head);
            for (List<Object> row : rows) {
                csv.printRecord(row.stream()
                        .map(c -> c instanceof String s ? SpreadsheetCell.words(s) : c)
                        .toList());
            }
        }
    }

    private static void workbook(List<String> head, List<List<Object>> rows, Path to) throws IOException {
        try (OutputStream out = Files.newOutputStream(to);
                Workbook book = new Workbook(out, "Eager Needle", "1.0")) {
            Worksheet sheet = book.newWorksheet("Class");
            for (int c = 0; c < head.size(); c++) {
                sheet.value(0, c, head.get(c));
                sheet.style(0, c).bold().set();
            }
            for (int r = 0; r < rows.size(); r++) {
                for (int c = 0; c < rows.get(r).size(); c++) {
                    Object cell = rows.get(r).get(c);
                    if (cell instanceof Number n) {
                        sheet.value(r + 1, c, n);
                    } else {
                        sheet.value(r + 1, c, String.valueOf(cell));
                    }
                }
            }
            sheet.freezePane(1, 1);
        }
    }
}

package eagerneedle.store.classroom;

import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.io.OutputStream;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.dhatim.fastexcel.ProtectionOption;
import org.dhatim.fastexcel.SheetProtectionOption;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/** What a student fills in: a workbook in which only the answers can be written, and the same as plain CSV. */
public final class HandInForm {
    /** The row of the workbook, counted from 0, under which the quantities stand. */
    static final int HEAD = 4;

    static final String SHEET = "Hand in";

    private HandInForm() {}

    /** @throws IOException when it cannot be written */
    public static void workbook(ClassFolder of, ClassList.Student student, Path to) throws IOException {
        Beside.write(to, part -> {
            try (OutputStream out = Files.newOutputStream(part);
                    Workbook book = new Workbook(out, "Eager Needle", "1.0")) {
                Worksheet sheet = book.newWorksheet(SHEET);
                sheet.value(0, 0, of.title());
                sheet.style(0, 0).bold().fontSize(14).set();
                sheet.value(1, 0, "student");
                sheet.value(1, 1, student.id());
                sheet.value(2, 0, "Write each value as you would defend it: its digits are read too.");
                String[] head = {"quantity", "what it is", "value", "standard uncertainty", "unit"};
                for (int c = 0; c < head.length; c++) {
                    sheet.value(HEAD, c, head[c]);
                    sheet.style(HEAD, c).bold().set();
                }
                int row = HEAD + 1;
                for (ClassFolder.Asked a : of.asked()) {
                    sheet.value(row, 0, a.quantity());
                    sheet.value(row, 1, a.label());
                    for (int c = 2; c < head.length; c++) {
                        // Text, so that 9.80 keeps its zero.
                        sheet.style(row, c)
                                .format("@")
                                .protectionOption(ProtectionOption.LOCKED, false)
                                .borderStyle("thin")
                                .set();
                    }
                    row++;
                }
                sheet.width(0, 16);
                sheet.width(1, 44);
                sheet.width(2, 18);
                sheet.width(3, 22);
                sheet.width(4, 14);
                sheet.protect(
                        "",
                        SheetProtectionOption.SELECT_LOCKED_CELLS,
                        SheetProtectionOption.SHEET,
                        SheetProtectionOption.FORMAT_COLUMNS);
            }
        });
    }

    /** The same as CSV, with a row for each quantity. */
    public static String csv(ClassFolder of, ClassList.Student student) {
        StringWriter out = new StringWriter();
        try (CSVPrinter csv = new CSVPrinter(out, CSVFormat.DEFAULT)) {
            csv.printRecord("student", "quantity", "value", "u", "unit");
            for (ClassFolder.Asked a : of.asked()) {
                csv.printRecord(student.id(), a.quantity(), "", "", "");
            }
        } catch (IOException e) {
            throw new java.io.UncheckedIOException(e);
        }
        return out.toString();
    }
}

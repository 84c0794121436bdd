package eagerneedle.store.export;

import eagerneedle.core.quantity.Coverage;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * A session as a workbook: the ledger, whose expanded uncertainty is a formula; the runs, whose means are formulas over
 * their samples; the samples; windows, readings and what was voided.
 */
final class WorkbookExport {
    private static final int MOST_ROWS = 1_000_000;

    private WorkbookExport() {}

    static void write(Reduction reduction, Path to) throws IOException {
        try (OutputStream out = Files.newOutputStream(to);
                Workbook book = new Workbook(out, "Eager Needle", "1.0")) {
            Worksheet ledger = book.newWorksheet("Ledger");
            header(ledger, "name", "label", "value", "u", "k", "U = k u", "unit", "relative u");
            int row = 1;
            for (Ledger.Entry e : reduction.ledger().entries()) {
                ledger.value(row, 0, e.name());
                ledger.value(row, 1, e.label());
                if (e.quantity().isPresent()) {
                    Quantity q = e.quantity().get();
                    ledger.value(row, 2, q.value());
                    ledger.value(row, 3, q.u());
                    ledger.value(row, 4, Coverage.DEFAULT.factor(q.dof()));
                    ledger.formula(row, 5, "D" + (row + 1) + "*E" + (row + 1));
                    ledger.value(row, 6, q.unit().symbol());
                    ledger.formula(row, 7, "IF(C" + (row + 1) + "=0,\"\",D" + (row + 1) + "/ABS(C" + (row + 1) + "))");
                } else {
                    ledger.value(row, 2, e.instead());
                }
                row++;
            }
            Worksheet summary = book.newWorksheet("Runs");
            header(
                    summary,
                    "run",
                    "name",
                    "level",
                    "channel",
                    "unit",
                    "n",
                    "mean",
                    "standard deviation",
                    "least",
                    "greatest");
            int line = 1;
            for (Run run : SessionExport.runs(reduction)) {
                Channels c = Channels.of(reduction, run);
                Worksheet samples = book.newWorksheet("run " + run.id());
                int column = 0;
                for (Channels.One one : c.channels()) {
                    int n = Math.min(MOST_ROWS, one.time().length);
                    samples.value(0, column, one.name() + " time (s)");
                    samples.value(0, column + 1, one.name() + " raw (" + one.rawUnit() + ")");
                    samples.value(0, column + 2, one.name() + " (" + one.unit() + ")");
                    for (int i = 0; i < n; i++) {
                        samples.value(i + 1, column, one.time()[i]);
                        samples.value(i + 1, column + 1, one.raw()[i]);
                        if (Double.isFinite(one.value()[i])) {
                            samples.value(i + 1, column + 2, one.value()[i]);
                        }
                    }
                    String range =
                            "'run " + run.id() + "'!" + letters(column + 2) + "2:" + letters(column + 2) + (n + 1);
                    summary.value(line, 0, run.id());
                    summary.value(line, 1, run.name());
                    summary.value(line, 2, run.level());
                    summary.value(line, 3, one.label());
                    summary.value(line, 4, one.unit());
                    summary.formula(line, 5, "COUNT(" + range + ")");
                    summary.formula(line, 6, "AVERAGE(" + range + ")");
                    summary.formula(line, 7, "STDEV(" + range + ")");
                    summary.formula(line, 8, "MIN(" + range + ")");
                    summary.formula(line, 9, "MAX(" + range + ")");
                    line++;
                    column += 3;
                }
            }
            table(
                    book,
                    "Windows",
                    RunTables.WindowRow.FIELDS,
                    SessionExport.runs(reduction).stream()
                            .flatMap(r -> RunTables.windows(reduction, r).stream())
                            .map(RunTables.WindowRow::cells)
                            .toList());
            table(
                    book,
                    "Readings",
                    RunTables.ReadingRow.FIELDS,
                    SessionExport.runs(reduction).stream()
                            .flatMap(r -> RunTables.readings(reduction, r).stream())
                            .map(RunTables.ReadingRow::cells)
                            .toList());
            table(
                    book,
                    "Voided",
                    RunTables.VoidedRow.FIELDS,
                    SessionExport.runs(reduction).stream()
                            .flatMap(r -> RunTables.voided(r).stream())
                            .map(RunTables.VoidedRow::cells)
                            .toList());
        }
    }

    /** A sheet of the workbook with one row a row; none where there are no rows. */
    private static void table(Workbook book, String name, List<String> fields, List<List<Object>> rows) {
        if (rows.isEmpty()) {
            return;
        }
        Worksheet sheet = book.newWorksheet(name);
        header(sheet, fields.toArray(String[]::new));
        for (int r = 0; r < rows.size(); r++) {
            for (int c = 0; c < fields.size(); c++) {
                Object cell = rows.get(r).get(c);
                if (cell instanceof Number number) {
                    sheet.value(r + 1, c, number);
                } else if (cell instanceof Boolean yes) {
                    sheet.value(r + 1, c, yes);
                } else if (cell != null) {
                    sheet.value(r + 1, c, cell.toString());
                }
            }
        }
    }

    private static void header(Worksheet sheet, String... names) {
        for (int c = 0; c < names.length; c++) {
            sheet.value(0, c, names[c]);
            sheet.style(0, c).bold().set();
        }
    }

    /** A spreadsheet's name of a column: 0 is A, 26 is AA. */
    static String letters(int column) {
        return (column >= 26 ? letters(column / 26 - 1) : "") + (char) ('A' + column % 26);
    }
}

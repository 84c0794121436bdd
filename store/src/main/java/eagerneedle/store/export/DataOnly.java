package eagerneedle.store.export;

import static eagerneedle.store.export.SpreadsheetCell.words;

import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import java.io.IOException;
import java.io.OutputStream;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * What was measured and nothing that follows from it: inputs, readings and samples of every run, for those who are to
 * reckon themselves. A workbook with a sheet for each run, or a CSV with a row for each number.
 */
public final class DataOnly {
    private static final int MOST_ROWS = 1_000_000;

    private DataOnly() {}

    /** An input as it was read. */
    private record Input(String name, String label, String reading) {}

    private static List<Input> inputs(Reduction r) {
        List<Input> out = new ArrayList<>();
        for (Map.Entry<String, Sheet.Input> e : r.sheet().inputs().entrySet()) {
            String planned =
                    r.session().planned().getOrDefault(e.getKey(), e.getValue().value());
            out.add(new Input(
                    e.getKey(),
                    e.getValue().label() == null ? e.getKey() : e.getValue().label(),
                    r.session().measured().getOrDefault(e.getKey(), planned)));
        }
        return out;
    }

    /** What was set in a run: its level, and what stands for it. */
    private static List<List<String>> settings(Reduction r, Run run) {
        Capture.Level level = r.sheet().capture(run.capture()).levels().get(run.level());
        List<List<String>> out = new ArrayList<>();
        if (level != null) {
            level.set().forEach((name, value) -> out.add(List.of(name, value)));
        }
        return out;
    }

    /** @throws IOException when it cannot be written */
    public static void csv(Reduction r, Path to) throws IOException {
        Beside.write(to, part -> {
            try (Writer out = Files.newBufferedWriter(part, StandardCharsets.UTF_8);
                    CSVPrinter csv = new CSVPrinter(out, CSVFormat.DEFAULT)) {
                csv.printRecord("kind", "run", "capture", "level", "name", "time (s)", "value", "unit");
                for (Input i : inputs(r)) {
                    csv.printRecord("input", "", "", "", words(i.name()), "", words(i.reading()), "");
                }
                for (Run run : SessionExport.runs(r)) {
                    for (List<String> s : settings(r, run)) {
                        csv.printRecord(
                                "set",
                                run.id(),
                                run.capture(),
                                words(run.level()),
                                words(s.get(0)),
                                "",
                                words(s.get(1)),
                                "");
                    }
                    for (RunTables.ReadingRow row : RunTables.readings(r, run)) {
                        csv.printRecord(
                                "reading",
                                run.id(),
                                run.capture(),
                                words(run.level()),
                                words(row.name()),
                                row.taken() == null ? "" : row.taken(),
                                row.value() == null ? words(row.written()) : row.value(),
                                row.unit());
                    }
                    for (Channels.One one : Channels.of(r, run).channels()) {
                        for (int k = 0; k < one.time().length; k++) {
                            boolean known = Double.isFinite(one.value()[k]);
                            csv.printRecord(
                                    "sample",
                                    run.id(),
                                    run.capture(),
                                    words(run.level()),
                                    words(one.name()),
                                    one.time()[k],
                                    known ? one.value()[k] : one.raw()[k],
                                    known ? one.unit() : one.rawUnit());
                        }
                    }
                }
            }
        });
    }

    /** @throws IOException when it cannot be written */
    public static void workbook(Reduction r, Path to) throws IOException {
        Beside.write(to, part -> {
            try (OutputStream out = Files.newOutputStream(part);
                    Workbook book = new Workbook(out, "Eager Needle", "1.0")) {
                Worksheet inputs = book.newWorksheet("Inputs");
                head(inputs, 0, "name", "what it is", "as read");
                int row = 1;
                for (Input i : inputs(r)) {
                    inputs.value(row, 0, i.name());
                    inputs.value(row, 1, i.label());
                    inputs.value(row++, 2, i.reading());
                }
                Worksheet runs = book.newWorksheet("Runs");
                head(runs, 0, "run", "capture", "level", "name", "value", "unit");
                row = 1;
                for (Run run : SessionExport.runs(r)) {
                    for (List<String> s : settings(r, run)) {
                        place(runs, row, run);
                        runs.value(row, 3, s.get(0));
                        runs.value(row++, 4, s.get(1));
                    }
                    for (RunTables.ReadingRow reading : RunTables.readings(r, run)) {
                        place(runs, row, run);
                        runs.value(row, 3, reading.name());
                        if (reading.value() != null) {
                            runs.value(row, 4, reading.value());
                        } else {
                            runs.value(row, 4, reading.written());
                        }
                        runs.value(row++, 5, reading.unit());
                    }
                    samples(book, r, run);
                }
            }
        });
    }

    private static void place(Worksheet sheet, int row, Run run) {
        sheet.value(row, 0, run.id());
        sheet.value(row, 1, run.capture());
        sheet.value(row, 2, run.level());
    }

    private static void samples(Workbook book, Reduction r, Run run) {
        List<Channels.One> channels = Channels.of(r, run).channels();
        if (channels.stream().allMatch(c -> c.time().length == 0)) {
            return;
        }
        Worksheet sheet = book.newWorksheet("run " + run.id());
        int column = 0;
        for (Channels.One one : channels) {
            head(sheet, column, one.name() + " time (s)", one.name() + " (" + one.unit() + ")");
            for (int k = 0; k < Math.min(MOST_ROWS, one.time().length); k++) {
                sheet.value(k + 1, column, one.time()[k]);
                sheet.value(k + 1, column + 1, Double.isFinite(one.value()[k]) ? one.value()[k] : one.raw()[k]);
            }
            column += 2;
        }
    }

    private static void head(Worksheet sheet, int from, String... names) {
        for (int c = 0; c < names.length; c++) {
            sheet.value(0, from + c, names[c]);
            sheet.style(0, from + c).bold().set();
        }
    }
}

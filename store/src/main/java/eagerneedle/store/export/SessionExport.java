package eagerneedle.store.export;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.watch.Finding;
import eagerneedle.store.FileName;
import io.jhdf.HdfFile;
import io.jhdf.WritableHdfFile;
import io.jhdf.api.WritableDataset;
import io.jhdf.api.WritableGroup;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/**
 * A session in open formats, chosen by the ending of the file: {@code .csv} the ledger, {@code .json} ledger and
 * samples, {@code .xlsx} a workbook whose figures are formulas over its samples, {@code .h5} the samples, {@code .zip}
 * a data package with a descriptor of every field. See docs/formats/exchange.md. A file comes into being whole or not
 * at all.
 */
public final class SessionExport {
    private static final List<String> ENDINGS = List.of(".csv", ".json", ".xlsx", ".h5", ".zip");
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final int MOST_ROWS = 1_000_000;

    private SessionExport() {}

    /** The endings that are understood. */
    public static List<String> endings() {
        return ENDINGS;
    }

    /** @throws IllegalArgumentException with one sentence when the ending is not known or the file cannot be written */
    public static void write(Reduction reduction, List<Finding> findings, Path to) {
        String name = FileName.of(to).toLowerCase(Locale.ROOT);
        String ending = ENDINGS.stream()
                .filter(name::endsWith)
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException(FileName.of(to)
                        + " does not say in what format; end its name with one of " + String.join(" ", ENDINGS) + "."));
        Path part = null;
        try {
            part = Files.createTempFile(FileName.folder(to), "part", ending);
            switch (ending) {
                case ".csv" -> Files.writeString(part, LedgerCsv.of(reduction.ledger()));
                case ".json" -> Files.writeString(part, JSON.writeValueAsString(json(reduction, findings)) + "\n");
                case ".xlsx" -> workbook(reduction, part);
                case ".h5" -> hdf(reduction, part);
                default -> dataPackage(reduction, findings, part);
            }
            Files.move(part, to, java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            throw new IllegalArgumentException(
                    FileName.of(to) + " cannot be written there; choose another folder or make room.", e);
        } finally {
            try {
                if (part != null) {
                    Files.deleteIfExists(part);
                }
            } catch (IOException e) {
                part.toFile().deleteOnExit();
            }
        }
    }

    private static List<Run> runs(Reduction r) {
        return r.session().keptRuns();
    }

    /** The reduction as {@code reduce --json} prints it, and the samples of every kept run beside it. */
    private static ObjectNode json(Reduction reduction, List<Finding> findings) throws IOException {
        ObjectNode root = (ObjectNode) JSON.readTree(ReductionJson.of(reduction, findings));
        root.put("method", reduction.sheet().id())
                .put("title", reduction.session().title());
        ArrayNode runs = root.putArray("runs");
        for (Run run : runs(reduction)) {
            runs.add(entries(json(Channels.of(reduction, run)), reduction, run));
        }
        return root;
    }

    /** One run as JSON that can be brought in again. */
    static ObjectNode json(Channels c) {
        ObjectNode n = JSON.createObjectNode()
                .put("id", c.run().id())
                .put("name", c.run().name())
                .put("capture", c.run().capture())
                .put("level", c.run().level())
                .put("start", c.run().started().toString());
        ArrayNode channels = n.putArray("channels");
        for (Channels.One one : c.channels()) {
            ObjectNode ch = channels.addObject().put("name", one.name()).put("unit", one.rawUnit());
            numbers(ch.putArray("time"), one.time());
            numbers(ch.putArray("values"), one.raw());
            ch.put("measurandUnit", one.unit());
            numbers(ch.putArray("measurand"), one.value());
        }
        return n;
    }

    /** One run as JSON, for bringing it in elsewhere. */
    public static String json(Reduction reduction, Run run) {
        return json(Channels.of(reduction, run)).toString() + "\n";
    }

    /** Adds the windows, readings and voided spans of a run. */
    private static ObjectNode entries(ObjectNode n, Reduction reduction, Run run) {
        objects(
                n.putArray("windows"),
                RunTables.WindowRow.FIELDS,
                RunTables.windows(reduction, run).stream()
                        .map(RunTables.WindowRow::cells)
                        .toList());
        objects(
                n.putArray("readings"),
                RunTables.ReadingRow.FIELDS,
                RunTables.readings(reduction, run).stream()
                        .map(RunTables.ReadingRow::cells)
                        .toList());
        objects(
                n.putArray("voided"),
                RunTables.VoidedRow.FIELDS,
                RunTables.voided(run).stream().map(RunTables.VoidedRow::cells).toList());
        return n;
    }

    /** One object a row; the first field, the run, is what holds them. */
    private static void objects(ArrayNode to, List<String> fields, List<List<Object>> rows) {
        for (List<Object> row : rows) {
            ObjectNode n = to.addObject();
            for (int f = 1; f < fields.size(); f++) {
                n.putPOJO(fields.get(f), row.get(f));
            }
        }
    }

    private static void numbers(ArrayNode to, double[] v) {
        for (double x : v) {
            if (Double.isFinite(x)) {
                to.add(x);
            } else {
                to.addNull();
            }
        }
    }

    /**
     * Sheets: the ledger, whose expanded uncertainty is a formula; the runs, whose means are formulas over their
     * samples; the samples.
     */
    private static void workbook(Reduction reduction, Path to) throws IOException {
        try (OutputStream out = Files.newOutputStream(to);
                Workbook book = new Workbook(out, "Eager Needle", "1.0")) {
            Worksheet ledger = book.newWorksheet("Ledger");
            header(ledger, "name", "label", "value", "u", "k", "U = k u", "unit", "relative u");
            int row = 1;
            for (Ledger.Entry e : reduction.ledger().entries()) {
                ledger.value(row, 0, e.name());
                ledger.value(row, 1, e.label());
                if (e.quantity().isPresent()) {
                    var q = e.quantity().get();
                    ledger.value(row, 2, q.value());
                    ledger.value(row, 3, q.u());
                    ledger.value(row, 4, eagerneedle.core.quantity.Coverage.DEFAULT.factor(q.dof()));
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
            for (Run run : runs(reduction)) {
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
                    runs(reduction).stream()
                            .flatMap(r -> RunTables.windows(reduction, r).stream())
                            .map(RunTables.WindowRow::cells)
                            .toList());
            table(
                    book,
                    "Readings",
                    RunTables.ReadingRow.FIELDS,
                    runs(reduction).stream()
                            .flatMap(r -> RunTables.readings(reduction, r).stream())
                            .map(RunTables.ReadingRow::cells)
                            .toList());
            table(
                    book,
                    "Voided",
                    RunTables.VoidedRow.FIELDS,
                    runs(reduction).stream()
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

    /** One group a run, one group a channel in it, with time, raw and measurand. */
    private static void hdf(Reduction reduction, Path to) throws IOException {
        Files.deleteIfExists(to);
        try (WritableHdfFile file = HdfFile.write(to)) {
            file.putAttribute("method", reduction.sheet().id());
            file.putAttribute("title", reduction.session().title());
            for (Run run : runs(reduction)) {
                WritableGroup group = file.putGroup("run_" + run.id());
                group.putAttribute("name", run.name());
                group.putAttribute("capture", run.capture());
                group.putAttribute("level", run.level());
                group.putAttribute("start", run.started().toString());
                for (RunTables.WindowRow w : RunTables.windows(reduction, run)) {
                    group.putAttribute("window " + w.name(), new double[] {w.from(), w.to()});
                }
                for (RunTables.VoidedRow v : RunTables.voided(run)) {
                    group.putAttribute("voided " + v.from(), new double[] {v.from(), v.to()});
                }
                run.entries().byEye().forEach((n, text) -> group.putAttribute("by eye " + n, text));
                for (Channels.One one : Channels.of(reduction, run).channels()) {
                    if (one.time().length == 0) {
                        continue;
                    }
                    WritableGroup ch = group.putGroup(Channels.plain(one.name()));
                    dataset(ch, "time", one.time(), "s");
                    dataset(ch, "raw", one.raw(), one.rawUnit());
                    dataset(ch, "value", one.value(), one.unit());
                    List<RunTables.ReadingRow> readings = RunTables.readings(reduction, run).stream()
                            .filter(r -> r.due() != null && r.name().equals(one.name()))
                            .toList();
                    if (!readings.isEmpty()) {
                        dataset(
                                ch,
                                "reading_due",
                                readings.stream()
                                        .mapToDouble(RunTables.ReadingRow::due)
                                        .toArray(),
                                "s");
                        dataset(
                                ch,
                                "reading_taken",
                                readings.stream()
                                        .mapToDouble(r -> r.taken() == null ? Double.NaN : r.taken())
                                        .toArray(),
                                "s");
                        dataset(
                                ch,
                                "reading_value",
                                readings.stream()
                                        .mapToDouble(r -> r.value() == null ? Double.NaN : r.value())
                                        .toArray(),
                                one.unit());
                    }
                }
            }
        }
    }

    private static void dataset(WritableGroup group, String name, double[] data, String unit) {
        WritableDataset d = group.putDataset(name, data);
        d.putAttribute("unit", unit.isEmpty() ? "1" : unit);
    }

    /**
     * A folder of CSV files in a zip, with {@code datapackage.json}: name, unit and type of every field of every file.
     */
    private static void dataPackage(Reduction reduction, List<Finding> findings, Path to) throws IOException {
        ObjectNode descriptor = JSON.createObjectNode()
                .put("name", reduction.sheet().id())
                .put("title", reduction.session().title())
                .put("profile", "tabular-data-package");
        ArrayNode resources = descriptor.putArray("resources");
        try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(to))) {
            entry(zip, "ledger.csv", LedgerCsv.of(reduction.ledger()));
            ObjectNode ledger = resource(resources, "ledger", "ledger.csv");
            for (String f : List.of("name", "label", "group", "value", "unit", "u", "dof", "k", "U", "problem")) {
                field(
                        ledger,
                        f,
                        List.of("value", "u", "dof", "k", "U").contains(f) ? "number" : "string",
                        f.equals("value") || f.startsWith("u") && f.length() == 1 || f.equals("U")
                                ? "as the column unit says"
                                : null);
            }
            entry(zip, "reduction.json", ReductionJson.of(reduction, findings));
            entry(zip, "sheet.yaml", reduction.session().sheetText());
            tabular(
                    zip,
                    resources,
                    "windows",
                    RunTables.WindowRow.FIELDS,
                    Map.of("from", "s", "to", "s"),
                    runs(reduction).stream()
                            .flatMap(r -> RunTables.windows(reduction, r).stream())
                            .map(RunTables.WindowRow::cells)
                            .toList());
            tabular(
                    zip,
                    resources,
                    "readings",
                    RunTables.ReadingRow.FIELDS,
                    Map.of("due", "s", "taken", "s", "value", "as the column unit says"),
                    runs(reduction).stream()
                            .flatMap(r -> RunTables.readings(reduction, r).stream())
                            .map(RunTables.ReadingRow::cells)
                            .toList());
            tabular(
                    zip,
                    resources,
                    "voided",
                    RunTables.VoidedRow.FIELDS,
                    Map.of("from", "s", "to", "s"),
                    runs(reduction).stream()
                            .flatMap(r -> RunTables.voided(r).stream())
                            .map(RunTables.VoidedRow::cells)
                            .toList());
            for (Run run : runs(reduction)) {
                for (Channels.One one : Channels.of(reduction, run).channels()) {
                    String path = "runs/" + run.id() + "-" + Channels.plain(one.name()) + ".csv";
                    entry(zip, path, csv(one));
                    ObjectNode r = resource(
                            resources,
                            "run-" + run.id() + "-" + Channels.plain(one.name()).toLowerCase(Locale.ROOT),
                            path);
                    r.put("title", run.name() + ", " + one.label())
                            .put("capture", run.capture())
                            .put("level", run.level())
                            .put("start", run.started().toString());
                    field(r, "time", "number", "s");
                    field(r, "raw", "number", one.rawUnit());
                    field(r, "value", "number", one.unit().isEmpty() ? "1" : one.unit());
                }
            }
            entry(zip, "datapackage.json", descriptor.toPrettyString() + "\n");
        }
    }

    /** A table of its own in the package; none where it has no rows. */
    private static void tabular(
            ZipOutputStream zip,
            ArrayNode resources,
            String name,
            List<String> fields,
            Map<String, String> units,
            List<List<Object>> rows)
            throws IOException {
        if (rows.isEmpty()) {
            return;
        }
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(
                out, CSVFormat.DEFAULT.builder().setRecordSeparator("\n").get())) {
            csv.printRecord(fields);
            for (List<Object> row : rows) {
                for (Object cell : row) {
                    csv.print(cell instanceof String s ? SpreadsheetCell.words(s) : cell);
                }
                csv.println();
            }
        }
        entry(zip, name + ".csv", out.toString());
        ObjectNode r = resource(resources, name, name + ".csv");
        fields.forEach(f -> field(
                r,
                f,
                units.containsKey(f)
                        ? "number"
                        : f.equals("run") ? "integer" : f.equals("by_hand") ? "boolean" : "string",
                units.get(f)));
    }

    private static ObjectNode resource(ArrayNode resources, String name, String path) {
        ObjectNode r = resources
                .addObject()
                .put("name", name)
                .put("path", path)
                .put("format", "csv")
                .put("encoding", "utf-8")
                .put("profile", "tabular-data-resource");
        r.putObject("schema").putArray("fields");
        return r;
    }

    private static void field(ObjectNode resource, String name, String type, String unit) {
        ObjectNode f = ((ArrayNode) resource.get("schema").get("fields"))
                .addObject()
                .put("name", name)
                .put("type", type);
        if (unit != null) {
            f.put("unit", unit);
        }
    }

    private static String csv(Channels.One one) throws IOException {
        StringBuilder out = new StringBuilder();
        try (CSVPrinter csv = new CSVPrinter(
                out, CSVFormat.DEFAULT.builder().setRecordSeparator("\n").get())) {
            csv.printRecord("time", "raw", "value");
            for (int i = 0; i < one.time().length; i++) {
                csv.printRecord(one.time()[i], one.raw()[i], Double.isFinite(one.value()[i]) ? one.value()[i] : "");
            }
        }
        return out.toString();
    }

    private static void entry(ZipOutputStream zip, String name, String text) throws IOException {
        ZipEntry e = new ZipEntry(name);
        e.setTime(0);
        zip.putNextEntry(e);
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }
}

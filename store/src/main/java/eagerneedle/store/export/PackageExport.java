package eagerneedle.store.export;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.watch.Finding;
import java.io.IOException;
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
import org.jspecify.annotations.Nullable;

/**
 * A session as a data package: CSV files in a zip, with {@code datapackage.json}: name, unit and type of every field of
 * every file.
 */
final class PackageExport {
    private static final ObjectMapper JSON = new ObjectMapper();

    private PackageExport() {}

    static void write(Reduction reduction, List<Finding> findings, Path to) throws IOException {
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
                    SessionExport.runs(reduction).stream()
                            .flatMap(r -> RunTables.windows(reduction, r).stream())
                            .map(RunTables.WindowRow::cells)
                            .toList());
            tabular(
                    zip,
                    resources,
                    "readings",
                    RunTables.ReadingRow.FIELDS,
                    Map.of("due", "s", "taken", "s", "value", "as the column unit says"),
                    SessionExport.runs(reduction).stream()
                            .flatMap(r -> RunTables.readings(reduction, r).stream())
                            .map(RunTables.ReadingRow::cells)
                            .toList());
            tabular(
                    zip,
                    resources,
                    "voided",
                    RunTables.VoidedRow.FIELDS,
                    Map.of("from", "s", "to", "s"),
                    SessionExport.runs(reduction).stream()
                            .flatMap(r -> RunTables.voided(r).stream())
                            .map(RunTables.VoidedRow::cells)
                            .toList());
            for (Run run : SessionExport.runs(reduction)) {
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

    private static void field(ObjectNode resource, String name, String type, @Nullable String unit) {
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

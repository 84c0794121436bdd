package eagerneedle.store.export;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Run;
import eagerneedle.core.watch.Finding;
import eagerneedle.store.FileName;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;

/**
 * A session in open formats, chosen by the ending of the file: {@code .csv} the ledger, {@code .json} ledger and
 * samples, {@code .xlsx} a workbook whose figures are formulas over its samples, {@code .h5} the samples, {@code .zip}
 * a data package with a descriptor of every field. See docs/formats/exchange.md. A file comes into being whole or not
 * at all.
 */
public final class SessionExport {
    private static final List<String> ENDINGS = List.of(".csv", ".json", ".xlsx", ".h5", ".zip");
    private static final ObjectMapper JSON = new ObjectMapper();

    private SessionExport() {}

    /** The endings that are understood. */
    public static List<String> endings() {
        return ENDINGS;
    }

    /** @throws IllegalArgumentException with one sentence when the ending is not known or the file cannot be written */
    public static void write(Reduction reduction, List<Finding> findings, Path to) {
        DecimalSign.inFiles(() -> inFull(reduction, findings, to));
    }

    private static void inFull(Reduction reduction, List<Finding> findings, Path to) {
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
                case ".xlsx" -> WorkbookExport.write(reduction, part);
                case ".h5" -> HdfExport.write(reduction, part);
                default -> PackageExport.write(reduction, findings, part);
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

    static List<Run> runs(Reduction r) {
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
}

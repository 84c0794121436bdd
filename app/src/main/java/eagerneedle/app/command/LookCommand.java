package eagerneedle.app.command;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.app.workbench.OpenBench;
import eagerneedle.app.workbench.OpenSheet;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.UnitException;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.delimited.Table;
import eagerneedle.store.export.Beside;
import eagerneedle.store.foreign.ForeignFile;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "look",
        description = "Says what is in files recorded elsewhere: runs, columns, units, and what was guessed.")
final class LookCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DATA", arity = "1..*", description = "files: delimited text, JSON, WAV")
    private List<Path> data;

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Option(names = "-o", paramLabel = "SESSION", description = "a bench file with a sheet made from the first file")
    private Path output;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        ObjectNode root = new ObjectMapper().createObjectNode();
        ArrayNode files = root.putArray("files");
        for (Path p : data) {
            List<Table> runs = ForeignFile.runs(p);
            ObjectNode file = files.addObject().put("file", FileName.of(p));
            ArrayNode all = file.putArray("runs");
            for (int i = 0; i < runs.size(); i++) {
                run(all.addObject(), runs.get(i), "Run " + (i + 1));
            }
            ArrayNode remarks = file.putArray("remarks");
            runs.forEach(t -> t.remarks().forEach(remarks::add));
        }
        if (output != null) {
            make();
        }
        if (json) {
            out.println(root.toPrettyString());
        } else {
            files.forEach(f -> say(out, f));
            if (output != null) {
                out.println("Wrote " + FileName.of(output) + ".");
            }
        }
        return NeedleCommand.GOOD;
    }

    /** A session without a method, with all runs of all files. */
    private void make() throws Exception {
        if (Files.exists(output)) {
            throw new IllegalArgumentException(FileName.of(output) + " exists already; choose another name.");
        }
        Beside.write(output, part -> {
            BenchFile.create(
                            part,
                            OpenBench.begun(
                                    OpenBench.title(data), "", Clock.systemUTC().instant()))
                    .close();
            try (Workbench bench = new Workbench(BenchFile.open(part), Clock.systemUTC())) {
                OpenBench.bring(bench, OpenBench.read(data));
            }
        });
    }

    private static void run(ObjectNode run, Table t, String name) {
        run.put("name", name);
        int clock = OpenSheet.clock(t);
        if (clock >= 0) {
            double[] time = t.columns()[clock];
            double scale = scale(t.units().get(clock));
            ObjectNode c = run.putObject("clock").put("unit", "s");
            if (t.start() != null) {
                c.put("start", t.start().toString());
            }
            c.put("first", 0.0);
            c.put("last", (time[time.length - 1] - time[0]) * scale);
            double[] steps = new double[Math.max(0, time.length - 1)];
            for (int i = 0; i < steps.length; i++) {
                steps[i] = (time[i + 1] - time[i]) * scale;
            }
            Arrays.sort(steps);
            if (steps.length > 0) {
                c.put("step", steps[steps.length / 2]);
            }
        }
        ArrayNode columns = run.putArray("columns");
        for (int k = 0; k < t.columns().length; k++) {
            if (k != clock) {
                double[] v = Arrays.stream(t.columns()[k])
                        .filter(x -> !Double.isNaN(x))
                        .toArray();
                ObjectNode c = columns.addObject()
                        .put("name", t.names().get(k))
                        .put("unit", t.units().get(k))
                        .put("n", v.length);
                if (v.length > 0) {
                    double mean = Arrays.stream(v).average().orElse(0);
                    double squares =
                            Arrays.stream(v).map(x -> (x - mean) * (x - mean)).sum();
                    c.put("first", v[0]).put("last", v[v.length - 1]).put("mean", mean);
                    if (v.length > 1) {
                        c.put("sd", Math.sqrt(squares / (v.length - 1)));
                    }
                }
            }
        }
    }

    private static double scale(String unit) {
        try {
            return unit.isEmpty() ? 1 : LabUnit.parse(unit).scaleTo(LabUnit.SECOND);
        } catch (UnitException other) {
            return 1;
        }
    }

    private static void say(PrintWriter out, com.fasterxml.jackson.databind.JsonNode file) {
        file.path("runs").forEach(r -> {
            out.println(file.path("file").asText() + ", " + r.path("name").asText()
                    + (r.has("clock")
                            ? ": " + Notation.plain(r.path("clock").path("last").asDouble(), 6) + " s"
                                    + (r.path("clock").has("step")
                                            ? " in steps of "
                                                    + Notation.plain(
                                                            r.path("clock")
                                                                    .path("step")
                                                                    .asDouble(),
                                                            4)
                                                    + " s"
                                            : "")
                                    + (r.path("clock").has("start")
                                            ? ", from "
                                                    + r.path("clock")
                                                            .path("start")
                                                            .asText()
                                            : "")
                            : ": no column tells the time"));
            r.path("columns")
                    .forEach(c -> out.printf(
                            "  %-24s %-8s n %-8d mean %s, SD %s%n",
                            c.path("name").asText(),
                            c.path("unit").asText(),
                            c.path("n").asInt(),
                            Notation.plain(c.path("mean").asDouble(Double.NaN), 6),
                            Notation.plain(c.path("sd").asDouble(Double.NaN), 3)));
        });
        file.path("remarks").forEach(r -> out.println("  - " + r.asText()));
    }
}

package eagerneedle.app.command;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.app.workbench.Demonstration;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.IdealSession;
import eagerneedle.rig.simulated.Rehearsal;
import eagerneedle.rig.simulated.Rigs;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import eagerneedle.store.export.ReductionJson;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "simulate", description = "A captured session from a simulated rig, its hidden truth written apart.")
final class SimulateCommand implements Callable<Integer> {
    @Parameters(paramLabel = "METHOD", arity = "0..1", description = "id of a shipped method, or a sheet (.yaml)")
    private Path method;

    @Option(names = "--seed", defaultValue = "1")
    private long seed;

    @Option(names = "--fault", description = "a mistake to make; may be given several times")
    private List<String> faults = List.of();

    @Option(names = "--truth", description = "where the hidden truth goes, as JSON")
    private Path truth;

    @Option(names = "-o", paramLabel = "FILE", description = "the bench file to write")
    private Path output;

    @Option(names = "--list", description = "list the methods")
    private boolean list;

    @Option(names = "--json", description = "list as JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        if (list) {
            list(out);
            return NeedleCommand.GOOD;
        }
        if (method == null || output == null) {
            throw new IllegalArgumentException(
                    "Name a method and a file: ./needle simulate METHOD --seed N -o FILE; --list shows the methods.");
        }
        SheetReader.Located sheet = Sessions.named(method);
        Rehearsal[] made = {null};
        Beside.write(output, part -> made[0] = Demonstration.simulate(sheet, seed, new LinkedHashSet<>(faults), part));
        Rehearsal r = made[0];
        if (truth != null) {
            Map<String, Quantity> ideal =
                    IdealSession.beyond(sheet, seed, r.truth().keySet());
            Beside.write(
                    truth,
                    ReductionJson.truth(asInTheLedger(sheet.sheet(), r.truth()), asInTheLedger(sheet.sheet(), ideal))
                            + "\n");
        }
        out.println(FileName.of(output) + ": " + r.session().runs().size() + " runs of "
                + sheet.sheet().id() + ", seed " + seed + ".");
        return NeedleCommand.GOOD;
    }

    /** The truth in the units of the ledger, so that a script can compare the two number by number. */
    private static Map<String, Quantity> asInTheLedger(Sheet sheet, Map<String, Quantity> truth) {
        Map<String, Quantity> out = new LinkedHashMap<>(truth);
        out.replaceAll((name, q) -> {
            Derived d = sheet.results().get(name);
            LabUnit wanted = d == null ? q.unit() : d.unit() == null ? LabUnit.ONE : LabUnit.parse(d.unit());
            return q.unit().fits(wanted) ? q.to(wanted) : q;
        });
        return out;
    }

    private void list(PrintWriter out) {
        ArrayNode all = new ObjectMapper().createArrayNode();
        for (String id : SheetReader.shipped()) {
            Sheet s =
                    SheetReader.read(SheetReader.shippedText(id), id + ".yaml").sheet();
            List<String> has = Rigs.canRehearse(s) ? Rigs.faults(s) : List.of();
            if (json) {
                ObjectNode n =
                        all.addObject().put("id", id).put("title", s.title()).put("subject", s.subject());
                ArrayNode f = n.putArray("faults");
                has.forEach(f::add);
            } else {
                out.printf("%-20s %-45s %-12s faults: %s%n", id, s.title(), s.subject(), String.join(", ", has));
            }
        }
        if (json) {
            out.println(all.toPrettyString());
        }
    }
}

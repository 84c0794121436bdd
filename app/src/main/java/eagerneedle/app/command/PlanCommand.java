package eagerneedle.app.command;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.trace.RawSamples;
import eagerneedle.rig.simulated.RehearsedBudget;
import eagerneedle.rig.simulated.Rigs;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** The uncertainty that results will have: as the sheet plans it, and as rehearsals on its own rig say. */
@Command(name = "plan", description = "What uncertainty the results of a sheet will have, planned and rehearsed.")
final class PlanCommand implements Callable<Integer> {
    @Parameters(paramLabel = "SHEET", description = "a sheet, or the id of a method that ships")
    private Path sheet;

    @Option(names = "--sessions", description = "how many rehearsals (${DEFAULT-VALUE}); 0 for none")
    private int sessions = 40;

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        SheetReader.Located located = Sessions.named(sheet);
        Sheet s = located.sheet();
        Reduction plan = new Reducer(located, (run, channel) -> RawSamples.NONE)
                .plan(Session.start(located.text(), s.title(), Instant.EPOCH));
        List<RehearsedBudget> rehearsed =
                sessions > 0 && Rigs.canRehearse(s) ? RehearsedBudget.of(located, sessions) : List.of();
        PrintWriter out = spec.commandLine().getOut();
        ArrayNode all = new ObjectMapper().createArrayNode();
        s.results().forEach((name, d) -> {
            Optional<Quantity> planned = plan.quantity(name);
            Optional<RehearsedBudget> budget =
                    rehearsed.stream().filter(b -> b.name().equals(name)).findFirst();
            if (json && (planned.isPresent() || budget.isPresent())) {
                ObjectNode n = all.addObject().put("name", name);
                planned.ifPresent(q -> n.put("planned", q.value())
                        .put("planned_u", q.u())
                        .put("unit", q.unit().symbol()));
                budget.ifPresent(b -> {
                    n.put("rehearsed", b.value())
                            .put("rehearsed_u", b.stated())
                            .put(
                                    "unit",
                                    d.unit() == null
                                            ? ""
                                            : LabUnit.parse(d.unit()).symbol())
                            .put("sessions", b.sessions());
                    b.missed().ifPresent(m -> n.put("missed", m));
                });
            } else if (!json && d.shown()) {
                out.printf("%-14s %-36s %s%n", name, d.label(), said(planned, budget, d));
            }
        });
        if (json) {
            out.println(all.toPrettyString());
        } else if (rehearsed.isEmpty()) {
            out.println("Not rehearsed.");
        }
        return NeedleCommand.GOOD;
    }

    private static String said(Optional<Quantity> planned, Optional<RehearsedBudget> budget, Derived d) {
        String unit = d.unit() == null ? "" : " " + LabUnit.parse(d.unit()).pretty();
        String plan = planned.map(q -> "by what is read once " + q + "; ").orElse("");
        return budget.map(b -> plan + Notation.plain(b.value(), 6) + unit + ", u " + Notation.plain(b.stated(), 3)
                        + unit + " in " + b.sessions() + " rehearsals"
                        + b.missed()
                                .map(m -> ", which miss the truth by " + Notation.plain(m, 3) + unit)
                                .orElse(""))
                .orElse(plan.isEmpty() ? "nothing can be told without carrying it out" : plan.strip());
    }
}

package eagerneedle.app.command;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.app.day.DayFile;
import eagerneedle.app.day.DayPaper;
import eagerneedle.app.day.DayPlan;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.day.ReadyCheck;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.report.Paper;
import eagerneedle.store.FileName;
import eagerneedle.store.stockroom.ReadyBook;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "day",
        description = "Plans a laboratory afternoon: clashes first, then a rota, a page for the wall and one a bench.")
final class DayCommand implements Callable<Integer> {
    @Parameters(paramLabel = "PLAN", description = "the afternoon, see docs/formats/day.md")
    private Path plan;

    @Option(names = "--stockroom", paramLabel = "FILE", description = "another stockroom than the one of this machine")
    private Path stockroom;

    @Option(names = "-o", paramLabel = "OUT.pdf|OUT.html", description = "write the pages")
    private Path output;

    @Option(names = "--letter", description = "on Letter; A4 when not said")
    private boolean letter;

    @Option(names = "--json", description = "print JSON")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        DecimalSign.use(Home.decimal());
        if (stockroom != null && !Files.exists(stockroom)) {
            throw new IllegalArgumentException(
                    "There is no stockroom " + FileName.of(stockroom) + "; look at its name.");
        }
        DayPlan made = DayFile.read(plan, stockroom == null ? Home.stockroom() : stockroom);
        List<ReadyCheck> checks = new ReadyBook(Home.siteFolder()).all();
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(json(made));
        } else {
            said(made, checks, out);
        }
        if (output != null && made.rota().isThere()) {
            DayPaper.write(made, checks, output, letter || Home.paper() == Paper.LETTER);
            out.println("Wrote " + FileName.of(output) + ".");
        }
        return made.rota().isThere() ? NeedleCommand.GOOD : NeedleCommand.CHECKS_FAILED;
    }

    private static void said(DayPlan made, List<ReadyCheck> checks, PrintWriter out) {
        made.rota().clashes().forEach(out::println);
        made.warnings().forEach(out::println);
        for (List<String> row : DayPaper.rows(made)) {
            out.println(row.get(0) + ": " + String.join("; ", row.subList(1, row.size())));
        }
        made.ready(checks).forEach(out::println);
        made.switching().forEach(s -> out.println("Switch on at " + s + "."));
    }

    private static String json(DayPlan made) {
        ObjectNode root = new ObjectMapper().createObjectNode();
        ArrayNode clashes = root.putArray("clashes");
        made.rota().clashes().forEach(clashes::add);
        ArrayNode warnings = root.putArray("warnings");
        made.warnings().forEach(warnings::add);
        ArrayNode places = root.putArray("places");
        made.rota()
                .places()
                .forEach(p -> places.addObject()
                        .put("round", p.slot() + 1)
                        .put("time", made.time(p.slot()))
                        .put("group", p.group())
                        .put("method", p.method())
                        .put("bench", p.bench()));
        ArrayNode benches = root.putArray("benches");
        made.benches().forEach(b -> {
            ObjectNode one = benches.addObject()
                    .put("method", b.method())
                    .put("bench", b.number())
                    .put("switch_on", b.switchedOn());
            ArrayNode instruments = one.putArray("instruments");
            b.instruments().forEach(instruments::add);
        });
        return root.toPrettyString();
    }
}

package eagerneedle.app.command;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import eagerneedle.app.day.DayPlan;
import eagerneedle.app.workbench.Home;
import eagerneedle.core.day.Afternoon;
import eagerneedle.core.day.Rota;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.report.DayPages;
import eagerneedle.report.Handout;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import eagerneedle.store.stockroom.Stockroom;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
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
    private static final DateTimeFormatter DATE = DateTimeFormatter.ofPattern("EEEE d MMMM uuuu", Locale.UK);

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
        Afternoon day = Afternoon.read(Sessions.text(plan), FileName.of(plan));
        Map<String, Sheet> sheets = new LinkedHashMap<>();
        for (String m : day.methods().keySet()) {
            Path beside = FileName.folder(plan).resolve(m);
            sheets.put(
                    m,
                    SheetReader.shipped().contains(m) && !Files.exists(beside)
                            ? SheetReader.read(SheetReader.shippedText(m), m).sheet()
                            : Sessions.named(Files.exists(beside) ? beside : Path.of(m))
                                    .sheet());
        }
        List<Instrument> stock;
        Path own = stockroom == null ? Home.stockroom() : stockroom;
        if (stockroom != null && !Files.exists(stockroom)) {
            throw new IllegalArgumentException(
                    "There is no stockroom " + FileName.of(stockroom) + "; look at its name.");
        }
        try (Stockroom room = Files.exists(own) ? Stockroom.at(own) : Stockroom.demonstration()) {
            stock = room.all();
        }
        DayPlan made = DayPlan.of(day, sheets, stock);
        PrintWriter out = spec.commandLine().getOut();
        if (json) {
            out.println(json(made));
        } else {
            said(made, out);
        }
        if (output != null && made.rota().isThere()) {
            written(made);
            out.println("Wrote " + FileName.of(output) + ".");
        }
        return made.rota().isThere() ? NeedleCommand.GOOD : NeedleCommand.CHECKS_FAILED;
    }

    private void written(DayPlan made) throws IOException {
        Handout.Paper paper = letter ? Handout.Paper.LETTER : Handout.Paper.A4;
        String name = FileName.of(output).toLowerCase(Locale.ROOT);
        if (name.endsWith(".pdf")) {
            Beside.write(output, DayPages.pdf(wall(made), benches(made), paper));
        } else if (name.endsWith(".html")) {
            Beside.write(output, DayPages.html(wall(made), benches(made), paper));
        } else {
            throw new IllegalArgumentException(
                    "The pages are PDF or HTML; name the output something.pdf or something.html.");
        }
    }

    private static void said(DayPlan made, PrintWriter out) {
        made.rota().clashes().forEach(out::println);
        made.warnings().forEach(out::println);
        for (List<String> row : rows(made)) {
            out.println(row.get(0) + ": " + String.join("; ", row.subList(1, row.size())));
        }
        made.switching().forEach(s -> out.println("Switch on at " + s + "."));
    }

    private static List<List<String>> rows(DayPlan made) {
        List<List<String>> rows = new ArrayList<>();
        if (made.rota().isThere()) {
            for (String g : made.day().groups()) {
                List<String> row = new ArrayList<>(List.of(g));
                for (int s = 0; s < made.day().slots(); s++) {
                    row.add(made.rota().of(g, s).map(p -> place(made, p)).orElse("free"));
                }
                rows.add(row);
            }
        }
        return rows;
    }

    private static String place(DayPlan made, Rota.Place p) {
        return java.util.Objects.requireNonNull(made.needs().get(p.method())).title() + ", bench " + p.bench();
    }

    private static DayPages.Wall wall(DayPlan made) {
        List<String> times = new ArrayList<>();
        for (int s = 0; s < made.day().slots(); s++) {
            times.add(made.time(s));
        }
        return new DayPages.Wall(
                made.day().title(),
                DATE.format(made.day().date()),
                times,
                rows(made),
                made.day().staff(),
                made.switching(),
                made.fetching(),
                made.warnings());
    }

    private static List<DayPages.Bench> benches(DayPlan made) {
        return made.benches().stream()
                .map(b -> {
                    List<List<String>> rounds = new ArrayList<>();
                    for (int s = 0; s < made.day().slots(); s++) {
                        String who = b.groups().get(s);
                        rounds.add(List.of(made.time(s), who.isEmpty() ? "nobody" : who));
                    }
                    return new DayPages.Bench(b.title(), b.number(), b.switchedOn(), b.instruments(), rounds);
                })
                .toList();
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

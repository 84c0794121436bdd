package eagerneedle.app.command;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.ReductionJson;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "reduce",
        description = "Reduces a bench file without a window, or files recorded elsewhere by a sheet; prints the "
                + "ledger and the verdicts.")
final class ReduceCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", description = "a bench file; with --data a sheet, or the id of a shipped method")
    private String file;

    @Option(
            names = "--data",
            paramLabel = "DATA",
            arity = "1..*",
            description = "files recorded elsewhere, in the order of the runs; no session is kept")
    private List<Path> data;

    @Option(names = "--capture", description = "with --data: which capture they are runs of")
    private String capture;

    @Option(names = "--level", description = "with --data: which level they were taken at")
    private String level;

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (data == null) {
            if (capture != null || level != null) {
                throw new IllegalArgumentException("--capture and --level say where files go: name them with --data.");
            }
            try (Workbench bench = Workbench.patient(BenchFile.open(Path.of(file)), Clock.systemUTC())) {
                return reduced(bench, List.of());
            }
        }
        Path room = Files.createTempDirectory("needle");
        Path passing = room.resolve("passing.needle");
        String text =
                SheetReader.shipped().contains(file) ? SheetReader.shippedText(file) : Sessions.text(Path.of(file));
        try {
            BenchFile.create(
                            passing,
                            Session.start(
                                    text,
                                    SheetTrial.read(text, file).sheet().title(),
                                    Clock.systemUTC().instant()))
                    .close();
            try (Workbench bench = Workbench.patient(BenchFile.open(passing), Clock.systemUTC())) {
                return reduced(bench, new DataFiles(data, capture, level).into(bench));
            }
        } finally {
            try (Stream<Path> left = Files.list(room)) {
                for (Path p : left.toList()) {
                    Files.delete(p);
                }
            }
            Files.delete(room);
        }
    }

    /** Prints what came of a session, and before it what was said of the files that went in. */
    private int reduced(Workbench bench, List<String> said) {
        PrintWriter out = spec.commandLine().getOut();
        Reduction r = bench.reduction();
        if (!json) {
            said.forEach(out::println);
        }
        if (json) {
            out.println(ReductionJson.of(r, bench.findings()));
        } else {
            for (Ledger.Entry e : r.ledger().entries()) {
                out.printf(
                        "%-28s %-34s %s%n",
                        e.name(),
                        e.label(),
                        e.quantity().map(Quantity::toString).orElse(e.instead()));
            }
            out.println();
            for (Comparison c : r.comparisons()) {
                out.println(c.label() + ": " + c.verdict(r.speaks(c.id())));
            }
            r.ledger()
                    .entries()
                    .forEach(
                            e -> e.outcome().remarks().forEach(remark -> out.println("- " + e.name() + ": " + remark)));
            bench.findings().forEach(f -> out.println("! " + f.line()));
        }
        return r.checks().stream().anyMatch(c -> c.met().isPresent() && !c.met().get())
                ? NeedleCommand.CHECKS_FAILED
                : NeedleCommand.GOOD;
    }
}

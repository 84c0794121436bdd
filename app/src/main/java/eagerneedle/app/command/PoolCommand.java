package eagerneedle.app.command;

import eagerneedle.app.workbench.Pooling;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "pool", description = "Takes sessions from bench files into the bench file of a pool.")
final class PoolCommand implements Callable<Integer> {
    @Parameters(paramLabel = "BENCH", arity = "0..*", description = "bench files, or folders of them")
    private List<Path> benches = List.of();

    @Option(
            names = "--into",
            paramLabel = "FILE",
            required = true,
            description = "the bench file of the pool; made anew when --method is given")
    private Path file;

    @Option(names = "--method", description = "a sheet with a pool, or the id of one that ships, for a new bench file")
    private Path method;

    @Option(names = "--leave-out", paramLabel = "NAME", description = "a session of the pool that is to count nowhere")
    private String leaveOut;

    @Option(names = "--why", paramLabel = "REASON", description = "why it is left out")
    private String why;

    @Option(names = "--take-in", paramLabel = "NAME", description = "a session that was left out and is to count again")
    private String takeIn;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        if (method == null) {
            return into(file);
        }
        if (Files.exists(file)) {
            throw new IllegalArgumentException(
                    FileName.of(file) + " exists already; choose another name, or leave --method out to add to it.");
        }
        SheetReader.Located sheet = Sessions.named(method);
        int[] code = {NeedleCommand.GOOD};
        Beside.write(file, part -> {
            BenchFile.create(
                            part,
                            Session.start(
                                    sheet.text(),
                                    sheet.sheet().title(),
                                    Clock.systemUTC().instant()))
                    .close();
            code[0] = into(part);
        });
        return code[0];
    }

    private int into(Path pool) throws IOException {
        PrintWriter out = spec.commandLine().getOut();
        try (Workbench bench = Workbench.patient(BenchFile.open(pool), Clock.systemUTC())) {
            if (!bench.sheet().pool().isThere()) {
                throw new IllegalArgumentException("The sheet " + bench.sheet().id()
                        + " has no pool; write under pool from which method it takes, and what.");
            }
            Pooling pooling = new Pooling(
                    bench.sheet().pool(), bench.session(), file, bench.clock().instant());
            List<Path> all = new ArrayList<>();
            for (Path b : benches) {
                all.addAll(pooling.files(b));
            }
            Pooling.Taken taken = pooling.take(all, f -> {}, () -> false);
            taken.act().ifPresent(bench::apply);
            taken.sources()
                    .forEach(s -> out.println(s.name() + " taken from " + s.file() + "."
                            + s.remarks().stream().map(r -> " " + r).reduce("", String::concat)));
            taken.refused().forEach(spec.commandLine().getErr()::println);
            if (leaveOut != null) {
                bench.apply(new eagerneedle.core.session.PoolingCommand.LeaveOut(leaveOut, why));
                out.println(leaveOut + " is left out: " + why);
            }
            if (takeIn != null) {
                bench.apply(new eagerneedle.core.session.PoolingCommand.TakeIn(takeIn));
                out.println(takeIn + " counts again.");
            }
            pooling.states().forEach((name, state) -> {
                if (state == Pooling.State.CHANGED
                        && taken.sources().stream().noneMatch(s -> s.name().equals(name))) {
                    out.println(name + " has changed since it was taken; take it again.");
                }
            });
            return taken.refused().isEmpty() ? NeedleCommand.GOOD : NeedleCommand.CHECKS_FAILED;
        }
    }
}

package eagerneedle.app.command;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.ReductionJson;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "reduce", description = "Reduces a bench file without a window; prints the ledger and the verdicts.")
final class ReduceCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", description = "a bench file")
    private Path file;

    @Option(names = "--json", description = "print JSON at full precision")
    private boolean json;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        PrintWriter out = spec.commandLine().getOut();
        try (Workbench bench = Workbench.patient(BenchFile.open(file), Clock.systemUTC())) {
            Reduction r = bench.reduction();
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
                        .forEach(e ->
                                e.outcome().remarks().forEach(remark -> out.println("- " + e.name() + ": " + remark)));
                bench.findings().forEach(f -> out.println("! " + f.line()));
            }
            return r.checks().stream()
                            .anyMatch(c -> c.met().isPresent() && !c.met().get())
                    ? NeedleCommand.CHECKS_FAILED
                    : NeedleCommand.GOOD;
        }
    }
}

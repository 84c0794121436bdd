package eagerneedle.app.command;

import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.report.Paper;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.Beside;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "report", description = "Writes the report of a bench file as one HTML page or as PDF.")
final class ReportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE")
    private Path file;

    @Option(names = "-o", required = true, paramLabel = "OUT.pdf|OUT.html")
    private Path output;

    @Option(names = "--letter", description = "on Letter; the paper of the laboratory when not said")
    private boolean letter;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        DecimalSign.use(Home.decimal());
        boolean paper = output.toString().toLowerCase(java.util.Locale.ROOT).endsWith(".pdf");
        if (!paper && !output.toString().toLowerCase(java.util.Locale.ROOT).endsWith(".html")) {
            throw new IllegalArgumentException(
                    "A report is PDF or HTML; name the output something.pdf or something.html.");
        }
        try (Workbench bench = Workbench.patient(BenchFile.open(file), Clock.systemUTC())) {
            Beside.write(output, letter ? bench.report(paper, Paper.LETTER) : bench.report(paper));
        }
        spec.commandLine().getOut().println("Wrote " + FileName.of(output) + ".");
        return NeedleCommand.GOOD;
    }
}

package eagerneedle.app.command;

import eagerneedle.app.bench.Workbench;
import eagerneedle.report.HtmlReport;
import eagerneedle.store.bench.BenchFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "report", description = "Writes the report of a bench file as one HTML page.")
final class ReportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE")
    private Path file;
    @Option(names = "-o", required = true, paramLabel = "OUT.html")
    private Path output;
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (!output.toString().endsWith(".html")) {
            throw new IllegalArgumentException("This version writes reports as HTML; name the output something.html.");
        }
        try (Workbench bench = Workbench.patient(BenchFile.open(file), Clock.systemUTC())) {
            Files.writeString(output, HtmlReport.of(bench.reduction(), bench.findings(), bench.file().acts(), bench.clock().instant()));
        }
        spec.commandLine().getOut().println("Wrote " + output.getFileName() + ".");
        return NeedleCommand.GOOD;
    }
}

package eagerneedle.app.command;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.SessionExport;
import java.nio.file.Path;
import java.time.Clock;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "export",
        description = "Writes a session in an open format: .csv .json .xlsx .h5 or .zip, by the ending.")
final class ExportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE", description = "a bench file")
    private Path file;

    @Option(
            names = "-o",
            paramLabel = "OUT",
            required = true,
            description = "the file to write; its ending chooses the format")
    private Path output;

    @Override
    public Integer call() {
        try (Workbench bench = Workbench.patient(BenchFile.open(file), Clock.systemUTC())) {
            SessionExport.write(bench.reduction(), bench.findings(), output);
            return NeedleCommand.GOOD;
        }
    }
}

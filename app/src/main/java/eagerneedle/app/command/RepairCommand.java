package eagerneedle.app.command;

import eagerneedle.store.bench.BenchFile;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "repair", description = "Puts what can be read of a damaged bench file into a new one.")
final class RepairCommand implements Callable<Integer> {
    @Parameters(paramLabel = "FILE")
    private Path file;
    @Option(names = "-o", required = true, paramLabel = "NEW.needle")
    private Path output;
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        spec.commandLine().getOut().println(BenchFile.repair(file, output));
        return NeedleCommand.GOOD;
    }
}

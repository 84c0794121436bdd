package eagerneedle.app.command;

import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.bench.Repaired;
import java.nio.file.Files;
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

    @Option(
            names = "--sheet",
            paramLabel = "SHEET",
            description = "the method sheet it was made with, or its id, where the one in the file is garbled")
    private String sheet;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws java.io.IOException {
        String instead = sheet == null
                ? null
                : SheetReader.shipped().contains(sheet)
                        ? SheetReader.shippedText(sheet)
                        : Files.readString(Path.of(sheet));
        Repaired done = BenchFile.repair(file, output, instead);
        spec.commandLine().getOut().println(done.sentence());
        return done.missing().isEmpty() ? NeedleCommand.GOOD : NeedleCommand.CHECKS_FAILED;
    }
}

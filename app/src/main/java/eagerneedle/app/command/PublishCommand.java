package eagerneedle.app.command;

import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.Beside;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "publish",
        description = "Writes a closed copy of a bench file into a folder, whole at once, for a pool to take.")
final class PublishCommand implements Callable<Integer> {
    @Parameters(paramLabel = "SESSION", description = "a bench file")
    private Path file;

    @Option(names = "--into", paramLabel = "FOLDER", required = true, description = "where the copy goes")
    private Path folder;

    @Option(names = "--as", paramLabel = "NAME", description = "what the copy is called; like the file when not said")
    private String name;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws IOException {
        String as = name == null ? FileName.of(file) : name.endsWith(".needle") ? name : name + ".needle";
        if (as.contains("/") || as.contains("\\")) {
            throw new IllegalArgumentException("--as takes a name, not a place; say the folder with --into.");
        }
        Path to = folder.resolve(as);
        if (Files.exists(to) && Files.isSameFile(to, file)) {
            throw new IllegalArgumentException(FileName.of(file) + " lies in that folder itself; choose another one.");
        }
        Files.createDirectories(folder);
        try (BenchFile bench = BenchFile.open(file)) {
            Beside.write(to, bench::copyTo);
        }
        spec.commandLine().getOut().println(FileName.of(to) + " is published.");
        return NeedleCommand.GOOD;
    }
}

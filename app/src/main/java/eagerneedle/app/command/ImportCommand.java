package eagerneedle.app.command;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Session;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import eagerneedle.store.export.Beside;
import java.io.PrintWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "import",
        description = "Brings files recorded elsewhere into a bench file, each as a run: delimited text, JSON, WAV.")
final class ImportCommand implements Callable<Integer> {
    @Parameters(paramLabel = "DATA", arity = "1..*", description = "files, in the order of the runs")
    private List<Path> data;

    @Option(
            names = "--into",
            paramLabel = "FILE",
            required = true,
            description = "the bench file; made anew when --method is given")
    private Path file;

    @Option(names = "--method", description = "id of a shipped method, or a sheet, for a new bench file")
    private String method;

    @Option(names = "--capture", description = "which capture; the first that is not complete when not said")
    private String capture;

    @Option(names = "--level", description = "which level; the next of the schedule when not said")
    private String level;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        if (method != null) {
            String text = SheetReader.shipped().contains(method)
                    ? SheetReader.shippedText(method)
                    : Sessions.text(Path.of(method));
            Path whole = file;
            if (Files.exists(whole)) {
                throw new IllegalArgumentException(FileName.of(whole)
                        + " exists already; choose another name, or leave --method out to add to it.");
            }
            Beside.write(whole, part -> bring(text, part, spec.commandLine().getOut()));
            return NeedleCommand.GOOD;
        }
        return bring(null, file, out);
    }

    /** Brings all files into a bench file, which is made anew when there is a sheet. */
    private int bring(@Nullable String text, Path into, PrintWriter out) {
        if (text != null) {
            BenchFile.create(
                            into,
                            Session.start(
                                    text,
                                    SheetReader.read(text, method).sheet().title(),
                                    Clock.systemUTC().instant()))
                    .close();
        }
        try (Workbench bench = new Workbench(BenchFile.open(into), Clock.systemUTC())) {
            new DataFiles(data, capture, level).into(bench).forEach(out::println);
            return NeedleCommand.GOOD;
        }
    }
}

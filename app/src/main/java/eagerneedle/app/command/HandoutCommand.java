package eagerneedle.app.command;

import eagerneedle.app.workbench.Home;
import eagerneedle.app.workbench.Papering;
import eagerneedle.core.quantity.DecimalSign;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.report.Paper;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.nio.file.Path;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "handout",
        description = "Writes a method on paper, as PDF or HTML: for students with tables to fill, with --key for the "
                + "instructor with what is expected and the mistakes to look for.")
final class HandoutCommand implements Callable<Integer> {
    @Parameters(paramLabel = "SHEET", description = "a sheet, or the id of a shipped method")
    private String sheet;

    @Option(names = "-o", required = true, paramLabel = "OUT.pdf|OUT.html")
    private Path output;

    @Option(names = "--key", description = "the instructor's copy")
    private boolean key;

    @Option(names = "--letter", description = "on Letter; the paper of the laboratory when not said")
    private boolean letter;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        DecimalSign.use(Home.decimal());
        String name = FileName.of(output).toLowerCase(Locale.ROOT);
        if (!name.endsWith(".pdf") && !name.endsWith(".html")) {
            throw new IllegalArgumentException(
                    "A handout is PDF or HTML; name the output something.pdf or something.html.");
        }
        String text =
                SheetReader.shipped().contains(sheet) ? SheetReader.shippedText(sheet) : Sessions.text(Path.of(sheet));
        SheetReader.Located located = SheetTrial.read(text, sheet);
        Paper paper = letter ? Paper.LETTER : Home.paper();
        if (name.endsWith(".pdf")) {
            Beside.write(output, Papering.pdf(located, key, paper));
        } else {
            Beside.write(output, Papering.html(located, key, paper));
        }
        spec.commandLine().getOut().println("Wrote " + FileName.of(output) + ".");
        return NeedleCommand.GOOD;
    }
}

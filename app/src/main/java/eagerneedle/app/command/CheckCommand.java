package eagerneedle.app.command;

import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "check",
        description = "Checks a method sheet; says the first thing that is wrong, with line and column.")
final class CheckCommand implements Callable<Integer> {
    @Parameters(paramLabel = "SHEET")
    private Path sheet;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        SheetReader.Located s = Sessions.sheet(sheet);
        spec.commandLine()
                .getOut()
                .println(FileName.of(sheet) + ": good. " + s.sheet().inputs().size() + " inputs, "
                        + s.sheet().captures().size() + " captures, "
                        + s.sheet().results().size() + " results.");
        return NeedleCommand.GOOD;
    }
}

package eagerneedle.app.command;

import eagerneedle.core.sheet.SheetReader;
import eagerneedle.store.FileName;
import eagerneedle.store.export.Beside;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "new", description = "Writes a method sheet with comments, to be filled in.")
final class NewCommand implements Callable<Integer> {
    @Parameters(paramLabel = "NAME", description = "name of the method, small letters, digits and hyphens")
    private Path name;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        String id = FileName.of(name).replaceFirst("\\.ya?ml$", "");
        Path file = name.resolveSibling(id + ".yaml");
        String text = SheetReader.skeleton(id);
        if (Files.exists(file)) {
            throw new IllegalArgumentException(FileName.of(file) + " is there already; give another name.");
        }
        Beside.write(file, text);
        spec.commandLine()
                .getOut()
                .printf(
                        "%1$s is written. Fill it in, try it with ./needle check %1$s, open it with ./needle open %1$s.%n",
                        file);
        return NeedleCommand.GOOD;
    }
}

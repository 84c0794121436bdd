package eagerneedle.app.command;

import eagerneedle.core.function.Functions;
import eagerneedle.core.sheet.EditorSchema;
import eagerneedle.core.sheet.SheetReference;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

@Command(
        name = "functions",
        description = "Prints the table of functions of the formula language, as it stands in the documents.")
final class FunctionsCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Option(names = "--entries", description = "The page of all entries of a sheet instead, made from its schema.")
    private boolean entries;

    @Option(
            names = "--schema",
            description = "A JSON Schema instead, by which an editor completes and explains sheets.")
    private boolean schema;

    @Override
    public Integer call() {
        spec.commandLine()
                .getOut()
                .print(schema ? EditorSchema.json() : entries ? SheetReference.markdown() : Functions.markdown());
        return NeedleCommand.GOOD;
    }
}

package eagerneedle.app.command;

import eagerneedle.core.function.Functions;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

@Command(
        name = "functions",
        description = "Prints the table of functions of the formula language, as it stands in the documents.")
final class FunctionsCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        spec.commandLine().getOut().print(Functions.markdown());
        return NeedleCommand.GOOD;
    }
}

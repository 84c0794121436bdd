package eagerneedle.app.command;

import eagerneedle.app.workbench.Version;
import eagerneedle.core.formula.FormulaException;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The only door. Exit status: 0 good, 1 done with failed checks, 2 bad input. */
@Command(
        name = "needle",
        mixinStandardHelpOptions = true,
        scope = CommandLine.ScopeType.INHERIT,
        versionProvider = NeedleCommand.FromBuild.class,
        description = "A teaching laboratory's measurements, from the plan to a defended number.",
        subcommands = {
            DemoCommand.class,
            OpenCommand.class,
            ReduceCommand.class,
            FitCommand.class,
            EvalCommand.class,
            SimulateCommand.class,
            CheckCommand.class,
            ReportCommand.class,
            ImportCommand.class,
            ExportCommand.class,
            RepairCommand.class,
            ShotsCommand.class,
            FunctionsCommand.class,
            BenchCommand.class,
            TestCommand.class
        })
public final class NeedleCommand implements Runnable {
    static final int GOOD = 0;
    static final int CHECKS_FAILED = 1;
    static final int BAD_INPUT = 2;

    /** The version that the build wrote down. */
    static final class FromBuild implements CommandLine.IVersionProvider {
        @Override
        public String[] getVersion() {
            return new String[] {"Eager Needle " + Version.number()};
        }
    }

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec;

    /** Runs a command; whatever is wrong comes as one line on {@code err}, never as a stack trace. */
    public static int run(String[] arguments, PrintStream out, PrintStream err) {
        // The program speaks English on every machine, its numbers too: 3.480 s is never written 3,480 s.
        Locale.setDefault(Locale.ENGLISH);
        PrintWriter to = new PrintWriter(new java.io.OutputStreamWriter(out, StandardCharsets.UTF_8), true);
        PrintWriter complain = new PrintWriter(new java.io.OutputStreamWriter(err, StandardCharsets.UTF_8), true);
        CommandLine line = new CommandLine(new NeedleCommand());
        line.setOut(to).setErr(complain);
        // A formula may begin with a minus.
        line.getSubcommands().get("eval").setUnmatchedOptionsArePositionalParams(true);
        line.setExecutionExceptionHandler((e, commandLine, parsed) -> {
            complain.println(oneLine(e));
            return BAD_INPUT;
        });
        line.setParameterExceptionHandler((e, given) -> {
            complain.println(e.getMessage().lines().findFirst().orElse("The command is not complete.")
                    + " See ./needle --help.");
            return BAD_INPUT;
        });
        int status = line.execute(arguments);
        to.flush();
        return status;
    }

    private static String oneLine(Exception e) {
        String where = e instanceof FormulaException f && f.column() > 0 ? "column " + f.column() + ": " : "";
        String message =
                e.getMessage() == null ? "That did not work (" + e.getClass().getSimpleName() + ")." : e.getMessage();
        return where + message.replaceAll("\\s*\\R\\s*", " ");
    }

    @Override
    public void run() {
        spec.commandLine().usage(spec.commandLine().getOut());
    }
}

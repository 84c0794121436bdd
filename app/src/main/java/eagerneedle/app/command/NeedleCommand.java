package eagerneedle.app.command;

import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.ProgramLog;
import eagerneedle.app.workbench.Version;
import eagerneedle.core.formula.FormulaException;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.slf4j.LoggerFactory;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** The only door. Exit status: 0 good, 1 done with failed checks, 2 bad input. */
@Command(
        name = "needle",
        mixinStandardHelpOptions = true,
        scope = CommandLine.ScopeType.INHERIT,
        versionProvider = NeedleCommand.FromBuild.class,
        description = "A teaching laboratory's measurements, from the plan to a defended number.")
public final class NeedleCommand implements Runnable {
    /**
     * In the order of the help. Found by name first: making all of them ready to answer for one takes longer than the
     * answer.
     */
    static final Map<String, Class<?>> COMMANDS = new LinkedHashMap<>();

    static {
        COMMANDS.put("demo", DemoCommand.class);
        COMMANDS.put("open", OpenCommand.class);
        COMMANDS.put("reduce", ReduceCommand.class);
        COMMANDS.put("fit", FitCommand.class);
        COMMANDS.put("eval", EvalCommand.class);
        COMMANDS.put("simulate", SimulateCommand.class);
        COMMANDS.put("new", NewCommand.class);
        COMMANDS.put("check", CheckCommand.class);
        COMMANDS.put("plan", PlanCommand.class);
        COMMANDS.put("report", ReportCommand.class);
        COMMANDS.put("handout", HandoutCommand.class);
        COMMANDS.put("classset", ClassSetCommand.class);
        COMMANDS.put("mark", MarkCommand.class);
        COMMANDS.put("look", LookCommand.class);
        COMMANDS.put("import", ImportCommand.class);
        COMMANDS.put("read", ReadCommand.class);
        COMMANDS.put("device", DeviceCommand.class);
        COMMANDS.put("pool", PoolCommand.class);
        COMMANDS.put("benches", BenchesCommand.class);
        COMMANDS.put("day", DayCommand.class);
        COMMANDS.put("putright", PutRightCommand.class);
        COMMANDS.put("stockroom", StockroomCommand.class);
        COMMANDS.put("publish", PublishCommand.class);
        COMMANDS.put("export", ExportCommand.class);
        COMMANDS.put("repair", RepairCommand.class);
        COMMANDS.put("shots", ShotsCommand.class);
        COMMANDS.put("functions", FunctionsCommand.class);
        COMMANDS.put("archive", ArchiveCommand.class);
        COMMANDS.put("ask", AskCommand.class);
        COMMANDS.put("package", PackageCommand.class);
        COMMANDS.put("bench", BenchCommand.class);
        COMMANDS.put("test", TestCommand.class);
    }

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
        if (List.of(arguments).equals(List.of("open"))) {
            return startPage(complain);
        }
        CommandLine line = new CommandLine(new NeedleCommand());
        Class<?> asked = arguments.length == 0 ? null : COMMANDS.get(arguments[0]);
        if (asked != null) {
            line.addSubcommand(arguments[0], asked);
        } else {
            COMMANDS.forEach(line::addSubcommand);
        }
        line.setOut(to).setErr(complain);
        // A formula may begin with a minus.
        if (line.getSubcommands().get("eval") != null) {
            line.getSubcommands().get("eval").setUnmatchedOptionsArePositionalParams(true);
        }
        line.setExecutionExceptionHandler((e, commandLine, parsed) -> {
            complain.println(oneLine(e));
            return BAD_INPUT;
        });
        line.setParameterExceptionHandler((e, given) -> {
            complain.println(String.valueOf(e.getMessage()).lines().findFirst().orElse("The command is not complete.")
                    + " See ./needle --help.");
            return BAD_INPUT;
        });
        try {
            return line.execute(arguments);
        } catch (OutOfMemoryError tooMuch) {
            complain.println(
                    "This needs more memory than there is. Where it is rehearsed, say in the sheet how long a run"
                            + " lasts (rig: lasts), or sample more slowly.");
            return BAD_INPUT;
        } finally {
            to.flush();
        }
    }

    /** Nothing is to be parsed here, and making ready to parse takes longer than all that the window reads. */
    private static int startPage(PrintWriter complain) {
        try {
            return new OpenCommand().call();
        } catch (RuntimeException e) {
            complain.println(oneLine(e));
            return BAD_INPUT;
        }
    }

    static String oneLine(Exception e) {
        if (Fault.isOurs(e)) {
            ProgramLog.begin();
            LoggerFactory.getLogger(NeedleCommand.class).error("At the command line", e);
            return "Something went wrong in the program itself; " + ProgramLog.file() + " says where.";
        }
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

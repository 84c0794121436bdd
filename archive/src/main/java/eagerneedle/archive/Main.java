package eagerneedle.archive;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** Where archive and ask begin. What goes wrong is one sentence, never a trace. */
@Command(
        name = "./needle",
        subcommands = {ArchiveCommand.class, AskCommand.class},
        mixinStandardHelpOptions = true)
public final class Main implements Runnable {
    private static final int WRONG = 2;

    @Override
    public void run() {
        // Without a command the usage is printed by the caller.
    }

    public static void main(String[] args) {
        System.exit(run(
                new PrintWriter(System.out, true, StandardCharsets.UTF_8),
                new PrintWriter(System.err, true, StandardCharsets.UTF_8),
                args));
    }

    /** Runs a command line; 0 when all is well, 1 when something was left, 2 when it could not be done. */
    static int run(PrintWriter out, PrintWriter err, String... args) {
        CommandLine line = new CommandLine(new Main()).setOut(out).setErr(err);
        line.setParameterExceptionHandler((e, a) -> {
            err.println(e.getMessage() + " See ./needle archive --help and ./needle ask --help.");
            return WRONG;
        });
        line.setExecutionExceptionHandler((e, c, parsed) -> {
            err.println(
                    e instanceof ArchiveException || e instanceof IllegalArgumentException
                            ? e.getMessage()
                            : "This could not be done: " + e.getMessage());
            return WRONG;
        });
        return line.execute(args);
    }
}

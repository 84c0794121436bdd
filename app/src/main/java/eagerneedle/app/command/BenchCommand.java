package eagerneedle.app.command;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;

/** Listed here so that help knows it; the start script carries it out, because it needs the sources. */
@Command(
        name = "bench",
        description = "Measures speed, each piece of work beside a plain baseline in the same run; prints the ratios.")
final class BenchCommand implements Callable<Integer> {
    @Override
    public Integer call() {
        throw new IllegalArgumentException("This runs from the folder of the sources: ./needle bench");
    }
}

package eagerneedle.app.command;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;

/** Listed here so that help knows it; the start script carries it out, because it needs the sources. */
@Command(name = "test", description = "Builds and runs all tests, those of the window on a virtual display.")
final class TestCommand implements Callable<Integer> {
    @Override
    public Integer call() {
        throw new IllegalArgumentException("This runs from the folder of the sources: ./needle test");
    }
}

package eagerneedle.app.command;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;

/** Listed here so that help knows it; the start script carries it out, because it is no part of the application. */
@Command(name = "ask", description = "Asks such an archive: a ready question, or one SELECT; built with it.")
final class AskCommand implements Callable<Integer> {
    @Override
    public Integer call() {
        throw new IllegalArgumentException("This runs from the folder of the sources: ./needle ask");
    }
}

package eagerneedle.app.command;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;

/** Listed here so that help knows it; the start script carries it out, because it is no part of the application. */
@Command(
        name = "archive",
        description =
                "Takes folders of sessions into an archive of all years; a part of its own, built when it is first called.")
final class ArchiveCommand implements Callable<Integer> {
    @Override
    public Integer call() {
        throw new IllegalArgumentException("This runs from the folder of the sources: ./needle archive");
    }
}

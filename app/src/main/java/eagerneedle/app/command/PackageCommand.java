package eagerneedle.app.command;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;

/** Listed here so that help knows it; the start script carries it out, because it is no part of the application. */
@Command(
        name = "package",
        description =
                "Makes an application image with its own runtime, and a Debian package where the tools are there.")
final class PackageCommand implements Callable<Integer> {
    @Override
    public Integer call() {
        throw new IllegalArgumentException("This runs from the folder of the sources: ./needle package");
    }
}

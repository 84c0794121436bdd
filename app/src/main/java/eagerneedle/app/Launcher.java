package eagerneedle.app;

import eagerneedle.app.command.NeedleCommand;
import java.nio.file.Files;
import java.nio.file.Path;

/** Where the program starts. */
public final class Launcher {
    private Launcher() {}

    public static void main(String[] arguments) {
        System.exit(NeedleCommand.run(opened(arguments), System.out, System.err));
    }

    /** A desktop names only the file that was double-clicked: that opens it. */
    static String[] opened(String... arguments) {
        boolean file = arguments.length == 1
                && arguments[0].matches(".*[.](needle|ya?ml)")
                && Files.exists(Path.of(arguments[0]));
        return file ? new String[] {"open", arguments[0]} : arguments;
    }
}

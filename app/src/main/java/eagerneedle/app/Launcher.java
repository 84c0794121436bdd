package eagerneedle.app;

import eagerneedle.app.command.NeedleCommand;

/** Where the program starts. */
public final class Launcher {
    private Launcher() {}

    public static void main(String[] arguments) {
        System.exit(NeedleCommand.run(arguments, System.out, System.err));
    }
}

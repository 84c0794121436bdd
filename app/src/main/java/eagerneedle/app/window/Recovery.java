package eagerneedle.app.window;

import eagerneedle.app.workbench.Fault;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import eagerneedle.core.session.RunCommand;
import java.util.List;
import java.util.Optional;

/** Runs that were being recorded when the program ended are kept when their session is opened again. */
final class Recovery {
    private Recovery() {}

    /** Keeps them; what was done, or why it could not be, in one sentence. Empty when there is nothing to recover. */
    static Optional<String> of(Workbench bench) {
        List<Run> unfinished = bench.file().unfinished(bench.session());
        if (unfinished.isEmpty()) {
            return Optional.empty();
        }
        try {
            unfinished.forEach(r -> bench.apply(new RunCommand.KeepRun(r.named("Recovered run " + r.id()))));
        } catch (RuntimeException refused) {
            return Optional.of(Fault.said(refused));
        }
        return Optional.of((unfinished.size() == 1
                        ? "A run that was being recorded when the program ended was"
                        : unfinished.size() + " runs that were not finished were")
                + " recovered; look, and leave out at Reduce what is of no use.");
    }
}

package eagerneedle.app.window;

import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.Run;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** The run that is looked at: the one chosen, and where that is undone or none was, the last that takes part. */
final class RunInHand {
    private @Nullable Run run;

    Optional<Run> get() {
        return Optional.ofNullable(run);
    }

    @Nullable
    Run orNull() {
        return run;
    }

    void take(Run chosen) {
        run = chosen;
    }

    /** Begins with the last run of a session. */
    void open(Workbench bench) {
        run = last(bench);
    }

    /** Follows the session; true when another run is in hand than before. */
    boolean follow(Workbench bench) {
        boolean gone = run == null || bench.session().run(run.id()).isEmpty();
        Run before = run;
        run = gone ? last(bench) : run;
        return run != before;
    }

    private static @Nullable Run last(Workbench bench) {
        return bench.session().keptRuns().stream()
                .filter(Run::takesPart)
                .reduce((a, b) -> b)
                .orElse(null);
    }
}

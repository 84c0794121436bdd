package eagerneedle.app.window;

import eagerneedle.app.widget.Notices;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.core.session.RecordCommand;
import eagerneedle.core.session.RunCommand;
import eagerneedle.core.watch.Finding;
import java.util.function.Supplier;

/** What a person says to a watch becomes an act of the session. */
final class WatchAnswers implements WatchStrip.Answers {
    private final Supplier<Workbench> bench;
    private final WatchStrip strip;

    WatchAnswers(Supplier<Workbench> bench, WatchStrip strip) {
        this.bench = bench;
        this.strip = strip;
    }

    @Override
    public void explain(Finding f, String text) {
        Notices.attempt(strip, () -> bench.get().apply(new RecordCommand.Explain(f.key(), f.message(), text)));
    }

    @Override
    public void voidSamples(Finding f, String reason) {
        if (Notices.attempt(
                strip, () -> bench.get().apply(new RunCommand.VoidSamples(f.run(), f.from(), f.to(), reason)))) {
            Notices.tell(
                    strip, "Left out; every result follows. The samples stay in the file, and undo brings them back.");
        }
    }
}

package eagerneedle.app.window;

import eagerneedle.app.workbench.InstrumentsInUse;
import eagerneedle.app.workbench.Workbench;
import eagerneedle.store.bench.Recent;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;

/** Sessions that were open, for the start page and for where instruments were used. */
final class Remembered {
    private Recent recent = Recent.forNow();

    void in(Recent where) {
        recent = where;
    }

    Recent recent() {
        return recent;
    }

    void add(Workbench bench, Clock clock) {
        recent.remember(
                bench.file().path(), bench.sheet().title(), bench.sheet().place(), clock.instant());
    }

    /** The files of all that are known, the one that is open among them. */
    List<Path> files(Workbench open) {
        List<Path> known = new ArrayList<>(List.of(open.file().path()));
        recent.entries().forEach(e -> known.add(e.file()));
        return InstrumentsInUse.files(known);
    }
}

package eagerneedle.app.workbench;

import eagerneedle.core.session.Run;
import eagerneedle.core.session.Setup;
import eagerneedle.core.trace.DeviceClock;
import eagerneedle.rig.driver.Driver;
import eagerneedle.store.bench.BenchFile;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * One run while it is recorded: a recorder for each instrument, and the shot that it waits for. Afterwards, what came
 * of it.
 *
 * @param recorders by instrument; empty when nothing is recorded
 * @param shot null for a run that waits for none
 * @param clocks how the clocks of several instruments stood, once it is over
 * @param afterwards what stood in the way of keeping it; empty for nothing
 * @param kept samples on the disk, once it is over
 */
record Recording(
        Map<Connection, RunRecorder> recorders,
        @Nullable Shot shot,
        Map<String, DeviceClock> clocks,
        String afterwards,
        long kept) {
    private static final long MOST_WAITING = 24_000_000;

    /** Nothing. */
    static final Recording NONE = new Recording(Map.of(), null, Map.of(), "", 0);

    /**
     * Begins to keep a run.
     *
     * @param from s of the run at which it goes on; 0 for a new one
     */
    static Recording of(Run run, BenchFile file, double from, List<Connection> connections, Map<String, Setup> setups) {
        if (from == 0) {
            file.begin(run);
        }
        Map<Connection, RunRecorder> all = new LinkedHashMap<>();
        for (Connection c : connections) {
            Map<String, Integer> columns = c.wiring(setups).columns(run.capture());
            if (!columns.isEmpty() || connections.size() == 1) {
                all.put(c, new RunRecorder(run.id(), file::append, columns, from, MOST_WAITING));
            }
        }
        return new Recording(all, null, Map.of(), "", 0);
    }

    /** The same, from a little before a trigger to a little after. */
    Recording when(Shot armed) {
        return new Recording(recorders, armed, clocks, afterwards, kept);
    }

    boolean isOpen() {
        return !recorders.isEmpty();
    }

    boolean isArmed() {
        return shot != null && !shot.fired();
    }

    boolean isShotDone() {
        return shot != null && shot.done();
    }

    /** On the thread of the driver. */
    void take(Connection from, Driver.Block block) {
        RunRecorder keeps = recorders.get(from);
        if (keeps != null && shot != null) {
            shot.take(block, keeps::take);
        } else if (keeps != null) {
            keeps.take(block);
        }
    }

    /** What stands in the way of keeping it; empty when nothing does. */
    String trouble() {
        return recorders.values().stream()
                .map(RunRecorder::trouble)
                .filter(t -> !t.isEmpty())
                .findFirst()
                .orElse(afterwards);
    }

    /** Samples of each channel that could not be kept. */
    long lost() {
        return recorders.values().stream().mapToLong(RunRecorder::lost).sum();
    }

    /** Ends it; all its samples are on the disk when this returns. */
    Recording ended() {
        if (!isOpen()) {
            return this;
        }
        Map<String, DeviceClock> known = Connection.together(recorders.keySet());
        recorders.values().forEach(RunRecorder::close);
        return new Recording(
                Map.of(),
                null,
                known,
                trouble(),
                recorders.values().stream().mapToLong(RunRecorder::kept).sum());
    }
}

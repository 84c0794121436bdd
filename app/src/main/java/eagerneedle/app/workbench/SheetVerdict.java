package eagerneedle.app.workbench;

import eagerneedle.core.sheet.SheetException;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.rig.simulated.RehearsalTrial;
import eagerneedle.rig.simulated.Rigs;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;

/**
 * What carrying a sheet out says of it: the part of the check that takes longer than anyone waits, in the background.
 * Sheets that ship with the program are checked when it is built.
 */
public final class SheetVerdict {
    private final SheetReader.Located sheet;
    private final boolean wanted;
    private volatile boolean stopped;
    private boolean begun;
    private boolean done;
    private List<SheetException> problems = List.of();
    private List<SheetException> notes = List.of();

    SheetVerdict(SheetReader.Located sheet, String text) {
        this.sheet = sheet;
        wanted = Rigs.canRehearse(sheet.sheet()) && !isShipped(sheet.sheet().id(), text);
    }

    private static boolean isShipped(String id, String text) {
        return SheetReader.shipped().contains(id) && SheetReader.shippedText(id).equals(text);
    }

    /** True for a sheet of one's own that can be carried out. */
    public boolean isWanted() {
        return wanted;
    }

    /** True once it was carried out to the end. */
    public boolean isDone() {
        return done;
    }

    /** What is wrong, each with its place; empty when nothing is, or nothing is known yet. */
    public List<SheetException> problems() {
        return problems;
    }

    /** What its author should know, though nothing is wrong. */
    public List<SheetException> notes() {
        return notes;
    }

    /**
     * Begins, the first time.
     *
     * @param here where {@code told} is run when it is done
     */
    public void begin(Executor here, Runnable told) {
        if (!wanted || begun) {
            return;
        }
        begun = true;
        CompletableFuture.supplyAsync(
                        () -> RehearsalTrial.look(sheet, RehearsalTrial.SESSIONS, () -> stopped), task -> {
                            Thread t = new Thread(task, "check of the sheet");
                            t.setDaemon(true);
                            t.setPriority(Thread.MIN_PRIORITY);
                            t.start();
                        })
                .thenAccept(found -> here.execute(() -> {
                    if (stopped) {
                        return;
                    }
                    problems = found.problems();
                    notes = found.notes();
                    done = true;
                    told.run();
                }));
    }

    /** Nobody waits for it any longer. */
    void cancel() {
        stopped = true;
    }
}

package eagerneedle.app.workbench;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.History;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.watch.Finding;
import eagerneedle.report.Paper;
import eagerneedle.store.bench.BenchFile;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import org.jspecify.annotations.Nullable;

/**
 * The open session: its bench file, its history, and everything that follows from it. Every act is kept in the bench
 * file as it is made. Used from one thread, the interface's; listeners are called on it.
 */
public final class Workbench implements AutoCloseable {
    private final BenchFile file;
    private final Clock clock;
    private final SheetReducer reducers;
    private final History history;
    private SessionWatch watch = new SessionWatch();
    private final List<Runnable> listeners = new ArrayList<>();
    private final Moved moved = new Moved();
    private Reduction reduction;

    @SuppressWarnings("NullAway.Init") // worked out when it begins
    private Reduction kept;
    /** What follows from the session without what is tried. */
    private Reduction real;

    private Reduction plan;
    private final PlanRehearsal rehearsal = new PlanRehearsal(this);
    private List<Finding> findings;
    private boolean silent;
    private @Nullable Command previewed;
    private final Trying tried = new Trying();

    public Workbench(BenchFile file, Clock clock) {
        this(file, clock, false);
    }

    /**
     * A workbench that works everything out at once, however long its runs are: for a command, where nobody looks on.
     */
    public static Workbench patient(BenchFile file, Clock clock) {
        return new Workbench(file, clock, true);
    }

    private Workbench(BenchFile file, Clock clock, boolean patient) {
        this.file = file;
        this.clock = clock;
        Session session = file.session();
        this.history = new History(session);
        this.reducers = new SheetReducer(file, patient);
        recompute(session);
    }

    /** Works everything out once more, so that all sentences are written as numbers are written now. */
    public void sayAgain() {
        reducers.renew(session());
        watch = new SessionWatch();
        recompute(session());
        tell();
    }

    /** What it would take to make a result better, with these instruments. */
    public Improvements improvements(List<Instrument> stock, String result) {
        return new Improvements(reducer(), rehearsal.foresight(), session(), stock, result);
    }

    /** The same for somebody who can wait for rehearsals. */
    public Improvements patientImprovements(List<Instrument> stock, String result) {
        return new Improvements(reducer(), rehearsal.patientForesight(), session(), stock, result);
    }

    public Sheet sheet() {
        return reducer().sheetOf(session());
    }

    /** True for a sheet that was written or changed here, not one that ships as it is. */
    public boolean ownsSheet() {
        String id = sheet().id();
        return !(SheetReader.shipped().contains(id)
                && SheetReader.shippedText(id).equals(session().sheetText()));
    }

    /** The session as it is; with what is tried while something is. */
    public Session session() {
        return tried.over(history.session());
    }

    /** From now on choices are only tried: everything follows them, and nothing is kept until {@link #keepTried}. */
    public void startTrying() {
        if (tried.start()) {
            tell();
        }
    }

    public boolean isTrying() {
        return tried.isOn();
    }

    /** The choices tried so far, as the notebook would have them. */
    public List<String> tried() {
        return tried.says();
    }

    /** Makes the choices that were tried, as one act. */
    public void keepTried() {
        tried.end().ifPresentOrElse(this::apply, this::tell);
    }

    /** Forgets the choices that were tried. */
    public void forgetTried() {
        if (tried.isOn()) {
            if (tried.end().isPresent()) {
                recompute(session());
            }
            tell();
        }
    }

    public BenchFile file() {
        return file;
    }

    public Clock clock() {
        return clock;
    }

    public Reduction reduction() {
        return reduction;
    }

    public Reduction plan() {
        return rehearsal.over(plan);
    }

    public PlanRehearsal planRehearsal() {
        return rehearsal;
    }

    Reducer reducer() {
        return reducers.inUse();
    }

    /** What the watches find; nothing while they are silent. */
    public List<Finding> findings() {
        return silent ? List.of() : findings;
    }

    /** The same when they are silent too. */
    List<Finding> found() {
        return findings;
    }

    /** The watches look and say nothing, or speak again: who hunts a fault is to find it. */
    public void silence(boolean on) {
        silent = on;
        tell();
    }

    public boolean isSilent() {
        return silent;
    }

    /** Ledger keys whose values changed and have not been looked at since. */
    public Set<Key> changed() {
        return moved.keys();
    }

    /**
     * What a changed quantity was before it changed, or before anything was tried; empty when it is new or was looked
     * at.
     */
    public Optional<Quantity> before(Key key) {
        if (tried.isOn()) {
            Optional<Quantity> now = reduction.quantity(key);
            return real.quantity(key).filter(q -> now.isEmpty() || !q.sameAs(now.get()));
        }
        return moved.before(key);
    }

    public void lookedAt(Key key) {
        if (moved.lookedAt(key)) {
            tell();
        }
    }

    public void onChange(Runnable listener) {
        listeners.add(listener);
    }

    /**
     * Carries an act out, keeps it in the bench file and tells everybody.
     *
     * @throws RuntimeException with one sentence if it cannot be carried out or kept; then nothing has changed
     */
    public void apply(Command command) {
        if (tried.isOn() && command.isChoice()) {
            command.apply(session());
            tried.add(command);
            show(session());
            return;
        }
        // Kept first: an act that the disk refuses has not happened.
        Session after = command.apply(history.session());
        refuseWhatLacks(after);
        file.save(after, clock.instant(), Notebook.line(command, after, sheet()));
        history.apply(command, after);
        show(session());
    }

    /** A sheet that is not good, or has no room for what was taken already, changes nothing. */
    private void refuseWhatLacks(Session after) {
        if (!after.sheetText().equals(session().sheetText())) {
            Reducer other = reducers.of(after);
            String lacking = SheetCommand.lacking(after, other.located().sheet());
            if (!lacking.isEmpty()) {
                throw new IllegalArgumentException(lacking + " Nothing was changed.");
            }
        }
    }

    /** Shows what an act would do, without carrying it out; null goes back to what is. */
    public void preview(Command command) {
        if (command == null && previewed == null) {
            return;
        }
        previewed = command;
        reduction = command == null && !tried.isOn()
                ? reducer().reduce(session())
                : command == null ? reducer().whatIf(session()) : whatIf(command);
        tell();
    }

    /** True while an act is shown that was not carried out. */
    public boolean isPreviewing() {
        return previewed != null;
    }

    /** What would follow from one more act, without showing or keeping it. */
    public Reduction whatIf(Command command) {
        Session after = command.apply(session());
        refuseWhatLacks(after);
        return reducers.of(after).whatIf(after);
    }

    /** True when a run is so long that it waits to be asked for. */
    public boolean hasLongRuns() {
        return reducer().hasLong(session());
    }

    /**
     * Works long runs out beside everything else.
     *
     * @param here runs what comes afterwards on the thread this is used from
     * @return cancel it to go on as before
     */
    public CompletableFuture<Void> workOutLongRuns(Executor here) {
        Reducer patient = reducers.patient();
        Session now = session();
        CompletableFuture<Void> done = new CompletableFuture<>();
        CompletableFuture.runAsync(() -> patient.reduce(now))
                .whenCompleteAsync(
                        (nothing, failed) -> {
                            if (failed != null) {
                                done.completeExceptionally(failed);
                            } else if (!done.isCancelled()) {
                                reducers.take(patient);
                                show(session());
                                done.complete(null);
                            }
                        },
                        here);
        return done;
    }

    /** What a mistake of the sheet would have made of the session. */
    public Reduction mistaken(Sheet.Mistake mistake) {
        return reducer().mistaken(session(), mistake);
    }

    public boolean canUndo() {
        return tried.isOn() ? tried.isAny() : history.canUndo();
    }

    public boolean canRedo() {
        return !tried.isOn() && history.canRedo();
    }

    /** Takes the last act back, or the last choice that was tried; its line for the notebook is returned. */
    public Optional<String> undo() {
        if (tried.isOn()) {
            Optional<String> says = tried.takeBack();
            if (says.isPresent()) {
                show(session());
            }
            return says;
        }
        return history.toUndo()
                .map(step ->
                        stepped(step, "Undid: " + Notebook.line(step.command(), session(), sheet()), history::undo));
    }

    public Optional<String> redo() {
        return tried.isOn()
                ? Optional.empty()
                : history.toRedo()
                        .map(step -> stepped(
                                step,
                                "Did again: " + Notebook.line(step.command(), step.session(), sheet()),
                                history::redo));
    }

    private String stepped(History.Step step, String says, Runnable move) {
        file.save(step.session(), clock.instant(), says);
        move.run();
        show(history.session());
        return says;
    }

    private void show(Session session) {
        previewed = null;
        Ledger before = kept.ledger();
        recompute(session);
        if (tried.isOn()) {
            tell();
            return;
        }
        moved.between(before, reduction.ledger());
        tell();
    }

    private void recompute(Session session) {
        Reducer reducer = reducers.of(session);
        if (reducers.take(reducer)) {
            rehearsal.forget();
        }
        if (!tried.isOn()) {
            reduction = reducer.reduce(session);
            kept = reduction;
            real = reduction;
        } else {
            real = reducer.reduce(history.session());
            reduction = reducer.whatIf(session);
        }
        plan = reducer.plan(session);
        findings = watch.look(reduction, clock.instant());
    }

    void tell() {
        List.copyOf(listeners).forEach(Runnable::run);
    }

    /** The report of the session as it is, on paper. */
    public byte[] paper() {
        return report(true);
    }

    /** The report of the session as it is: PDF, or one page of HTML in UTF-8. */
    public byte[] report(boolean paper) {
        return report(paper, Home.paper());
    }

    /** The same on paper of a size. */
    public byte[] report(boolean paper, Paper size) {
        return Papering.report(this, paper, size);
    }

    /** What has been taken of what is to be taken. */
    public Schedule schedule() {
        return new Schedule(session(), sheet());
    }

    @Override
    public void close() {
        rehearsal.cancel();
        file.close();
    }
}

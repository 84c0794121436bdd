package eagerneedle.app.workbench;

import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.reduce.Improvements;
import eagerneedle.core.reduce.Key;
import eagerneedle.core.reduce.Ledger;
import eagerneedle.core.reduce.Reducer;
import eagerneedle.core.reduce.Reduction;
import eagerneedle.core.reduce.SessionWatch;
import eagerneedle.core.reduce.SheetTrial;
import eagerneedle.core.session.Command;
import eagerneedle.core.session.History;
import eagerneedle.core.session.Notebook;
import eagerneedle.core.session.Session;
import eagerneedle.core.session.SheetCommand;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.sheet.SheetReader;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.watch.Finding;
import eagerneedle.report.Handout;
import eagerneedle.report.SessionReport;
import eagerneedle.store.FileName;
import eagerneedle.store.bench.BenchFile;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;

/**
 * The open session: its bench file, its history, and everything that follows from it. Every act is kept in the bench
 * file as it is made. Used from one thread, the interface's; listeners are called on it.
 */
public final class Workbench implements AutoCloseable {
    private final BenchFile file;
    private final Clock clock;
    private final boolean patient;
    private final History history;
    private Reducer reducer;
    private SessionWatch watch = new SessionWatch();
    private final List<Runnable> listeners = new ArrayList<>();
    private final Set<Key> changed = new HashSet<>();
    private Reduction reduction;
    private Reduction kept;
    /** What follows from the session without what is tried. */
    private Reduction real;

    private final Map<Key, Quantity> moved = new HashMap<>();
    private Reduction plan;
    private final PlanRehearsal rehearsal = new PlanRehearsal(this);
    private List<Finding> findings;
    private boolean silent;
    private Command previewed;
    /** Choices that are tried and not made, in order; null while nothing is tried. */
    private List<Command> tried;

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
        this.patient = patient;
        this.reducer = reducerFor(session);
        recompute(session);
        changed.clear();
    }

    /**
     * The reducer of a session's sheet: the one at hand, or a new one where the sheet has another text.
     *
     * @throws RuntimeException with one sentence where the sheet is not good
     */
    private Reducer reducerFor(Session session) {
        if (reducer != null && reducer.located().text().equals(session.sheetText())) {
            return reducer;
        }
        return freshReducer(session);
    }

    private Reducer freshReducer(Session session) {
        Reducer other = new Reducer(
                SheetTrial.readOfSession(session.sheetText(), "the sheet in " + FileName.of(file.path())), file);
        if (patient) {
            other.takeLong();
        }
        return other;
    }

    /** Works everything out once more, so that all sentences are written as numbers are written now. */
    public void sayAgain() {
        reducer = freshReducer(session());
        watch = new SessionWatch();
        recompute(session());
        tell();
    }

    /** What it would take to make a result better, with these instruments. */
    public Improvements improvements(List<Instrument> stock, String result) {
        return new Improvements(reducer, rehearsal.foresight(), session(), stock, result);
    }

    /** The same for somebody who can wait for rehearsals. */
    public Improvements patientImprovements(List<Instrument> stock, String result) {
        return new Improvements(reducer, rehearsal.patientForesight(), session(), stock, result);
    }

    public Sheet sheet() {
        return reducer.sheetOf(session());
    }

    /** True for a sheet that was written or changed here, not one that ships as it is. */
    public boolean ownsSheet() {
        String id = sheet().id();
        return !(SheetReader.shipped().contains(id)
                && SheetReader.shippedText(id).equals(session().sheetText()));
    }

    /** The session as it is; with what is tried while something is. */
    public Session session() {
        return with(tried == null ? List.of() : tried);
    }

    private Session with(List<Command> acts) {
        Session s = history.session();
        for (Command c : acts) {
            s = c.apply(s);
        }
        return s;
    }

    /** From now on choices are only tried: everything follows them, and nothing is kept until {@link #keepTried}. */
    public void startTrying() {
        if (tried == null) {
            tried = new ArrayList<>();
            tell();
        }
    }

    public boolean isTrying() {
        return tried != null;
    }

    /** The choices tried so far, as the notebook would have them. */
    public List<String> tried() {
        return tried == null ? List.of() : tried.stream().map(Command::says).toList();
    }

    /** Makes the choices that were tried, as one act. */
    public void keepTried() {
        List<Command> acts = tried == null ? List.of() : List.copyOf(tried);
        tried = null;
        if (acts.isEmpty()) {
            tell();
        } else {
            apply(
                    acts.size() == 1
                            ? acts.get(0)
                            : new Command.Together(
                                    String.join(
                                            " ",
                                            acts.stream().map(Command::says).toList()),
                                    acts));
        }
    }

    /** Forgets the choices that were tried. */
    public void forgetTried() {
        if (tried != null) {
            boolean any = !tried.isEmpty();
            tried = null;
            if (any) {
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
        return reducer;
    }

    /** What the watches find; nothing while they are silent. */
    public List<Finding> findings() {
        return silent ? List.of() : findings;
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
        return changed;
    }

    /**
     * What a changed quantity was before it changed, or before anything was tried; empty when it is new or was looked
     * at.
     */
    public Optional<Quantity> before(Key key) {
        if (tried != null) {
            Optional<Quantity> now = reduction.quantity(key);
            return real.quantity(key).filter(q -> now.isEmpty() || !q.sameAs(now.get()));
        }
        return Optional.ofNullable(moved.get(key));
    }

    public void lookedAt(Key key) {
        moved.remove(key);
        if (changed.remove(key)) {
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
        if (tried != null && command.isChoice()) {
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
            Reducer other = reducerFor(after);
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
        reduction = command == null && tried == null
                ? reducer.reduce(session())
                : command == null ? reducer.whatIf(session()) : whatIf(command);
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
        return reducerFor(after).whatIf(after);
    }

    /** True when a run is so long that it waits to be asked for. */
    public boolean hasLongRuns() {
        return reducer.hasLong(session());
    }

    /**
     * Works long runs out beside everything else.
     *
     * @param here runs what comes afterwards on the thread this is used from
     * @return cancel it to go on as before
     */
    public CompletableFuture<Void> workOutLongRuns(Executor here) {
        Reducer patient = new Reducer(reducer.located(), file);
        patient.takeLong();
        Session now = session();
        CompletableFuture<Void> done = new CompletableFuture<>();
        CompletableFuture.runAsync(() -> patient.reduce(now))
                .whenCompleteAsync(
                        (nothing, failed) -> {
                            if (failed != null) {
                                done.completeExceptionally(failed);
                            } else if (!done.isCancelled()) {
                                reducer = patient;
                                show(session());
                                done.complete(null);
                            }
                        },
                        here);
        return done;
    }

    /** What a mistake of the sheet would have made of the session. */
    public Reduction mistaken(Sheet.Mistake mistake) {
        return reducer.mistaken(session(), mistake);
    }

    public boolean canUndo() {
        return tried == null ? history.canUndo() : !tried.isEmpty();
    }

    public boolean canRedo() {
        return tried == null && history.canRedo();
    }

    /** Takes the last act back, or the last choice that was tried; its line for the notebook is returned. */
    public Optional<String> undo() {
        if (tried != null) {
            if (tried.isEmpty()) {
                return Optional.empty();
            }
            String says = "No longer tried: " + tried.remove(tried.size() - 1).says();
            show(session());
            return Optional.of(says);
        }
        return history.toUndo()
                .map(step ->
                        stepped(step, "Undid: " + Notebook.line(step.command(), session(), sheet()), history::undo));
    }

    public Optional<String> redo() {
        return tried != null
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
        if (tried != null) {
            tell();
            return;
        }
        for (Ledger.Entry e : reduction.ledger().entries()) {
            Optional<Quantity> old = before.entries().stream()
                    .filter(b -> b.key().equals(e.key()))
                    .findFirst()
                    .flatMap(Ledger.Entry::quantity);
            if (e.quantity().isPresent()
                    && (old.isEmpty() || !old.get().sameAs(e.quantity().get()))) {
                changed.add(e.key());
                if (old.isPresent()) {
                    moved.putIfAbsent(e.key(), old.get());
                }
            }
        }
        tell();
    }

    private void recompute(Session session) {
        Reducer other = reducerFor(session);
        if (other != reducer) {
            reducer = other;
            rehearsal.forget();
        }
        if (tried == null) {
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
    public byte[] report(boolean paper, Handout.Paper size) {
        SessionReport.Attachments pictures = n -> {
            try {
                return Optional.of(file.attachment(n));
            } catch (RuntimeException gone) {
                return Optional.empty();
            }
        };
        return paper
                ? SessionReport.pdf(reduction, findings, file.acts(), clock.instant(), pictures, size)
                : SessionReport.html(reduction, findings, file.acts(), clock.instant(), pictures, size)
                        .getBytes(java.nio.charset.StandardCharsets.UTF_8);
    }

    /** How many runs of a level take part or are left out, discarded ones not counted. */
    public long runsAt(String capture, String level) {
        return session().keptRuns().stream()
                .filter(r -> r.capture().equals(capture) && r.level().equals(level))
                .count();
    }

    /** The capture and level that come next by the schedule; empty when all are done. */
    public Optional<String[]> next() {
        for (var c : sheet().captures().entrySet()) {
            for (String level : c.getValue().levels().keySet()) {
                if (runsAt(c.getKey(), level) < session().repeats(sheet(), c.getKey())) {
                    return Optional.of(new String[] {c.getKey(), level});
                }
            }
        }
        return Optional.empty();
    }

    @Override
    public void close() {
        rehearsal.cancel();
        file.close();
    }
}

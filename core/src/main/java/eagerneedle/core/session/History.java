package eagerneedle.core.session;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;

/** The acts of a session with undo and redo. Not thread-safe: one owner. */
public final class History {
    /** One act and the sessions on both sides of it. */
    private record Act(Command command, Session before, Session after) {}

    private final Deque<Act> done = new ArrayDeque<>();
    private final Deque<Act> undone = new ArrayDeque<>();
    private Session session;

    public History(Session session) {
        this.session = session;
    }

    public Session session() {
        return session;
    }

    /** A command, and the session as it stands after it or after taking it back. */
    public record Step(Command command, Session session) {}

    /** What undoing would come to; empty when there is nothing to undo. Nothing changes. */
    public Optional<Step> toUndo() {
        return done.isEmpty()
                ? Optional.empty()
                : Optional.of(new Step(done.peek().command(), done.peek().before()));
    }

    /** What doing again would come to; empty when nothing was undone. Nothing changes. */
    public Optional<Step> toRedo() {
        return undone.isEmpty()
                ? Optional.empty()
                : Optional.of(new Step(undone.peek().command(), undone.peek().after()));
    }

    /** Carries a command out; what was undone before is forgotten. */
    public Session apply(Command command) {
        return apply(command, command.apply(session));
    }

    /** Takes a command as carried out, and what it came to; what was undone before is forgotten. */
    public Session apply(Command command, Session after) {
        done.push(new Act(command, session, after));
        undone.clear();
        session = after;
        return after;
    }

    /** Takes the last act back; empty when there is none. */
    public Optional<Command> undo() {
        if (done.isEmpty()) {
            return Optional.empty();
        }
        Act act = done.pop();
        undone.push(act);
        session = act.before();
        return Optional.of(act.command());
    }

    /** Carries the last undone act out again; empty when there is none. */
    public Optional<Command> redo() {
        if (undone.isEmpty()) {
            return Optional.empty();
        }
        Act act = undone.pop();
        done.push(act);
        session = act.after();
        return Optional.of(act.command());
    }

    public boolean canUndo() {
        return !done.isEmpty();
    }

    public boolean canRedo() {
        return !undone.isEmpty();
    }
}

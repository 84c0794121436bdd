package eagerneedle.core.session;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Optional;

/** The acts of a session with undo and redo. Not thread-safe: one owner. */
public final class History {
    /** One act and the sessions on both sides of it. */
    private record Act(Command command, Session before, Session after) {
    }

    private final Deque<Act> done = new ArrayDeque<>();
    private final Deque<Act> undone = new ArrayDeque<>();
    private Session session;

    public History(Session session) {
        this.session = session;
    }

    public Session session() {
        return session;
    }

    /** Carries a command out; what was undone before is forgotten. */
    public Session apply(Command command) {
        Session after = command.apply(session);
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

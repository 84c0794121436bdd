package eagerneedle.app.workbench;

import eagerneedle.core.session.Command;
import eagerneedle.core.session.Session;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Choices that are tried and not made, in order. */
final class Trying {
    private final List<Command> acts = new ArrayList<>();
    private boolean on;

    boolean isOn() {
        return on;
    }

    boolean isAny() {
        return !acts.isEmpty();
    }

    /** False where it has begun already. */
    boolean start() {
        boolean begins = !on;
        on = true;
        return begins;
    }

    void add(Command choice) {
        acts.add(choice);
    }

    /** As the notebook would have them. */
    List<String> says() {
        return acts.stream().map(Command::says).toList();
    }

    /** A session with what is tried. */
    Session over(Session session) {
        Session s = session;
        for (Command c : acts) {
            s = c.apply(s);
        }
        return s;
    }

    /** Takes the last one back, and says so. */
    Optional<String> takeBack() {
        return acts.isEmpty()
                ? Optional.empty()
                : Optional.of("No longer tried: " + acts.remove(acts.size() - 1).says());
    }

    /** Ends it; what was tried, as one act. */
    Optional<Command> end() {
        List<Command> all = List.copyOf(acts);
        acts.clear();
        on = false;
        return all.size() < 2
                ? all.stream().findFirst()
                : Optional.of(new Command.Together(
                        String.join(" ", all.stream().map(Command::says).toList()), all));
    }
}

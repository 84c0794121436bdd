package eagerneedle.core.session;

/**
 * One act that changes a session. {@link #says()} is its line in the notebook. A command that cannot be carried out
 * throws {@link IllegalArgumentException} with one sentence and changes nothing.
 */
public sealed interface Command
        permits PlanningCommand,
                RigCommand,
                CalibrationCommand,
                RunCommand,
                ReducingCommand,
                JudgeCommand,
                RecordCommand,
                PoolingCommand,
                SheetCommand,
                Command.Together {
    Session apply(Session before);

    String says();

    /**
     * True for what was decided and could be decided otherwise; false for what happened, such as a run or a signature.
     */
    default boolean isChoice() {
        return true;
    }

    /** Several acts as one: carried out and taken back together. */
    record Together(String what, java.util.List<Command> acts) implements Command {
        public Together {
            acts = java.util.List.copyOf(acts);
        }

        @Override
        public Session apply(Session s) {
            Session now = s;
            for (Command c : acts) {
                now = c.apply(now);
            }
            return now;
        }

        @Override
        public String says() {
            return what;
        }
    }
}

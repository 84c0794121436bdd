package eagerneedle.core.session;

/** What a pool takes from other sessions. */
public sealed interface PoolingCommand extends Command {
    /** Takes a session; one of that name is replaced. */
    record Take(PoolSource source) implements PoolingCommand {
        @Override
        public Session apply(Session s) {
            s.sources().stream()
                    .filter(o -> !o.name().equals(source.name()) && o.digest().equals(source.digest()))
                    .findFirst()
                    .ifPresent(o -> {
                        throw new IllegalArgumentException(source.name() + " is the same file as " + o.name()
                                + ", which is in the pool already; a session counts once.");
                    });
            return s.withSource(source);
        }

        @Override
        public String says() {
            return "Took " + source.name() + " into the pool, from " + source.file() + "."
                    + (source.remarks().isEmpty() ? "" : " " + String.join(" ", source.remarks()));
        }
    }

    /** Leaves a session out, with a reason. */
    record LeaveOut(String name, String reason) implements PoolingCommand {
        @Override
        public Session apply(Session s) {
            if (reason == null || reason.isBlank()) {
                throw new IllegalArgumentException("Say why " + name + " is left out.");
            }
            return s.withSource(there(s, name).leaving(reason.strip()));
        }

        @Override
        public String says() {
            return "Left " + name + " out of the pool: " + reason.strip() + ".";
        }
    }

    /** Takes a session in that was left out. */
    record TakeIn(String name) implements PoolingCommand {
        @Override
        public Session apply(Session s) {
            return s.withSource(there(s, name).leaving(null));
        }

        @Override
        public String says() {
            return "Took " + name + " in again.";
        }
    }

    private static PoolSource there(Session s, String name) {
        return s.sources().stream()
                .filter(o -> o.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("There is no " + name + " in the pool."));
    }
}

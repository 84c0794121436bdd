package eagerneedle.core.session;

import eagerneedle.core.chain.Chain;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** How the rig stands: chains as they were set up, steps with their timers and signatures. */
public sealed interface RigCommand extends Command {
    /**
     * Sets a channel up; {@code did} says what was changed. Runs captured before keep the setting they were captured
     * with.
     */
    record SetUp(String channel, Setup setup, String did) implements RigCommand {
        @Override
        public Session apply(Session s) {
            if (setup.chain() != null) {
                Chain.of(setup.chain());
            }
            if (setup.rate() != null && !(setup.rate() > 0) || setup.average() != null && setup.average() < 1) {
                throw new IllegalArgumentException("A rate is above 0 and an average takes at least one conversion.");
            }
            if (setup.rounds() != null && setup.rounds() < 1) {
                throw new IllegalArgumentException("The points of a calibration are gone through at least once.");
            }
            return s.withSetup(channel, setup.equals(Setup.AS_SHEET) ? null : setup);
        }

        @Override
        public String says() {
            return did;
        }
    }

    /** Sets several channels up, which are changed together; {@code did} says what was changed. */
    record SetUpTogether(Map<String, Setup> setups, String did) implements RigCommand {
        @Override
        public Session apply(Session s) {
            Session out = s;
            for (Map.Entry<String, Setup> e : setups.entrySet()) {
                out = new SetUp(e.getKey(), e.getValue(), did).apply(out);
            }
            return out;
        }

        @Override
        public String says() {
            return did;
        }
    }

    /** Starts the timer of a step, or takes that back when the moment is null. */
    record StartTimer(String step, String text, @Nullable Instant at) implements RigCommand {
        @Override
        public Session apply(Session s) {
            return s.withTimer(step, at);
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return (at == null ? "Took back the start of the timer: " : "Started the timer: ") + text + ".";
        }
    }

    /**
     * Signs a step off, or takes the sign-off back when the moment is null.
     *
     * @param by the member of staff who agreed to it; null where nobody had to
     */
    record SignOff(
            String step,
            String text,
            @Nullable Instant at,
            @Nullable String by) implements RigCommand {
        public SignOff(String step, String text, @Nullable Instant at) {
            this(step, text, at, null);
        }

        @Override
        public Session apply(Session s) {
            return s.withSignOff(step, at).withBench(s.bench().agreed(step, at == null ? null : by));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return (at == null ? "Took back the sign-off: " : "Signed off: ") + text
                    + (at == null || by == null || by.isBlank() ? "" : ", " + by.strip()) + ".";
        }
    }

    /** Says who is at the bench from now on. */
    record BeAtBench(String who) implements RigCommand {
        @Override
        public Session apply(Session s) {
            return s.withBench(s.bench().by(who.strip()));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return who.isBlank() ? "Nobody is named at the bench." : "At the bench: " + who.strip() + ".";
        }
    }

    /**
     * Goes on at a bench with the instruments that it has. What was captured and calibrated elsewhere stays with the
     * instruments of that time.
     *
     * @param serials what stands there in place of each serial that the sheet names
     * @param before serials in the chain of each channel until now, for calibrations that do not say theirs
     */
    record WorkAtBench(String bench, Map<String, String> serials, Map<String, List<String>> before, Instant at)
            implements RigCommand {
        @Override
        public Session apply(Session s) {
            return s.withBench(s.bench().at(bench.strip(), serials, at))
                    .withCalibrations(s.calibrations().stream()
                            .map(c -> c.chain() == null && before.containsKey(c.channel())
                                    ? c.ofChain(before.get(c.channel()))
                                    : c)
                            .toList());
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "The session is at " + bench.strip()
                    + (serials.isEmpty() ? "." : " with " + String.join(", ", serials.values()) + ".");
        }
    }
}

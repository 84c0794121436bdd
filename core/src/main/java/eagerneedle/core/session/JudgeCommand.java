package eagerneedle.core.session;

import eagerneedle.core.judge.School;
import eagerneedle.core.quantity.Coverage;
import java.time.Instant;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Judging: the school that speaks, references hidden, results locked. */
public sealed interface JudgeCommand extends Command {
    record ChooseSchool(School school) implements JudgeCommand {
        @Override
        public Session apply(Session s) {
            return s.withSchool(school);
        }

        @Override
        public String says() {
            return "Chose the school that speaks: " + school.label() + ".";
        }
    }

    /**
     * With which probability intervals that are stated shall cover, and differences agree (JCGM 100, 6.2).
     *
     * @param probability between 0.5 and 1, both left out
     */
    record ChooseCoverage(double probability) implements JudgeCommand {
        public ChooseCoverage {
            if (!(probability > 0.5 && probability < 1)) {
                throw new IllegalArgumentException("A coverage lies between 50 % and 100 %, for instance at 95 %.");
            }
        }

        @Override
        public Session apply(Session s) {
            return s.withCoverage(probability);
        }

        @Override
        public String says() {
            return "Chose a coverage of " + new Coverage(probability).percent() + ".";
        }
    }

    /**
     * Hides the references of all comparisons from now on; shows them again, without a locked result, when the moment
     * is null.
     */
    record HideReferences(@Nullable Instant at) implements JudgeCommand {
        @Override
        public Session apply(Session s) {
            if (at != null && s.blind() != null) {
                throw new IllegalArgumentException(
                        s.hidesReferences()
                                ? "The references are hidden already."
                                : "The references have been seen; they cannot be unseen.");
            }
            return s.withBlind(at == null ? null : new Blind(at, null, java.util.Map.of()));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return at == null
                    ? "Showed the references without locking a result."
                    : "Hid the references until the result is locked.";
        }
    }

    /** Locks the results of all comparisons as they are, by comparison, and shows the references. */
    record LockResults(Instant at, java.util.Map<String, String> results) implements JudgeCommand {
        @Override
        public Session apply(Session s) {
            if (!s.hidesReferences()) {
                throw new IllegalArgumentException("There is nothing to lock: the references are not hidden.");
            }
            if (results.isEmpty()) {
                throw new IllegalArgumentException("There is no result to lock yet.");
            }
            return s.withBlind(new Blind(Objects.requireNonNull(s.blind()).since(), at, results));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Locked the result and showed the references: "
                    + String.join(
                            ", ",
                            results.entrySet().stream()
                                    .map(e -> e.getKey() + " " + e.getValue())
                                    .toList()) + ".";
        }
    }
}

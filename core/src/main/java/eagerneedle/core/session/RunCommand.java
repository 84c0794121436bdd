package eagerneedle.core.session;

import eagerneedle.core.formula.Written;
import java.time.Instant;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Runs: kept and continued, read by eye, named, left out, and which of their samples count. */
public sealed interface RunCommand extends Command {
    record KeepRun(Run run) implements RunCommand {
        @Override
        public Session apply(Session s) {
            if (s.run(run.id()).isPresent()) {
                throw new IllegalArgumentException("There is a run " + run.id() + " already.");
            }
            return s.withRun(run);
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            String what = run.name() + " (" + run.capture() + ", " + run.level() + ") from " + run.source();
            return run.discard() == null
                    ? "Kept " + what + "."
                    : "Left out " + what + " when it was captured: " + run.discard() + "; its samples are in the file.";
        }
    }

    /** Goes on with a run that was kept; its samples are in the bench file already. */
    record ContinueRun(int id, Instant now) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.entered(r.entries().resumedAt(now)));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Continued run " + id + ".";
        }
    }

    /** A reading by eye that belongs to a run; null takes it back. */
    record EnterByEye(
            int id, String name, String label, @Nullable String reading) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            String text = Written.checked(reading);
            return s.changingRun(id, r -> r.entered(r.entries().read(name, text)));
        }

        @Override
        public String says() {
            return reading == null
                    ? "Took back the reading of " + label + " of run " + id + "."
                    : "Read " + label + " of run " + id + " as " + reading + ".";
        }
    }

    /**
     * Puts a reading by eye right; the first one stays in the notebook.
     *
     * @param was as it was written; null when nothing was
     * @param why needed where something stood before
     */
    record CorrectReading(
            int id,
            String name,
            String label,
            @Nullable String was,
            @Nullable String reading,
            @Nullable String why) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            if (was != null && (why == null || why.isBlank())) {
                throw new IllegalArgumentException("Say why " + label + " is corrected.");
            }
            String text = Written.checked(reading);
            return s.changingRun(id, r -> r.entered(r.entries().read(name, text)));
        }

        @Override
        public String says() {
            return was == null
                    ? "Read " + label + " of run " + id + " as " + reading + ", after it was kept."
                    : "Corrected " + label + " of run " + id + " from " + was + " to " + reading + ": "
                            + Objects.requireNonNullElse(why, "").strip() + ".";
        }
    }

    /**
     * Puts a run at another level of its capture, for a reason.
     *
     * @param from what people call the level it was at
     * @param to and that it is at now
     */
    record MoveRun(
            int id,
            String level,
            String from,
            String to,
            @Nullable String why) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            if (why == null || why.isBlank()) {
                throw new IllegalArgumentException("Say why this run belongs to " + to + ".");
            }
            return s.changingRun(id, r -> r.at(level));
        }

        @Override
        public String says() {
            return "Moved run " + id + " from " + from + " to " + to + ": "
                    + Objects.requireNonNullElse(why, "").strip() + ".";
        }
    }

    /** Attaches a picture to a run. */
    record AttachPicture(int id, Entries.Picture picture) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.entered(r.entries().pictured(picture)));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Attached the picture " + picture.name() + " to run " + id + ".";
        }
    }

    record RenameRun(int id, String name) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            if (name.isBlank()) {
                throw new IllegalArgumentException("A run needs a name.");
            }
            return s.changingRun(id, r -> r.named(name.strip()));
        }

        @Override
        public String says() {
            return "Named run " + id + " '" + name.strip() + "'.";
        }
    }

    /** Discards a run with a reason, or takes it back when the reason is null. Its samples stay in the file. */
    record DiscardRun(int id, @Nullable String reason) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.discarded(reason));
        }

        @Override
        public String says() {
            return reason == null
                    ? "Took run " + id + " in again."
                    : "Left run " + id + " out of everything: " + reason + ".";
        }
    }

    /**
     * Leaves a run out of the results with a reason, or takes it in again when the reason is null, whatever the rules
     * of the sheet say of it.
     */
    record LeaveOut(int id, @Nullable String reason) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.leftOut(reason).entered(r.entries().insisting(reason == null)));
        }

        @Override
        public String says() {
            return reason == null
                    ? "Took run " + id + " into the results again."
                    : "Left run " + id + " out of the results: " + reason + ".";
        }
    }

    /** Takes samples of a run out of everything; they stay in the bench file. */
    record VoidSamples(int id, double from, double to, String reason) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            if (reason == null || reason.isBlank()) {
                throw new IllegalArgumentException("Say why these samples do not count.");
            }
            if (!(to >= from)) {
                throw new IllegalArgumentException("The span to leave out ends before it begins.");
            }
            return s.changingRun(id, r -> r.entered(r.entries().voiding(new Entries.Voided(from, to, reason.strip()))));
        }

        @Override
        public String says() {
            return String.format(
                    Locale.ROOT,
                    "Left the samples of run %d from %.4g s to %.4g s out: %s.",
                    id,
                    from,
                    to,
                    reason.strip());
        }
    }

    /** Takes voided samples of a run in again. */
    record CountSamples(int id, Entries.Voided span) implements RunCommand, OfRun {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.entered(r.entries().counting(span)));
        }

        @Override
        public String says() {
            return String.format(
                    Locale.ROOT,
                    "Took the samples of run %d from %.4g s to %.4g s in again.",
                    id,
                    span.from(),
                    span.to());
        }
    }
}

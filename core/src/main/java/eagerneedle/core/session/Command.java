package eagerneedle.core.session;

import eagerneedle.core.calibration.AfterUse;
import eagerneedle.core.calibration.Calibration;
import eagerneedle.core.chain.Chain;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Written;
import eagerneedle.core.judge.School;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.stockroom.Instrument;
import eagerneedle.core.trace.Window;
import java.time.Instant;
import java.util.Locale;

/**
 * One act that changes a session. {@link #says()} is its line in the notebook. A command that cannot be carried out
 * throws {@link IllegalArgumentException} with one sentence and changes nothing.
 */
public sealed interface Command {
    Session apply(Session before);

    String says();

    /**
     * True for what was decided and could be decided otherwise; false for what happened, such as a run or a signature.
     */
    default boolean isChoice() {
        return true;
    }

    /** A planned reading; null goes back to the sheet's. */
    record SetPlanned(String input, String label, String reading) implements Command {
        @Override
        public Session apply(Session s) {
            return s.withPlanned(input, checked(reading));
        }

        @Override
        public String says() {
            return reading == null
                    ? "Planned " + label + " as in the sheet."
                    : "Planned " + label + " as " + reading + ".";
        }
    }

    /** A reading as measured; null takes it back. */
    record SetMeasured(String input, String label, String reading) implements Command {
        @Override
        public Session apply(Session s) {
            return s.withMeasured(input, checked(reading));
        }

        @Override
        public String says() {
            return reading == null
                    ? "Took back the reading of " + label + "."
                    : "Read " + label + " as " + reading + ".";
        }
    }

    record Calibrate(Calibration calibration) implements Command {
        @Override
        public Session apply(Session s) {
            calibration.check();
            return s.withCalibration(calibration);
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Calibrated " + calibration.channel() + " by " + calibration.kind() + " at "
                    + calibration.points().size() + " points.";
        }
    }

    /** Keeps what a check after use found, with the calibration it checked. */
    record CheckAfterUse(String channel, AfterUse check) implements Command {
        @Override
        public Session apply(Session s) {
            Calibration c = s.calibrationOf(channel)
                    .orElseThrow(() ->
                            new IllegalArgumentException("The channel " + channel + " has no calibration to check."));
            return s.withCalibrations(s.calibrations().stream()
                    .map(x -> x.id().equals(c.id()) ? c.withAfter(check) : x)
                    .toList());
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Checked " + channel + " after use"
                    + switch (check.use()) {
                        case CORRECT -> "; the drift is taken out in proportion to time.";
                        case INFLUENCE -> "; the drift is kept as an influence.";
                        case TELL -> ".";
                    };
        }
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

    /** Reads an input with an instrument of the stockroom; null goes back to what the sheet says. */
    record TieInput(String input, String label, Instrument instrument) implements Command {
        @Override
        public Session apply(Session s) {
            return s.withTied(input, instrument == null ? null : instrument.checked());
        }

        @Override
        public String says() {
            return instrument == null
                    ? "Read " + label + " as the sheet says."
                    : "Read " + label + " with " + instrument.name() + " " + instrument.id() + ".";
        }
    }

    /**
     * Sets a channel up; {@code did} says what was changed. Runs captured before keep the setting they were captured
     * with.
     */
    record SetUp(String channel, Setup setup, String did) implements Command {
        @Override
        public Session apply(Session s) {
            if (setup.chain() != null) {
                Chain.of(setup.chain());
            }
            if (setup.rate() != null && !(setup.rate() > 0) || setup.average() != null && setup.average() < 1) {
                throw new IllegalArgumentException("A rate is above 0 and an average takes at least one conversion.");
            }
            return s.withSetup(channel, setup.equals(Setup.AS_SHEET) ? null : setup);
        }

        @Override
        public String says() {
            return did;
        }
    }

    /** How many runs to take at each level of a capture; null for as many as the sheet says. */
    record SetRepeats(String capture, Integer runs) implements Command {
        @Override
        public Session apply(Session s) {
            if (runs != null && (runs < 1 || runs > 1000)) {
                throw new IllegalArgumentException("The number of runs at a level is from 1 to 1000.");
            }
            return s.withRepeats(capture, runs);
        }

        @Override
        public String says() {
            return runs == null
                    ? "As many runs of " + capture + " as the sheet says."
                    : "Take " + runs + (runs == 1 ? " run of " : " runs of ") + capture + " at each level.";
        }
    }

    /** Starts the timer of a step, or takes that back when the moment is null. */
    record StartTimer(String step, String text, Instant at) implements Command {
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

    record KeepRun(Run run) implements Command {
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
    record ContinueRun(int id, Instant now) implements Command {
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
    record EnterByEye(int id, String name, String label, String reading) implements Command {
        @Override
        public Session apply(Session s) {
            String text = checked(reading);
            return s.changingRun(id, r -> r.entered(r.entries().read(name, text)));
        }

        @Override
        public String says() {
            return reading == null
                    ? "Took back the reading of " + label + " of run " + id + "."
                    : "Read " + label + " of run " + id + " as " + reading + ".";
        }
    }

    /** Attaches a picture to a run. */
    record AttachPicture(int id, Entries.Picture picture) implements Command {
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

    /** Takes samples of a run out of everything; they stay in the bench file. */
    record VoidSamples(int id, double from, double to, String reason) implements Command {
        @Override
        public Session apply(Session s) {
            if (reason == null || reason.isBlank()) {
                throw new IllegalArgumentException("Say why these samples do not count.");
            }
            if (!(to >= from)) {
                throw new IllegalArgumentException("The span to void ends before it begins.");
            }
            return s.changingRun(id, r -> r.entered(r.entries().voiding(new Entries.Voided(from, to, reason.strip()))));
        }

        @Override
        public String says() {
            return String.format(
                    Locale.ROOT,
                    "Voided the samples of run %d from %.4g s to %.4g s: %s.",
                    id,
                    from,
                    to,
                    reason.strip());
        }
    }

    /** Takes voided samples of a run in again. */
    record CountSamples(int id, Entries.Voided span) implements Command {
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

    /** Says to a watch why its finding is known, or acknowledges it; null takes that back. */
    record Explain(String finding, String message, String text) implements Command {
        @Override
        public Session apply(Session s) {
            return s.withExplained(finding, text == null ? null : text.strip());
        }

        @Override
        public String says() {
            return text == null
                    ? "Took back what was said to the watch: " + message
                    : text.isBlank()
                            ? "Acknowledged the watch: " + message
                            : "Explained the watch '" + message + "': " + text.strip() + ".";
        }
    }

    record RenameRun(int id, String name) implements Command {
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
    record DiscardRun(int id, String reason) implements Command {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.discarded(reason));
        }

        @Override
        public String says() {
            return reason == null ? "Took run " + id + " back." : "Discarded run " + id + ": " + reason + ".";
        }
    }

    /** Leaves a run out of the results with a reason, or takes it in again when the reason is null. */
    record LeaveOut(int id, String reason) implements Command {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.leftOut(reason));
        }

        @Override
        public String says() {
            return reason == null
                    ? "Took run " + id + " into the results again."
                    : "Left run " + id + " out of the results: " + reason + ".";
        }
    }

    /** Sets a window by hand, or goes back to the proposal when it is null. */
    record SetWindow(int id, String name, Window window) implements Command {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.windowed(name, window));
        }

        @Override
        public String says() {
            return window == null
                    ? "Took the proposed window '" + name + "' of run " + id + " again."
                    : String.format(
                            Locale.ROOT,
                            "Set the window '%s' of run %d to %.3f s ... %.3f s (%s).",
                            name,
                            id,
                            window.from(),
                            window.to(),
                            window.reason());
        }
    }

    /** Signs a step off, or takes the sign-off back when the moment is null. */
    record SignOff(String step, String text, Instant at) implements Command {
        @Override
        public Session apply(Session s) {
            return s.withSignOff(step, at);
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return (at == null ? "Took back the sign-off: " : "Signed off: ") + text + ".";
        }
    }

    record AddNote(Instant at, String text, java.util.List<Entries.Picture> pictures) implements Command {
        public AddNote(Instant at, String text) {
            this(at, text, java.util.List.of());
        }

        @Override
        public Session apply(Session s) {
            if (text.isBlank() && pictures.isEmpty()) {
                throw new IllegalArgumentException("The note is empty.");
            }
            return s.withNote(new Session.Note(at, text.strip(), pictures));
        }

        @Override
        public boolean isChoice() {
            return false;
        }

        @Override
        public String says() {
            return "Note: " + text.strip()
                    + (pictures.isEmpty()
                            ? ""
                            : (text.isBlank() ? "" : " ") + "(with "
                                    + String.join(
                                            ", ",
                                            pictures.stream()
                                                    .map(Entries.Picture::name)
                                                    .toList()) + ").");
        }
    }

    /**
     * Hides the references of all comparisons from now on; shows them again, without a locked result, when the moment
     * is null.
     */
    record HideReferences(Instant at) implements Command {
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
    record LockResults(Instant at, java.util.Map<String, String> results) implements Command {
        @Override
        public Session apply(Session s) {
            if (!s.hidesReferences()) {
                throw new IllegalArgumentException("There is nothing to lock: the references are not hidden.");
            }
            if (results.isEmpty()) {
                throw new IllegalArgumentException("There is no result to lock yet.");
            }
            return s.withBlind(new Blind(s.blind().since(), at, results));
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

    /**
     * Adds a quantity by formula to the runs of a capture, or to the results when {@code capture} is
     * {@link Session#RESULTS}; takes it away when it is null.
     */
    record AddQuantity(String capture, String name, Sheet.Derived quantity) implements Command {
        @Override
        public Session apply(Session s) {
            if (quantity != null) {
                if (!name.matches("\\p{L}[\\p{L}\\d_]*")) {
                    throw new IllegalArgumentException(
                            "A name begins with a letter and holds letters, digits and _ only; '" + name
                                    + "' does not.");
                }
                try {
                    Formula.parse(quantity.formula());
                } catch (FormulaException e) {
                    throw new IllegalArgumentException(
                            "In the formula, column " + e.column() + ": " + e.getMessage(), e);
                }
                if (quantity.unit() != null) {
                    eagerneedle.core.quantity.LabUnit.parse(quantity.unit());
                }
            }
            return s.withOwn(capture, name, quantity);
        }

        @Override
        public String says() {
            return quantity == null
                    ? "Took the quantity " + name + " away."
                    : "Added " + quantity.label() + ": " + name + " = " + quantity.formula() + ".";
        }
    }

    record ChooseSchool(School school) implements Command {
        @Override
        public Session apply(Session s) {
            return s.withSchool(school);
        }

        @Override
        public String says() {
            return "Chose the school that speaks: " + school.label() + ".";
        }
    }

    private static String checked(String reading) {
        if (reading != null) {
            Written.check(reading);
        }
        return reading;
    }
}

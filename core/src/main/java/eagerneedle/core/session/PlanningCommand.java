package eagerneedle.core.session;

import eagerneedle.core.formula.Written;
import eagerneedle.core.stockroom.Instrument;
import org.jspecify.annotations.Nullable;

/** What was planned and measured before the first run. */
public sealed interface PlanningCommand extends Command {
    /** A planned reading; null goes back to the sheet's. */
    record SetPlanned(String input, String label, @Nullable String reading) implements PlanningCommand {
        @Override
        public Session apply(Session s) {
            return s.withPlanned(input, Written.checked(reading));
        }

        @Override
        public String says() {
            return reading == null
                    ? "Planned " + label + " as in the sheet."
                    : "Planned " + label + " as " + reading + ".";
        }
    }

    /** A reading as measured; null takes it back. */
    record SetMeasured(String input, String label, @Nullable String reading) implements PlanningCommand {
        @Override
        public Session apply(Session s) {
            return s.withMeasured(input, Written.checked(reading));
        }

        @Override
        public String says() {
            return reading == null
                    ? "Took back the reading of " + label + "."
                    : "Read " + label + " as " + reading + ".";
        }
    }

    /** Reads an input with an instrument of the stockroom; null goes back to what the sheet says. */
    record TieInput(String input, String label, @Nullable Instrument instrument) implements PlanningCommand {
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

    /** How many runs to take at each level of a capture; null for as many as the sheet says. */
    record SetRepeats(String capture, @Nullable Integer runs) implements PlanningCommand {
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
}

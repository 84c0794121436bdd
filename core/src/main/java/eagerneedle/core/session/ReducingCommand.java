package eagerneedle.core.session;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.trace.Window;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** How runs are reduced: windows by hand, and quantities that the session adds to its sheet. */
public sealed interface ReducingCommand extends Command {
    /** Sets a window by hand, or goes back to the proposal when it is null. */
    record SetWindow(int id, String name, @Nullable Window window) implements ReducingCommand, OfRun {
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

    /**
     * Sets a moment of a run by hand, or goes back to what the sheet finds when it is null. A moment that was pointed
     * at lies between two samples: {@code span} reaches from half a sample before it to half a sample after.
     *
     * @param label what people call it
     */
    record SetMoment(
            int id, String name, String label, @Nullable Window span) implements ReducingCommand, OfRun {
        @Override
        public Session apply(Session s) {
            return s.changingRun(id, r -> r.windowed(name, span));
        }

        @Override
        public String says() {
            return span == null
                    ? "Took the moment that the sheet finds again: " + label + " of run " + id + "."
                    : String.format(
                            Locale.ROOT,
                            "Set %s of run %d to %.4f s by hand.",
                            label,
                            id,
                            (span.from() + span.to()) / 2);
        }
    }

    /**
     * Chooses the way in which something is reckoned; the sheet's own when it is null.
     *
     * @param choice key of the choice, such as {@code meet.v}
     * @param label what is reckoned
     * @param way as the sheet calls it
     */
    record PickWay(String choice, String label, @Nullable String way) implements ReducingCommand {
        @Override
        public Session apply(Session s) {
            return s.withPicked(choice, way);
        }

        @Override
        public String says() {
            return way == null
                    ? "Took the sheet's own way again: " + label + "."
                    : "Chose how it is reckoned: " + label + ", " + way + ".";
        }
    }

    /**
     * Adds a quantity by formula to the runs of a capture, or to the results when {@code capture} is
     * {@link Session#RESULTS}; takes it away when it is null.
     */
    record AddQuantity(
            String capture, String name, @Nullable Derived quantity) implements ReducingCommand {
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
}

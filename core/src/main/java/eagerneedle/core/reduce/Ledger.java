package eagerneedle.core.reduce;

import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.List;
import java.util.Optional;

/** The list of every quantity of a session, in the order of the sheet. */
public record Ledger(List<Entry> entries) {
    /**
     * One quantity.
     *
     * @param name its name in the sheet; with its run for what belongs to one, such as {@code slopes[12].a}
     * @param group heading it stands under
     * @param label what a person calls it
     * @param symbol its letter in equations, or null
     * @param key its key in the graph
     * @param outcome the quantity, or why there is none
     * @param source "measured", "as planned", or "derived"
     */
    public record Entry(
            String name, String group, String label, String symbol, Key key, Outcome outcome, String source) {
        public Optional<Quantity> quantity() {
            return outcome.quantity();
        }

        /** What stands where there is no quantity: a sentence that the data say, or why there is none; never null. */
        public String instead() {
            return outcome.value() instanceof Value.Words w
                    ? w.text()
                    : outcome.problem() == null ? "" : outcome.problem();
        }
    }

    public Ledger {
        entries = List.copyOf(entries);
    }

    public Optional<Entry> named(String name) {
        return entries.stream().filter(e -> e.name().equals(name)).findFirst();
    }
}

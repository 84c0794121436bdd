package eagerneedle.core.sheet;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A quantity by formula; shown in the ledger when it has a label. {@code planned} stands in for it in the predicted
 * budget. Where it can be reckoned in several {@code ways}, {@code choice} names what is chosen.
 */
public record Derived(
        @Nullable String label,
        @Nullable String symbol,
        @Nullable String group,
        @Nullable String unit,
        String formula,
        @Nullable String planned,
        @Nullable String choice,
        Map<String, String> ways) {
    public Derived {
        ways = Sheet.orEmpty(ways);
    }

    public Derived(
            @Nullable String label,
            @Nullable String symbol,
            @Nullable String group,
            @Nullable String unit,
            String formula,
            @Nullable String planned) {
        this(label, symbol, group, unit, formula, planned, null, Map.of());
    }

    /** The same by another formula; in whatever unit that gives where the unit no longer fits. */
    Derived by(String other) {
        return new Derived(label, symbol, group, null, other, planned);
    }

    /** The same in one of its ways. */
    Derived in(String way) {
        return ways.containsKey(way)
                ? new Derived(label, symbol, group, unit, ways.get(way), planned, choice, ways)
                : this;
    }

    public boolean shown() {
        return label != null;
    }
}

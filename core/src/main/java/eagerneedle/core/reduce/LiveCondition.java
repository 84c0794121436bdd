package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Value;
import eagerneedle.core.sheet.Capture;
import eagerneedle.core.sheet.Sheet;
import eagerneedle.core.trace.RawSamples;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/**
 * A comparison that is looked at while a run is captured, such as {@code until: "x > 1.5 m"}; see {@link LiveScope}.
 */
public final class LiveCondition {
    private final Formula formula;
    private final LiveScope scope;

    private LiveCondition(Sheet sheet, Capture capture, String text) {
        this.formula = Formula.parse(text);
        this.scope = new LiveScope(sheet, capture, formula, Map.of());
    }

    /** When a capture is over; empty where its sheet does not say. */
    public static Optional<LiveCondition> until(Sheet sheet, Capture capture) {
        return Optional.ofNullable(capture.until()).map(text -> new LiveCondition(sheet, capture, text));
    }

    /** The condition as the sheet writes it. */
    public String text() {
        return formula.text();
    }

    /**
     * Whether it holds now.
     *
     * @param newest the last samples of a channel, one or more
     * @param all everything of a channel so far
     * @return false also while it cannot be told yet
     */
    public boolean holds(Function<String, RawSamples> newest, Function<String, RawSamples> all) {
        try {
            return formula.evaluate(scope.over(newest, all)) instanceof Value.Truth t && t.holds();
        } catch (FormulaException | IllegalArgumentException notYet) {
            return false;
        }
    }
}

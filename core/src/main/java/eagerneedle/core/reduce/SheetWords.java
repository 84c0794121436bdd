package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Value;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What a sheet asks of its results and says about them: checks met or not, statements in words. */
final class SheetWords {
    private SheetWords() {}

    static List<Reduction.CheckOutcome> checks(Reduction r) {
        List<Reduction.CheckOutcome> out = new ArrayList<>();
        for (Sheet.Check check : r.sheet().checks()) {
            try {
                Value v = Formula.parse(check.formula()).evaluate(r.scope());
                out.add(new Reduction.CheckOutcome(check, met(v), null));
            } catch (NodeScope.Missing | FormulaException e) {
                out.add(new Reduction.CheckOutcome(check, Optional.empty(), e.getMessage()));
            }
        }
        return out;
    }

    /** Of a comparison for each row all must hold; what cannot be decided is neither met nor not. */
    private static Optional<Boolean> met(Value v) {
        if (v instanceof Value.Truths rows) {
            return Optional.of(!rows.rows().contains(false));
        }
        return v instanceof Value.Truth t ? Optional.of(t.holds()) : Optional.empty();
    }

    static List<Stated> statements(Reduction r) {
        List<Stated> out = new ArrayList<>();
        for (Sheet.Statement s : r.sheet().statements()) {
            try {
                out.add(said(r, s, Formula.parse(s.formula())));
            } catch (NodeScope.Missing | FormulaException e) {
                out.add(nothing(s, String.valueOf(e.getMessage())));
            }
        }
        return out;
    }

    private static Stated said(Reduction r, Sheet.Statement s, Formula formula) {
        if (formula.names().stream().anyMatch(r::isHidden)) {
            return nothing(s, Reduction.HIDDEN);
        }
        Value v = formula.evaluate(r.scope());
        List<Reduction.Labelled> about = QuantitiesOfStatement.quantities(r.sheet(), formula, r.scope());
        return new Stated(
                s,
                v instanceof Value.Words w ? Optional.of(w.said(r.sheet()::member)) : Optional.empty(),
                null,
                about,
                formula.text().startsWith("routes") ? QuantitiesOfStatement.correlations(about) : "");
    }

    private static Stated nothing(Sheet.Statement s, String problem) {
        return new Stated(s, Optional.empty(), problem, List.of(), "");
    }
}

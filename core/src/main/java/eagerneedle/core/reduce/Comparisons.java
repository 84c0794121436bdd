package eagerneedle.core.reduce;

import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Value;
import eagerneedle.core.judge.Comparison;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The comparisons of a sheet, as far as they can be made. */
final class Comparisons {
    private Comparisons() {}

    static List<Comparison> of(Reduction r) {
        List<Comparison> out = new ArrayList<>();
        for (Sheet.Comparison c : r.session().hidesReferences()
                ? List.<Sheet.Comparison>of()
                : r.sheet().comparisons()) {
            Optional<Quantity> result = r.quantity(c.result());
            Optional<Quantity> reference = reference(r, c);
            if (result.isPresent()
                    && reference.isPresent()
                    && result.get().unit().fits(reference.get().unit())) {
                out.add(Comparison.of(
                        c.id(),
                        c.label(),
                        result.get(),
                        reference.get(),
                        r.session().coverage(),
                        c.threshold() == null ? Double.NaN : c.threshold(),
                        Demands.of(c, result.get(), reference.get())));
            }
        }
        return out;
    }

    /** What a comparison is made with: a quantity of the sheet, or one that is written where it is needed. */
    static Optional<Quantity> reference(Reduction r, Sheet.Comparison c) {
        if (r.has(Key.named(c.reference(), r.sheet()))) {
            return r.quantity(c.reference());
        }
        try {
            return Optional.of(r.evaluate(c.reference(), "reference of " + c.id(), c.label()));
        } catch (IllegalArgumentException none) {
            return Optional.empty();
        }
    }

    /** The rows of a column that a formula gives, such as those of one member; none where it has a problem. */
    static List<Quantity> columnOf(Reduction r, String formula) {
        try {
            return Formula.parse(formula).evaluate(r.scope()) instanceof Value.Column c ? c.rows() : List.of();
        } catch (NodeScope.Missing | FormulaException | IllegalArgumentException none) {
            return List.of();
        }
    }

    /** Outcomes with quantities for results that had a problem. */
    static Map<Key, Outcome> rehearsed(Map<Key, Outcome> outcomes, Map<String, Quantity> quantities) {
        Map<Key, Outcome> all = new LinkedHashMap<>(outcomes);
        quantities.forEach((name, q) -> {
            Outcome before = all.get(new Key.Global(name));
            if (before != null && before.problem() != null) {
                all.put(
                        new Key.Global(name),
                        Outcome.of(new Value.Scalar(q))
                                .with(List.of("Found by rehearsals of the plan; the sheet plans nothing for it.")));
            }
        });
        return all;
    }
}

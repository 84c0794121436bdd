package eagerneedle.core.reduce;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Spelling;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Notation;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.sheet.Derived;
import eagerneedle.core.sheet.Sheet;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The quantities that a statement's sentence is about, so that they can be drawn: the routes of {@code routes(...)},
 * the result and candidates of {@code nearest(...)}, whatever is handed to a function as quantities of one kind.
 */
final class QuantitiesOfStatement {
    private QuantitiesOfStatement() {}

    /** Labelled quantities whose units fit each other; none where the statement is about something else. */
    static List<Reduction.Labelled> quantities(Sheet sheet, Formula formula, Scope scope) {
        List<Reduction.Labelled> out = new ArrayList<>();
        if (!(formula.expression() instanceof Expr.Call call)) {
            return out;
        }
        String label = null;
        for (Expr.Argument a : call.arguments()) {
            if (a.value() instanceof Expr.Text t) {
                label = t.text();
            } else {
                Quantity q = quantity(a.value(), scope);
                if (q == null
                        || !out.isEmpty()
                                && !q.unit().fits(out.get(0).quantity().unit())) {
                    return List.of();
                }
                out.add(new Reduction.Labelled(label != null ? label : called(sheet, a.value()), q));
                label = null;
            }
        }
        return out.size() < 2 ? List.of() : out;
    }

    /** What a person calls a result or an input; others go by their formula. */
    private static String called(Sheet sheet, Expr e) {
        if (e instanceof Expr.Name n) {
            Derived d = sheet.results().get(n.name());
            Sheet.Input input = sheet.inputs().get(n.name());
            return d != null && d.label() != null ? d.label() : input != null ? input.label() : n.name();
        }
        return Spelling.of(e);
    }

    private static @Nullable Quantity quantity(Expr e, Scope scope) {
        try {
            return Formula.of(e).evaluate(scope) instanceof Value.Scalar s ? s.quantity() : null;
        } catch (FormulaException | NodeScope.Missing none) {
            return null;
        }
    }

    /**
     * How the quantities are bound to each other by what they share, pair by pair; empty when they share nothing to
     * speak of.
     */
    static String correlations(List<Reduction.Labelled> all) {
        List<String> words = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            for (int j = i + 1; j < all.size(); j++) {
                Quantity a = all.get(i).quantity();
                Quantity b = all.get(j).quantity();
                if (a.u() > 0 && b.u() > 0) {
                    double r = a.covariance(b) / (a.u() * b.u());
                    if (Math.abs(r) >= 0.01) {
                        words.add(Notation.sentence(
                                "%s between \u201c%s\u201d and \u201c%s\u201d",
                                Notation.plain(r, 2),
                                all.get(i).label(),
                                all.get(j).label()));
                    }
                }
            }
        }
        return words.isEmpty() ? "" : "Correlation " + String.join("; ", words) + ".";
    }
}

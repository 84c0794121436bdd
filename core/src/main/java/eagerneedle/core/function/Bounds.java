package eagerneedle.core.function;

import eagerneedle.core.fit.Curve;
import eagerneedle.core.fit.Fit;
import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.NearName;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Between what parameters may lie, as it is written: {@code tau > 0 s, n >= 1, n <= 2}.
 *
 * <p>Bounds change nothing while the data agree with them. A parameter that the data put beyond its bound stands at the
 * bound, with the uncertainty that the data alone give it, and the others are found again with it held there; a remark
 * says so. Nothing is known better because it is bounded.
 */
final class Bounds {
    /** A fit of what is sought, with what is known; {@code free} while nothing stands at a bound. */
    interface Fitting {
        Fit of(Map<String, Quantity> sought, Knowns known, boolean free);
    }

    private record Bound(String name, boolean least, Quantity at) {
        boolean isBroken(Quantity q) {
            return least ? q.value() < at.in(q.unit()) : q.value() > at.in(q.unit());
        }
    }

    private final List<Bound> bounds;

    private Bounds(List<Bound> bounds) {
        this.bounds = bounds;
    }

    /** @throws FormulaException for what is no list of comparisons of parameters with values of their units */
    static Bounds of(String text, Map<String, Quantity> start, int column) {
        List<Bound> out = new ArrayList<>();
        for (String part : text.isBlank() ? new String[0] : text.split(",")) {
            Bound b = bound(part.strip(), column);
            Quantity from = start.get(b.name);
            if (from == null) {
                throw new FormulaException(
                        column, "The fit is not to find " + b.name + NearName.hint(b.name, start.keySet()));
            }
            if (!b.at.unit().fits(from.unit())) {
                throw new FormulaException(
                        column,
                        b.name + " in " + from.unit().named() + " cannot be bounded by " + b.at.toString() + ".");
            }
            for (Bound other : out) {
                boolean crossed = other.name.equals(b.name)
                        && other.least != b.least
                        && (b.least
                                ? b.at.in(from.unit()) > other.at.in(from.unit())
                                : b.at.in(from.unit()) < other.at.in(from.unit()));
                if (crossed) {
                    throw new FormulaException(
                            column, "The bounds of " + b.name + " leave nothing: " + other.at + " and " + b.at + ".");
                }
            }
            out.add(b);
        }
        return new Bounds(out);
    }

    private static Bound bound(String part, int column) {
        try {
            if (Formula.parse(part).expression() instanceof Expr.Infix i
                    && i.left() instanceof Expr.Name n
                    && Set.of("<", "<=", ">", ">=").contains(i.op())
                    && Formula.of(i.right()).evaluate(Scope.empty("bounds")) instanceof Value.Scalar s) {
                return new Bound(n.name(), i.op().startsWith(">"), s.quantity());
            }
        } catch (FormulaException told) {
            throw wrong(column, told);
        }
        throw wrong(column, null);
    }

    private static FormulaException wrong(int column, @Nullable FormulaException cause) {
        return new FormulaException(
                column, "Bounds are written 'tau > 0 s, n <= 2': a parameter first, then a value.", cause);
    }

    /** The fit within the bounds. */
    Fit keep(Map<String, Quantity> start, Knowns knowns, Fitting fitting) {
        Fit free = fitting.of(start, knowns, true);
        Map<String, Quantity> held = new LinkedHashMap<>();
        Fit fit = free;
        for (Bound b = broken(held, fit); b != null; b = broken(held, fit)) {
            Quantity alone = free.parameters().get(free.names().indexOf(b.name));
            held.put(b.name, alone.plus(Quantity.exact(b.at.in(alone.unit()) - alone.value(), alone.unit())));
            Map<String, Quantity> left = new LinkedHashMap<>(start);
            left.keySet().removeAll(held.keySet());
            Map<String, Quantity> known = new LinkedHashMap<>(knowns.held());
            known.putAll(held);
            if (left.isEmpty()) {
                throw new FormulaException(1, "The data put every parameter beyond its bounds; no such curve fits.");
            }
            fit = fitting.of(left, new Knowns(known, knowns.columns(), knowns.points()), false);
        }
        return held.isEmpty() ? free : whole(start, held, free, fit);
    }

    private @Nullable Bound broken(Map<String, Quantity> held, Fit fit) {
        for (Bound b : bounds) {
            int k = fit.names().indexOf(b.name);
            if (k >= 0
                    && !held.containsKey(b.name)
                    && b.isBroken(fit.parameters().get(k))) {
                return b;
            }
        }
        return null;
    }

    /** The fit with all its parameters, in their order, those at their bounds among them. */
    private static Fit whole(Map<String, Quantity> start, Map<String, Quantity> held, Fit free, Fit fit) {
        List<Quantity> parameters = new ArrayList<>();
        Set<String> remarks = new LinkedHashSet<>();
        for (String name : start.keySet()) {
            Quantity at = held.get(name);
            parameters.add(at != null ? at : fit.parameters().get(fit.names().indexOf(name)));
            if (at != null) {
                remarks.add(name + " stands at its bound; the points alone give "
                        + free.parameters().get(free.names().indexOf(name)) + ".");
            }
        }
        remarks.addAll(fit.remarks());
        Curve law = free.law();
        return new Fit(
                free.model(),
                List.copyOf(start.keySet()),
                parameters,
                fit.x(),
                fit.y(),
                fit.fitted(),
                fit.xUnit(),
                fit.yUnit(),
                fit.residualSd(),
                fit.chiSquared(),
                fit.dof(),
                List.copyOf(remarks),
                law);
    }
}

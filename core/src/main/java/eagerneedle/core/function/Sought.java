package eagerneedle.core.function;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * The parameters that a fit is to find, as they are declared: {@code n = 2, I_s = 1e-17 A, c}. One without a starting
 * value is one in which the formula is linear, and gets its unit from there.
 *
 * @param start by name, in order; empty where none was given
 */
record Sought(Map<String, Optional<Quantity>> start) {
    /** @throws FormulaException for what is no list of names with values */
    static Sought of(String text, int column) {
        Map<String, Optional<Quantity>> out = new LinkedHashMap<>();
        for (String part : text.split(",")) {
            Formula f = parsed(part.strip(), column);
            boolean bare = f.defines() == null && f.expression() instanceof Expr.Name;
            String name = bare ? ((Expr.Name) f.expression()).name() : f.defines();
            Value v = bare ? null : value(f, column);
            if (name == null || name.contains(".") || !bare && !(v instanceof Value.Scalar)) {
                throw wrong(column, null);
            }
            if (out.put(name, Optional.ofNullable((Value.Scalar) v).map(Value.Scalar::quantity)) != null) {
                throw new FormulaException(column, name + " is to be found twice.");
            }
        }
        return new Sought(out);
    }

    private static Formula parsed(String part, int column) {
        try {
            return Formula.parse(part);
        } catch (FormulaException e) {
            throw wrong(column, e);
        }
    }

    private static Value value(Formula f, int column) {
        try {
            return f.evaluate(Scope.empty("find"));
        } catch (FormulaException e) {
            throw wrong(column, e);
        }
    }

    private static FormulaException wrong(int column, @Nullable FormulaException cause) {
        return new FormulaException(
                column,
                "What is to be found is written 'n = 2, I_s = 1e-17 A', or 'a, b' where the model is linear.",
                cause);
    }

    List<String> names() {
        return List.copyOf(start.keySet());
    }

    /**
     * All with starting values: those that have none are 0 in the unit that makes their term one of the ordinate.
     *
     * @param model the formula
     * @param unitOf the unit of a formula in which none of them stands
     */
    Map<String, Quantity> complete(Expr model, LabUnit y, Function<Expr, LabUnit> unitOf, int column) {
        Map<String, Quantity> out = new LinkedHashMap<>();
        List<Expr> terms = new ArrayList<>();
        terms(model, terms);
        start.forEach((name, given) -> out.put(name, given.orElseGet(() -> {
            Expr factor = terms.stream()
                    .map(t -> without(t, name))
                    .flatMap(Optional::stream)
                    .findFirst()
                    .orElseThrow(() -> new FormulaException(
                            column,
                            "The model is not linear in " + name + "; give it a value to start from, such as '" + name
                                    + " = 1 V'."));
            LabUnit unit = y.coherent().per(unitOf.apply(factor));
            return Quantity.exact(0, factor instanceof Expr.Literal ? y : unit);
        })));
        return out;
    }

    private static void terms(Expr e, List<Expr> out) {
        if (e instanceof Expr.Infix i && (i.op().equals("+") || i.op().equals("-"))) {
            terms(i.left(), out);
            terms(i.right(), out);
        } else if (e instanceof Expr.Prefix p && !p.op().equals("not")) {
            terms(p.operand(), out);
        } else {
            out.add(e);
        }
    }

    /** What a name is multiplied by in a term; empty where it is not, or where another parameter stands too. */
    private Optional<Expr> without(Expr term, String name) {
        Expr one = Formula.parse("1").expression();
        if (term instanceof Expr.Name n) {
            return n.name().equals(name) ? Optional.of(one) : Optional.empty();
        }
        if (term instanceof Expr.Infix i && i.op().equals("*")) {
            Optional<Expr> left = without(i.left(), name);
            if (left.isPresent() && isFree(i.right())) {
                return Optional.of(times(left.get(), i.right(), "*", i.column()));
            }
            Optional<Expr> right = without(i.right(), name);
            return right.isPresent() && isFree(i.left())
                    ? Optional.of(times(i.left(), right.get(), "*", i.column()))
                    : Optional.empty();
        }
        if (term instanceof Expr.Infix i && i.op().equals("/") && isFree(i.right())) {
            return without(i.left(), name).map(l -> times(l, i.right(), "/", i.column()));
        }
        return Optional.empty();
    }

    private static Expr times(Expr a, Expr b, String op, int column) {
        return new Expr.Infix(op, a, b, column);
    }

    private boolean isFree(Expr e) {
        Set<String> names = Formula.of(e).names();
        return names.stream().noneMatch(start::containsKey);
    }
}

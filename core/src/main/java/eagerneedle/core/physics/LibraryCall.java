package eagerneedle.core.physics;

import eagerneedle.core.formula.Expr;
import eagerneedle.core.formula.Formula;
import eagerneedle.core.formula.FormulaException;
import eagerneedle.core.formula.Scope;
import eagerneedle.core.formula.Value;
import eagerneedle.core.physics.Code.Part;
import eagerneedle.core.quantity.LabUnit;
import eagerneedle.core.quantity.Quantity;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** A function of the language that has no arithmetic of its own here, such as the law of a thermocouple. */
final class LibraryCall implements Code {
    private final Formula formula;
    private final List<Part> parts;
    private final LabUnit unit;

    private LibraryCall(Formula formula, List<Part> parts, LabUnit unit) {
        this.formula = formula;
        this.parts = parts;
        this.unit = unit;
    }

    /**
     * @param call its arguments are texts and the names {@code argument_0}, {@code argument_1}, ...
     * @param parts those arguments
     * @param now a moment at which it is tried, to learn its unit
     * @throws FormulaException for a function that is not known or has no value now
     */
    static LibraryCall of(Expr.Call call, List<Part> parts, Moment now) {
        Formula formula = new Formula(call.function(), null, call);
        formula.checkCalls();
        LabUnit found = new LibraryCall(formula, parts, LabUnit.ONE).value(now).unit();
        return new LibraryCall(formula, parts, found.coherent());
    }

    LabUnit unit() {
        return unit;
    }

    @Override
    public double at(Moment m) {
        Quantity q = value(m);
        return q.unit().convert(q.value(), unit);
    }

    private Quantity value(Moment m) {
        Map<String, Value> values = new HashMap<>();
        for (int i = 0; i < parts.size(); i++) {
            Part p = parts.get(i);
            values.put("argument_" + i, new Value.Scalar(Quantity.exact(p.code().at(m), p.unit())));
        }
        if (formula.evaluate(Scope.over("rig", values)) instanceof Value.Scalar s) {
            return s.quantity();
        }
        throw new FormulaException(formula.expression().column(), "One quantity is needed here.");
    }
}

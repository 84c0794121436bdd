package eagerneedle.core.formula;

import java.util.Map;
import java.util.ServiceLoader;

/** Calls of functions in formulas: checked as they are written, and carried out. */
final class Calls {
    static final Library LIBRARY = ServiceLoader.load(Library.class, Library.class.getClassLoader())
            .findFirst()
            .orElseThrow(() -> new IllegalStateException("There is no library of functions on the class path."));

    private Calls() {}

    /**
     * Checks every call in a formula as it is written, whatever the values will be.
     *
     * @throws FormulaException for a function that is not known, and for arguments that do not go with it
     */
    static void check(Expr e) {
        if (e instanceof Expr.Call c) {
            function(c).check(c);
            c.arguments().forEach(a -> check(a.value()));
        } else if (e instanceof Expr.Prefix p) {
            check(p.operand());
        } else if (e instanceof Expr.Infix i) {
            check(i.left());
            check(i.right());
        }
    }

    private static Function function(Expr.Call call) {
        Map<String, Function> all = LIBRARY.functions();
        Function f = all.get(call.function());
        if (f == null) {
            throw new FormulaException(
                    call.column(),
                    "There is no function " + call.function() + NearName.hint(call.function(), all.keySet()));
        }
        return f;
    }

    static Value call(Evaluator evaluator, Expr.Call call) {
        Arguments arguments = new Arguments(evaluator, call, function(call));
        try {
            Value v = LIBRARY.call(call.function(), arguments);
            arguments.ignored();
            return v;
        } catch (AbsentException nothing) {
            return new Value.None();
        }
    }
}

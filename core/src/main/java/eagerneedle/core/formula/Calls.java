package eagerneedle.core.formula;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.ServiceLoader;
import java.util.Set;

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
            models(c);
            c.arguments().forEach(a -> check(a.value()));
        } else if (e instanceof Expr.Prefix p) {
            check(p.operand());
        } else if (e instanceof Expr.Infix i) {
            check(i.left());
            check(i.right());
        }
    }

    /** Models in quotes are formulas too; what is wrong in one is told where it stands. */
    private static void models(Expr.Call c) {
        for (Expr.Argument a : c.arguments()) {
            Parameter p =
                    a.name() == null ? null : function(c).parameter(a.name()).orElse(null);
            if (p != null
                    && p.kind() == Parameter.Kind.MODEL
                    && a.value() instanceof Expr.Text t
                    && !t.text().isEmpty()) {
                try {
                    check(Formula.parse(t.text()).expression());
                } catch (FormulaException inner) {
                    throw new FormulaException(t.column() + inner.column(), inner.getMessage(), inner);
                }
            }
        }
    }

    /** The call with names for texts where only a text can stand: {@code window: fall} needs no quotes. */
    static Expr.Call withTexts(Expr.Call c) {
        // Null while the library itself is being loaded, whose own formulas are written with quotes.
        Function f = LIBRARY == null ? null : LIBRARY.functions().get(c.function());
        if (f == null) {
            return c;
        }
        List<Expr.Argument> out = new ArrayList<>();
        int without = 0;
        for (Expr.Argument a : c.arguments()) {
            int at = a.name() == null ? f.position(without++) : f.index(a.name());
            boolean text =
                    at >= 0 && f.parameters().get(at).kind() == Parameter.Kind.WORDS && a.value() instanceof Expr.Name;
            out.add(
                    text
                            ? new Expr.Argument(
                                    a.name(),
                                    new Expr.Text(
                                            ((Expr.Name) a.value()).name(),
                                            a.value().column()))
                            : a);
        }
        return new Expr.Call(c.function(), List.copyOf(out), c.column());
    }

    /**
     * Names that stand in the models of a call and are neither sought nor its own: {@code x}, {@code t}, and what its
     * other arguments are called.
     */
    static Set<String> namesInModels(Expr.Call c) {
        Function f = LIBRARY.functions().get(c.function());
        if (f == null || !has(f, c, Parameter.Kind.SOUGHT)) {
            return Set.of();
        }
        Set<String> names = new LinkedHashSet<>();
        Set<String> own = new LinkedHashSet<>(Set.of("x", "t"));
        int without = 0;
        for (Expr.Argument a : c.arguments()) {
            int at = a.name() == null ? f.position(without++) : f.index(a.name());
            Parameter.Kind kind =
                    at < 0 ? Parameter.Kind.ANY : f.parameters().get(at).kind();
            if (a.value() instanceof Expr.Text t && kind == Parameter.Kind.MODEL) {
                names.addAll(names(t.text()));
            } else if (a.value() instanceof Expr.Text t && kind == Parameter.Kind.SOUGHT) {
                for (String part : t.text().split(",")) {
                    own.add(part.replaceFirst("=.*", "").strip());
                }
            }
        }
        names.removeAll(own);
        return names;
    }

    /** Names in a model; none in one that cannot be read, which is told when calls are checked. */
    private static Set<String> names(String model) {
        try {
            return model.isEmpty() ? Set.of() : Formula.parse(model).names();
        } catch (FormulaException e) {
            return Set.of();
        }
    }

    private static boolean has(Function f, Expr.Call c, Parameter.Kind kind) {
        return c.arguments().stream()
                .anyMatch(a -> a.name() != null
                        && f.parameter(a.name()).filter(p -> p.kind() == kind).isPresent());
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

package eagerneedle.core.formula;

import eagerneedle.core.quantity.Quantity;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * The functions of the formula language, each with its signature, what it takes and gives, and an example that runs.
 *
 * <p>They are defined in groups by what they are about; this is the table they are all found in, and the page of the
 * language is made from it.
 */
public final class Functions {
    interface Body {
        Value apply(Arguments a);
    }

    private record Definition(Function function, Body body) {}

    private static final Map<String, Definition> TABLE = new TreeMap<>();

    static {
        BasicFunctions.define();
        StatisticsFunctions.define();
        TraceFunctions.define();
        FitFunctions.define();
        ReadingFunctions.define();
        ReferenceFunctions.define();
        JudgeFunctions.define();
    }

    private Functions() {}

    /** All functions by name, for documents and help. */
    public static Map<String, Function> documented() {
        Map<String, Function> out = new LinkedHashMap<>();
        TABLE.forEach((name, d) -> out.put(name, d.function()));
        return out;
    }

    /** The function of that name, if there is one. */
    static Optional<Function> named(String name) {
        return Optional.ofNullable(TABLE.get(name)).map(Definition::function);
    }

    /**
     * Checks every call in a formula as it is written, whatever the values will be.
     *
     * @throws FormulaException for a function that is not known, and for arguments that do not go with it
     */
    static void check(Expr e) {
        if (e instanceof Expr.Call c) {
            definition(c).function().check(c);
            c.arguments().forEach(a -> check(a.value()));
        } else if (e instanceof Expr.Prefix p) {
            check(p.operand());
        } else if (e instanceof Expr.Infix i) {
            check(i.left());
            check(i.right());
        }
    }

    /** The table of functions in docs/formula-language.md, one row a function. */
    public static String markdown() {
        StringBuilder b = new StringBuilder("| function | takes | gives | example | prints |\n|---|---|---|---|---|\n");
        documented()
                .values()
                .forEach(e -> b.append("| `")
                        .append(e.signature().replace("|", "\\|"))
                        .append("` | ")
                        .append(e.takes())
                        .append(" | ")
                        .append(e.gives())
                        .append(" | `")
                        .append(e.example())
                        .append("` | `")
                        .append(e.prints())
                        .append("` |\n"));
        return b.toString();
    }

    /** A value as {@code eval} prints it. */
    public static String shown(Value v) {
        return v instanceof Value.Scalar s
                ? s.quantity().toString()
                : v instanceof Value.Column c
                        ? c.rows().stream().map(Quantity::toString).collect(Collectors.joining(", "))
                        : v instanceof Value.Words w
                                ? w.text()
                                : v instanceof Value.Fitted f
                                        ? shown(f.fit().names(), f.fit().parameters())
                                        : v.described();
    }

    private static String shown(java.util.List<String> names, java.util.List<Quantity> values) {
        StringBuilder b = new StringBuilder();
        for (int i = 0; i < names.size(); i++) {
            b.append(i == 0 ? "" : ", ").append(names.get(i)).append(" = ").append(values.get(i));
        }
        return b.toString();
    }

    private static Definition definition(Expr.Call call) {
        Definition d = TABLE.get(call.function());
        if (d == null) {
            throw new FormulaException(
                    call.column(),
                    "There is no function " + call.function() + NearName.hint(call.function(), TABLE.keySet()));
        }
        return d;
    }

    static Value call(Evaluator evaluator, Expr.Call call) {
        Definition d = definition(call);
        Arguments arguments = new Arguments(evaluator, call, d.function());
        Value v = d.body().apply(arguments);
        arguments.ignored();
        return v;
    }

    static void define(Function function, Body body) {
        TABLE.put(function.name(), new Definition(function, body));
    }

    static Value scalar(Quantity q) {
        return new Value.Scalar(q);
    }
}

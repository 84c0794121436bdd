package eagerneedle.core.formula;

import eagerneedle.core.quantity.Quantity;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * The functions of the formula language, each with its signature, what it takes and gives, and an example that runs.
 *
 * <p>They are defined in groups by what they are about; this is the table they are all found in, and the page of the language is
 * made from it.
 */
public final class Functions {
    /**
     * One function as documented.
     *
     * @param signature how it is written; names before a colon are arguments given by name, with their usual value
     * @param takes     arguments with their units
     * @param gives     result with its unit
     * @param example   a formula that runs on its own
     * @param prints    what the example prints
     */
    public record Entry(String signature, String takes, String gives, String example, String prints) {
    }

    interface Body {
        Value apply(Arguments a);
    }

    private record Definition(Entry entry, Body body) {
    }

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

    private Functions() {
    }

    /** All functions by name, for documents and help. */
    public static Map<String, Entry> documented() {
        Map<String, Entry> out = new LinkedHashMap<>();
        TABLE.forEach((name, d) -> out.put(name, d.entry()));
        return out;
    }

    /** The table of functions in docs/formula-language.md, one row a function. */
    public static String markdown() {
        StringBuilder b = new StringBuilder("| function | takes | gives | example | prints |\n|---|---|---|---|---|\n");
        documented().values().forEach(e -> b.append("| `").append(e.signature().replace("|", "\\|")).append("` | ").append(e.takes()).append(" | ").append(e.gives())
                .append(" | `").append(e.example()).append("` | `").append(e.prints()).append("` |\n"));
        return b.toString();
    }

    /** A value as {@code eval} prints it. */
    public static String shown(Value v) {
        return v instanceof Value.Scalar s ? s.quantity().toString()
                : v instanceof Value.Column c ? c.rows().stream().map(Quantity::toString).collect(Collectors.joining(", "))
                : v instanceof Value.Words w ? w.text()
                : v instanceof Value.Fitted f ? shown(f.fit().names(), f.fit().parameters()) : v.described();
    }

    private static String shown(java.util.List<String> names, java.util.List<Quantity> values) {
        StringBuilder b = new StringBuilder();
        for (int i = 0; i < names.size(); i++) {
            b.append(i == 0 ? "" : ", ").append(names.get(i)).append(" = ").append(values.get(i));
        }
        return b.toString();
    }

    static Value call(Evaluator evaluator, Expr.Call call) {
        Definition d = TABLE.get(call.function());
        if (d == null) {
            throw new FormulaException(call.column(), "There is no function " + call.function() + NearName.hint(call.function(), TABLE.keySet()));
        }
        return d.body().apply(new Arguments(evaluator, call, d.entry().signature()));
    }

    static void define(String signature, String takes, String gives, String example, String prints, Body body) {
        TABLE.put(signature.substring(0, signature.indexOf('(')), new Definition(new Entry(signature, takes, gives, example, prints), body));
    }

    static Value scalar(Quantity q) {
        return new Value.Scalar(q);
    }
}

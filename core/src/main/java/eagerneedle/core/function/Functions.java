package eagerneedle.core.function;

import eagerneedle.core.formula.Arguments;
import eagerneedle.core.formula.Function;
import eagerneedle.core.formula.Library;
import eagerneedle.core.formula.Value;
import eagerneedle.core.quantity.Quantity;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;

/**
 * The functions of the formula language, each with its signature, what it takes and gives, and an example that runs.
 *
 * <p>They are defined in groups by what they are about; this is the table they are all found in, and the page of the
 * language is made from it.
 */
public final class Functions implements Library {
    interface Body {
        Value apply(Arguments a);
    }

    private record Definition(Function function, Body body) {}

    private static final Map<String, Definition> TABLE = new TreeMap<>();

    static {
        BasicFunctions.define();
        RoundingFunctions.define();
        RowFunctions.define();
        StatisticsFunctions.define();
        TraceFunctions.define();
        FitFunctions.define();
        ReadingFunctions.define();
        PickedFunctions.define();
        ReferenceFunctions.define();
        JudgeFunctions.define();
        GroupFunctions.define();
    }

    private static final Map<String, Function> FUNCTIONS = described();

    private static Map<String, Function> described() {
        Map<String, Function> out = new LinkedHashMap<>();
        TABLE.forEach((name, d) -> out.put(name, d.function()));
        return Collections.unmodifiableMap(out);
    }

    @Override
    public Map<String, Function> functions() {
        return FUNCTIONS;
    }

    @Override
    public Value call(String name, Arguments arguments) {
        return Objects.requireNonNull(TABLE.get(name), name).body().apply(arguments);
    }

    /** The table of functions in docs/formula-language.md, one row a function. */
    public static String markdown() {
        StringBuilder b = new StringBuilder("| function | takes | gives | example | prints |\n|---|---|---|---|---|\n");
        FUNCTIONS
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

    static void define(Function function, Body body) {
        TABLE.put(function.name(), new Definition(function, body));
    }

    static Value scalar(Quantity q) {
        return new Value.Scalar(q);
    }
}

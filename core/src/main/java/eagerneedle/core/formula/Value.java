package eagerneedle.core.formula;

import eagerneedle.core.fit.Fit;
import eagerneedle.core.quantity.Quantity;
import eagerneedle.core.trace.Trace;
import eagerneedle.core.trace.Window;
import java.util.List;
import java.util.function.BinaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** What a formula can give: a quantity, a column of quantities, a trace, a fit, words, or true and false. */
public sealed interface Value {
    /** For messages: "a column of 5 values". */
    String described();

    /** The value as {@code eval} prints it. */
    default String shown() {
        return described();
    }

    record Scalar(Quantity quantity) implements Value {
        @Override
        public String shown() {
            return quantity.toString();
        }

        @Override
        public String described() {
            return "the quantity " + quantity;
        }
    }

    /** Quantities in rows; {@code labels} says what the rows are, and is null for a column that was written out. */
    record Column(List<Quantity> rows, @Nullable RowLabels labels) implements Value {
        public Column {
            rows = List.copyOf(rows);
        }

        public Column(List<Quantity> rows) {
            this(rows, null);
        }

        @Override
        public String shown() {
            return rows.stream().map(Quantity::toString).collect(Collectors.joining(", "));
        }

        @Override
        public String described() {
            return "a column of " + rows.size() + " values";
        }
    }

    /** A trace; {@code ends} is the window it was cut out by, where that is uncertain, otherwise null. */
    record Signal(Trace trace, @Nullable Ends ends) implements Value {
        public Signal(Trace trace) {
            this(trace, null);
        }

        @Override
        public String described() {
            return "the trace " + trace.name();
        }
    }

    record Fitted(Fit fit) implements Value {
        @Override
        public String shown() {
            return IntStream.range(0, fit.names().size())
                    .mapToObj(i -> fit.names().get(i) + " = " + fit.parameters().get(i))
                    .collect(Collectors.joining(", "));
        }

        @Override
        public String described() {
            return "a fit of a " + fit.model();
        }
    }

    /** The uncertain ends of a window, in s, and the trace it was cut out of. */
    record Ends(Trace whole, Quantity from, Quantity to) {}

    /** A window on a trace. */
    record Span(
            Window window,
            @Nullable Quantity from,
            @Nullable Quantity to) implements Value {
        public Span(Window window) {
            this(window, null, null);
        }

        @Override
        public String described() {
            return "a window from " + window.from() + " s to " + window.to() + " s";
        }
    }

    /**
     * A sentence. Members of sets are kept in it apart from its words, so that people read what they are called.
     *
     * @param written with {@link #member members} in it
     */
    record Words(String written) implements Value {
        private static final Pattern MEMBER = Pattern.compile("\uE000([^\uE001]*)\uE001([^\uE002]*)\uE002");

        /** A member of a set, as it stands in a sentence. */
        public static String member(String set, String member) {
            return "\uE000" + set + "\uE001" + member + "\uE002";
        }

        /** The sentence with the names that formulas have for members. */
        public String text() {
            return said((set, member) -> member);
        }

        /** @param called what people call a member of a set */
        public String said(BinaryOperator<String> called) {
            return MEMBER.matcher(written)
                    .replaceAll(m -> Matcher.quoteReplacement(called.apply(m.group(1), m.group(2))));
        }

        @Override
        public String shown() {
            return text();
        }

        @Override
        public String described() {
            return "the text \"" + text() + "\"";
        }
    }

    record Truth(boolean holds) implements Value {
        @Override
        public String described() {
            return holds ? "true" : "false";
        }
    }

    /** What is absent: {@code none}, or what it makes of a formula. Columns have no row for it. */
    record None() implements Value {
        @Override
        public String shown() {
            return "none";
        }

        @Override
        public String described() {
            return "none";
        }
    }

    /** What cannot be decided, because something that it asks for is absent. */
    record Undecided() implements Value {
        @Override
        public String shown() {
            return "cannot tell";
        }

        @Override
        public String described() {
            return "a comparison that cannot be decided";
        }
    }

    /** Comparisons in rows. */
    record Truths(List<Boolean> rows, @Nullable RowLabels labels) implements Value {
        public Truths {
            rows = List.copyOf(rows);
        }

        @Override
        public String shown() {
            return rows.stream().map(String::valueOf).collect(Collectors.joining(", "));
        }

        @Override
        public String described() {
            return "a column of " + rows.size() + " comparisons";
        }
    }
}

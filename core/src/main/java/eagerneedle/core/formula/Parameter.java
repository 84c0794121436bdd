package eagerneedle.core.formula;

import org.jspecify.annotations.Nullable;

/**
 * One argument of a {@link Function}, as declared: the only place that knows its name, what it takes and its usual
 * value.
 *
 * @param name how it is named in a call
 * @param kind what it takes
 * @param usual its value when it is not given, as a formula; null when it has none
 * @param optional true when it may be left out
 * @param unit a unit that a quantity given for it must fit, or null when any will do or another argument decides
 */
public record Parameter(
        String name,
        Kind kind,
        @Nullable String usual,
        boolean optional,
        @Nullable String unit) {
    /** What an argument can be, in words for messages and documents. */
    public enum Kind {
        QUANTITY("a quantity"),
        NUMBER("a pure number"),
        WORDS("a text in quotes"),
        MODEL("a formula in quotes"),
        SOUGHT("names in quotes, with values to start from"),
        CONDITION("a comparison"),
        COLUMN("a column"),
        TRACE("a trace"),
        FIT("a fit"),
        QUANTITIES("a quantity or a column"),
        ROWS("a column, or quantities of one kind"),
        ROWS_OR_TRACE("a column, quantities of one kind, or a trace"),
        COLUMN_OR_TRACE("a column or a trace"),
        POINTS("a column, a trace or a fit"),
        ANY("any value");

        private final String words;

        Kind(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    public static Parameter of(Kind kind, String name) {
        return new Parameter(name, kind, null, false, null);
    }

    public static Parameter quantity(String name) {
        return of(Kind.QUANTITY, name);
    }

    public static Parameter quantities(String name) {
        return of(Kind.QUANTITIES, name);
    }

    public static Parameter number(String name) {
        return of(Kind.NUMBER, name);
    }

    public static Parameter words(String name) {
        return of(Kind.WORDS, name);
    }

    /** A formula in quotes, whose names are those of the formula around it but for what is sought. */
    public static Parameter model(String name) {
        return of(Kind.MODEL, name).saying("");
    }

    /** The names that mean what is to be found in every model beside it. */
    public static Parameter sought(String name) {
        return of(Kind.SOUGHT, name).orNone();
    }

    public static Parameter column(String name) {
        return of(Kind.COLUMN, name);
    }

    public static Parameter rows(String name) {
        return of(Kind.ROWS, name);
    }

    public static Parameter trace(String name) {
        return of(Kind.TRACE, name);
    }

    public static Parameter fit(String name) {
        return of(Kind.FIT, name);
    }

    /** Taken so when it is not given. */
    public Parameter usually(String formula) {
        return new Parameter(name, kind, formula, true, unit);
    }

    /** This text when it is not given. */
    public Parameter saying(String text) {
        return usually('"' + text + '"');
    }

    /** May be left out, and then is not there at all. */
    public Parameter orNone() {
        return new Parameter(name, kind, null, true, unit);
    }

    /** Must fit this unit. */
    public Parameter in(String symbol) {
        return new Parameter(name, kind, usual, optional, symbol);
    }

    /** How it stands in a signature. */
    public String written() {
        return usual != null ? name + ": " + usual : kind == Kind.WORDS ? '"' + name + '"' : name;
    }
}

package eagerneedle.app.widget;

/**
 * What stands in one cell of a table, without the window that shows it.
 *
 * @param text as it is read
 * @param look how it is set
 * @param says what it means, when the pointer rests on it; empty when the text says it all
 */
public record Cell(String text, Look look, String says) {
    /** How the text of a cell is set. */
    public enum Look {
        PLAIN(""),
        QUIET("quiet"),
        STRONG("strong"),
        SECTION("section"),
        WRAPPED(""),
        /** In figures of one width, each on its own. */
        DIGITS("figure"),
        /** On the decimal point of its column. */
        FIGURE("figure"),
        /** The same, at the right of its column. */
        RIGHT("figure");

        private final String style;

        Look(String style) {
            this.style = style;
        }

        String style() {
            return style;
        }
    }

    public static Cell plain(String text) {
        return new Cell(text, Look.PLAIN, "");
    }

    public static Cell quiet(String text) {
        return new Cell(text, Look.QUIET, "");
    }

    public static Cell figure(String text) {
        return new Cell(text, Look.FIGURE, "");
    }

    public static Cell right(String text) {
        return new Cell(text, Look.RIGHT, "");
    }

    public Cell saying(String words) {
        return new Cell(text, look, words);
    }
}

package eagerneedle.report;

/** Paper sizes. */
public enum Paper {
    A4("A4"),
    LETTER("letter");

    private final String css;

    Paper(String css) {
        this.css = css;
    }

    String css() {
        return css;
    }
}

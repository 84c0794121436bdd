package eagerneedle.app.widget;

/** Something that is said, and how; a value, so that a list of them can be compared and tested without a window. */
public record Sentence(Kind kind, String words) {
    /** How it is set. */
    public enum Kind {
        SECTION("section", ""),
        PLAIN("", ""),
        QUIET("quiet", ""),
        GOOD("good", "✓ "),
        ATTENTION("attention", "▲ ");

        private final String style;
        private final String mark;

        Kind(String style, String mark) {
            this.style = style;
            this.mark = mark;
        }

        String style() {
            return style;
        }

        String mark() {
            return mark;
        }
    }

    public static Sentence section(String words) {
        return new Sentence(Kind.SECTION, words);
    }

    public static Sentence plain(String words) {
        return new Sentence(Kind.PLAIN, words);
    }

    public static Sentence quiet(String words) {
        return new Sentence(Kind.QUIET, words);
    }

    public static Sentence good(String words) {
        return new Sentence(Kind.GOOD, words);
    }

    public static Sentence attention(String words) {
        return new Sentence(Kind.ATTENTION, words);
    }

    /** As it is read: its mark, so that colour never says anything alone, and its words. */
    public String read() {
        return kind.mark() + words;
    }
}

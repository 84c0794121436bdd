package eagerneedle.picture;

/**
 * The roles colours play, in pictures and in the window alike; a theme gives each its colour. Traces are told apart by
 * marker as well. INK, QUIET, NEEDLE, GOOD and ATTENTION are read as words on PAPER, SURFACE, CHOSEN, TINT and WINDOW:
 * at least 4.5:1 on each (WCAG 2.2, 1.4.3).
 */
public enum Ink {
    PAPER("#FAF8F3", "#14181D"),
    SURFACE("#FFFFFF", "#1B2027"),
    RULE("#E2DDD1", "#353C46"),
    EDGE("#858E97", "#6F7984"),
    INK("#1C2733", "#E8E4DA"),
    QUIET("#5A6570", "#A3ADB7"),
    NEEDLE("#C23C26", "#F67B63"),
    CHOSEN("#F1EDE2", "#2A2F33"),
    TINT("#F7F3E9", "#20262D"),
    WINDOW("#FBEEEA", "#33221F"),
    BAND("#CFE4D3", "#27443A"),
    GOOD("#27704D", "#6FBF95"),
    ATTENTION("#8A5900", "#E3A93C"),
    REACH("#E9EDF3", "#2A313B"),
    TRACE1("#1F6FB2", "#5FA8E6"),
    TRACE2("#B5562B", "#E58B5E"),
    TRACE3("#2E8B74", "#5CC2A8"),
    TRACE4("#7A4FA3", "#B48ADC"),
    TRACE5("#8F7300", "#D6B82E"),
    TRACE6("#5B6770", "#A7B3BC"),
    TRACE7("#B0327A", "#E673B0"),
    TRACE8("#2B7FB0", "#7CC4F2");

    private final String light;
    private final String dark;

    Ink(String light, String dark) {
        this.light = light;
        this.dark = dark;
    }

    /** The colour as {@code #RRGGBB}. */
    public String web(boolean inTheDark) {
        return inTheDark ? dark : light;
    }

    /** Ink of trace i, from 0; repeats after eight. */
    public static Ink trace(int i) {
        return values()[TRACE1.ordinal() + Math.floorMod(i, 8)];
    }
}

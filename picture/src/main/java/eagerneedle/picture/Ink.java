package eagerneedle.picture;

/** The roles colours play; a theme gives each its colour. Traces are told apart by marker as well. */
public enum Ink {
    PAPER("#FAF8F3", "#14181D"),
    SURFACE("#FFFFFF", "#1B2027"),
    RULE("#E2DDD1", "#353C46"),
    INK("#1C2733", "#E8E4DA"),
    QUIET("#626D79", "#9CA6B0"),
    NEEDLE("#D1462F", "#F0654A"),
    WINDOW("#FBEEEA", "#33221F"),
    BAND("#CFE4D3", "#27443A"),
    GOOD("#2F7D57", "#6FBF95"),
    ATTENTION("#A86F0C", "#E3A93C"),
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

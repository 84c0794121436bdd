package eagerneedle.core.marking;

import java.util.Locale;

/** What a number that was handed in is. */
public enum Verdict {
    RIGHT("right", "right", true),
    ANOTHER_WAY("another-way", "right by another way", true),
    UNIT("unit", "right number, its unit wrong or missing", false),
    POWER("power", "off by a power of ten", false),
    DIGITS("digits", "right, with more digits than its uncertainty bears", true),
    UNCERTAINTY("uncertainty", "right, its uncertainty missing or not to be believed", true),
    FOLLOWED("followed", "right, from an earlier number that is wrong", true),
    EXPLAINED("explained", "wrong, and it is known by what", false),
    UNEXPLAINED("unexplained", "wrong, and nothing that is known explains it", false),
    MISSING("missing", "not handed in", false);

    private final String id;
    private final String words;
    private final boolean number;

    Verdict(String id, String words, boolean number) {
        this.id = id;
        this.words = words;
        this.number = number;
    }

    /** As files say it. */
    public String id() {
        return id;
    }

    public String words() {
        return words;
    }

    /** True where there is nothing wrong with the number itself, or nothing that is its own fault. */
    public boolean isRightNumber() {
        return number;
    }

    /**
     * The verdict that files call so.
     *
     * @throws IllegalArgumentException for none
     */
    public static Verdict of(String id) {
        for (Verdict v : values()) {
            if (v.id.equals(id.strip().toLowerCase(Locale.ROOT))) {
                return v;
            }
        }
        throw new IllegalArgumentException(
                "'" + id + "' is no verdict; there are right, another-way, unit, power, digits,"
                        + " uncertainty, followed, explained, unexplained and missing.");
    }
}

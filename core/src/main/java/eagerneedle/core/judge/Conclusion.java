package eagerneedle.core.judge;

/** What a comparison comes to. */
public enum Conclusion {
    AGREES("agrees"),
    DIFFERS("does not agree"),
    KEEPS("keeps the bound"),
    BREAKS("breaks the bound"),
    /** The uncertainty is larger than what matters. */
    CANNOT_TELL("cannot tell");

    private final String words;

    Conclusion(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** True where the result is as it should be. */
    public boolean isGood() {
        return this == AGREES || this == KEEPS;
    }
}

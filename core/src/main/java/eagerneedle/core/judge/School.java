package eagerneedle.core.judge;

/** The three ways in which laboratories say how good a number is. */
public enum School {
    STANDARD("Standard uncertainty"),
    LIMITS("Limits"),
    PERCENT("Percent error");

    private final String label;

    School(String label) {
        this.label = label;
    }

    public String label() {
        return label;
    }
}

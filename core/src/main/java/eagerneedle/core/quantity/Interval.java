package eagerneedle.core.quantity;

/** An interval of values, both ends in one unit; {@code low <= high}. */
public record Interval(double low, double high) {
    public Interval {
        if (!(low <= high)) {
            throw new IllegalArgumentException("An interval runs upwards, not from " + low + " to " + high + ".");
        }
    }

    public double halfWidth() {
        return (high - low) / 2;
    }

    public boolean contains(double value) {
        return low <= value && value <= high;
    }

    /** How much further apart the two could lie before a gap opens between them; negative is the gap. */
    public double overlap(Interval other) {
        return Math.min(high - other.low, other.high - low);
    }
}

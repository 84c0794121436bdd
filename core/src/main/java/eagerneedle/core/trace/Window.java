package eagerneedle.core.trace;

/**
 * A span of a trace chosen for a purpose, with a reason.
 *
 * @param from first moment that belongs to it, in seconds from the start of the run
 * @param to last moment that belongs to it, in seconds
 * @param reason why it lies there: how it was proposed, or who moved it
 */
public record Window(double from, double to, String reason) {
    public Window {
        if (!(to > from)) {
            throw new IllegalArgumentException(
                    "A window must end after it starts, not run from " + from + " s to " + to + " s.");
        }
    }

    public double length() {
        return to - from;
    }

    public boolean contains(double time) {
        return time >= from && time <= to;
    }

    /** True for a window with the same edges, whatever its reason. */
    public boolean liesAs(Window other) {
        return from == other.from && to == other.to;
    }

    /** Both edges moved outwards by a share of the length; a negative share moves them inwards. */
    public Window grown(double share) {
        return new Window(from - share * length(), to + share * length(), reason);
    }
}

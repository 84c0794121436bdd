package eagerneedle.core.capture;

/**
 * Waits in a stream of samples for the event that a shot is taken of: the signal passes a level, or changes faster than
 * a rate.
 *
 * <p>A level has to be left on the other side by a margin before it can be passed again, so that noise about it does
 * not fire the trigger in place of the event.
 */
public final class Trigger {
    /** Which way the signal has to pass. */
    public enum Way {
        UP,
        DOWN,
        EITHER
    }

    private final double level;
    private final double rate;
    private final Way way;
    private final double margin;
    private final int over;
    private final double[] lastTime;
    private final double[] lastValue;
    private int seen;
    private boolean below;
    private boolean above;

    private Trigger(double level, double rate, Way way, double margin, int over) {
        this.level = level;
        this.rate = rate;
        this.way = way;
        this.margin = margin;
        this.over = over;
        this.lastTime = new double[over];
        this.lastValue = new double[over];
    }

    /**
     * Fires when the signal passes a level.
     *
     * @param margin how far on the other side it must have been before, 0 or more, same unit
     */
    public static Trigger level(double level, Way way, double margin) {
        return new Trigger(level, Double.NaN, way, margin, 1);
    }

    /**
     * Fires when the signal changes at least this fast.
     *
     * @param rate least change a second, above 0, unit of the signal a second
     * @param over samples over which the change is taken, 1 or more; more for a noisy signal
     */
    public static Trigger slope(double rate, Way way, int over) {
        if (!(rate > 0)) {
            throw new IllegalArgumentException(
                    "A trigger by slope needs a rate above 0, not " + rate + "; the way says up or down.");
        }
        return new Trigger(Double.NaN, rate, way, 0, Math.max(1, over));
    }

    /**
     * Looks at one more sample; samples come in order of time. A value that is not a number is passed over.
     *
     * @param time in s
     * @return true when the event is here
     */
    public boolean fires(double time, double value) {
        if (!Double.isFinite(value)) {
            return false;
        }
        boolean fired = Double.isNaN(rate) ? passes(value) : races(time, value);
        lastTime[seen % over] = time;
        lastValue[seen % over] = value;
        seen++;
        return fired;
    }

    private boolean passes(double value) {
        boolean up = below && value >= level && way != Way.DOWN;
        boolean down = above && value <= level && way != Way.UP;
        below = value < level - margin || below && value < level;
        above = value > level + margin || above && value > level;
        return up || down;
    }

    private boolean races(double time, double value) {
        if (seen < over) {
            return false;
        }
        double slope = (value - lastValue[seen % over]) / (time - lastTime[seen % over]);
        return way == Way.UP ? slope >= rate : way == Way.DOWN ? slope <= -rate : Math.abs(slope) >= rate;
    }
}

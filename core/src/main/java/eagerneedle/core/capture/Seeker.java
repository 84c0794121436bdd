package eagerneedle.core.capture;

/**
 * Where to turn an output next so that what is read comes to its target: from two looks where a straight line through
 * them has it (the secant), never beyond the limits and never further at once than a quarter of them. Not thread-safe.
 */
public final class Seeker {
    private static final double FIRST = 0.3;
    private static final double FURTHEST = 0.25;
    private static final double LEAST = 1e-4;

    private final double lowest;
    private final double highest;
    private final double step;
    private double before = Double.NaN;
    private double missedBefore = Double.NaN;

    /**
     * For an output.
     *
     * @param lowest smallest value it may be turned to, in its unit
     * @param highest largest
     * @param step smallest change; 0 where that is not known
     */
    public Seeker(double lowest, double highest, double step) {
        this.lowest = lowest;
        this.highest = highest;
        this.step = step;
    }

    /**
     * Where to turn it.
     *
     * @param at where it is, in its unit
     * @param missed what is read there less its target, in any unit; not a number where nothing could be read
     */
    public double next(double at, double missed) {
        double range = highest - lowest;
        double slope = (missed - missedBefore) / (at - before);
        double wished = at - missed / slope;
        if (!Double.isFinite(wished)) {
            wished = at + FIRST * range * (at + FIRST * range > highest ? -1 : 1);
        }
        double next = Math.max(at - FURTHEST * range, Math.min(at + FURTHEST * range, wished));
        before = at;
        missedBefore = missed;
        double turned = held(next);
        return turned == at ? held(at + Math.max(step, LEAST * range)) : turned;
    }

    private double held(double v) {
        return Math.max(lowest, Math.min(highest, step > 0 ? Math.rint(v / step) * step : v));
    }
}
